// The picture is touched directly: layers are selected by a click or a box and placed by dragging;
// grips, ways and the handles of reaches have their own modules. A hand gets the place of the pointer
// and answers with the edit that it makes, what to say, and lines to show meanwhile.

import { formHands, shapeHandles } from "../handles/shape_handles.js";
import { windowHandles, windowHands } from "../handles/window_handles.js";
import { transformHandles, gripHands } from "../handles/transform_handles.js";
import { lines, listen as listenToLines, snapped } from "./guides.js";
import { isKeying } from "../keyframes/keying.js";
import { numbers } from "../edits/numbers.js";
import { isPlaying } from "./player.js";
import { reachHandles, reachHands } from "../handles/reach_handles.js";
import { drags } from "../edits/drags.js";
import { commit, heldAs, hold, release, select } from "../edits/pending.js";
import { giveUp, preview } from "../edits/preview.js";
import { pickLayer, selectLayers, toggleLayer } from "../layers/layer_selection.js";
import { on, paced, selectedLayers, state, url } from "../state.js";
import { shape } from "../elements.js";
import { alongHandles, alongHands } from "../handles/along_handles.js";
import { caretDrawing, editTextAt, isEditing } from "./typing.js";
import { pathHandles, wayHands } from "../handles/motion_path.js";
import { boxOf, isWithin, moved, straight, touches } from "../figures/plane.js";
import { isPanning } from "./zoom.js";

const DOUBLE_MS = 280;
const over = document.getElementById("over");
const told = document.getElementById("stage-told");
const address = () =>
  isPlaying() ? "" : `${url("places", state.shown, state.frame)}?layer=${state.layer}&move=${state.move}`;
const fetched = numbers("places", 500, address);
const places = () => fetched.drawn ?? { layers: {}, characters: [] };
let stepping = [0, 0]; // px of the steps that are held
let picking = 0; // the timer of a click that may become a double one

async function refresh() {
  over.toggleAttribute("hidden", isPlaying());
  if (!(await fetched.now())) return;
  draw();
  over.dataset.shown = address();
}

const points = (corners) => corners.map((corner) => corner.join(",")).join(" ");

/** What handles and hands look at. `px` is how much of the picture a px of the screen is. */
function context() {
  return { places: places(), own: places().layers[state.layer], px: state.width / over.getBoundingClientRect().width };
}

function draw() {
  if (!over.getBoundingClientRect().width) return; // put away, as while it plays
  over.setAttribute("viewBox", `0 0 ${state.width} ${state.height}`);
  const look = (layer) => (layer === state.layer ? "is-picked" : state.also.includes(layer) ? "is-also" : "");
  // What is selected lies on top: it can be dragged even where others, or its own group, cover it.
  const onTop = ([layer]) => (layer === state.layer ? 2 : state.also.includes(layer) ? 1 : 0);
  const ordered = Object.entries(places().layers).sort((a, b) => onTop(a) - onTop(b));
  const shapes = ordered.map(([layer, { corners, bent }]) =>
    shape("polygon", { points: points(bent ?? corners), class: look(layer), "data-layer": layer }),
  );
  const seen = context();
  const letters =
    state.letters && !isEditing()
      ? places()
          .characters.filter(({ index }) => index >= state.letters[0] && index < state.letters[1])
          .map(({ corners }) => shape("polygon", { points: points(corners), class: "is-letter" }))
      : [];
  const isAlone = seen.own && !seen.own.locked && !state.also.length && !isEditing();
  const handles = isAlone
    ? [
        ...pathHandles(seen),
        ...transformHandles(seen),
        ...reachHandles(seen),
        ...shapeHandles(seen),
        ...windowHandles(seen),
        ...alongHandles(seen),
      ]
    : [];
  over.replaceChildren(
    ...lines(),
    ...shapes,
    ...letters,
    ...caretDrawing(seen),
    ...handles,
    ...(dragging.now()?.answer?.guides ?? []),
  );
}

function inPicture(event) {
  const { left, top, width } = over.getBoundingClientRect();
  const scale = state.width / width;
  return [(event.clientX - left) * scale, (event.clientY - top) * scale];
}

// Placing layers

/** Layers moved by px of the picture, at the playhead, from where they stand when it is made. */
const placed = (layers, by, grid) => ({
  name: "place",
  layers,
  by,
  grid,
  at: state.frame,
  ...(isKeying() && { keyed: true }),
});

/** Where a single layer would come to stand. */
function whereTo({ position, lever }, by) {
  const [across, down] = lever.map(([x, y]) => x * by[0] + y * by[1]);
  return `${Math.round(position[0] + across)} across, ${Math.round(position[1] + down)} down`;
}

function placeHand(layers, from) {
  const stood = places().layers; // what is previewed meanwhile does not count
  const boxes = layers.flatMap((layer) => stood[layer]?.corners ?? []);
  const others = Object.entries(stood)
    .filter(([layer]) => !layers.includes(layer))
    .map(([, { corners }]) => corners);
  const { px } = context();
  return (here, event) => {
    let by = here.map((value, axis) => value - from[axis]);
    if (event.shiftKey) by = straight(by);
    let guides = [];
    // Holding Ctrl leaves the lines alone. What is caught is the box as it is seen in the picture.
    if (!event.ctrlKey && !event.metaKey) {
      const { more, found } = snapped(boxes, by, px, others);
      const locked = event.shiftKey ? [by[0] !== 0, by[1] !== 0] : [true, true];
      by = moved(
        by,
        more.map((value, axis) => (locked[axis] ? value : 0)),
      );
      guides = found;
    }
    const said =
      layers.length === 1 && stood[layers[0]]
        ? whereTo(stood[layers[0]], by)
        : `${Math.round(by[0])} across, ${Math.round(by[1])} down`;
    return {
      edit: placed(
        layers,
        by.map((value) => Math.round(value * 1000) / 1000),
        1,
      ),
      guides,
      said,
    };
  };
}

/** A box drawn on what is empty selects the layers that it touches. */
function boxHand(from, more) {
  return (here) => {
    const [[x, y], [right, bottom]] = boxOf(from, here);
    const touched = Object.entries(places().layers).filter(
      ([, { corners, locked }]) => !locked && touches(corners, boxOf(from, here)),
    );
    const box = shape("rect", { x, y, width: right - x, height: bottom - y, class: "picking" });
    const layers = state.ids.filter(
      (layer) => touched.some(([each]) => each === layer) || (more && selectedLayers().includes(layer)),
    );
    return { guides: [box], said: "", select: layers };
  };
}

const GRIPS = { ...gripHands, ...wayHands, ...reachHands, ...formHands, ...windowHands, ...alongHands };

function start(event) {
  if (event.button !== 0 || isPanning(event)) return;
  const grip = event.target.closest("[data-grip]");
  const body = event.target.closest("polygon[data-layer]");
  document.activeElement?.blur?.();
  event.preventDefault();
  document.getElementById("picture").focus({ preventScroll: true });
  const from = inPicture(event);
  if (grip) return beginGrip(event, { ...grip.dataset }, from);
  const layer = body?.dataset.layer;
  if (!layer) return begin(event, boxHand(from, event.shiftKey), event.shiftKey ? null : onNothing);
  const isIn = selectedLayers().includes(layer);
  // With Shift a drag is kept straight, and a click adds the layer or takes it out.
  if (!isIn && !event.shiftKey) pickLayer(layer, event);
  const dragged = isIn || !event.shiftKey ? selectedLayers() : [...selectedLayers(), layer];
  const click = event.shiftKey ? () => toggleLayer(layer) : isIn ? () => clicked(layer, from) : () => {};
  // Letters along a path are drawn along it, as soon as it is known.
  const { bent, locked } = places().layers[layer];
  if (bent && !locked && dragged.length === 1) return beginGrip(event, { grip: "along", hand: "offset" }, from, click);
  begin(event, places().layers[layer].locked ? () => ({ said: "locked" }) : placeHand(dragged, from), click);
}

/** A click where nothing is lets go of letters, and of all layers but the first. */
function onNothing() {
  if (state.also.length) selectLayers([state.layer]);
  else if (state.letters) select({ letters: null });
}

/** Starts the drag of a grip, whose hand is there once what it starts from is known. */
function beginGrip(event, data, from, still = null) {
  take(event);
  dragging.beginWith("places", { ...pressedAt(event), still }, () => {
    const hand = GRIPS[data.grip](data, context(), from);
    return hand && { hand };
  });
}

/** Starts a drag; `still` is what a click without one does. */
function begin(event, hand, still = null) {
  release();
  take(event);
  dragging.begin({ ...pressedAt(event), hand, still });
}

const pressedAt = ({ clientX, clientY }) => ({ x: clientX, y: clientY, moved: false });

function take({ pointerId }) {
  over.setPointerCapture(pointerId);
  over.classList.add("is-dragging");
}

const dragging = drags({
  follow(own, event) {
    if (!own.moved && Math.hypot(event.clientX - own.x, event.clientY - own.y) < 3) return;
    own.moved = true;
    own.answer = own.hand(inPicture(event), event);
    if (!dragging.isNow(own)) return;
    told.textContent = own.answer.said;
    if (own.answer.edit) preview(own.answer.edit, own.seen);
    else draw();
  },
  finish({ answer, moved, still, seen }, keep) {
    if (!moved && keep) still?.();
    else if (keep && answer?.edit) commit(answer.edit, { seen });
    else if (keep && answer?.select?.length) selectLayers(answer.select);
    else if (answer?.edit) giveUp();
    draw();
  },
  letGo() {
    told.textContent = "";
    over.classList.remove("is-dragging");
  },
});

/** The character whose corners hold a point. */
const letterAt = (point) => places().characters.find(({ corners }) => isWithin(point, corners));

const isTitle = (layer) => Boolean(document.getElementById(`text-${layer}`));

/** A click on one of several layers selects it alone. Else it picks a letter; two, one soon after the
    other, type there. What is clicked is drawn anew in between, so that the browser itself knows of no
    double click. */
function clicked(layer, from) {
  if (state.also.length) return selectLayers([layer]);
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
  const isPicked = letter && state.letters?.[0] === letter.index && state.letters?.[1] === letter.index + 1;
  const letters = letter && !isPicked ? [letter.index, letter.index + 1] : null;
  if (String(letters) !== String(state.letters)) select({ letters });
}

const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

/** Arrow keys nudge what is selected, while the picture has the focus. */
function key(event) {
  if (event.target.id !== "picture" || event.ctrlKey || event.metaKey) return;
  if (event.key === "Escape") return event.target.blur();
  const way = ARROWS[event.key];
  if (!way || !selectedLayers().length) return;
  event.preventDefault();
  event.stopPropagation();
  const by = way.map((value) => value * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1));
  const layers = selectedLayers();
  const key = `nudge ${layers} at ${state.frame}`;
  stepping = (heldAs(key) ? stepping : [0, 0]).map((value, axis) => Math.round((value + by[axis]) * 10) / 10);
  hold(key, placed(layers, stepping, 0.01));
}

export function listen() {
  over.addEventListener("pointerdown", start);
  document.addEventListener("keydown", key, true);
  listenToLines(draw);
  const soon = paced(refresh, fetched);
  on("scene", soon);
  on("frame", soon);
  on("picture", draw);
}
