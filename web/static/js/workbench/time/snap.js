// What a time catches at while it is dragged: keys, ends of layers, seconds, markers, the playhead.
// Holding Ctrl leaves them alone.

import { caughtShift } from "../figures/catching.js";
import { allRows, isChosen } from "../keyframes/keyframe_selection.js";
import { state } from "../state.js";
import { framesAPixel } from "./views.js";

const NEAR = 6; // px

function seconds() {
  const count = Math.floor(state.length / state.rate);
  return Array.from({ length: count + 1 }, (_, second) => second * state.rate);
}

const ends = (but) =>
  [...document.querySelectorAll("[data-span]")]
    .filter((bar) => bar.closest("[data-layer]").dataset.layer !== but)
    .flatMap((bar) => bar.dataset.span.split(",").map(Number));

const keys = () =>
  allRows().flatMap((row) => row.keys.filter((_, index) => !isChosen(row.path, index)).map(({ at }) => at));

/** All frames at which something can be caught; `but` is a layer whose own ends do not count. */
export const catchers = (but = "") => [
  0,
  state.length,
  state.frame,
  ...seconds(),
  ...ends(but),
  ...keys(),
  ...state.markers.map(({ at }) => at),
];

/**
 * The shift nearest to `by` that brings one of `times` to one of `places`, or whole frames.
 * With Alt it is a tenth of a frame, with Ctrl nothing is caught.
 */
export function snappedBy(by, times, places, event) {
  const free = event.ctrlKey || event.metaKey;
  return caughtShift(by, times, places, { near: NEAR * framesAPixel(), fine: event.altKey, free });
}
