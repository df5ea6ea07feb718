// Keys of the workbench; those of a value in a sentence are in values.js. A key acts only where no
// control has the focus that could mean something else by it.

import {
  addMarker,
  copy,
  copyMove,
  duplicate,
  holdHere,
  keyHere,
  layerEnd,
  pasteText,
  remove,
  selectAll,
} from "../edits/actions.js";
import { commit, walk } from "../edits/pending.js";
import { toggle, toggleWholeScreen } from "../picture/player.js";
import { goTo, standing, state } from "../state.js";
import { flip, toggleBeside } from "../edits/takes.js";
import { go } from "../time/time.js";
import { farther, fit, nearer } from "../picture/zoom.js";

// Of a move whose card has the focus, that is copied.
const copyWhatHasFocus = () => (document.activeElement.matches(".move") ? copyMove() : copy());
const WITH_CTRL = { a: selectAll, c: copyWhatHasFocus, d: duplicate };
const PASTE_MS = 120; // within which the browser gives what is on the clipboard, if it gives it
const UNITS = { 1: "character", 2: "word", 3: "line" };
const TYPED_IN = "input, textarea, select, [contenteditable]";
const CONTROLS = "button, summary, a, [role=spinbutton], [role=slider], [role=option]";
// Where Delete means what is selected: nowhere in particular, the picture, the list, the timeline.
const OF_LAYERS = "body, #picture, #stage, .slab, #timeline";

function history(event) {
  event.preventDefault();
  walk(event.shiftKey ? "redo" : "undo");
}

/** To the keyframe before or after the playhead; they are those of the selected title. */
export function goToKey(way) {
  const frames = JSON.parse(document.getElementById("workbench-state").dataset.keys);
  const found =
    way < 0 ? frames.filter((frame) => frame < state.frame).at(-1) : frames.find((frame) => frame > state.frame);
  if (found !== undefined) goTo(found);
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

function key(event) {
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
  if (
    event.altKey ||
    target.closest("dialog") ||
    target.closest(TYPED_IN) ||
    target.closest("[role=spinbutton], [role=option]")
  )
    return null;
  if (event.key === "Delete" || event.key === "Backspace") return isOfLayers(target) ? remove : null;
  if (event.key === " ") return target.closest(CONTROLS) ? null : toggle;
  return LETTERS[event.key.toLowerCase()]?.(event) ?? null;
}

const isOfLayers = (target) =>
  target.matches("body, .kbead, [data-select-layer]") ||
  (Boolean(target.closest(OF_LAYERS)) &&
    !target.closest(CONTROLS) &&
    !target.closest(".move, dialog, details, .moves, .top"));

/** To the first frame of the selected layer, or to its last. */
const toLayerEnd = (end) => () => state.layer && goTo(layerEnd(end));

/** What each key does, Shift and what is selected regarded. */
const LETTERS = {
  arrowleft:
    ({ shiftKey }) =>
    () =>
      go(shiftKey ? "back-ten" : "back"),
  arrowright:
    ({ shiftKey }) =>
    () =>
      go(shiftKey ? "next-ten" : "next"),
  home: ({ shiftKey }) => (shiftKey ? toLayerEnd(0) : () => go("start")),
  end: ({ shiftKey }) => (shiftKey ? toLayerEnd(1) : () => go("end")),
  k: () => keyHere,
  h: () => holdHere,
  c: ({ shiftKey }) => (shiftKey ? toggleBeside : flip),
  w: () => toggleWholeScreen,
  m: () => addMarker,
  g: () => () => document.getElementById("time").focus(),
  "+": () => nearer,
  "=": () => nearer,
  "-": () => farther,
  0: () => fit,
  ",": () => () => goToKey(-1),
  ".": () => () => goToKey(1),
  ...Object.fromEntries(
    Object.entries(UNITS).map(([digit, unit]) => [
      digit,
      () =>
        state.move &&
        (() => commit({ name: "set-value", path: `${state.layer}.moves.${state.move}.unit`, value: unit })),
    ]),
  ),
};

export function listen() {
  document.addEventListener("keydown", key);
  document.addEventListener("paste", pasted);
}
