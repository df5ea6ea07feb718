// The picture is touched directly: layers are selected by a click or a box and placed by dragging;
// grips, ways and the marks of reaches have their own modules. A hand gets the place of the pointer
// and answers with the edit that it makes, what to say, and lines to show meanwhile.

import { formHands, formMarks } from "./formmarks.js";
import { gripMarks, gripHands } from "./grips.js";
import { lines, listen as listenToLines, snapped } from "./guides.js";
import { keying } from "./keying.js";
import { numbers } from "./numbers.js";
import { isPlaying } from "./player.js";
import { reachMarks, reachHands } from "./reachmarks.js";
import { commit, giveUp, preview, select } from "./server.js";
import { pickLayer, selectLayers, toggleLayer } from "./several.js";
import { on, paced, selectedLayers, state, url } from "./state.js";
import { shape } from "./svg.js";
import { caretMarks, editTextAt, isEditing } from "./typing.js";
import { wayMarks, wayHands } from "./ways.js";
import { isPanning } from "./zoom.js";

const STEP_PAUSE_MS = 350;
const DOUBLE_MS = 280;
const over = document.getElementById("over");
const told = document.getElementById("stage-told");
const address = () => (isPlaying() ? "" : `${url("places", state.shown, state.frame)}?layer=${state.layer}&move=${state.move}`);
const fetched = numbers("places", 500, address);
let places = { layers: {}, characters: [] };
let drag = null;
let stepping = null;
let picking = 0; // the timer of a click that may become a double one

async function refresh() {
  over.toggleAttribute("hidden", isPlaying());
  const found = await fetched.now();
  if (!found) return;
  places = found;
  draw();
  over.dataset.shown = address();
}

const points = (corners) => corners.map((corner) => corner.join(",")).join(" ");

/** What marks and hands look at. `px` is how much of the picture a px of the screen is. */
function context() {
  return { places, own: places.layers[state.layer], px: state.width / over.getBoundingClientRect().width };
}

function draw() {
  if (!over.getBoundingClientRect().width) return; // put away, as while it plays
  over.setAttribute("viewBox", `0 0 ${state.width} ${state.height}`);
  const look = (layer) => (layer === state.layer ? "is-picked" : state.also.includes(layer) ? "is-also" : "");
  // What is selected lies on top: it can be dragged even where others, or its own group, cover it.
  const onTop = ([layer]) => (layer === state.layer ? 2 : state.also.includes(layer) ? 1 : 0);
  const ordered = Object.entries(places.layers).sort((a, b) => onTop(a) - onTop(b));
  const shapes = ordered.map(([layer, { corners }]) => shape("polygon", { points: points(corners), class: look(layer), "data-layer": layer }));
  const seen = context();
  const letters = state.letters && !isEditing() ? places.characters.filter(({ place }) => place >= state.letters[0] && place < state.letters[1]).map(({ corners }) => shape("polygon", { points: points(corners), class: "is-letter" })) : [];
  const isAlone = seen.own && !seen.own.locked && !state.also.length && !isEditing();
  const marks = isAlone ? [...wayMarks(seen), ...gripMarks(seen), ...reachMarks(seen), ...formMarks(seen)] : [];
  over.replaceChildren(...lines(), ...shapes, ...letters, ...caretMarks(seen), ...marks, ...(drag?.guides ?? []));
}

function inPicture(event) {
  const { left, top, width } = over.getBoundingClientRect();
  const scale = state.width / width;
  return [(event.clientX - left) * scale, (event.clientY - top) * scale];
}

// Placing layers

const place = (layer) => `${layer}.transform.position`;
const rounded = (number) => Math.round(number * 100) / 100;

/** One edit for several layers, or the one itself. */
function together(edits, said) {
  return edits.length === 1 ? edits[0] : { name: "several", edits, said };
}

/** Layers moved by px of the picture, at the playhead, from where they stood (by layer). */
function placed(layers, by, from, round = Math.round) {
  const edits = layers.filter((layer) => from[layer]).map((layer) => {
    const { position, lever } = from[layer];
    const [across, down] = lever.map(([x, y]) => x * by[0] + y * by[1]);
    const value = [round(position[0] + across), round(position[1] + down), position[2]];
    return { name: "set-value", path: place(layer), value, at: state.frame, ...keying(place(layer)) };
  });
  return edits.length ? together(edits, `${edits.length} layers placed`) : null;
}

function placeHand(layers, from) {
  const stood = places.layers; // what is previewed meanwhile does not count
  const boxes = layers.flatMap((layer) => stood[layer]?.corners ?? []);
  const others = Object.entries(stood).filter(([layer]) => !layers.includes(layer)).map(([, { corners }]) => corners);
  const { px } = context();
  return (here, event) => {
    let by = here.map((value, axis) => value - from[axis]);
    if (event.shiftKey) by = Math.abs(by[0]) > Math.abs(by[1]) ? [by[0], 0] : [0, by[1]];
    let guides = [];
    // Holding Ctrl leaves the lines alone. What is caught is the box as it is seen in the picture.
    if (!event.ctrlKey && !event.metaKey) {
      const { more, found } = snapped(boxes, by, px, others);
      const locked = event.shiftKey ? [by[0] !== 0, by[1] !== 0] : [true, true];
      by = by.map((value, axis) => value + (locked[axis] ? more[axis] : 0));
      guides = found;
    }
    const edit = placed(layers, by, stood);
    const value = edit?.value;
    return { edit, guides, said: value ? `${value[0]} across, ${value[1]} down` : `${Math.round(by[0])} across, ${Math.round(by[1])} down` };
  };
}

/** A box drawn on what is empty selects the layers that it touches. */
function boxHand(from, more) {
  return (here) => {
    const [left, right] = [Math.min(from[0], here[0]), Math.max(from[0], here[0])];
    const [top, bottom] = [Math.min(from[1], here[1]), Math.max(from[1], here[1])];
    const touched = Object.entries(places.layers).filter(([, { corners, locked }]) => {
      const [xs, ys] = [0, 1].map((axis) => corners.map((corner) => corner[axis]));
      return !locked && Math.max(...xs) >= left && Math.min(...xs) <= right && Math.max(...ys) >= top && Math.min(...ys) <= bottom;
    });
    const box = shape("rect", { x: left, y: top, width: right - left, height: bottom - top, class: "picking" });
    const layers = state.ids.filter((layer) => touched.some(([each]) => each === layer) || (more && selectedLayers().includes(layer)));
    return { guides: [box], said: "", select: layers };
  };
}

const GRIPS = { ...gripHands, ...wayHands, ...reachHands, ...formHands };

function start(event) {
  if (event.button !== 0 || isPanning(event)) return;
  const grip = event.target.closest("[data-grip]");
  const body = event.target.closest("polygon[data-layer]");
  document.activeElement?.blur?.();
  event.preventDefault();
  document.getElementById("picture").focus({ preventScroll: true });
  const from = inPicture(event);
  if (grip) return begin(event, GRIPS[grip.dataset.grip](grip.dataset, context(), from));
  const layer = body?.dataset.layer;
  if (!layer) return begin(event, boxHand(from, event.shiftKey), null);
  if (event.shiftKey) return toggleLayer(layer);
  const isIn = selectedLayers().includes(layer);
  if (!isIn) return pickLayer(layer, event);
  if (places.layers[layer].locked) return;
  begin(event, placeHand(selectedLayers(), from), () => clicked(layer, from));
}

/** Starts a drag; `still` is what a click without one does. */
function begin(event, hand, still = null) {
  if (!hand) return;
  over.setPointerCapture(event.pointerId);
  over.classList.add("is-dragging");
  drag = { hand, still, x: event.clientX, y: event.clientY, moved: false };
}

function move(event) {
  if (!drag) return;
  if (!drag.moved && Math.hypot(event.clientX - drag.x, event.clientY - drag.y) < 3) return;
  drag.moved = true;
  drag.answer = drag.hand(inPicture(event), event);
  drag.guides = drag.answer.guides ?? [];
  told.textContent = drag.answer.said;
  if (drag.answer.edit) preview(drag.answer.edit);
  else draw();
}

function end(keep) {
  if (!drag) return;
  const { answer, moved, still } = drag;
  drag = null;
  told.textContent = "";
  over.classList.remove("is-dragging");
  if (!moved && keep) still?.();
  else if (keep && answer?.edit) commit(answer.edit);
  else if (keep && answer?.select?.length) selectLayers(answer.select);
  else if (answer?.edit) giveUp();
  draw();
}

/** The character whose corners hold a point. */
function letterAt([x, y]) {
  const inside = ({ corners }) => corners.every(([ax, ay], index) => {
    const [bx, by] = corners[(index + 1) % 4];
    return (bx - ax) * (y - ay) - (by - ay) * (x - ax) >= 0;
  });
  return places.characters.find(inside);
}

const isTitle = (layer) => Boolean(document.getElementById(`text-${layer}`));

/** A click picks a letter; two, one soon after the other, type there. What is clicked is drawn anew in
    between, so that the browser itself knows of no double click. */
function clicked(layer, from) {
  if (picking) {
    clearTimeout(picking);
    picking = 0;
    if (isTitle(layer)) editTextAt(layer, letterAt(from));
    return;
  }
  picking = setTimeout(() => {
    picking = 0;
    pickLetter(from);
  }, DOUBLE_MS);
}

/** A click on the selected title picks the letter there, a second one the title again. */
function pickLetter(point) {
  if (state.also.length) return;
  const letter = letterAt(point);
  const isPicked = letter && state.letters?.[0] === letter.place && state.letters?.[1] === letter.place + 1;
  const letters = letter && !isPicked ? [letter.place, letter.place + 1] : null;
  if (String(letters) !== String(state.letters)) select({ letters });
}

const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

/** Arrow keys nudge what is selected, while the picture has the focus. */
function key(event) {
  if (event.key === "Escape" && drag) return end(false);
  if (event.target.id !== "picture" || event.ctrlKey || event.metaKey) return;
  if (event.key === "Escape") return event.target.blur();
  const way = ARROWS[event.key];
  if (!way || !selectedLayers().length) return;
  event.preventDefault();
  event.stopPropagation();
  const by = way.map((value) => value * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1));
  const whole = [(stepping?.whole[0] ?? 0) + by[0], (stepping?.whole[1] ?? 0) + by[1]];
  const from = stepping?.from ?? places.layers;
  clearTimeout(stepping?.timer);
  stepping = { whole, from, timer: setTimeout(endStepping, STEP_PAUSE_MS) };
  preview(nudged());
}

/** The edit of the steps so far, from where the layers stood before the first. */
const nudged = () => placed(selectedLayers(), stepping.whole, stepping.from, rounded);

function endStepping() {
  const edit = nudged();
  stepping = null;
  if (edit) commit(edit);
}

export function listen() {
  over.addEventListener("pointerdown", start);
  over.addEventListener("pointermove", move);
  over.addEventListener("pointerup", () => end(true));
  over.addEventListener("pointercancel", () => end(false));
  document.addEventListener("keydown", key, true);
  listenToLines(draw);
  const soon = paced(refresh, fetched);
  on("scene", soon);
  on("frame", soon);
  on("picture", draw);
}
