// The curves view under a hand: beads and handles are dragged and stepped, the value axis is zoomed, a part
// is chosen. How it is drawn is in curve_chart.js, the foot in curve_eases.js.

import { AIR, chosenEntry, drawChart, drawList, pick, shown } from "./curve_chart.js";
import { bezierTyped, drawFoot, easeHere } from "./curve_eases.js";
import { drags, said } from "../edits/drags.js";
import { drawBox, hideBox, within } from "./keyframe_rows.js";
import {
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
import { whenKnown } from "../edits/known.js";
import { say, toThousandths } from "../values/measure.js";
import { commit, heldAs, hold, release } from "../edits/pending.js";
import { giveUp, preview } from "../edits/preview.js";
import { catchers, snappedBy } from "../time/snap.js";
import { on, state } from "../state.js";
import { framesAPixel, view } from "../time/views.js";

function draw() {
  if (view() !== "curves") return;
  pick();
  drawList();
  drawChart();
  drawFoot();
}

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
      scale: shown.scale,
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
    const bezier = row.keys[index].handles.map(toThousandths);
    const across = (((event.clientX - at.box.left) / at.box.width) * state.length - start) / (end - start);
    bezier[side * 2] = toThousandths(Math.max(0, Math.min(1, across)));
    const value = at.low + (at.foot - AIR - (event.clientY - at.box.top)) * at.aPixel;
    if (to !== from) bezier[side * 2 + 1] = event.shiftKey ? side : toThousandths((value - from) / (to - from));
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
    return `frame ${toThousandths(row.keys[own.index].at + by)}, ${value}`;
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
    const bezier = ((held?.value ?? held?.ease)?.bezier ?? row.keys[index].handles).map(toThousandths);
    bezier[number] = toThousandths(Math.max(0, Math.min(1, bezier[number] + across)));
    bezier[number + 1] = toThousandths(bezier[number + 1] + up);
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
  if (!event.target.closest?.("#curve-chart") || !shown.scale || !chosenEntry()) return;
  event.preventDefault();
  const value = shown.scale.low + (shown.scale.foot - AIR - (event.clientY - shown.scale.box.top)) * shown.scale.aPixel;
  const factor = 1.0015 ** event.deltaY;
  shown.zoom = [value + (shown.scale.low - value) * factor, value + (shown.scale.high - value) * factor];
  drawChart();
}

function click(event) {
  const ease = event.target.closest("[data-ease-keys]");
  if (ease) easeHere(JSON.parse(ease.dataset.easeKeys));
  const eye = event.target.closest("[data-curve-eye]");
  const name = event.target.closest("[data-curve]");
  if (eye) {
    const id = eye.dataset.curveEye;
    if (!shown.hidden.delete(id)) shown.hidden.add(id);
    draw();
  } else if (name) {
    shown.current = name.dataset.curve;
    shown.hidden.delete(shown.current);
    shown.zoom = null;
    const path = shown.current.split("#")[0];
    choose(rowAt(path).keys.map((_, index) => [path, index]));
  } else if (event.target.closest("[data-curve-fit]")) {
    shown.zoom = null;
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
