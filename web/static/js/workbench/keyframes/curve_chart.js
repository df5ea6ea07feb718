// The chart of the curves view: the value of keyed numbers against time, its speed beneath, beads for the
// keys and handles for the easing between them. Courses come sampled from the server; here they are placed.

import { rangeOf as neededRange, stepsBetween } from "../figures/axes.js";
import { allRows, chosenKeys, isChosen } from "./keyframe_selection.js";
import { valueHere } from "../values/live_values.js";
import { say, toThousandths } from "../values/measure.js";
import { state } from "../state.js";
import { element, shape } from "../elements.js";

const SPEED_SHARE = 0.24; // of the height, for the speed
export const AIR = 14; // px above and below the curve

/** What is shown: `current`, the id of the part that is edited; `hidden`, ids of parts that are not
    drawn; `zoom`, [low, high] of the value axis, or null as the course needs; `scale`, how values and
    frames are placed, of what is drawn now. */
export const shown = { current: "", hidden: new Set(), zoom: null, scale: null };

const idOf = (path, part) => `${path}#${part}`;
// Rows that came for the keyframes view are without courses; those with them are on their way.
export const entries = () =>
  allRows()
    .filter(({ times }) => times)
    .flatMap((row) => row.parts.map((part, partIndex) => ({ row, part, partIndex, id: idOf(row.path, partIndex) })));
export const chosenEntry = () => entries().find(({ id }) => id === shown.current);

/** Which part is edited: that of the selected keys, or the one that was, or the first. */
export function pick() {
  const all = entries();
  const paths = Object.keys(chosenKeys());
  const now = all.find(({ id }) => id === shown.current);
  if (now && (!paths.length || paths.includes(now.row.path))) return;
  const wanted = all.find(({ row }) => paths.includes(row.path)) ?? movingMost(all);
  shown.current = wanted?.id ?? "";
  shown.zoom = null;
}

/** What changes, of the selected move if that does; else the first. */
function movingMost(all) {
  const moving = all.filter(({ part }) => Math.max(...part.values) > Math.min(...part.values));
  return moving.find(({ row }) => row.move === state.move) ?? moving[0] ?? all[0];
}

/** The part's value at the playhead: as it is told, or in the sample at or before. */
function valueAt({ row, part, partIndex }, frame) {
  const told = valueHere(row.path, partIndex);
  if (typeof told === "number") return told;
  let index = row.times.findIndex((time) => time > frame + 1e-9) - 1;
  if (index < 0) index = frame < row.times[0] ? 0 : row.times.length - 1;
  return part.course[index];
}

export function drawList() {
  const list = document.getElementById("curve-list");
  const focused = document.activeElement?.dataset?.curve;
  const items = entries().map((entry) => {
    const { row, part, id } = entry;
    const item = element(
      "li",
      `clist__row ${id === shown.current ? "is-current" : ""} ${shown.hidden.has(id) ? "is-hidden" : ""}`,
    );
    const eye = element("button", "clist__eye");
    eye.type = "button";
    eye.dataset.curveEye = id;
    eye.setAttribute("aria-pressed", String(!shown.hidden.has(id)));
    eye.setAttribute("aria-label", `${part.name} is drawn`);
    const name = element("button", "clist__name");
    name.type = "button";
    name.dataset.curve = id;
    name.setAttribute("aria-current", String(id === shown.current));
    name.append(element("span", "", part.name), element("small", "", row.owner));
    item.append(
      eye,
      name,
      element(
        "b",
        "clist__value",
        row.color && id !== shown.current ? "" : say(part.measure, valueAt(entry, state.frame)),
      ),
    );
    return item;
  });
  if (!items.length) items.push(element("li", "clist__none", "No keyframes yet: give a value the focus and press K."));
  list.replaceChildren(...items);
  if (focused) list.querySelector(`[data-curve="${CSS.escape(focused)}"]`)?.focus({ preventScroll: true });
}

/** The range of the value axis: what the course needs, or the zoom. */
function rangeOf(part, isCurrent) {
  if (shown.zoom && isCurrent) return shown.zoom;
  return neededRange([...part.course, ...part.values]);
}

function scaleFor(part, isCurrent) {
  const box = document.getElementById("curve-chart").getBoundingClientRect();
  const foot = box.height * (1 - SPEED_SHARE);
  const [low, high] = rangeOf(part, isCurrent);
  const x = (frame) => (frame / state.length) * box.width;
  const y = (value) => foot - AIR - ((value - low) / (high - low)) * (foot - 2 * AIR);
  return { box, foot, low, high, x, y, aPixel: (high - low) / (foot - 2 * AIR) };
}

const polyline = (row, values, { x }, y) =>
  row.times.map((time, index) => `${x(time).toFixed(1)},${y(values[index]).toFixed(1)}`).join(" ");

export function drawChart() {
  const chart = document.getElementById("curve-chart");
  const entry = chosenEntry();
  if (!entry) return chart.replaceChildren();
  shown.scale = scaleFor(entry.part, true);
  const others = entries()
    .filter(({ id }) => id !== shown.current && !shown.hidden.has(id))
    .map((other) => {
      const its = scaleFor(other.part, false);
      return shape("polyline", {
        class: "curve curve--other",
        points: polyline(other.row, other.part.course, its, its.y),
      });
    });
  chart.setAttribute("viewBox", `0 0 ${shown.scale.box.width} ${shown.scale.box.height}`);
  chart.replaceChildren(
    ...axis(entry.part),
    ...others,
    ...speedOf(entry),
    shape("polyline", { class: "curve", points: polyline(entry.row, entry.part.course, shown.scale, shown.scale.y) }),
    ...handlesOf(entry),
    ...beadsOf(entry),
  );
}

function axis(part) {
  return stepsBetween(shown.scale.low, shown.scale.high).flatMap((value) => [
    shape("line", {
      class: "curve-grid",
      x1: 0,
      x2: shown.scale.box.width,
      y1: shown.scale.y(value),
      y2: shown.scale.y(value),
    }),
    shape("text", { class: "curve-label", x: 3, y: shown.scale.y(value) - 3 }, say(part.measure, value)),
  ]);
}

function speedOf({ row, part }) {
  const most = Math.max(...part.speed.map(Math.abs).filter(Number.isFinite));
  const middle = shown.scale.foot + (shown.scale.box.height - shown.scale.foot) / 2;
  const room = (shown.scale.box.height - shown.scale.foot) / 2 - 3;
  const y = (speed) => middle - (most ? Math.max(-1, Math.min(1, speed / most)) : 0) * room;
  return [
    shape("line", { class: "curve-grid", x1: 0, x2: shown.scale.box.width, y1: middle, y2: middle }),
    shape("polyline", { class: "curve curve--speed", points: polyline(row, part.speed, shown.scale, y) }),
    shape(
      "text",
      { class: "curve-label curve-label--speed", x: 3, y: shown.scale.foot + 9 },
      `speed, at most ${say(part.measure, toThousandths(most))} a frame`,
    ),
  ];
}

/** The stretches that are shown with handles: those that touch a selected key. */
function stretchesOf({ row }) {
  const touched = (index) => isChosen(row.path, index) || isChosen(row.path, index + 1);
  const any = row.keys.some((_, index) => isChosen(row.path, index));
  return row.keys
    .slice(0, -1)
    .map((_, index) => index)
    .filter((index) => row.keys[index].handles && (any ? touched(index) : true));
}

function handlePlaces(row, part, index) {
  const [x1, y1, x2, y2] = row.keys[index].handles;
  const [start, end] = [row.keys[index].at, row.keys[index + 1].at];
  const [from, to] = [part.values[index], part.values[index + 1]];
  const at = (across, up) => [shown.scale.x(start + across * (end - start)), shown.scale.y(from + up * (to - from))];
  return [
    [[shown.scale.x(start), shown.scale.y(from)], at(x1, y1)],
    [[shown.scale.x(end), shown.scale.y(to)], at(x2, y2)],
  ];
}

function handlesOf(entry) {
  const { row, part } = entry;
  if (row.color || row.isBent) return [];
  return stretchesOf(entry).flatMap((index) =>
    handlePlaces(row, part, index).flatMap(([[x, y], [hx, hy]], side) => {
      const grip = shape("rect", {
        class: "curve-handle",
        x: hx - 4.5,
        y: hy - 4.5,
        width: 9,
        height: 9,
        rx: 3,
        tabindex: 0,
        role: "slider",
        "aria-label": `${side ? "Arriving" : "Leaving"} handle of stretch ${index + 1}`,
        "aria-valuetext": row.keys[index].handles.slice(side * 2, side * 2 + 2).join(", "),
        "aria-valuenow": row.keys[index].handles[side * 2],
      });
      grip.dataset.stretch = index;
      grip.dataset.side = side;
      return [shape("line", { class: "curve-arm", x1: x, y1: y, x2: hx, y2: hy }), grip];
    }),
  );
}

function beadsOf({ row, part, partIndex }) {
  return row.keys.map((key, index) => {
    const bead = shape("circle", {
      class: `curve-bead ${isChosen(row.path, index) ? "is-chosen" : ""}`,
      cx: shown.scale.x(key.at),
      cy: shown.scale.y(part.values[index]),
      r: 5,
      tabindex: 0,
      role: "button",
      "aria-pressed": isChosen(row.path, index),
      "aria-label": `${part.name}, frame ${key.at}: ${say(part.measure, part.values[index])}`,
    });
    Object.assign(bead.dataset, { bead: index, path: row.path, part: partIndex });
    return bead;
  });
}
