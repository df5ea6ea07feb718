// The three views of time: the cascade, the keyframes, the curves. One is shown, and remembered.

import { emit, state } from "./state.js";

const KEPT = "balletto-time-view";
const HEIGHT = "balletto-time-height";
export const VIEWS = ["cascade", "keyframes", "curves"];

const bench = () => document.querySelector(".bench");
export const view = () => bench().dataset.view;

export function openView(name) {
  bench().dataset.view = name;
  localStorage.setItem(KEPT, name);
  for (const tab of document.querySelectorAll("[data-time-view]")) {
    tab.setAttribute("aria-selected", String(tab.dataset.timeView === name));
    tab.tabIndex = tab.dataset.timeView === name ? 0 : -1;
  }
  emit("view");
}

/** Arrow keys go from tab to tab. */
function alongTabs(event) {
  const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
  if (!by || !event.target.matches("[data-time-view]")) return;
  event.preventDefault();
  event.stopPropagation();
  const next = VIEWS.at((VIEWS.indexOf(event.target.dataset.timeView) + by) % VIEWS.length);
  openView(next);
  document.querySelector(`[data-time-view=${next}]`).focus();
}

let drag = null;

/** The timeline's upper edge makes it higher. */
function setHeight(height) {
  const most = innerHeight - 300;
  const kept = Math.round(Math.max(160, Math.min(most, height)));
  bench().style.setProperty("--h-time", `${kept}px`);
  document.getElementById("time-edge").setAttribute("aria-valuenow", kept);
  localStorage.setItem(HEIGHT, kept);
}

export function listen() {
  document.addEventListener("click", (event) => {
    const tab = event.target.closest("[data-time-view]");
    if (tab) openView(tab.dataset.timeView);
  });
  document.addEventListener("keydown", alongTabs, true);
  const edge = document.getElementById("time-edge");
  edge.addEventListener("pointerdown", (event) => {
    edge.setPointerCapture(event.pointerId);
    drag = { y: event.clientY, height: document.getElementById("timeline").offsetHeight };
  });
  edge.addEventListener("pointermove", (event) => drag && setHeight(drag.height + drag.y - event.clientY));
  edge.addEventListener("pointerup", () => { drag = null; dispatchEvent(new Event("resize")); });
  edge.addEventListener("keydown", (event) => {
    const by = { ArrowUp: 20, ArrowDown: -20 }[event.key];
    if (!by) return;
    event.preventDefault();
    setHeight(document.getElementById("timeline").offsetHeight + by);
    dispatchEvent(new Event("resize"));
  });
  const height = Number(localStorage.getItem(HEIGHT));
  if (height) setHeight(height);
  openView(VIEWS.includes(localStorage.getItem(KEPT)) ? localStorage.getItem(KEPT) : "cascade");
}

/** How many frames a pixel of the time axis stands for. */
export const framesAPixel = () => state.length / document.getElementById("ruler").clientWidth;

/** The frame, with its fraction, at a place across the page. */
export function frameAt(x) {
  const { left, width } = document.getElementById("ruler").getBoundingClientRect();
  return ((x - left) / width) * state.length;
}
