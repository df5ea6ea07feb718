// A new title: its words have the focus at once, all selected, so that typing replaces them. What is
// typed before it is there goes into a field that stands in for its own.

import { commit } from "../edits/pending.js";
import { state } from "../state.js";
import { takeText } from "./text.js";

const COMING = "text-coming";

/** Adds a title and puts the caret in its words. */
export function addTitle() {
  const field = standIn();
  let typed = null;
  field.addEventListener("input", () => {
    typed = field.value;
  });
  commit({ name: "add-title" }, { done: () => takeOver(field, typed), refused: null });
}

function standIn() {
  document.getElementById("coming")?.remove();
  const item = Object.assign(document.createElement("li"), { id: "coming", className: "slab slab--coming" });
  const field = Object.assign(document.createElement("textarea"), {
    id: COMING,
    className: "slab__text",
    rows: 1,
    value: document.getElementById("add-title").dataset.words,
    maxLength: 10000,
    spellcheck: false,
  });
  field.setAttribute("aria-label", "Text of the new title");
  field.setAttribute("data-own", "");
  item.append(field);
  document.querySelector(".slabs").prepend(item);
  field.focus();
  field.select();
  return field;
}

function takeOver(field, typed) {
  const own = document.getElementById(`text-${state.layer}`);
  const had = document.activeElement === document.body || document.activeElement === field;
  document.getElementById("coming")?.remove();
  if (!own || !had) return;
  own.focus();
  if (typed === null) return own.select();
  own.value = typed;
  own.setSelectionRange(field.selectionStart, field.selectionEnd);
  takeText(own);
}

export function listen() {
  document.addEventListener("click", (event) => event.target.closest("#add-title") && addTitle());
}
