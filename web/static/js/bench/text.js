// The text of titles, where it is listed: typed words are looked at at once and kept after a pause.

import { commit, keepOnLeaving, preview, sayKept, select } from "./server.js";
import { state } from "./state.js";

const PAUSE_MS = 900;
const graphemes = new Intl.Segmenter(undefined, { granularity: "grapheme" });
let pending = null;
let selecting = 0;

const fieldOf = (event) => event.target.closest?.("textarea[data-text]");

function typed(event) {
  const field = fieldOf(event);
  if (!field) return;
  const edit = { name: "set-text", layer: field.dataset.text, text: field.value };
  clearTimeout(pending?.timer);
  pending = { edit, timer: setTimeout(flushText, PAUSE_MS) };
  sayKept(false);
  if (!event.isComposing) preview(edit);
}

/** Keeps what was typed and not kept yet. */
export function flushText() {
  if (!pending) return;
  const { edit, timer } = pending;
  clearTimeout(timer);
  pending = null;
  commit(edit);
}

export const count = (text) => [...graphemes.segment(text)].length;

function selected() {
  const field = document.activeElement;
  if (!field?.matches?.("textarea[data-text]")) return;
  clearTimeout(selecting);
  selecting = setTimeout(() => {
    const { selectionStart: start, selectionEnd: end, value } = field;
    const letters = start === end ? null : [count(value.slice(0, start)), count(value.slice(0, end))];
    const same = String(letters) === String(state.letters) && state.layer === field.dataset.text;
    if (!same && document.activeElement === field) select({ layer: field.dataset.text, letters });
  }, 200);
}

export function listen() {
  document.addEventListener("input", typed);
  addEventListener("pagehide", () => pending && keepOnLeaving(pending.edit));
  document.addEventListener("selectionchange", selected);
  document.addEventListener("select", selected);
  document.addEventListener("focusin", (event) => {
    const field = fieldOf(event);
    if (field && field.dataset.text !== state.layer) select({ layer: field.dataset.text, letters: null, move: "" });
  });
  document.addEventListener("focusout", (event) => fieldOf(event) && flushText());
  document.addEventListener("click", (event) => {
    if (event.target.closest("[data-letters-none]")) select({ letters: null });
  });
}
