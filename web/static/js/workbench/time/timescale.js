// How near time is looked at: Ctrl and the wheel over the timeline, or two fingers, show a part of the
// scene on the whole width. What stands on the time axis is placed by shares of it, so that the axis
// alone becomes longer. The curves have the whole of it.

import { following, movedTime, nearerTime } from "../figures/nearness.js";
import { on, state } from "../state.js";
import { frameAt, view } from "./views.js";

const LEAST_FRAMES = 6; // that are shown at most near
const timeline = () => document.getElementById("timeline");
let part = { zoom: 1, start: 0 }; // of the scene, that is shown

function show(next) {
  part = next;
  const { style, classList } = document.querySelector(".workbench");
  style.setProperty("--time-zoom", part.zoom);
  style.setProperty("--time-start", part.start);
  classList.toggle("is-near", part.zoom > 1);
  dispatchEvent(new Event("resize"));
}

/** Goes nearer or farther about a place across the page. */
export function zoomTime(factor, x) {
  show(nearerTime(part, factor, frameAt(x) / state.length, state.length / LEAST_FRAMES));
}

/** Moves what is shown by px of the page, across in time and down in the rows. */
export function panTime(across, down = 0) {
  document.getElementById("time-body").scrollTop -= down;
  show(movedTime(part, across / document.getElementById("ruler").clientWidth));
}

export function wholeTime() {
  show({ zoom: 1, start: 0 });
}

function wheel(event) {
  if (!timeline().contains(event.target) || view() === "curves") return;
  if (event.ctrlKey || event.metaKey) zoomTime(1.0016 ** -event.deltaY, event.clientX);
  else if (part.zoom > 1 && (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)))
    panTime(-(event.deltaX || event.deltaY));
  else return;
  event.preventDefault();
}

/** The playhead stays in what is shown. */
function follow() {
  const next = following(part, state.frame / state.length);
  if (next.start !== part.start) show(next);
}

export function listen() {
  document.addEventListener("wheel", wheel, { passive: false });
  on("frame", follow);
}
