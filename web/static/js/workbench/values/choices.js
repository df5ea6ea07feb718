// Choices in a sentence, edits of one button, and ties.

import { resume, whileBusy } from "../edits/answers.js";
import { commit, walk } from "../edits/pending.js";
import { selectedLayers, state } from "../state.js";
import { around } from "./value_chips.js";

let open = null;

function show(button) {
  close();
  const list = button.nextElementSibling;
  list.hidden = false;
  button.setAttribute("aria-expanded", "true");
  const place = button.getBoundingClientRect();
  const size = list.getBoundingClientRect();
  const above = place.bottom + size.height > innerHeight && place.top > size.height;
  list.style.left = `${Math.min(place.left, innerWidth - size.width - 8)}px`;
  list.style.top = `${above ? place.top - size.height - 4 : place.bottom + 4}px`;
  open = { button, list };
  (list.querySelector("[aria-selected=true]") ?? list.firstElementChild)?.focus();
}

function close(focus = false) {
  if (!open) return;
  open.list.hidden = true;
  open.button.setAttribute("aria-expanded", "false");
  if (focus) open.button.focus();
  open = null;
  resume();
}

function choose(option) {
  const isValue = Boolean(option.dataset.value); // or an edit of its own, made below, or a file to be chosen
  const edit = isValue && { ...around(open.button), value: JSON.parse(option.dataset.value) };
  close(true);
  if (edit) commit(edit);
}

/** An edit that is to happen where the playhead stands. */
const atPlayhead = (edit) => (edit.at === "playhead" ? { ...edit, at: state.frame } : edit);

// What buttons do to the selected layer, and to those that are selected with it.
const ON_EACH = new Set([
  "set-value",
  "clear-value",
  "flip",
  "add-effect",
  "add-mask",
  "behind",
  "center",
  "fill-picture",
]);

/** An edit of a button, on all selected layers if it is of the selected one. */
function onEach(edit) {
  const layers = selectedLayers();
  const isOfSelected = edit.layer === state.layer || edit.path?.startsWith(`${state.layer}.`);
  return layers.length > 1 && isOfSelected && ON_EACH.has(edit.name) ? { ...edit, layers } : edit;
}

function click(event) {
  const button = event.target.closest(".pick > .val--pick, [data-opens]");
  const option = event.target.closest(".pick__list button");
  const action = event.target.closest("[data-do]");
  if (option) choose(option);
  else if (button) open?.button === button ? close() : show(button);
  else close();
  if (action) commit(onEach(atPlayhead(JSON.parse(action.dataset.do))));
  const step = event.target.closest("[data-walk]");
  if (step) walk(step.dataset.walk);
}

function key(event) {
  if (!open) return;
  if (event.key === "Escape") {
    close(true);
    event.preventDefault();
    return event.stopPropagation();
  }
  if (!open.list.contains(event.target)) return;
  const by = { ArrowDown: "nextElementSibling", ArrowUp: "previousElementSibling" }[event.key];
  if (by) event.target[by]?.focus();
  else if (event.key === "Tab") close();
  else return;
  event.preventDefault();
  event.stopPropagation();
}

/** Ties one value to another, as two lists say. */
function tie(event) {
  if (!event.target.matches("[data-tie]")) return;
  event.preventDefault();
  const { path, to } = Object.fromEntries(new FormData(event.target));
  commit({ name: "set-value", path, value: { tie: { to } } });
}

export function listen() {
  whileBusy(() => Boolean(open)); // an answer would close the list under the hand
  document.addEventListener("submit", tie);
  document.addEventListener("click", click);
  document.addEventListener("keydown", key, true);
  document.addEventListener("scroll", (event) => !open?.list.contains(event.target) && close(), true);
}
