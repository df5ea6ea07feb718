// Lines over the picture: safe margins and thirds to be looked at, and those that a dragged title
// snaps to, which show while it does.

import { state } from "../state.js";
import { shape } from "../elements.js";

const SAFE = [0.05, 0.1]; // of the picture, on every side
const NEAR = 7; // px of the screen within which a line catches
const KEPT = "balletto-lines";

const shows = () => document.getElementById("shows");
const isOn = (name) => shows().querySelector(`[data-lines=${name}]`).getAttribute("aria-pressed") === "true";

const across = (y, look) => shape("line", { x1: 0, x2: state.width, y1: y, y2: y, class: look });
const down = (x, look) => shape("line", { x1: x, x2: x, y1: 0, y2: state.height, class: look });

/** The grid's step: twelve squares to the shorter side. */
const gridStep = () => Math.min(state.width, state.height) / 12;

function grid() {
  const step = gridStep();
  const found = [];
  for (let x = step; x < state.width - 1; x += step) found.push(down(x, "rest"));
  for (let y = step; y < state.height - 1; y += step) found.push(across(y, "rest"));
  return found;
}

/** The lines that are switched on. */
export function lines() {
  const found = isOn("grid") ? grid() : [];
  if (isOn("margins")) {
    found.push(
      ...SAFE.map((share, inner) =>
        shape("rect", {
          x: share * state.width,
          y: share * state.height,
          width: (1 - 2 * share) * state.width,
          height: (1 - 2 * share) * state.height,
          class: inner ? "margin margin--inner" : "margin",
        }),
      ),
    );
  }
  if (isOn("thirds")) {
    found.push(
      ...[1, 2].flatMap((part) => [down((part * state.width) / 3, "rest"), across((part * state.height) / 3, "rest")]),
    );
  }
  return found;
}

/** Where a box may be caught, along an axis: each line, and the place of the box that it is for. */
function catches(low, high, size) {
  const middle = (low + high) / 2;
  return [
    [size / 2, middle],
    [size / 3, middle],
    [(2 * size) / 3, middle],
    [SAFE[0] * size, low],
    [(1 - SAFE[0]) * size, high],
    [0, low],
    [size, high],
  ];
}

/** Along an axis the sides and the middles of other boxes, for the same of this one. */
function catchesOf(others, places, axis) {
  const [low, high] = [Math.min(...places), Math.max(...places)];
  return others.flatMap((corners) => {
    const along = corners.map((corner) => corner[axis]);
    const [first, last] = [Math.min(...along), Math.max(...along)];
    return [
      [first, low],
      [first, high],
      [last, low],
      [last, high],
      [(first + last) / 2, (low + high) / 2],
    ];
  });
}

/** With the grid on, its lines catch the middle and the sides. */
function gridCatches(places, size) {
  if (!isOn("grid")) return [];
  const step = gridStep();
  const [low, high] = [Math.min(...places), Math.max(...places)];
  return [low, high, (low + high) / 2].map((place) => [
    Math.max(0, Math.min(size, Math.round(place / step) * step)),
    place,
  ]);
}

/**
 * The shift that brings a box (corners) moved by `by` onto the nearest lines, and these lines.
 * `others` are the corners of other boxes that catch it too.
 */
export function snapped(corners, by, scale, others = []) {
  const found = [];
  const size = [state.width, state.height];
  const more = [0, 1].map((axis) => {
    const places = corners.map((corner) => corner[axis] + by[axis]);
    const all = [
      ...catches(Math.min(...places), Math.max(...places), size[axis]),
      ...catchesOf(others, places, axis),
      ...gridCatches(places, size[axis]),
    ];
    const [line, place] = all.reduce((best, next) =>
      Math.abs(next[0] - next[1]) < Math.abs(best[0] - best[1]) ? next : best,
    );
    if (Math.abs(line - place) > NEAR * scale) return 0;
    found.push(axis ? across(line, "cross") : down(line, "cross"));
    return line - place;
  });
  return { more, found };
}

export function listen(redraw) {
  const kept = (localStorage.getItem(KEPT) ?? "").split(",");
  for (const button of shows().children)
    button.setAttribute("aria-pressed", String(kept.includes(button.dataset.lines)));
  shows().addEventListener("click", (event) => {
    const button = event.target.closest("[data-lines]");
    if (!button) return;
    button.setAttribute("aria-pressed", String(button.getAttribute("aria-pressed") !== "true"));
    localStorage.setItem(
      KEPT,
      [...shows().children]
        .filter((each) => isOn(each.dataset.lines))
        .map((each) => each.dataset.lines)
        .join(","),
    );
    redraw();
  });
}
