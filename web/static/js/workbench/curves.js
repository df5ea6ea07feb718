// The curves view: the value of keyed numbers against time, its speed beneath, beads for the keys and
// handles for the easing between them. Courses come sampled from the server; here they are placed.

import { tell } from "../page.js";
import { easeKeys } from "./actions.js";
import {
  allRows,
  choose,
  chosenKeys,
  chosenList,
  expect,
  expectNothing,
  foundAgain,
  isChosen,
  keysOf,
  rowAt,
  toggleChosen,
} from "./keyframe_selection.js";
import { say } from "./measure.js";
import { drawBox, hideBox, within } from "./keyframe_rows.js";
import { drags, said } from "./drags.js";
import { whenKnown } from "./known.js";
import { commit, heldAs, hold, release } from "./pending.js";
import { giveUp, preview } from "./preview.js";
import { catchers, snappedBy } from "./snap.js";
import { valueHere } from "./live_values.js";
import { on, state } from "./state.js";
import { shape } from "./svg.js";
import { framesAPixel, view } from "./views.js";

const SPEED_SHARE = 0.24; // of the height, for the speed
const AIR = 14; // px above and below the curve

let current = ""; // the id of the part that is edited
const hidden = new Set(); // ids of parts that are not drawn
let zoom = null; // [low, high] of the value axis, or as the course needs
let scale = null; // how values and frames are placed, of what is drawn now

const idOf = (path, part) => `${path}#${part}`;
// Rows that came for the keyframes view are without courses; those with them are on their way.
const entries = () =>
  allRows()
    .filter(({ times }) => times)
    .flatMap((row) => row.parts.map((part, partIndex) => ({ row, part, partIndex, id: idOf(row.path, partIndex) })));
const chosenEntry = () => entries().find(({ id }) => id === current);
const three = (number) => Math.round(number * 1000) / 1000;

function html(name, classes, text = "") {
  return Object.assign(document.createElement(name), { className: classes, textContent: text });
}

/** Which part is edited: that of the selected keys, or the one that was, or the first. */
function pick() {
  const all = entries();
  const paths = Object.keys(chosenKeys());
  const now = all.find(({ id }) => id === current);
  if (now && (!paths.length || paths.includes(now.row.path))) return;
  const wanted = all.find(({ row }) => paths.includes(row.path)) ?? movingMost(all);
  current = wanted?.id ?? "";
  zoom = null;
}

/** What changes, of the selected move if that does; else the first. */
function movingMost(all) {
  const moving = all.filter(({ part }) => Math.max(...part.values) > Math.min(...part.values));
  return moving.find(({ row }) => row.move === state.move) ?? moving[0] ?? all[0];
}

function draw() {
  if (view() !== "curves") return;
  pick();
  drawList();
  drawChart();
  drawFoot();
}

/** The part's value at the playhead: as it is told, or in the sample at or before. */
function valueAt({ row, part, partIndex }, frame) {
  const told = valueHere(row.path, partIndex);
  if (typeof told === "number") return told;
  let index = row.times.findIndex((time) => time > frame + 1e-9) - 1;
  if (index < 0) index = frame < row.times[0] ? 0 : row.times.length - 1;
  return part.course[index];
}

function drawList() {
  const list = document.getElementById("curve-list");
  const focused = document.activeElement?.dataset?.curve;
  const items = entries().map((entry) => {
    const { row, part, id } = entry;
    const item = html("li", `clist__row ${id === current ? "is-current" : ""} ${hidden.has(id) ? "is-hidden" : ""}`);
    const eye = html("button", "clist__eye");
    eye.type = "button";
    eye.dataset.curveEye = id;
    eye.setAttribute("aria-pressed", String(!hidden.has(id)));
    eye.setAttribute("aria-label", `${part.name} is drawn`);
    const name = html("button", "clist__name");
    name.type = "button";
    name.dataset.curve = id;
    name.setAttribute("aria-current", String(id === current));
    name.append(html("span", "", part.name), html("small", "", row.owner));
    item.append(
      eye,
      name,
      html("b", "clist__value", row.color && id !== current ? "" : say(part.measure, valueAt(entry, state.frame))),
    );
    return item;
  });
  if (!items.length) items.push(html("li", "clist__none", "No keyframes yet: give a value the focus and press K."));
  list.replaceChildren(...items);
  if (focused) list.querySelector(`[data-curve="${CSS.escape(focused)}"]`)?.focus({ preventScroll: true });
}

/** The range of the value axis: what the course needs, or the zoom. */
function rangeOf(part, isCurrent) {
  if (zoom && isCurrent) return zoom;
  const [low, high] = [Math.min(...part.course, ...part.values), Math.max(...part.course, ...part.values)];
  const air = high - low || Math.abs(high) * 0.2 || 1;
  return high > low ? [low, high] : [low - air / 2, high + air / 2];
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

/** Round numbers of the value axis. */
function stepsBetween(low, high) {
  const raw = (high - low) / 4;
  const power = 10 ** Math.floor(Math.log10(raw));
  const step = [1, 2, 5, 10].map((factor) => factor * power).find((each) => each >= raw);
  const first = Math.ceil(low / step - 1e-9);
  return Array.from(
    { length: Math.floor((high - low) / step + 1e-9) + 1 },
    (_, index) => (first + index) * step,
  ).filter((value) => value <= high + step * 1e-6);
}

function drawChart() {
  const chart = document.getElementById("curve-chart");
  const entry = chosenEntry();
  if (!entry) return chart.replaceChildren();
  scale = scaleFor(entry.part, true);
  const others = entries()
    .filter(({ id }) => id !== current && !hidden.has(id))
    .map((other) => {
      const its = scaleFor(other.part, false);
      return shape("polyline", {
        class: "curve curve--other",
        points: polyline(other.row, other.part.course, its, its.y),
      });
    });
  chart.setAttribute("viewBox", `0 0 ${scale.box.width} ${scale.box.height}`);
  chart.replaceChildren(
    ...axis(entry.part),
    ...others,
    ...speedOf(entry),
    shape("polyline", { class: "curve", points: polyline(entry.row, entry.part.course, scale, scale.y) }),
    ...handlesOf(entry),
    ...beadsOf(entry),
  );
}

function axis(part) {
  return stepsBetween(scale.low, scale.high).flatMap((value) => [
    shape("line", { class: "curve-grid", x1: 0, x2: scale.box.width, y1: scale.y(value), y2: scale.y(value) }),
    shape("text", { class: "curve-label", x: 3, y: scale.y(value) - 3 }, say(part.measure, value)),
  ]);
}

function speedOf({ row, part }) {
  const most = Math.max(...part.speed.map(Math.abs).filter(Number.isFinite));
  const middle = scale.foot + (scale.box.height - scale.foot) / 2;
  const room = (scale.box.height - scale.foot) / 2 - 3;
  const y = (speed) => middle - (most ? Math.max(-1, Math.min(1, speed / most)) : 0) * room;
  return [
    shape("line", { class: "curve-grid", x1: 0, x2: scale.box.width, y1: middle, y2: middle }),
    shape("polyline", { class: "curve curve--speed", points: polyline(row, part.speed, scale, y) }),
    shape(
      "text",
      { class: "curve-label curve-label--speed", x: 3, y: scale.foot + 9 },
      `speed, at most ${say(part.measure, three(most))} a frame`,
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
  const at = (across, up) => [scale.x(start + across * (end - start)), scale.y(from + up * (to - from))];
  return [
    [[scale.x(start), scale.y(from)], at(x1, y1)],
    [[scale.x(end), scale.y(to)], at(x2, y2)],
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
      cx: scale.x(key.at),
      cy: scale.y(part.values[index]),
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

// The foot: which stretch, its numbers.

function drawFoot() {
  const list = chosenList();
  const said = document.getElementById("curve-said");
  const field = document.getElementById("bezier");
  const stretch = eased();
  field.disabled = !stretch;
  for (const chip of document.querySelectorAll("[data-ease-keys]")) chip.disabled = !stretch;
  document.querySelector("[data-act='flatten-keys']").disabled = !list.length;
  const row = stretch && rowAt(stretch.path);
  const key = row?.keys[stretch.index];
  said.textContent = !list.length
    ? key
      ? `Under the playhead: frames ${key.at} to ${row.keys[stretch.index + 1].at}`
      : "Select beads to ease between them"
    : list.length > 2
      ? `Between ${list.length} beads`
      : key
        ? `Between the beads at frames ${key.at} and ${row.keys[stretch.index + 1].at}`
        : "One bead alone has no easing";
  for (const chip of document.querySelectorAll("[data-ease-keys]"))
    chip.setAttribute(
      "aria-pressed",
      String(Boolean(key) && JSON.stringify(key.ease) === JSON.stringify(JSON.parse(chip.dataset.easeKeys))),
    );
  if (document.activeElement !== field) field.value = key?.handles ? key.handles.map(three).join(", ") : "";
}

/** The first stretch that the selected keys mean. */
function eased() {
  const list = chosenList().sort((a, b) => a.path.localeCompare(b.path) || a.index - b.index);
  const first = list.find(({ path }) => path === current.split("#")[0]) ?? list[0];
  if (!first) return underPlayhead();
  const count = rowAt(first.path).keys.length;
  return count > 1 ? { path: first.path, index: Math.min(first.index, count - 2) } : null;
}

/** The stretch of the curve that is edited in which the playhead stands, or the nearest one. */
function underPlayhead() {
  const entry = chosenEntry();
  if (!entry || entry.row.keys.length < 2) return null;
  const before = entry.row.keys.findLastIndex(({ at }) => at <= state.frame);
  const index = Math.max(0, Math.min(before, entry.row.keys.length - 2));
  return { path: entry.row.path, index, at: entry.row.keys[index].at };
}

/** Where no key is selected, the stretch under the playhead is eased. */
function easeHere(ease) {
  const stretch = chosenList().length ? null : underPlayhead();
  easeKeys(ease, stretch && [stretch]);
}

/** Four numbers as typed, or pasted from a style sheet: "cubic-bezier(0.2, 0, 0, 1)". */
function bezierTyped(event) {
  const field = event.target;
  if (field.id !== "bezier") return;
  const numbers = (field.value.match(/-?\d*\.?\d+/g) ?? []).map(Number);
  const isRight = numbers.length === 4 && [numbers[0], numbers[2]].every((number) => number >= 0 && number <= 1);
  field.classList.toggle("is-wrong", !isRight);
  if (!isRight)
    return tell(
      "Four numbers are needed, the first and third from 0 to 1, " +
        `as in “cubic-bezier(0.33, 1, 0.68, 1)”; got “${field.value}”.`,
    );
  easeHere({ bezier: numbers });
}

// Hands

function begin(event) {
  const grip = event.target.closest?.(".curve-handle");
  const bead = event.target.closest?.(".curve-bead");
  const chart = event.target.closest?.("#curve-chart");
  if (!chart || event.button !== 0) return;
  event.preventDefault();
  release();
  if (grip) beginHandle(grip);
  else if (bead) beginBead(event, bead);
  else beginBox(event);
}

/** A box drawn on the chart selects the beads in it; a click where nothing is, none. */
function beginBox(event) {
  if (!event.shiftKey) choose([]);
  dragging.begin({ kind: "box", x: event.clientX, y: event.clientY, more: event.shiftKey });
}

function beginHandle(grip) {
  grip.focus();
  beginKeys({ kind: "handle", index: Number(grip.dataset.stretch), side: Number(grip.dataset.side) });
}

function beginBead(event, bead) {
  bead.focus();
  const { row } = chosenEntry();
  const index = Number(bead.dataset.bead);
  if (event.shiftKey) return toggleChosen(row.path, index);
  if (!isChosen(row.path, index)) choose([[row.path, index]]);
  beginKeys({ kind: "bead", index, x: event.clientX, y: event.clientY });
}

/** Begins a drag of selected keys or of a handle between them, once it is known what they are. */
function beginKeys(own) {
  const {
    row: { path, keys },
    partIndex,
  } = chosenEntry();
  const pressed = chosenList();
  const key = { path, index: own.index, at: keys[own.index].at };
  dragging.beginWith("keyframes", own, () => {
    const [found] = foundAgain([key]);
    const row = rowAt(path);
    if (!found || (own.kind === "handle" && !row.keys[found.index + 1])) return null;
    const list = foundAgain(pressed);
    return {
      row,
      partIndex,
      part: row.parts[partIndex],
      index: found.index,
      list,
      keys: keysOf(list),
      scale,
      places: catchers(),
    };
  });
}

/** The edit that gives a stretch other handles: with several selected stretches, all of them. */
function handlesEdit({ row, index, keys }, bezier) {
  const many = Object.values(keys).flat().length > 2;
  if (many) return { name: "ease-keys", keys, ease: { bezier } };
  return { name: "set-value", path: `${row.path}.keys.${index}.ease`, value: { bezier } };
}

const HANDS = {
  box(own, event) {
    own.rect = drawBox(own, event);
    return "";
  },
  handle(own, event) {
    const { row, part, index, side, scale: at } = own;
    const [start, end] = [row.keys[index].at, row.keys[index + 1].at];
    const [from, to] = [part.values[index], part.values[index + 1]];
    const bezier = row.keys[index].handles.map(three);
    const across = (((event.clientX - at.box.left) / at.box.width) * state.length - start) / (end - start);
    bezier[side * 2] = three(Math.max(0, Math.min(1, across)));
    const value = at.low + (at.foot - AIR - (event.clientY - at.box.top)) * at.aPixel;
    if (to !== from) bezier[side * 2 + 1] = event.shiftKey ? side : three((value - from) / (to - from));
    own.edit = handlesEdit(own, bezier);
    return bezier.join(", ");
  },
  bead(own, event) {
    const { row, part, partIndex, list, keys, scale: at } = own;
    let by = snappedBy(
      (event.clientX - own.x) * framesAPixel(),
      list.map((key) => key.at),
      own.places,
      event,
    );
    let up = row.color || row.isBent ? 0 : (own.y - event.clientY) * at.aPixel;
    if (event.shiftKey)
      [by, up] = Math.abs(event.clientX - own.x) > Math.abs(event.clientY - own.y) ? [by, 0] : [0, up];
    const step = part.measure.step / part.measure.scale;
    const indices = keys[row.path];
    const raised = Math.round(up / (step || 1)) * (step || 1);
    const edits = raised
      ? indices.map((index) => ({
          name: "set-value",
          path: `${row.path}.keys.${index}.value${row.parts.length > 1 ? `.${partIndex}` : ""}`,
          value: clean(part.values[index] + raised, part.measure),
        }))
      : [];
    if (by) edits.push({ name: "shift-keys", keys, by });
    expect(list, (key) => key.at + by);
    own.edit = !edits.length
      ? null
      : edits.length === 1
        ? edits[0]
        : { name: "several", edits, said: `${part.name} of ${row.owner}: keyframes moved` };
    const value = say(part.measure, clean(part.values[own.index] + raised, part.measure));
    return `frame ${three(row.keys[own.index].at + by)}, ${value}`;
  },
};

function clean(value, { low, high }) {
  const kept = Math.max(low ?? -Infinity, Math.min(high ?? Infinity, value));
  return Number(kept.toFixed(6));
}

const dragging = drags({
  follow(own, event) {
    const what = HANDS[own.kind](own, event);
    if (!dragging.isNow(own)) return;
    said(what, event);
    if (own.edit) preview(own.edit, own.seen);
  },
  finish({ kind, edit, rect, more, seen }, keep) {
    if (rect && keep)
      choose(
        within(document.querySelectorAll(".curve-bead"), rect).map(({ dataset }) => [
          dataset.path,
          Number(dataset.bead),
        ]),
        more,
      );
    if (kind === "box") return;
    if (edit && keep) return commit(edit, { seen });
    expectNothing();
    if (edit) giveUp();
  },
  letGo() {
    said("");
    hideBox();
  },
});

/** Steps a handle; steps that follow each other quickly make one edit. */
function stepHandle({ stretch, side }, [across, up]) {
  const [index, number, keys] = [Number(stretch), Number(side) * 2, chosenKeys()];
  const { path } = chosenEntry().row;
  const name = `handle ${path} ${index}`;
  const step = () => {
    const row = rowAt(path);
    if (!row?.keys[index]?.handles) return;
    const held = heldAs(name);
    const bezier = ((held?.value ?? held?.ease)?.bezier ?? row.keys[index].handles).map(three);
    bezier[number] = three(Math.max(0, Math.min(1, bezier[number] + across)));
    bezier[number + 1] = three(bezier[number + 1] + up);
    hold(name, handlesEdit({ row, index, keys }, bezier));
  };
  if (heldAs(name)) step();
  else whenKnown("keyframes", step);
}

const BY_KEY = { ArrowLeft: [-0.01, 0], ArrowRight: [0.01, 0], ArrowUp: [0, 0.01], ArrowDown: [0, -0.01] };

/** Arrow keys on a handle step its numbers; on a bead they go along the keys, Enter selects one. */
function key(event) {
  const grip = event.target.closest?.(".curve-handle");
  const bead = event.target.closest?.(".curve-bead");
  if (grip && event.key in BY_KEY) {
    stepHandle(
      grip.dataset,
      BY_KEY[event.key].map((by) => by * (event.shiftKey ? 10 : 1)),
    );
  } else if (bead && (event.key === "Enter" || event.key === " ")) {
    if (event.shiftKey) toggleChosen(bead.dataset.path, Number(bead.dataset.bead));
    else choose([[bead.dataset.path, Number(bead.dataset.bead)]]);
  } else {
    return;
  }
  event.preventDefault();
  event.stopPropagation();
}

/** The wheel takes the value axis nearer or farther, about the pointer. */
function wheel(event) {
  if (!event.target.closest?.("#curve-chart") || !scale || !chosenEntry()) return;
  event.preventDefault();
  const value = scale.low + (scale.foot - AIR - (event.clientY - scale.box.top)) * scale.aPixel;
  const factor = 1.0015 ** event.deltaY;
  zoom = [value + (scale.low - value) * factor, value + (scale.high - value) * factor];
  drawChart();
}

function click(event) {
  const ease = event.target.closest("[data-ease-keys]");
  if (ease) easeHere(JSON.parse(ease.dataset.easeKeys));
  const eye = event.target.closest("[data-curve-eye]");
  const name = event.target.closest("[data-curve]");
  if (eye) {
    const id = eye.dataset.curveEye;
    if (!hidden.delete(id)) hidden.add(id);
    draw();
  } else if (name) {
    current = name.dataset.curve;
    hidden.delete(current);
    zoom = null;
    const path = current.split("#")[0];
    choose(rowAt(path).keys.map((_, index) => [path, index]));
  } else if (event.target.closest("[data-curve-fit]")) {
    zoom = null;
    draw();
  }
}

export function listen() {
  document.addEventListener("pointerdown", begin);
  document.addEventListener("keydown", key, true);
  document.addEventListener("click", click);
  document.addEventListener("change", bezierTyped);
  document.addEventListener("wheel", wheel, { passive: false });
  addEventListener("resize", draw);
  on("rows", draw);
  on("keys", draw);
  on("view", draw);
  on("frame", () => view() === "curves" && (drawList(), drawFoot()));
  on("values", () => view() === "curves" && drawList());
}
