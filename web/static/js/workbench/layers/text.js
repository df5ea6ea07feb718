// The text of titles, where it is listed: typed words are looked at at once and kept after a pause.

import { keep } from "../edits/answers.js";
import { hold, newest, release, select } from "../edits/pending.js";
import { state } from "../state.js";

const PAUSE_MS = 900;
const SELECTING_MS = 200; // after which letters that are selected in a field are so in the workbench
const graphemes = new Intl.Segmenter(undefined, { granularity: "grapheme" });
let selecting = 0;

const fieldOf = (event) => event.target.closest?.("textarea[data-text]");

/** Takes over what stands in a title's field. */
export function takeText(field, isQuiet = false) {
  const layer = field.dataset.text;
  hold(`text ${layer}`, { name: "set-text", layer, text: field.value }, { pause: PAUSE_MS, isQuiet });
}

function typed(event) {
  const field = fieldOf(event);
  if (field) takeText(field, event.isComposing);
}

const isOnItsWay = (layer) => Boolean(newest((edit) => edit.name === "set-text" && edit.layer === layer));

export const count = (text) => [...graphemes.segment(text)].length;

function selected() {
  const field = document.activeElement;
  if (!field?.matches?.("textarea[data-text]")) return;
  clearTimeout(selecting);
  selecting = setTimeout(() => takeLetters(field), SELECTING_MS);
}

/** Selects the letters that are selected in a title's field; all of them, or none, are the title itself. */
function takeLetters(field) {
  clearTimeout(selecting);
  if (!field.isConnected) return;
  const { selectionStart: start, selectionEnd: end, value } = field;
  const isWhole = start === end || (start === 0 && end === value.length);
  const letters = isWhole ? null : [count(value.slice(0, start)), count(value.slice(0, end))];
  const isSame = String(letters) === String(state.letters) && state.layer === field.dataset.text;
  if (!isSame) select({ layer: field.dataset.text, letters });
}

/** What was typed or selected last counts, be the field left ever so quickly. */
function left(field) {
  release();
  if (field.dataset.text === state.layer) takeLetters(field);
}

export function listen() {
  document.addEventListener("input", typed);
  keep((old) => old.matches?.("textarea[data-text]") && isOnItsWay(old.dataset.text));
  document.addEventListener("selectionchange", selected);
  document.addEventListener("select", selected);
  document.addEventListener("focusin", (event) => {
    const field = fieldOf(event);
    if (field && field.dataset.text !== state.layer) select({ layer: field.dataset.text, letters: null, move: "" });
  });
  document.addEventListener("focusout", (event) => fieldOf(event) && left(fieldOf(event)));
  document.addEventListener("click", (event) => {
    if (event.target.closest("[data-letters-none]")) select({ letters: null });
  });
}
