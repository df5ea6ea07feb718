// Spread: the selected keyframes, or else the selected layers, begin one after another over a number
// of frames along a curve. The picture follows while the curve is bent; it is kept as one step.

import { chosenKeys, chosenList, expectNothing } from "../keyframes/keyframe_selection.js";
import { bent } from "../figures/axes.js";
import { commit, flush } from "../edits/pending.js";
import { giveUp, preview } from "../edits/preview.js";
import { readTyped } from "./typed_time.js";
import { remember, remembered } from "../preferences.js";
import { selectedLayers } from "../state.js";
import { view } from "./views.js";
import { toThousandths } from "../values/measure.js";

const SIZE = 140; // of the drawing of the curve, in px
const AIR = 20;

const dialog = () => document.getElementById("spread");
const field = () => document.getElementById("spread-span");
// The curve, the order and the frames between, as they are before they are used.
const LINEAR = { handles: [1 / 3, 1 / 3, 2 / 3, 2 / 3], descending: false, whole: true, gap: 10 };
let { handles } = LINEAR;
let drag = null;

const isKeys = () => view() !== "cascade" && chosenList().length > 1;

function edit() {
  const curve = { bezier: handles.map(toThousandths) };
  const descending = document.getElementById("spread-descending").checked;
  const whole = document.getElementById("spread-whole").checked;
  const what = isKeys()
    ? { name: "distribute-keys", keys: chosenKeys() }
    : { name: "distribute-layers", layers: selectedLayers() };
  return { ...what, span, curve, descending, whole };
}

let span = 0; // frames, as typed last
let reading = null; // what is typed, being read: a promise of the number, or of null

async function changed(event) {
  draw();
  if (!event || event.target === field()) reading = readTyped(field(), "frames", span);
  const own = reading;
  const found = await own;
  if (found === null || own !== reading) return;
  span = found;
  if (dialog().open) preview(edit());
}

const count = () => (isKeys() ? Object.keys(chosenKeys()).length : selectedLayers().length);

const place = (x, y) => [AIR + x * SIZE, AIR + (1 - y) * SIZE];

function draw() {
  const [x1, y1, x2, y2] = handles;
  const [start, first, second, end] = [place(0, 0), place(x1, y1), place(x2, y2), place(1, 1)];
  document.getElementById("spread-curve").setAttribute("d", `M${start}C${first} ${second} ${end}`);
  for (const [index, at, from] of [
    [0, first, start],
    [1, second, end],
  ]) {
    const arm = document.getElementById(`spread-arm-${index}`);
    const grip = document.querySelector(`[data-spread-handle="${index}"]`);
    for (const [name, value] of Object.entries({ x1: from[0], y1: from[1], x2: at[0], y2: at[1] }))
      arm.setAttribute(name, value);
    grip.setAttribute("x", at[0] - 5);
    grip.setAttribute("y", at[1] - 5);
    grip.setAttribute(
      "aria-valuetext",
      handles
        .slice(index * 2, index * 2 + 2)
        .map(toThousandths)
        .join(", "),
    );
    grip.setAttribute("aria-valuenow", toThousandths(handles[index * 2]));
  }
}

async function open() {
  await flush();
  const list = chosenList();
  const layers = selectedLayers();
  const rows = Object.keys(chosenKeys()).length;
  const last = { ...LINEAR, ...remembered("spread", {}) };
  handles = [...last.handles];
  document.getElementById("spread-what").textContent = isKeys()
    ? rows > 1
      ? `${rows} rows of keyframes, each as a whole,`
      : `${list.length} keyframes`
    : `${layers.length} layers`;
  if (isKeys() && rows === 1)
    field().value = Math.max(...list.map(({ at }) => at)) - Math.min(...list.map(({ at }) => at));
  else field().value = Math.round(last.gap * (count() - 1) * 100) / 100;
  document.getElementById("spread-descending").checked = last.descending;
  document.getElementById("spread-whole").checked = last.whole;
  dialog().show();
  field().focus();
  field().select();
  changed();
}

async function close(keep) {
  if (!dialog().open) return;
  const made = edit(); // of what is selected now, even if the number is read late
  const gaps = Math.max(1, count() - 1);
  dialog().close();
  const found = keep ? await reading : null;
  if (found === null) return giveUp();
  expectNothing();
  const { descending, whole } = made;
  remember("spread", { handles, descending, whole, gap: found / gaps });
  commit({ ...made, span: found });
}

function bend(index, x, y) {
  handles = bent(handles, index, x, y);
  changed();
}

function key(event) {
  if (!dialog().open) return;
  const grip = event.target.closest?.("[data-spread-handle]");
  const by = { ArrowLeft: [-0.02, 0], ArrowRight: [0.02, 0], ArrowUp: [0, 0.02], ArrowDown: [0, -0.02] }[event.key];
  if (grip && by) {
    const index = Number(grip.dataset.spreadHandle);
    bend(index, handles[index * 2] + by[0], handles[index * 2 + 1] + by[1]);
  } else if (event.key === "Escape") {
    close(false);
  } else if (event.key === "Enter" && dialog().contains(event.target) && !event.target.closest("button")) {
    close(true);
  } else {
    return;
  }
  event.preventDefault();
  event.stopPropagation();
}

export function listen() {
  document.addEventListener("click", (event) => {
    if (event.target.closest("[data-open-spread]")) open();
    const button = event.target.closest("[data-spread]");
    if (button) close(button.dataset.spread === "keep");
  });
  dialog().addEventListener("input", changed);
  dialog().addEventListener("pointerdown", (event) => {
    const grip = event.target.closest("[data-spread-handle]");
    if (!grip) return;
    event.preventDefault();
    grip.focus();
    drag = Number(grip.dataset.spreadHandle);
  });
  document.addEventListener("pointermove", (event) => {
    if (drag === null) return;
    const box = document.getElementById("spread-box").getBoundingClientRect();
    bend(drag, (event.clientX - box.left - AIR) / SIZE, 1 - (event.clientY - box.top - AIR) / SIZE);
  });
  document.addEventListener("pointerup", () => {
    drag = null;
  });
  document.addEventListener("keydown", key, true);
}
