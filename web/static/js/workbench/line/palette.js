// The palette: any command, layer, move or preset by its name (Ctrl+K); "?" lists all with their keys.

import { tell } from "../../page.js";
import { select } from "../edits/pending.js";
import { COMMANDS, ofLayer } from "./commands.js";
import { addPreset } from "./gallery.js";
import { meaning, sayIt } from "./say.js";

const OPENING = [
  ["Find a command or a layer", "Ctrl K", null],
  ["All commands with their keys", "?", null],
];

let chosen = 0;
let found = [];
let sentence = null; // what is typed, if it is a sentence: the text, and the command that makes it

const palette = () => document.getElementById("palette");
const field = () => document.getElementById("palette-field");

function entries() {
  const layers = [...document.querySelectorAll(".slab")].map((slab) => [
    `Layer: ${nameOf(slab)}`,
    "",
    () => select({ layer: slab.dataset.layer, letters: null, move: "" }),
  ]);
  const moves = [...document.querySelectorAll(".move")].map((card) => [
    `Move: ${card.querySelector(".move__name").value}`,
    "",
    () => select({ move: card.dataset.move }),
  ]);
  const presets = [...document.querySelectorAll("[data-add-move]")].map((card) => [
    `Add: ${card.querySelector(".gcard__name").textContent}`,
    "",
    ofLayer(() => addPreset(card.dataset.addMove)),
  ]);
  const shapes = [...document.querySelectorAll('[data-do*="add-shape"]')].map((button) => [
    `Add a shape: ${button.textContent}`,
    "",
    () => button.click(),
  ]);
  return [...COMMANDS, ...OPENING, ...shapes, ...layers, ...moves, ...presets];
}

/** What a layer is called in the list of layers. */
function nameOf(slab) {
  const field = slab.querySelector(".slab__text, .slab__name");
  return field.value.trim() || (field.matches(".slab__text") ? "empty title" : field.placeholder);
}

function list() {
  const words = field().value.toLowerCase().split(/\s+/).filter(Boolean);
  const called = (name, also) => words.every((word) => `${name} ${also}`.toLowerCase().includes(word));
  const all = entries();
  const named = all.filter(([name]) => called(name, ""));
  const meant = all.filter(([name, , , also = ""]) => !called(name, "") && called(name, also));
  found = [...named, ...meant];
  if (sentence?.text === field().value) found.push(sentence.command); // last: what is chosen stays so
  chosen = Math.max(0, Math.min(chosen, found.length - 1));
  const items = found.map(([name, keys], index) => {
    const item = document.createElement("li");
    item.id = `command-${index}`;
    item.setAttribute("role", "option");
    item.setAttribute("aria-selected", String(index === chosen));
    item.dataset.command = index;
    item.append(
      Object.assign(document.createElement("span"), { textContent: name }),
      Object.assign(document.createElement("kbd"), { textContent: keys }),
    );
    return item;
  });
  if (!items.length)
    items.push(
      Object.assign(document.createElement("li"), {
        className: "palette__none",
        textContent: "Nothing is called that.",
      }),
    );
  document.getElementById("palette-list").replaceChildren(...items);
  field().setAttribute("aria-activedescendant", found.length ? `command-${chosen}` : "");
  document.getElementById(`command-${chosen}`)?.scrollIntoView({ block: "nearest" });
}

/** Whether what is typed is a sentence, or asks something: then that, or the guide, is listed last. */
async function ask() {
  const text = field().value;
  if (!/\w\s*\S/.test(text)) return;
  const answer = await meaning(text);
  if (!(answer?.said || answer?.answer) || text !== field().value) return;
  const command = answer.said
    ? [`Say: ${answer.said}`, "Enter", () => say(text)]
    : [`The guide: ${answer.answer.text}`, "Enter", () => open(answer.answer.address)];
  sentence = { text, command };
  list();
}

/** Says what is typed. If it is no sentence, it is told why, and stays to be put right. */
function say(text) {
  const refused = (message) => {
    tell(message);
    if (!palette().open) openPalette(text);
  };
  sayIt(text, { refused });
}

export function openPalette(text = "") {
  chosen = 0;
  field().value = text;
  palette().showModal();
  list();
}

/** Does what is chosen. What no command is called may be a sentence that was typed at once. */
function run(index) {
  const text = field().value;
  const action = found[index]?.[2];
  palette().close();
  if (found.length) action?.();
  else if (text.trim()) say(text);
}

function key(event) {
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "k") {
    event.preventDefault();
    return openPalette();
  }
  if (event.key === "?" && !event.target.closest("input, textarea, [contenteditable]")) {
    event.preventDefault();
    return openPalette();
  }
  if (event.target.id !== "palette-field") return;
  const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  if (by) chosen += by;
  else if (event.key === "Enter") return run(chosen);
  else return;
  event.preventDefault();
  list();
}

export function listen() {
  document.addEventListener("keydown", key);
  document.addEventListener("input", (event) => {
    if (event.target.id !== "palette-field") return;
    chosen = 0;
    list();
    ask();
  });
  document.addEventListener("click", (event) => {
    const command = event.target.closest("[data-command]");
    if (event.target.closest("[data-open-palette]")) openPalette();
    else if (command) run(Number(command.dataset.command));
  });
}
