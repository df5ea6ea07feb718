// The keyed values of the selected layers, as the server tells them, and which of their keyframes
// are selected. A keyframe is named by the path of its value and its index among the keys.

import { whenKnown } from "../edits/known.js";
import { numbers } from "../edits/numbers.js";
import { showSpans } from "../time/spans.js";
import { emit, on, paced, selectedLayers, state, url } from "../state.js";
import { view } from "../time/views.js";

const SAME = 0.002; // frames within which two times are one
const chosen = new Map(); // path -> set of indices
let expected = null; // path -> times: where the selected keys will stand after an edit
let since = ""; // the digest of the state before that edit
const fetched = numbers("keyframes", 60, addressOf);

/** Rows of a layer, or of all selected ones. */
export const rowsOf = (layer) => fetched.drawn?.layers[layer] ?? [];
export const allRows = () => selectedLayers().flatMap(rowsOf);
export const rowAt = (path) => rowsOf(path.split(".")[0]).find((row) => row.path === path);

function addressOf() {
  if (view() === "cascade" || !state.layer) return "";
  const curves = view() === "curves" ? "&curves=1" : "";
  return `${url("keyframes", state.shown)}?layers=${selectedLayers()}${curves}`;
}

async function refresh() {
  const told = state.shown;
  const found = await fetched.now();
  if (!found) return;
  showSpans(found.spans);
  settle(told);
  emit("rows");
}

const matches = (times, at) => times.some((time) => Math.abs(time - at) < SAME);

/**
 * Once an edit is made, the selected keys are those at the times where they were expected. `told` is
 * the state that the rows are of: a preview's may come after the edit itself has answered.
 */
function settle(told) {
  if (!expected || told !== state.digest || state.digest === since) return prune();
  chosen.clear();
  for (const [path, times] of expected) {
    const keys = rowAt(path)?.keys ?? [];
    const indices = keys.flatMap((key, index) => (matches(times, key.at) ? [index] : []));
    if (indices.length) chosen.set(path, new Set(indices));
  }
  expected = null;
  emit("keys");
}

/** Keys that are not there any more are not selected. */
function prune() {
  if (expected) return;
  for (const [path, indices] of chosen) {
    const count = rowAt(path)?.keys.length ?? 0;
    for (const index of indices) if (index >= count) indices.delete(index);
    if (!indices.size) chosen.delete(path);
  }
}

/** Whether a key is selected, or is one on its way. */
export function isChosen(path, index) {
  if (expected) return matches(expected.get(path) ?? [], rowAt(path).keys[index].at);
  return chosen.get(path)?.has(index) ?? false;
}

/** Selects keys, [path, index] each; `more` adds them to those that are. */
export function choose(keys, more = false) {
  if (!more) chosen.clear();
  for (const [path, index] of keys) {
    if (!chosen.has(path)) chosen.set(path, new Set());
    chosen.get(path).add(index);
  }
  expected = null;
  emit("keys");
}

/** Selects a key, or takes it out of the selection. */
export function toggleChosen(path, index) {
  if (!isChosen(path, index)) return choose([[path, index]], true);
  chosen.get(path).delete(index);
  if (!chosen.get(path).size) chosen.delete(path);
  emit("keys");
}

/** The selection as edits take it. */
export const chosenKeys = () =>
  keysOf([...chosen].flatMap(([path, indices]) => [...indices].map((index) => ({ path, index }))));

/** Each selected key: its path, its index, its frame; of keys on their way, where they will be. */
export const chosenList = () =>
  [...chosen].flatMap(([path, indices]) => {
    const keys = rowAt(path)?.keys ?? [];
    const ahead = expected?.get(path)?.length === indices.size ? expected.get(path) : null;
    return [...indices].flatMap((index, number) =>
      keys[index] ? [{ path, index, at: ahead?.[number] ?? keys[index].at }] : [],
    );
  });

/** Does something with the keys that are selected now, once it is known where they are. */
export function withChosen(act, layer = state.layer) {
  const pressed = chosenList();
  whenKnown("keyframes", () => act(foundAgain(pressed)), layer);
}

/** Keys of a list of before among the rows as they are now: by their times, or else by their indices. */
export const foundAgain = (list) =>
  list.flatMap(({ path, index, at }) => {
    const keys = rowAt(path)?.keys ?? [];
    const there = keys.findIndex((key) => Math.abs(key.at - at) < SAME);
    const found = keys[there < 0 ? index : there];
    return found ? [{ path, index: keys.indexOf(found), at: found.at }] : [];
  });

/** Keys of a list as edits take them: the indices in order, by path. */
export function keysOf(list) {
  const keys = {};
  for (const { path, index } of list) (keys[path] ??= []).push(index);
  for (const indices of Object.values(keys)) indices.sort((a, b) => a - b);
  return keys;
}

/** Says where the selected keys stand after an edit: `moved` gives the new frame of each. */
export function expect(list, moved) {
  since = state.digest;
  expected = new Map();
  for (const key of list) expected.set(key.path, [...(expected.get(key.path) ?? []), moved(key)]);
}

/** Selects keys by their times once the next edit has answered: a map from path to frames. */
export function expectAt(times) {
  since = state.digest;
  expected = new Map(Object.entries(times));
}

export function expectNothing() {
  expected = null;
}

export function listen() {
  on("scene", paced(refresh, fetched));
  on("view", refresh);
  on("refused", expectNothing);
}
