// Lines over the picture: safe margins and thirds to be looked at, and those that a dragged title
// snaps to, which show while it does.

import { caughtBox, gridStep, safeShares } from "../figures/catching.js";
import { state } from "../state.js";
import { shape } from "../elements.js";

const NEAR = 7; // px of the screen within which a line catches
const KEPT = "balletto-lines";

const shows = () => document.getElementById("shows");
const isOn = (name) => shows().querySelector(`[data-lines=${name}]`).getAttribute("aria-pressed") === "true";

const across = (y, look) => shape("line", { x1: 0, x2: state.width, y1: y, y2: y, class: look });
const down = (x, look) => shape("line", { x1: x, x2: x, y1: 0, y2: state.height, class: look });

function grid() {
  const step = gridStep([state.width, state.height]);
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
      ...safeShares.map((share, inner) =>
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

/**
 * The shift that brings a box (corners) moved by `by` onto the nearest lines, and these lines.
 * `others` are the corners of other boxes that catch it too.
 */
export function snapped(corners, by, scale, others = []) {
  const size = [state.width, state.height];
  const { more, lines } = caughtBox(corners, by, { size, near: NEAR * scale, grid: isOn("grid"), others });
  return { more, found: lines.map(({ axis, at }) => (axis ? across(at, "cross") : down(at, "cross"))) };
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
