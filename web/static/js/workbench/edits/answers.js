// Answers: the parts of the page that they bring are morphed in. What a hand is busy with is left
// alone: an answer waits while something is typed or dragged, and values that have been changed since
// keep what the hand gave them.

import { keepers } from "../../page.js";
import { isPreviewing } from "./preview.js";
import { read, show, state } from "../state.js";

const busy = []; // each says whether a hand is in the middle of something
let waiting = ""; // the newest answer that came meanwhile
let isBehind = false; // whether the page does not show yet what was answered

/** `is` says whether a hand is busy with something that answers are not to touch. */
export function whileBusy(is) {
  busy.push(is);
}

/** Whether a hand drags something. */
export const isHandling = () =>
  Boolean(document.querySelector("body.is-handling, #over.is-dragging, .val.is-scrubbed"));

export const isBusy = () => busy.some((is) => is());

/** Whether the page does not show yet what the scene is by what was answered. */
export const isStale = () => isBehind;

/** `keeps(old, fresh)` says of two versions of a part of the page whether the old one stays. */
export function keep(keeps) {
  keepers.push(keeps);
}

/** Takes an answer over: the state of the scene at once, the page as soon as no hand is busy. With
    `isOvertaken`, another one will show the page. */
export function takeOver(response, html, isOvertaken) {
  state.revision = Number(response.headers.get("X-Revision"));
  state.digest = response.headers.get("X-Digest");
  if (!isOvertaken && !isBusy()) return morph(html);
  isBehind = true;
  waiting = isOvertaken ? "" : html;
  if (!isPreviewing()) show(state.digest);
}

function morph(html) {
  waiting = "";
  isBehind = false;
  const { id } = document.activeElement;
  htmx.swap(document.body, html, { swapStyle: "none" });
  if (id && document.activeElement === document.body) document.getElementById(id)?.focus({ preventScroll: true });
  read();
}

/** Shows what came while a hand was busy. */
export function resume() {
  if (waiting && !isBusy()) morph(waiting);
}
