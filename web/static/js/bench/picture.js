// The picture is touched directly: titles are selected by a click and placed by dragging them.

import { lines, listen as listenToLines, snapped } from "./guides.js";
import { isPlaying } from "./player.js";
import { commit, giveUp, preview, select } from "./server.js";
import { on, state, url } from "./state.js";

const over = document.getElementById("over");
const told = document.getElementById("stage-told");
const kept = new Map(); // address -> promise of places
let places = { layers: {}, characters: [] };
let drag = null;
let wanted = "";

function placesOf(address) {
  if (!kept.has(address)) {
    const found = fetch(address).then((response) => (response.ok ? response.json() : Promise.reject(new Error(String(response.status)))));
    found.catch(() => kept.delete(address));
    kept.set(address, found);
    if (kept.size > 500) kept.delete(kept.keys().next().value);
  }
  return kept.get(address);
}

async function refresh() {
  over.toggleAttribute("hidden", isPlaying());
  if (isPlaying()) return;
  const address = (wanted = `${url("places", state.shown, state.frame)}?layer=${state.layer}`);
  try {
    const found = await placesOf(address);
    if (wanted !== address) return;
    places = found;
    draw();
  } catch { /* the picture itself tells when the server is away */ }
}

function polygon(corners, classes, layer) {
  const shape = document.createElementNS("http://www.w3.org/2000/svg", "polygon");
  shape.setAttribute("points", corners.map((corner) => corner.join(",")).join(" "));
  shape.setAttribute("class", classes);
  shape.setAttribute("vector-effect", "non-scaling-stroke");
  if (layer) shape.dataset.layer = layer;
  return shape;
}

function draw() {
  over.setAttribute("viewBox", `0 0 ${state.width} ${state.height}`);
  const shapes = Object.entries(places.layers).map(([layer, { corners }]) => polygon(corners, layer === state.layer ? "is-picked" : "", layer));
  if (state.letters) {
    const [first, end] = state.letters;
    const picked = places.characters.filter(({ place }) => place >= first && place < end);
    shapes.push(...picked.map(({ corners }) => polygon(corners, "is-letter")));
  }
  over.replaceChildren(...lines(), ...shapes, ...(drag?.guides ?? []));
}

/** The position that the sentence of the selected title says, at the playhead. */
function position(layer) {
  return [0, 1, 2].map((axis) => Number(document.querySelector(`[data-chip="${layer}.transform.position.${axis}"]`)?.getAttribute("aria-valuenow") ?? 0));
}

function inPicture(event) {
  const { left, top, width } = over.getBoundingClientRect();
  const scale = state.width / width;
  return [(event.clientX - left) * scale, (event.clientY - top) * scale];
}

function start(event) {
  const shape = event.target.closest?.("#over polygon[data-layer]");
  if (!shape || event.button !== 0) return;
  const { layer } = shape.dataset;
  event.preventDefault();
  document.activeElement?.blur?.();
  if (layer !== state.layer) {
    select({ layer, letters: null, move: "" });
    return;
  }
  over.setPointerCapture(event.pointerId);
  over.classList.add("is-dragging");
  drag = { layer, from: inPicture(event), start: position(layer), depth: places.layers[layer].depth, corners: places.layers[layer].corners, moved: false };
}

function move(event) {
  if (!drag) return;
  const here = inPicture(event);
  let by = here.map((value, axis) => (value - drag.from[axis]) * drag.depth);
  if (!drag.moved && Math.hypot(...by) < 3) return;
  drag.moved = true;
  if (event.shiftKey) by = Math.abs(by[0]) > Math.abs(by[1]) ? [by[0], 0] : [0, by[1]];
  drag.guides = [];
  if (!event.ctrlKey && !event.metaKey) {
    // Holding Ctrl leaves the lines alone. What is caught is the box as it is seen in the picture.
    const scale = state.width / over.getBoundingClientRect().width;
    const { more, found } = snapped(drag.corners, by.map((value) => value / drag.depth), scale);
    const locked = event.shiftKey ? [by[0] !== 0, by[1] !== 0] : [true, true];
    by = by.map((value, axis) => value + (locked[axis] ? more[axis] * drag.depth : 0));
    drag.guides = found;
  }
  drag.value = [Math.round(drag.start[0] + by[0]), Math.round(drag.start[1] + by[1]), drag.start[2]];
  told.textContent = `${drag.value[0]} across, ${drag.value[1]} down`;
  preview(edit());
}

const edit = () => ({ name: "set-value", path: `${drag.layer}.transform.position`, value: drag.value, at: state.frame });

function end() {
  if (!drag) return;
  if (drag.moved) commit(edit());
  drag = null;
  told.textContent = "";
  over.classList.remove("is-dragging");
  draw();
}

export function listen() {
  over.addEventListener("pointerdown", start);
  over.addEventListener("pointermove", move);
  over.addEventListener("pointerup", end);
  document.addEventListener("keydown", (event) => {
    if (event.key !== "Escape" || !drag) return;
    drag = null;
    told.textContent = "";
    over.classList.remove("is-dragging");
    giveUp();
  });
  listenToLines(draw);
  on("scene", refresh);
  on("frame", refresh);
}
