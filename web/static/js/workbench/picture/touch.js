// Fingers: two of them zoom and pan the picture and the timeline; one that rests stands for a pointer
// that hovers, and is told what it rests on. All else that one finger does, pointer events do.

import { select } from "../edits/pending.js";
import { state } from "../state.js";
import { view } from "../time/views.js";
import { panTime, zoomTime } from "../time/timescale.js";
import { panBy, zoomBy } from "./zoom.js";

const REST_MS = 500;
const STILL = 8; // px within which a finger rests
const TOLD_MS = 2500;
const SURFACES = {
  "#stage": { zoom: zoomBy, pan: panBy },
  "#timeline": { zoom: (factor, x) => view() !== "curves" && zoomTime(factor, x), pan: panTime },
};

const fingers = new Map(); // where each is, by its pointer
let pinch = null; // of two fingers: what they move, their middle and how far apart they are
let selected = null; // what was selected before the first finger came
let resting = 0;
let telling = 0;

const chosen = () => ({ layer: state.layer, also: [...state.also], move: state.move, letters: state.letters });
const middleOf = ([a, b]) => a.map((value, axis) => (value + b[axis]) / 2);
const apart = ([a, b]) => Math.hypot(a[0] - b[0], a[1] - b[1]) || 1;

/** What one finger began is given up. */
const giveUpBegun = () =>
  document.getElementById("over").dispatchEvent(new PointerEvent("pointercancel", { bubbles: true }));

function down(event) {
  if (event.pointerType !== "touch") return;
  clearTimeout(resting);
  fingers.set(event.pointerId, [event.clientX, event.clientY]);
  if (fingers.size === 1) {
    resting = setTimeout(() => rest(event), REST_MS);
    selected = chosen();
  }
  const name = Object.keys(SURFACES).find((each) => event.target.closest(each));
  if (fingers.size !== 2 || !name) return;
  event.stopPropagation();
  giveUpBegun();
  if (JSON.stringify(selected) !== JSON.stringify(chosen())) select(selected);
  const places = [...fingers.values()];
  pinch = { surface: SURFACES[name], middle: middleOf(places), apart: apart(places) };
}

function move(event) {
  const from = fingers.get(event.pointerId);
  if (!from) return;
  if (Math.hypot(event.clientX - from[0], event.clientY - from[1]) > STILL) clearTimeout(resting);
  if (!pinch) return;
  event.stopPropagation();
  fingers.set(event.pointerId, [event.clientX, event.clientY]);
  if (fingers.size < 2) return; // one is lifted: the other moves nothing more
  const places = [...fingers.values()].slice(0, 2);
  const now = { middle: middleOf(places), apart: apart(places) };
  pinch.surface.pan(...now.middle.map((value, axis) => value - pinch.middle[axis]));
  pinch.surface.zoom(now.apart / pinch.apart, ...now.middle);
  Object.assign(pinch, now);
}

function up(event) {
  clearTimeout(resting);
  if (!fingers.delete(event.pointerId) || !pinch) return;
  event.stopPropagation();
  if (!fingers.size) pinch = null;
}

/** A finger that rests: what shows under a hovering pointer shows, and its press begins nothing. */
function rest({ target, clientX, clientY }) {
  giveUpBegun();
  target.dispatchEvent(new PointerEvent("pointerover", { bubbles: true, clientX, clientY }));
  tell(target.closest("[title]")?.title, clientX, clientY);
  addEventListener("pointerup", noClick, { capture: true, once: true });
}

/** The click that would follow the finger when it is lifted does not come. */
function noClick() {
  const stop = (event) => {
    event.preventDefault();
    event.stopPropagation();
  };
  addEventListener("click", stop, { capture: true, once: true });
  setTimeout(() => removeEventListener("click", stop, true), 60);
}

function tell(text, x, y) {
  if (!text) return;
  const label = document.getElementById("hand-said");
  label.textContent = text;
  label.hidden = false;
  label.style.left = `${Math.max(4, Math.min(innerWidth - label.offsetWidth - 8, x - label.offsetWidth / 2))}px`;
  label.style.top = `${Math.max(4, y - 56)}px`; // above the finger
  clearTimeout(telling);
  telling = setTimeout(() => {
    label.hidden = true;
  }, TOLD_MS);
}

export function listen() {
  addEventListener("pointerdown", down, true);
  addEventListener("pointermove", move, true);
  addEventListener("pointerup", up, true);
  addEventListener("pointercancel", (event) => event.isTrusted && up(event), true);
  addEventListener("contextmenu", (event) => fingers.size && event.preventDefault());
}
