// The foot of the curves view: which stretch is eased, by a button or by four numbers.

import { tell } from "../../page.js";
import { easeKeys } from "../edits/actions.js";
import { chosenEntry, shown } from "./curve_chart.js";
import { chosenList, rowAt } from "./keyframe_selection.js";
import { state } from "../state.js";
import { toThousandths } from "../values/measure.js";

export function drawFoot() {
  const list = chosenList();
  const said = document.getElementById("curve-said");
  const field = document.getElementById("bezier");
  const stretch = eased();
  field.disabled = !stretch;
  for (const chip of document.querySelectorAll("[data-ease-keys]")) chip.disabled = !stretch;
  document.querySelector("[data-act='flatten-keys']").disabled = !list.length;
  const row = stretch && rowAt(stretch.path);
  const key = row?.keys[stretch.index];
  said.textContent = !list.length
    ? key
      ? `Under the playhead: frames ${key.at} to ${row.keys[stretch.index + 1].at}`
      : "Select beads to ease between them"
    : list.length > 2
      ? `Between ${list.length} beads`
      : key
        ? `Between the beads at frames ${key.at} and ${row.keys[stretch.index + 1].at}`
        : "One bead alone has no easing";
  for (const chip of document.querySelectorAll("[data-ease-keys]"))
    chip.setAttribute(
      "aria-pressed",
      String(Boolean(key) && JSON.stringify(key.ease) === JSON.stringify(JSON.parse(chip.dataset.easeKeys))),
    );
  if (document.activeElement !== field) field.value = key?.handles ? key.handles.map(toThousandths).join(", ") : "";
}

/** The first stretch that the selected keys mean. */
function eased() {
  const list = chosenList().sort((a, b) => a.path.localeCompare(b.path) || a.index - b.index);
  const first = list.find(({ path }) => path === shown.current.split("#")[0]) ?? list[0];
  if (!first) return underPlayhead();
  const count = rowAt(first.path).keys.length;
  return count > 1 ? { path: first.path, index: Math.min(first.index, count - 2) } : null;
}

/** The stretch of the curve that is edited in which the playhead stands, or the nearest one. */
function underPlayhead() {
  const entry = chosenEntry();
  if (!entry || entry.row.keys.length < 2) return null;
  const before = entry.row.keys.findLastIndex(({ at }) => at <= state.frame);
  const index = Math.max(0, Math.min(before, entry.row.keys.length - 2));
  return { path: entry.row.path, index, at: entry.row.keys[index].at };
}

/** Where no key is selected, the stretch under the playhead is eased. */
export function easeHere(ease) {
  const stretch = chosenList().length ? null : underPlayhead();
  easeKeys(ease, stretch && [stretch]);
}

/** Four numbers as typed, or pasted from a style sheet: "cubic-bezier(0.2, 0, 0, 1)". */
export function bezierTyped(event) {
  const field = event.target;
  if (field.id !== "bezier") return;
  const numbers = (field.value.match(/-?\d*\.?\d+/g) ?? []).map(Number);
  const isRight = numbers.length === 4 && [numbers[0], numbers[2]].every((number) => number >= 0 && number <= 1);
  field.classList.toggle("is-wrong", !isRight);
  if (!isRight)
    return tell(
      "Four numbers are needed, the first and third from 0 to 1, " +
        `as in “cubic-bezier(0.33, 1, 0.68, 1)”; got “${field.value}”.`,
    );
  easeHere({ bezier: numbers });
}
