// The whole scene as a text: looked at, copied, typed in with the picture following, kept as one edit.
// The core reads: here the newest answer counts, however late it comes.

import { tell } from "../../page.js";
import { url } from "../state.js";
import { ask } from "./ask.js";
import { commit, flush } from "./pending.js";
import { giveUp, preview } from "./preview.js";
import { headers } from "./session.js";

const TYPING_MS = 250; // after which what is typed is asked about
let turn = 0;
let timer = 0;
let kept = ""; // the text of the scene as it is
let isLeaving = false; // Escape was pressed once over what is typed

const sheet = () => document.getElementById("scene-text");
const field = () => document.getElementById("scene-text-field");
const edit = () => ({ name: "make-scene", text: field().value });

function say(words, isFault = false) {
  const told = document.getElementById("scene-text-told");
  told.textContent = words;
  told.classList.toggle("is-fault", isFault);
}

export async function openSceneText() {
  await flush();
  try {
    const answer = await ask(url("text"));
    if (!answer.ok) throw new Error(String(answer.status));
    kept = (await answer.json()).text;
  } catch {
    return tell("The scene cannot be told as a text now; try again in a moment.");
  }
  field().value = kept;
  say("Change a line and look at the picture.");
  sheet().show();
  field().focus();
  field().setSelectionRange(0, 0);
  field().scrollTop = 0;
}

/** Looks at what the text makes, if it makes a scene; or says what is wrong with it, and where. */
async function look() {
  const asked = (turn += 1);
  const body = new URLSearchParams({ text: field().value });
  try {
    const answer = await ask(url("text"), { method: "POST", headers: headers(), body });
    const told = answer.ok ? await answer.json() : null;
    if (asked !== turn || !told) return;
    say(told.fault ?? told.said, Boolean(told.fault));
    if (!told.fault) preview(edit());
  } catch {
    if (asked === turn) say("The server does not answer. What is typed is not lost.", true);
  }
}

function typed() {
  isLeaving = false;
  clearTimeout(timer);
  timer = setTimeout(look, TYPING_MS);
}

/** Leaves the scene as it was. */
function leave() {
  stop();
  giveUp();
  sheet().close();
}

/** Escape leaves at once what is as it was; what is typed takes a second one. */
function escape() {
  if (isLeaving || field().value === kept) return leave();
  isLeaving = true;
  say("Escape once more leaves the scene as it was; Ctrl+Enter keeps what is typed.");
}

function stop() {
  isLeaving = false;
  clearTimeout(timer);
  turn += 1;
}

function keep() {
  if (field().value === kept) return leave();
  stop();
  commit(edit(), { done: () => sheet().close(), refused: (message) => say(message, true) });
}

async function copyAll() {
  try {
    await navigator.clipboard.writeText(field().value);
    say("Copied.");
  } catch {
    field().select();
    say("Copy it with Ctrl+C: the browser does not let the page do it.");
  }
}

const ACTS = { copy: copyAll, leave, keep };

function key(event) {
  if (!event.target.closest?.("#scene-text")) return;
  const isKeep = event.key === "Enter" && (event.ctrlKey || event.metaKey);
  if (!isKeep && event.key !== "Escape") return;
  event.preventDefault();
  (isKeep ? keep : escape)();
}

export function listen() {
  document.addEventListener("input", (event) => event.target.id === "scene-text-field" && typed());
  document.addEventListener("keydown", key);
  document.addEventListener("click", (event) => {
    const act = event.target.closest("[data-scene-text]")?.dataset.sceneText;
    if (act === "open") openSceneText();
    else if (act) ACTS[act]();
  });
}
