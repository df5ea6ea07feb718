// How near time is looked at: Ctrl and the wheel over the timeline, or two fingers, show a part of the
// scene on the whole width. What stands on the time axis is placed by shares of it, so that the axis
// alone becomes longer. The curves have the whole of it.

import { on, state } from "../state.js";
import { frameAt, view } from "./views.js";

const LEAST_FRAMES = 6; // that are shown at most near
const timeline = () => document.getElementById("timeline");
let zoom = 1; // 1 shows all
let start = 0; // the share of the scene that lies before what is shown

function show() {
  start = Math.max(0, Math.min(1 - 1 / zoom, start));
  const { style, classList } = document.querySelector(".workbench");
  style.setProperty("--time-zoom", zoom);
  style.setProperty("--time-start", start);
  classList.toggle("is-near", zoom > 1);
  dispatchEvent(new Event("resize"));
}

/** Goes nearer or farther about a place across the page. */
export function zoomTime(factor, x) {
  const about = frameAt(x) / state.length;
  const next = Math.max(1, Math.min(Math.max(1, state.length / LEAST_FRAMES), zoom * factor));
  start = about - (about - start) * (zoom / next);
  zoom = next;
  show();
}

/** Moves what is shown by px of the page, across in time and down in the rows. */
export function panTime(across, down = 0) {
  start -= across / document.getElementById("ruler").clientWidth;
  document.getElementById("time-body").scrollTop -= down;
  show();
}

export function wholeTime() {
  zoom = 1;
  show();
}

function wheel(event) {
  if (!timeline().contains(event.target) || view() === "curves") return;
  if (event.ctrlKey || event.metaKey) zoomTime(1.0016 ** -event.deltaY, event.clientX);
  else if (zoom > 1 && (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)))
    panTime(-(event.deltaX || event.deltaY));
  else return;
  event.preventDefault();
}

/** The playhead stays in what is shown. */
function follow() {
  const place = state.frame / state.length;
  if (zoom === 1 || (place >= start && place <= start + 1 / zoom)) return;
  start = place - 0.1 / zoom;
  show();
}

export function listen() {
  document.addEventListener("wheel", wheel, { passive: false });
  on("frame", follow);
}
