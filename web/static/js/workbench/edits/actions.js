// What can be done to what is selected: keyframes if there are any, or else layers. Keys, buttons
// (data-act) and the palette all lead here.

import { tell } from "../../page.js";
import { everyKey, nudge } from "../keyframes/keyframe_rows.js";
import {
  choose,
  chosenKeys,
  chosenList,
  expect,
  expectAt,
  foundAgain,
  keysOf,
  rowAt,
  withChosen,
} from "../keyframes/keyframe_selection.js";
import { whenKnown } from "./known.js";
import { beginLate, commit, flush } from "./pending.js";
import { onEnter } from "../time/typed_time.js";
import { meaning } from "../line/say.js";
import { selectLayers } from "../layers/layer_selection.js";
import { asIf, selectedLayers, standing, state } from "../state.js";
import { keyFocused } from "../values/values.js";
import { view } from "../time/views.js";

const COPIED = "balletto-copied";

const hasKeys = () => view() !== "cascade" && chosenList().length > 0;

/** An edit of the selected keys; `moved(list)` says where each will stand, if that is known here. */
function ofKeys(name, more = {}, moved = null) {
  if (!hasKeys())
    return tell("Select keyframes first: click them, or draw a box around them in the keyframes view.", "info");
  withChosen((list) => {
    if (moved) expect(list, moved(list));
    commit({ name, keys: keysOf(list), ...more });
  });
}

function ofLayers(action) {
  const layers = selectedLayers();
  if (!layers.length) return tell("There is no layer yet: add a title first.", "info");
  action(layers);
}

/** One edit for each selected layer, as one step. */
function each(make, said) {
  ofLayers((layers) => {
    const edits = layers.map(make);
    commit(edits.length === 1 ? edits[0] : { name: "several", edits, said: said(layers.length) });
  });
}

export const reverseKeys = () =>
  ofKeys("reverse-keys", {}, (list) => {
    const times = list.map(({ at }) => at);
    return ({ at }) => Math.min(...times) + Math.max(...times) - at;
  });

export function alignKeys() {
  const { frame } = state;
  ofKeys("align-keys", { at: frame }, (list) => {
    const first = {};
    for (const { path, at } of list) first[path] = Math.min(first[path] ?? Infinity, at);
    return ({ path, at }) => at - first[path] + frame;
  });
}

export const flattenKeys = () => ofKeys("flatten-keys");

/** Sets the ease of the stretches that keys mean: the selected ones, or those of a list. */
export function easeKeys(ease, list = null) {
  if (list && !chosenList().length)
    whenKnown("keyframes", () => commit({ name: "ease-keys", keys: keysOf(foundAgain(list)), ease }));
  else ofKeys("ease-keys", { ease });
}

/** Everything, or just what is selected, takes part in nothing any more. */
export function remove() {
  if (hasKeys()) {
    withChosen((list) => commit({ name: "remove-keys", keys: keysOf(list) }));
    choose([]);
  } else {
    each(
      (layer) => ({ name: "remove-layer", layer }),
      (count) => `${count} layers removed`,
    );
  }
}

/** Keeps what was copied, and puts words for it on the clipboard: by these it is known when pasted. */
function copyOf(kind, what, text) {
  localStorage.setItem(COPIED, JSON.stringify({ kind, scene: state.scene, digest: state.digest, ...what, text }));
  clipped = text;
  document.execCommand("copy"); // asks for the words, see `giveWords`; without a hand's leave nothing happens
  clipped = "";
}

let clipped = "";

/** Gives the browser the words for what was copied. */
function giveWords(event) {
  if (!clipped) return;
  event.clipboardData.setData("text/plain", clipped);
  event.preventDefault();
}

const counted = (count, one) => `${count} ${one}${count === 1 ? "" : "s"} copied.`;

/** Copies what is selected, as it is once all is kept. */
export function copy() {
  if (hasKeys()) {
    return withChosen((list) => {
      const said = counted(list.length, "keyframe");
      copyOf("keys", { keys: keysOf(list), times: list }, said);
      tell(said, "info");
    });
  }
  ofLayers(async (layers) => {
    await flush();
    copyOf("layers", { layers }, counted(layers.length, "layer"));
    tell(`${counted(layers.length, "layer")} They can be pasted in any scene.`, "info");
  });
}

/** Copies something of the selected layer, as it is once all is kept; `text` is what it is pasted as elsewhere. */
const copyOfLayer = (kind, said, what = {}, text = said) =>
  ofLayers(async () => {
    const told = { layer: state.layer, ...what };
    await flush();
    copyOf(kind, told, text);
    tell(said, "info");
  });

/** Sentences of moves: of all that are shown, or of one. */
const sentences = (move = null) =>
  [...document.querySelectorAll(".move .sentence[data-said]")]
    .filter((said) => !move || said.closest(".move").dataset.move === move)
    .map((said) => said.dataset.said)
    .join("\n");

export const copyStyle = () => copyOfLayer("style", "Style copied.");
export const copyMoves = () => copyOfLayer("moves", "Moves copied, also as text.", {}, sentences());
export const copyMove = () =>
  copyOfLayer("moves", "Move copied, also as text.", { move: state.move }, sentences(state.move));

/** Text that was copied elsewhere and reads as sentences is said; else what was copied here is pasted. What
    hands do while the text is read comes after. */
export function pasteText(text, then = standing()) {
  const copied = JSON.parse(localStorage.getItem(COPIED));
  if (!text.trim() || text === copied?.text || !then.layer) return asIf(then, paste);
  let answer = null;
  const read = async () => {
    answer = await meaning(text.trim().split("\n")[0], { layer: then.layer });
  };
  const said = () => commit({ name: "say", text, layer: state.layer, layers: selectedLayers() });
  beginLate(read, () => asIf(then, answer?.said ? said : paste));
}

export function paste() {
  const copied = JSON.parse(localStorage.getItem(COPIED));
  if (!copied) return tell("Nothing was copied yet: copy something first (Ctrl+C).", "info");
  if (copied.kind === "keys") expectPasted(copied);
  commit({ name: "paste", copied, layer: state.layer, layers: selectedLayers(), at: state.frame });
}

/** Pasted keys are the selected ones after. */
function expectPasted({ times }) {
  const first = Math.min(...times.map(({ at }) => at));
  const owners = new Set(times.map(({ path }) => path.split(".")[0]));
  const there = {};
  for (const { path, at } of times) {
    const to = owners.size === 1 ? path.replace(/^[^.]+/, state.layer) : path;
    (there[to] ??= []).push(state.frame + at - first);
  }
  expectAt(there);
}

/** A second time the same: keyframes at the playhead, layers in front of themselves. */
export function duplicate() {
  if (!hasKeys())
    return each(
      (layer) => ({ name: "duplicate-layer", layer }),
      (count) => `${count} layers duplicated`,
    );
  withChosen((list) => {
    const there = {};
    const first = Math.min(...list.map(({ at }) => at));
    for (const { path, at } of list) (there[path] ??= []).push(state.frame + at - first);
    expectAt(there);
    commit({
      name: "paste",
      copied: { kind: "keys", scene: state.scene, digest: state.digest, keys: keysOf(list) },
      at: state.frame,
    });
  });
}

export const splitLayer = () =>
  each(
    (layer) => ({ name: "split-layer", layer, at: state.frame }),
    (count) => `${count} layers split at frame ${state.frame}`,
  );
export const groupLayers = () => ofLayers((layers) => commit({ name: "group", layers }));

/** All keyframes of the view of keyframes, also where that has just been opened; or all layers. */
export function selectAll() {
  if (view() !== "keyframes") return selectLayers(state.ids);
  whenKnown("keyframes", () => (everyKey().length ? choose(everyKey()) : selectLayers(state.ids)));
}

export const selectAllKeys = () => whenKnown("keyframes", () => choose(everyKey()));

/** Repeats the last value up to the playhead: of the value that has the focus, or of the selected keys. */
export const holdHere = () =>
  atPlayhead("hold-to", "H then holds it to the playhead", (count) => `${count} values held to ${state.frame}`);

/** Adds keys at the playhead to the value that has the focus, or to those of the selected keys. */
export const keyHere = () =>
  atPlayhead(
    "add-key",
    "K then sets one at the playhead",
    (count) => `Keyframes at ${state.frame} for ${count} values`,
  );

/** Does an edit of keys at the playhead; `then` says what a key of the keyboard does where there is nothing. */
function atPlayhead(name, then, said) {
  if (keyFocused(name)) return;
  const edits = Object.keys(chosenKeys()).map((path) => ({ name, path, at: state.frame }));
  if (!edits.length) return tell(`Give a value in a sentence the focus, or select a keyframe of it: ${then}.`, "info");
  commit(edits.length === 1 ? edits[0] : { name: "several", edits, said: said(edits.length) });
}

export const addMarker = () => commit({ name: "add-marker", at: state.frame });
export const alignLayers = (to) => ofLayers((layers) => commit({ name: "align-layers", layers, to }));

/** To the first or last frame of the selected layer. */
export function layerEnd(end) {
  const bar = document.querySelector(`#row-${state.layer} [data-span]`);
  const [first, last] = bar.dataset.span.split(",").map(Number);
  return end ? last - 1 : first;
}

const ACTS = {
  "reverse-keys": reverseKeys,
  "align-keys": alignKeys,
  "flatten-keys": flattenKeys,
  duplicate,
  remove,
  copy,
  paste,
  "split-layer": splitLayer,
  "group-layers": groupLayers,
  "add-marker": addMarker,
  "copy-style": copyStyle,
  "copy-moves": copyMoves,
};

function showCount() {
  const list = chosenList();
  const times = list.map(({ at }) => at);
  const said = document.getElementById("keys-said");
  const span =
    list.length > 1 ? `frames ${Math.min(...times)} to ${Math.max(...times)}` : list.length ? `frame ${times[0]}` : "";
  said.textContent = list.length
    ? `${list.length} keyframe${list.length === 1 ? "" : "s"}, ${span}`
    : "No keyframe selected";
  for (const control of document.querySelectorAll("[data-needs-keys]")) control.disabled = !list.length;
}

export function listen(on) {
  document.addEventListener("copy", giveWords);
  document.addEventListener("click", (event) => {
    const button = event.target.closest("[data-act]");
    if (button) ACTS[button.dataset.act]();
    const align = event.target.closest("[data-align]");
    if (align) alignLayers(align.dataset.align);
  });
  onEnter("nudge", nudge);
  for (const name of ["keys", "rows", "view"]) on(name, showCount);
  showCount();
}

export const easeOf = ({ path, index }) => rowAt(path)?.keys[index]?.ease;
