// Keys of the workbench; what they do stands in commands.js, those of a value in a sentence are in
// values.js. A key acts only where no control has the focus that could mean something else by it.

import { copy, copyMove, duplicate, pasteText, remove, selectAll } from "../edits/actions.js";
import { select, walk } from "../edits/pending.js";
import { choose, chosenList } from "../keyframes/keyframe_selection.js";
import { selectLayers } from "../layers/layer_selection.js";
import { standing, state } from "../state.js";
import { commandFor } from "./commands.js";

// Of a move whose card has the focus, that is copied.
const copyWhatHasFocus = () => (document.activeElement.matches(".move") ? copyMove() : copy());
const WITH_CTRL = { a: selectAll, c: copyWhatHasFocus, d: duplicate };
const PASTE_MS = 120; // within which the browser gives what is on the clipboard, if it gives it
const TYPED_IN = "input, textarea, select, [contenteditable]";
const CONTROLS = "button, summary, a, [role=spinbutton], [role=slider], [role=option]";
// Where Delete means what is selected: nowhere in particular, the picture, the list, the timeline.
const OF_LAYERS = "body, #picture, #stage, .slab, #timeline";

function history(event) {
  event.preventDefault();
  walk(event.shiftKey ? "redo" : "undo");
}

/** Whether words are typed: an empty line for sentences has none, so there hands need not leave it. */
const isTyped = (target) => Boolean(target.closest(TYPED_IN)) && !(target.matches(".say__text") && !target.value);

/** What Ctrl and a letter do; in words that are typed they are the browser's, but for Ctrl+D. */
function commandOf(event) {
  const letter = event.key.toLowerCase();
  if (event.shiftKey || event.altKey || event.target.closest("dialog")) return null;
  if (letter !== "d" && (isTyped(event.target) || (letter !== "a" && getSelection().toString()))) return null;
  return WITH_CTRL[letter];
}

let pasting = 0;

/** What is pasted where nothing is typed: what the clipboard has, if the browser tells it. */
function pasted(event) {
  if (event.target.closest?.(TYPED_IN) || event.target.closest?.("dialog")) return;
  event.preventDefault();
  clearTimeout(pasting);
  pasteText(event.clipboardData?.getData("text/plain") ?? "");
}

function expectPaste(event) {
  if (event.shiftKey || event.altKey || event.target.closest(TYPED_IN) || event.target.closest("dialog")) return;
  const then = standing();
  clearTimeout(pasting);
  pasting = setTimeout(() => pasteText("", then), PASTE_MS);
}

let before = ""; // what the field that has the focus said when it came to it
const HELD = "input, textarea, select, [role=spinbutton]";

/** Escape lets go of one thing after another: of what has the focus, what is unfolded around it, of
    keyframes, of letters, of all layers but the first. What was typed in a field and not taken is dropped. */
function letGo({ target, defaultPrevented }) {
  if (defaultPrevented || target.closest("dialog")) return;
  const unfolded = target.closest("details[open]");
  if (target.matches("input[type=text]")) target.value = before;
  if (target.matches(HELD)) target.blur();
  else if (unfolded) unfolded.open = false;
  else if (chosenList().length) choose([]);
  else if (state.letters) select({ letters: null });
  else if (state.also.length) selectLayers([state.layer]);
}

function key(event) {
  if (event.key === "Escape") return letGo(event);
  const isCommand = event.ctrlKey || event.metaKey;
  if (isCommand && event.key.toLowerCase() === "z" && !event.target.closest("dialog")) return history(event);
  if (isCommand && event.key.toLowerCase() === "v") return expectPaste(event);
  const action = isCommand ? commandOf(event) : actionOf(event);
  if (!action) return;
  event.preventDefault();
  action();
}

function actionOf(event) {
  const { target } = event;
  if (event.altKey || target.closest("dialog") || target.closest(TYPED_IN) || target.closest("[role=option]"))
    return null;
  if (event.key === "Delete" || event.key === "Backspace") return isOfLayers(target) ? remove : null;
  if (event.key === " " && target.closest(CONTROLS) && !target.closest("[role=spinbutton]")) return null;
  return commandFor(event) ?? null;
}

const isOfLayers = (target) =>
  target.matches("body, .kbead, [data-select-layer]") ||
  (Boolean(target.closest(OF_LAYERS)) &&
    !target.closest(CONTROLS) &&
    !target.closest(".move, dialog, details, .moves, .top"));

export function listen() {
  document.addEventListener("keydown", key);
  document.addEventListener("focusin", ({ target }) => {
    before = target.value ?? "";
  });
  document.addEventListener("paste", pasted);
}
