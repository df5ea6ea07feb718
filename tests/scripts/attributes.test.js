// What one script listens for in all of the page by an attribute alone, no other script gives to
// something else: a bead that stood "beside" a value opened the takes side by side.

import assert from "node:assert/strict";
import { readdirSync, readFileSync } from "node:fs";
import { test } from "node:test";

const FOLDER = new URL("../../web/static/js/workbench/", import.meta.url);
// What is the same thing wherever it stands, or is drawn by one script for the hands of another.
const SHARED = new Set(["layer", "span", "move-span", "grip", "curve", "curve-eye"]);

const scripts = readdirSync(FOLDER)
  .filter((name) => name.endsWith(".js"))
  .map((name) => [name, readFileSync(new URL(name, FOLDER), "utf8")]);

const camel = (name) => name.replace(/-(.)/g, (_, letter) => letter.toUpperCase());

/** Whether a script gives an attribute to elements that it makes or shows. */
const gives = (text, name) =>
  new RegExp(
    [`dataset\\.${camel(name)} \\??\\??=[^=]`, `["\`' ]data-${name}["=]`, `dataset, {[^}]*\\b${camel(name)}:`].join(
      "|",
    ),
  ).test(text.replace(/(closest|querySelector(All)?|matches)\([^)]*\)/g, ""));

test("an attribute that is listened for is given by its own script and by templates alone", () => {
  const found = [];
  for (const [listener, text] of scripts)
    for (const [, name] of text.matchAll(/closest\("\[data-([a-z-]+)\]"\)/g))
      for (const [giver, other] of scripts)
        if (giver !== listener && !SHARED.has(name) && gives(other, name)) found.push(`${name}: ${listener}, ${giver}`);
  assert.deepEqual([...new Set(found)], []);
});
