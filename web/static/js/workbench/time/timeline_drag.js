// Hands in the cascade: pull the slanted line's end to change the gap, bend it at its middle, drag one
// bar to give that unit a time of its own, drag the end of a bar to make all slower or faster. What
// they do is an edit like any other; while a hand drags, the picture and the rows show its preview.

import { HANDS, gripsOf, longest, slantedLines } from "../figures/staircase.js";
import { drags, said } from "../edits/drags.js";
import { commit } from "../edits/pending.js";
import { giveUp, preview } from "../edits/preview.js";
import { catchers, snappedBy } from "./snap.js";
import { state } from "../state.js";
import { pick } from "./units.js";
import { setShown } from "../values/value_chips.js";

const EDGE = 7; // px at the end of a bar that change the length
let motion = () => null; // gives the numbers that are drawn

const rounded = (number, event) => (event.altKey ? Math.round(number * 10) / 10 : Math.round(number));
/** The slanted lines of a move, and the grips on them. */
export function slanted(move) {
  return { lines: slantedLines(move), grips: move.hands.map((level, number) => grips(move, level, number)).join("") };
}

const TITLES = { bend: "Drag sideways to bunch the first or the last", gap: "Drag sideways to change the gap" };

function grips(move, level, number) {
  const found = gripsOf(move, level, state.length);
  const grip = (hand) => {
    const unit = found[hand];
    if (unit === null) return "";
    const named = `data-hand="${hand}" data-level="${number}" data-unit="${unit}" title="${TITLES[hand]}"`;
    const where = `--f: ${move.starts[unit]}; top: ${((unit + 0.5) / move.units.length) * 100}%`;
    return `<span class="guide__grip guide__grip--${hand}" ${named} style="${where}"></span>`;
  };
  return grip("bend") + grip("gap");
}

/** A hand on a layer's bar: its ends trim it, its middle moves it in time. */
function onLayer(event, bar) {
  const { left, right, width } = bar.getBoundingClientRect();
  const edge = right - event.clientX < EDGE ? 1 : event.clientX - left < EDGE ? 0 : null;
  const { layer } = bar.closest("[data-layer]").dataset;
  const hand = edge === null || width < 3 * EDGE ? "layer" : "trim";
  return { hand, layer, edge, width: bar.closest(".lane").getBoundingClientRect().width };
}

/** What is pressed, by its names: nothing of what the page says of it, which may be of before. */
function pressed(event) {
  if (event.button !== 0) return null;
  const layerBar = event.target.closest("[data-span]");
  if (layerBar) return onLayer(event, layerBar);
  const moveBar = event.target.closest("[data-move-span]");
  const grip = event.target.closest(".guide__grip");
  const bar = event.target.closest(".crow .bar");
  if (!moveBar && !grip && !bar) return null;
  const { width } = event.target.closest(".lane").getBoundingClientRect();
  const { layer } = state;
  if (moveBar) return { hand: "start", layer, move: moveBar.dataset.moveSpan, index: 0, width };
  const index = Number((grip ?? bar).dataset.unit);
  if (grip) return { hand: grip.dataset.hand, layer, level: Number(grip.dataset.level), index, width };
  return { hand: bar.getBoundingClientRect().right - event.clientX < EDGE ? "end" : "unit", layer, index, width };
}

/** What a hand on a layer's bar starts from; null if the layer is gone. */
function ofLayer({ layer }, spans) {
  const span = spans
    ? spans[layer]
    : document
        .querySelector(`#row-${CSS.escape(layer)} [data-span]`)
        .dataset.span.split(",")
        .map(Number);
  return span && { span, places: catchers(layer) };
}

/** What a hand on a move starts from; null if there is nothing to drag. */
function ofMove({ hand, layer, move: id, level: number, index }, moves) {
  const move = moves.find((each) => each.id === (id ?? state.move)) ?? (id ? null : moves[0]);
  if (!move) return null;
  const path = `${layer}.moves.${move.id}`;
  if (number !== undefined) {
    const level = move.hands[number];
    return level && { path, move, level, row: longest(level.rows), index };
  }
  // The end of a bar makes all slower or faster where the sentence says how long it takes.
  const hasLength = hand === "end" && document.querySelector(`[data-chip="${CSS.escape(path)}.amount.keys.1.at"]`);
  return { path, move, hand: hand === "end" ? (hasLength ? "length" : "unit") : hand };
}

/** What of a layer's bar is caught by other times: its ends, or the one that is dragged. */
const caught = ({ hand, span, edge }) => (hand === "layer" ? span : [span[edge]]);

const dragging = drags({
  follow(own, event) {
    const plain = ((event.clientX - own.x) / own.width) * state.length;
    const by = own.span ? snappedBy(plain, caught(own), own.places, event) : rounded(plain, event);
    if (by === own.by) return;
    own.by = by;
    own.answer = HANDS[own.hand](own, by);
    if (dragging.isNow(own)) show(own, event);
  },
  finish({ answer, by, hand, move, index, more, seen }, keep) {
    if (keep && !answer && hand === "unit") pick(move, index, more);
    if (keep && answer && by) commit(answer.edit, { seen });
    else if (answer) giveUp();
  },
  letGo() {
    document.body.classList.remove("is-handling");
    said("");
  },
});

function show({ path, answer, seen }, event) {
  const chip = answer.chip && document.querySelector(`[data-chip="${CSS.escape(`${path}.${answer.chip}`)}"]`);
  if (chip) setShown(chip, answer.value);
  said(answer.said, event);
  preview(answer.edit, seen);
}

function begin(event) {
  const names = pressed(event);
  if (!names) return;
  event.preventDefault();
  document.body.classList.add("is-handling");
  const own = { ...names, x: event.clientX, by: 0, more: event.shiftKey };
  const start = "edge" in own ? (found) => ofLayer(own, found?.spans) : () => ofMove(own, motion()?.moves ?? []);
  dragging.beginWith("motion", own, start, own.layer);
}

/** `get` gives the numbers that are drawn now. */
export function listen(get) {
  motion = get;
  document.addEventListener("pointerdown", begin);
}
