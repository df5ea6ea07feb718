// Several layers at once: Shift and a click add a layer to the selection, or take it out.

import { choose } from "../keyframes/keyframe_selection.js";
import { select } from "../edits/pending.js";
import { emit, on, selectedLayers, state } from "../state.js";

/** Selects layers: the first is the one whose moves are shown. */
export function selectLayers(layers) {
  const [layer, ...also] = layers;
  if (!layer) return;
  state.also = also;
  choose([]);
  if (layer === state.layer) return emit("scene");
  select({ layer, letters: null, move: "" });
}

/** Adds a layer to those selected, or takes it out; one always stays. */
export function toggleLayer(layer) {
  const all = [state.layer, ...state.also];
  selectLayers(all.includes(layer) ? (all.length > 1 ? all.filter((each) => each !== layer) : all) : [...all, layer]);
}

/** A click on a layer in a list: alone, with Ctrl added to the others or taken out, with Shift all
    from the selected one to it. */
export function pickLayer(layer, event) {
  if (event.ctrlKey || event.metaKey) toggleLayer(layer);
  else if (event.shiftKey) selectRange(layer);
  else if (layer !== state.layer || state.also.length) selectLayers([layer]);
}

function selectRange(layer) {
  const [from, to] = [state.ids.indexOf(state.layer), state.ids.indexOf(layer)];
  const range = state.ids.slice(Math.min(from, to), Math.max(from, to) + 1);
  selectLayers([state.layer, ...range.filter((each) => each !== state.layer)]);
}

function show() {
  for (const item of document.querySelectorAll(".slab, .trow"))
    item.classList.toggle("is-also", state.also.includes(item.dataset.layer));
  const count = selectedLayers().length;
  const bar = document.getElementById("several");
  bar.hidden = count < 2;
  bar.querySelector("b").textContent = `${count} layers`;
}

export function listen() {
  on("scene", show);
}
