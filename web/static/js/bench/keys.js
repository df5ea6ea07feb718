// Keys of the workbench; those of a value in a sentence are in values.js.

import { addMarker, copy, duplicate, paste, remove } from "./actions.js";
import { keyHere } from "./beads.js";
import { toggle, toggleWholeScreen } from "./player.js";
import { commit, walk } from "./server.js";
import { goTo, state } from "./state.js";
import { flip, toggleBeside } from "./takes.js";
import { flushText } from "./text.js";
import { go } from "./time.js";
import { flushSteps } from "./values.js";
import { farther, fit, nearer } from "./zoom.js";

const WITH_CTRL = { c: copy, v: paste, d: duplicate };
const UNITS = { 1: "character", 2: "word", 3: "line" };

function history(event) {
  event.preventDefault();
  flushText();
  flushSteps();
  walk(event.shiftKey ? "redo" : "undo");
}

/** To the keyframe before or after the playhead; they are those of the selected title. */
export function goToKey(way) {
  const frames = JSON.parse(document.getElementById("bench-state").dataset.keys);
  const found = way < 0 ? frames.filter((frame) => frame < state.frame).at(-1) : frames.find((frame) => frame > state.frame);
  if (found !== undefined) goTo(found);
}

function key(event) {
  const command = event.ctrlKey || event.metaKey;
  if (command && event.key.toLowerCase() === "z") return history(event);
  const typing = event.target.closest("input, textarea, [contenteditable]");
  const act = command && !event.shiftKey && !event.altKey && !typing && !getSelection().toString() && WITH_CTRL[event.key.toLowerCase()];
  if (act) {
    event.preventDefault();
    return act();
  }
  if (command || event.altKey || typing || event.target.closest("dialog")) return;
  const action = actionOf(event);
  if (!action) return;
  event.preventDefault();
  action();
}

function actionOf(event) {
  const onControl = event.target.closest("button, summary, a, .val");
  if (event.key === " ") return onControl ? null : toggle;
  if (event.key === "ArrowLeft") return () => go(event.shiftKey ? "back-ten" : "back");
  if (event.key === "ArrowRight") return () => go(event.shiftKey ? "next-ten" : "next");
  if (event.key === "Home") return () => go("start");
  if (event.key === "End") return () => go("end");
  if (event.key === "Delete" || event.key === "Backspace") return remove;
  if (event.key.toLowerCase() === "k") return keyHere;
  if (event.key.toLowerCase() === "c") return event.shiftKey ? toggleBeside : flip;
  if (event.key.toLowerCase() === "w") return toggleWholeScreen;
  if (event.key === "+" || event.key === "=") return nearer;
  if (event.key === "-") return farther;
  if (event.key === "0") return fit;
  if (event.key.toLowerCase() === "m") return addMarker;
  if (event.key === ",") return () => goToKey(-1);
  if (event.key === ".") return () => goToKey(1);
  if (event.key.toLowerCase() === "g") return () => document.getElementById("time").focus();
  if (event.key in UNITS && state.move) {
    return () => commit({ name: "set-value", path: `${state.layer}.moves.${state.move}.unit`, value: UNITS[event.key] });
  }
  return null;
}

export function listen() {
  document.addEventListener("keydown", key);
}
