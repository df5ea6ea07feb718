// How near the picture is looked at, and which part of it: Ctrl and the wheel go nearer, the wheel or
// the middle button move it. What stands outside the frame can be reached by going farther.

import { nearerPicture } from "../figures/nearness.js";
import { emit, state } from "../state.js";

const STEP = 1.25;

const stage = () => document.getElementById("stage");
const picture = () => document.getElementById("picture");
let zoom = 1; // 1 fits the stage
let pan = [0, 0]; // px of the screen
let drag = null;

function show() {
  picture().style.setProperty("--zoom", zoom);
  picture().style.translate = `${pan[0]}px ${pan[1]}px`;
  const percent = Math.round((picture().clientWidth / state.width) * 100);
  document.getElementById("zoom-said").textContent = `${zoom === 1 && !pan[0] && !pan[1] ? "Fit, " : ""}${percent} %`;
  emit("picture");
  dispatchEvent(new Event("zoom"));
}

/** Goes nearer or farther about a point of the page, the middle of the stage if none is given. */
export function zoomBy(factor, x = null, y = null) {
  const box = stage().getBoundingClientRect();
  const from = [box.left + box.width / 2, box.top + box.height / 2];
  const about = [(x ?? from[0]) - from[0], (y ?? from[1]) - from[1]];
  ({ zoom, pan } = nearerPicture({ zoom, pan }, factor, about));
  show();
}

/** Moves what is seen of the picture by px of the page. */
export function panBy(across, down) {
  pan = [pan[0] + across, pan[1] + down];
  show();
}

export function fit() {
  zoom = 1;
  pan = [0, 0];
  show();
}

export const nearer = () => zoomBy(STEP);
export const farther = () => zoomBy(1 / STEP);

/** Whether a press is one that moves the picture. */
export const isPanning = (event) => event.button === 1;

function wheel(event) {
  event.preventDefault();
  if (event.ctrlKey || event.metaKey) return zoomBy(1.0016 ** -event.deltaY, event.clientX, event.clientY);
  const by = event.shiftKey ? [event.deltaY, event.deltaX] : [event.deltaX, event.deltaY];
  pan = pan.map((value, axis) => value - by[axis]);
  show();
}

export function listen() {
  stage().addEventListener("wheel", wheel, { passive: false });
  stage().addEventListener("pointerdown", (event) => {
    if (!isPanning(event)) return;
    event.preventDefault();
    stage().setPointerCapture(event.pointerId);
    drag = { x: event.clientX, y: event.clientY, pan };
  });
  stage().addEventListener("pointermove", (event) => {
    if (!drag) return;
    pan = [drag.pan[0] + event.clientX - drag.x, drag.pan[1] + event.clientY - drag.y];
    show();
  });
  stage().addEventListener("pointerup", () => {
    drag = null;
  });
  document.addEventListener("click", (event) => {
    const button = event.target.closest("[data-zoom]");
    if (button) ({ in: nearer, out: farther, fit })[button.dataset.zoom]();
  });
  addEventListener("resize", show);
  show();
}
