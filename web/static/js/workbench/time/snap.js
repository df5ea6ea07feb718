// What a time catches at while it is dragged: keys, ends of layers, seconds, markers, the playhead.
// Holding Ctrl leaves them alone.

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
  const plain = event.altKey ? Math.round(by * 10) / 10 : Math.round(by);
  if (event.ctrlKey || event.metaKey) return plain;
  const near = NEAR * framesAPixel();
  let best = null;
  for (const time of times) {
    for (const place of places) {
      const away = place - time - by;
      if (Math.abs(away) <= near && (best === null || Math.abs(away) < Math.abs(best - by))) best = place - time;
    }
  }
  return best === null || (Math.abs(best - by) > 0.5 && Math.abs(plain - by) < 0.02)
    ? plain
    : Math.round(best * 1000) / 1000;
}
