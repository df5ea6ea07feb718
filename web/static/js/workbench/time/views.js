// The three views of time: the cascade, the keyframes, the curves. One is shown, and remembered.

import { emit, state } from "../state.js";

const KEPT = "balletto-time-view";
export const VIEWS = ["cascade", "keyframes", "curves"];

const workbench = () => document.querySelector(".workbench");
export const view = () => workbench().dataset.view;

export function openView(name) {
  workbench().dataset.view = name;
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

export function listen() {
  document.addEventListener("click", (event) => {
    const tab = event.target.closest("[data-time-view]");
    if (tab) openView(tab.dataset.timeView);
  });
  document.addEventListener("keydown", alongTabs, true);
  openView(VIEWS.includes(localStorage.getItem(KEPT)) ? localStorage.getItem(KEPT) : "cascade");
}

/** How many frames a pixel of the time axis stands for. */
export const framesAPixel = () => state.length / document.getElementById("ruler").clientWidth;

/** The frame, with its fraction, at a place across the page. */
export function frameAt(x) {
  const { left, width } = document.getElementById("ruler").getBoundingClientRect();
  return ((x - left) / width) * state.length;
}
