// The keyframes view: a row of beads for each keyed value of the selected layers. Beads are selected
// by click, Shift and box, and moved, stretched or nudged together.

import { boxOf } from "../figures/plane.js";
import {
  allRows,
  choose,
  chosenList,
  expect,
  expectNothing,
  foundAgain,
  isChosen,
  keysOf,
  rowAt,
  rowsOf,
  toggleChosen,
  withChosen,
} from "./keyframe_selection.js";
import { framesSaid } from "../values/measure.js";
import { drags, said } from "../edits/drags.js";
import { whenKnown } from "../edits/known.js";
import { commit, heldAs, hold, letGo, release } from "../edits/pending.js";
import { giveUp, preview } from "../edits/preview.js";
import { catchers, snappedBy } from "../time/snap.js";
import { goTo, on, selectedLayers, state } from "../state.js";
import { frameAt, framesAPixel, view } from "../time/views.js";
import { element } from "../elements.js";

let stepping = null;

const frames = (number) => String(Number(number.toFixed(2))).replace("-", "−");

function bead(row, key, index) {
  const button = element("button", "bead kbead");
  button.type = "button";
  button.dataset.path = row.path;
  button.dataset.index = index;
  button.style.setProperty("--f", key.at);
  button.title = `${row.name}, frame ${frames(key.at)}: ${key.said}`;
  button.setAttribute("aria-label", button.title);
  button.setAttribute("aria-pressed", String(isChosen(row.path, index)));
  return button;
}

function rowItem(row, isNewOwner) {
  const item = element("li", "krow");
  item.dataset.path = row.path;
  const gutter = element("div", "gutter");
  gutter.append(element("span", "krow__name", row.name), element("span", "krow__owner", isNewOwner ? row.owner : ""));
  const lane = element("div", "lane");
  const [first, last] = [row.keys[0].at, row.keys.at(-1).at];
  const line = element("span", "krow__line");
  line.style.cssText = `--f: ${first}; --n: ${last - first}`;
  lane.append(line, ...row.keys.map((key, index) => bead(row, key, index)));
  item.append(gutter, lane);
  return item;
}

function draw() {
  if (view() !== "keyframes") return;
  const { path, index } = document.activeElement?.dataset ?? {};
  for (const list of document.querySelectorAll(".krows")) {
    const rows = selectedLayers().includes(list.dataset.layer) ? rowsOf(list.dataset.layer) : [];
    list.replaceChildren(...rows.map((row, index) => rowItem(row, row.owner !== rows[index - 1]?.owner)));
    const isEmpty = selectedLayers().includes(list.dataset.layer) && !rows.length;
    if (isEmpty)
      list.append(
        element(
          "li",
          "krows__none",
          "No keyframes yet. Give a value the focus and press K, or switch Keying on and change it.",
        ),
      );
  }
  if (path && index)
    document
      .querySelector(`.kbead[data-path="${CSS.escape(path)}"][data-index="${index}"]`)
      ?.focus({ preventScroll: true });
  drawStretch();
}

/** The bracket over the selected keys: its end makes them slower or faster. */
function drawStretch() {
  const holder = document.getElementById("stretch");
  const times = chosenList().map(({ at }) => at);
  const [low, high] = [Math.min(...times), Math.max(...times)];
  holder.hidden = view() !== "keyframes" || !(high > low);
  if (!holder.hidden) holder.style.cssText = `--f: ${low}; --n: ${high - low}`;
}

const shiftEdit = (keys, by) => ({ name: "shift-keys", keys, by });

function begin(event) {
  if (event.button !== 0 || view() === "cascade") return;
  const handle = event.target.closest?.("#stretch");
  const pressed = event.target.closest?.(".kbead");
  const free =
    event.target.closest?.("#time-body") &&
    !event.target.closest("button, input, [data-span], [data-move-span], .gutter");
  if (handle) beginStretch(event);
  else if (pressed) beginShift(event, pressed);
  else if (free && view() === "keyframes") beginBox(event);
}

function beginShift(event, pressed) {
  const { path, index } = pressed.dataset;
  event.preventDefault();
  pressed.focus();
  if (event.shiftKey) return toggleChosen(path, Number(index));
  if (!isChosen(path, Number(index))) choose([[path, Number(index)]]);
  beginKeys({ kind: "shift", x: event.clientX, by: 0 });
}

function beginStretch(event) {
  event.preventDefault();
  beginKeys({ kind: "stretch", x: event.clientX, by: 0 });
}

/** Begins a drag of the selected keys, once it is known where they are. */
function beginKeys(own) {
  const pressed = chosenList();
  dragging.beginWith("keyframes", own, () => {
    const list = foundAgain(pressed);
    const times = list.map(({ at }) => at);
    return { list, keys: keysOf(list), about: Math.min(...times), end: Math.max(...times), places: catchers() };
  });
}

function beginBox(event) {
  event.preventDefault();
  release();
  dragging.begin({ kind: "box", x: event.clientX, y: event.clientY, more: event.shiftKey });
  if (!event.shiftKey) choose([]);
}

const MOVES = {
  shift(own, event) {
    const by = snappedBy(
      (event.clientX - own.x) * framesAPixel(),
      own.list.map(({ at }) => at),
      own.places,
      event,
    );
    if (by === own.by) return "";
    own.by = by;
    own.edit = by ? shiftEdit(own.keys, by) : null;
    expect(own.list, ({ at }) => at + by);
    return `${by > 0 ? "+" : ""}${framesSaid(by)}`;
  },
  stretch(own, event) {
    const by = snappedBy((event.clientX - own.x) * framesAPixel(), [own.end], own.places, event);
    const length = Math.max(1, own.end + by - own.about);
    const factor = length / (own.end - own.about);
    if (factor === own.factor) return "";
    own.factor = factor;
    own.edit = { name: "stretch-keys", keys: own.keys, about: own.about, factor };
    expect(own.list, ({ at }) => own.about + (at - own.about) * factor);
    return `over ${framesSaid(length)}, ${Math.round(factor * 100)} %`;
  },
  box(own, event) {
    own.rect = drawBox(own, event);
    return "";
  },
};

const dragging = drags({
  follow(own, event) {
    const what = MOVES[own.kind](own, event);
    if (!what || !dragging.isNow(own)) return;
    said(what, event);
    if (own.edit) preview(own.edit, own.seen);
    else giveUp();
  },
  finish({ edit, rect, more, seen }, keep) {
    if (rect && keep) choose(inBox(rect), more);
    else if (keep && edit) commit(edit, { seen });
    else if (edit) {
      expectNothing();
      giveUp();
    }
  },
  letGo() {
    said("");
    hideBox();
  },
});

/** Draws the box from where a hand pressed to where it is, and gives its sides. */
export function drawBox({ x, y }, { clientX, clientY }) {
  const box = document.getElementById("keys-box");
  const [[left, top], [right, bottom]] = boxOf([x, y], [clientX, clientY]);
  box.hidden = false;
  box.style.cssText = `left: ${left}px; top: ${top}px; width: ${right - left}px; height: ${bottom - top}px`;
  return { left, right, top, bottom };
}

export function hideBox() {
  document.getElementById("keys-box").hidden = true;
}

/** Those of some parts of the page that a box touches. */
export const within = (parts, { left, right, top, bottom }) =>
  [...parts].filter((part) => {
    const box = part.getBoundingClientRect();
    return box.right >= left && box.left <= right && box.bottom >= top && box.top <= bottom;
  });

const inBox = (rect) =>
  within(document.querySelectorAll(".kbead"), rect).map(({ dataset }) => [dataset.path, Number(dataset.index)]);

/** Moves the keys that are selected now by frames that are said later. */
export function nudge() {
  const [pressed, { layer }] = [chosenList(), state];
  return (by) => {
    if (!pressed.length || !by) return;
    whenKnown(
      "keyframes",
      () => {
        const list = foundAgain(pressed);
        expect(list, ({ at }) => at + by);
        commit(shiftEdit(keysOf(list), by));
      },
      layer,
    );
  };
}

/** Steps by key that follow each other quickly make one edit. */
function step(by) {
  if (stepping && heldAs(stepping.name)) return stepOn(by);
  withChosen((list) => {
    if (stepping && heldAs(stepping.name)) return stepOn(by);
    if (!list.length) return null;
    const keys = keysOf(list);
    stepping = { list, keys, name: `keys ${JSON.stringify(keys)}`, by: 0 };
    return stepOn(by);
  });
}

function stepOn(by) {
  stepping.by += by;
  expect(stepping.list, ({ at }) => at + stepping.by);
  if (stepping.by) return hold(stepping.name, shiftEdit(stepping.keys, stepping.by));
  letGo();
  giveUp();
}

const ARROWS = { ArrowLeft: -1, ArrowRight: 1 };

function key(event) {
  const focused = event.target.closest?.(".kbead");
  if (!focused || event.ctrlKey || event.metaKey) return;
  const { path, index } = focused.dataset;
  if (event.key in ARROWS) {
    if (!isChosen(path, Number(index))) choose([[path, Number(index)]]);
    step(ARROWS[event.key] * (event.shiftKey ? 10 : 1));
  } else if (event.key === " " || event.key === "Enter") {
    if (event.shiftKey) toggleChosen(path, Number(index));
    else choose([[path, Number(index)]]);
  } else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
    const rows = [...document.querySelectorAll(".krow")];
    const next = rows[rows.indexOf(focused.closest(".krow")) + (event.key === "ArrowDown" ? 1 : -1)];
    next?.querySelector(".kbead")?.focus();
  } else {
    return;
  }
  event.preventDefault();
  event.stopPropagation();
}

function doubleClick(event) {
  const pressed = event.target.closest(".kbead");
  if (pressed) return goTo(rowAt(pressed.dataset.path).keys[pressed.dataset.index].at);
  const row = event.target.closest(".krow");
  if (!row || !event.target.closest(".lane")) return;
  commit({ name: "add-key", path: row.dataset.path, at: Math.round(frameAt(event.clientX)) });
}

export function listen() {
  document.addEventListener("pointerdown", begin);
  document.addEventListener("dblclick", doubleClick);
  document.addEventListener("keydown", key, true);
  on("rows", draw);
  on("view", draw);
  on("keys", () => {
    for (const each of document.querySelectorAll(".kbead"))
      each.setAttribute("aria-pressed", String(isChosen(each.dataset.path, Number(each.dataset.index))));
    drawStretch();
  });
}

export const everyKey = () => allRows().flatMap((row) => row.keys.map((_, index) => [row.path, index]));
