// Lines over the picture: safe margins and thirds to be looked at, and those that a dragged title
// snaps to, which show while it does.

import { state } from "./state.js";

const SAFE = [0.05, 0.1]; // of the picture, on every side
const NEAR = 7; // px of the screen within which a line catches
const KEPT = "balletto-lines";

const shows = () => document.getElementById("shows");
const isOn = (name) => shows().querySelector(`[data-lines=${name}]`).getAttribute("aria-pressed") === "true";

function element(name, attributes) {
  const made = document.createElementNS("http://www.w3.org/2000/svg", name);
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, value);
  return made;
}

const across = (y, look) => element("line", { x1: 0, x2: state.width, y1: y, y2: y, class: look });
const down = (x, look) => element("line", { x1: x, x2: x, y1: 0, y2: state.height, class: look });

/** The lines that are switched on. */
export function lines() {
  const found = [];
  if (isOn("margins")) {
    found.push(...SAFE.map((share, inner) => element("rect", { x: share * state.width, y: share * state.height, width: (1 - 2 * share) * state.width, height: (1 - 2 * share) * state.height, class: inner ? "margin margin--inner" : "margin" })));
  }
  if (isOn("thirds")) {
    found.push(...[1, 2].flatMap((part) => [down((part * state.width) / 3, "rest"), across((part * state.height) / 3, "rest")]));
  }
  return found;
}

/** Where a box may be caught, along an axis: each line, and the place of the box that it is for. */
function catches(low, high, size) {
  const middle = (low + high) / 2;
  return [
    [size / 2, middle], [size / 3, middle], [(2 * size) / 3, middle],
    [SAFE[0] * size, low], [(1 - SAFE[0]) * size, high], [0, low], [size, high],
  ];
}

/** The shift that brings a box (corners) moved by `by` onto the nearest lines, and these lines. */
export function snapped(corners, by, scale) {
  const found = [];
  const size = [state.width, state.height];
  const more = [0, 1].map((axis) => {
    const places = corners.map((corner) => corner[axis] + by[axis]);
    const all = catches(Math.min(...places), Math.max(...places), size[axis]);
    const [line, place] = all.reduce((best, next) => (Math.abs(next[0] - next[1]) < Math.abs(best[0] - best[1]) ? next : best));
    if (Math.abs(line - place) > NEAR * scale) return 0;
    found.push(axis ? across(line, "cross") : down(line, "cross"));
    return line - place;
  });
  return { more, found };
}

export function listen(redraw) {
  const kept = (localStorage.getItem(KEPT) ?? "").split(",");
  for (const button of shows().children) button.setAttribute("aria-pressed", String(kept.includes(button.dataset.lines)));
  shows().addEventListener("click", (event) => {
    const button = event.target.closest("[data-lines]");
    if (!button) return;
    button.setAttribute("aria-pressed", String(button.getAttribute("aria-pressed") !== "true"));
    localStorage.setItem(KEPT, [...shows().children].filter((each) => isOn(each.dataset.lines)).map((each) => each.dataset.lines).join(","));
    redraw();
  });
}
