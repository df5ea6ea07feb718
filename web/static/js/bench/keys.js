// Keys of the workbench; those of a value in a sentence are in values.js.

import { toggle } from "./player.js";
import { commit, walk } from "./server.js";
import { state } from "./state.js";
import { flushText } from "./text.js";
import { go } from "./time.js";
import { flushSteps } from "./values.js";

const UNITS = { 1: "character", 2: "word", 3: "line" };

function history(event) {
  event.preventDefault();
  flushText();
  flushSteps();
  walk(event.shiftKey ? "redo" : "undo");
}

function key(event) {
  const command = event.ctrlKey || event.metaKey;
  if (command && event.key.toLowerCase() === "z") return history(event);
  const typing = event.target.closest("input, textarea, [contenteditable]");
  if (command || event.altKey || typing) return;
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
  if (event.key.toLowerCase() === "g") return () => document.getElementById("time").focus();
  if (event.key in UNITS && state.move) {
    return () => commit({ name: "set-value", path: `${state.layer}.moves.${state.move}.unit`, value: UNITS[event.key] });
  }
  return null;
}

export function listen() {
  document.addEventListener("keydown", key);
}
