// Units picked in the cascade, letters, words or lines: a click on a bar, Shift for more. Their times
// are nudged by frames, typed or by arrow keys; each then has a time of its own.

import { whenKnown } from "../edits/known.js";
import { commit, heldAs, hold } from "../edits/pending.js";
import { onEnter } from "./typed_time.js";
import { on, state } from "../state.js";
import { toThousandths } from "../values/measure.js";

let picked = new Set();
let owner = ""; // the move that they are of
let current = () => null; // gives the move that is drawn

const foot = () => document.getElementById("units-foot");

export const isPicked = (unit) => picked.has(unit);

function show() {
  const move = current();
  if (!move || move.id !== owner) picked = new Set();
  picked = new Set([...picked].filter((unit) => unit < (move?.units.length ?? 0)));
  for (const row of document.querySelectorAll("#cascade .crow"))
    row.classList.toggle("is-picked", picked.has(Number(row.dataset.unit)));
  foot().hidden = !picked.size;
  const [unit] = picked;
  const name =
    picked.size === 1
      ? `“${move.units[unit]}” starts at frame ${toThousandths(move.starts[unit])}`
      : `${picked.size} ${move?.unit}s`;
  document.getElementById("units-said").textContent = picked.size ? name : "";
}

/** Picks a unit, or with Shift one more. */
export function pick(move, unit, more) {
  if (move.id !== owner || !more) picked = picked.has(unit) && picked.size === 1 ? new Set() : new Set([unit]);
  else if (!picked.delete(unit)) picked.add(unit);
  owner = move.id;
  show();
}

/** The edit that gives units other times than `delays`. */
function later(path, delays, units, by) {
  const times = delays.map((delay, unit) => (units.has(unit) ? toThousandths(delay + by) : delay));
  return { name: "set-value", path, value: { times } };
}

const pathOf = (move) => `${state.layer}.moves.${move.id}.stagger`;

/** Nudges the units that are picked now. */
function nudge() {
  const [move, units, layer] = [current(), new Set(picked), state.layer];
  if (!move) return () => {};
  const path = pathOf(move);
  const delays = () => (current()?.id === move.id ? current() : move).delays;
  return (by) => units.size && by && whenKnown("motion", () => commit(later(path, delays(), units, by)), layer);
}

/** Arrow keys step the picked units while a row has the focus; what follows quickly is one edit. */
function step(event) {
  const row = event.target.closest?.("#cascade .crow");
  if (!row || event.ctrlKey || event.metaKey) return;
  const unit = Number(row.dataset.unit);
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
  const along = { ArrowUp: -1, ArrowDown: 1 }[event.key];
  if (along) document.querySelector(`#cascade .crow[data-unit="${unit + along}"]`)?.focus();
  else if (event.key === "Enter" || event.key === " ") pick(current(), unit, event.shiftKey);
  else if (by) stepBy(unit, by * (event.shiftKey ? 10 : 1));
  else return;
  event.preventDefault();
  event.stopPropagation();
}

function stepBy(unit, by) {
  const move = current();
  if (!move) return;
  if (!picked.has(unit)) pick(move, unit, false);
  const [path, units, key] = [pathOf(move), new Set(picked), `units ${move.id} ${[...picked]}`];
  const step = () => hold(key, later(path, heldAs(key)?.value.times ?? current().delays, units, by));
  if (heldAs(key)) step();
  else whenKnown("motion", step);
}

/** `move` gives the move that the cascade shows, with its numbers. */
export function listenToUnits(move) {
  current = move;
  onEnter("nudge-units", nudge);
  document.addEventListener("keydown", step, true);
  on("motion", show);
  on("view", show);
}
