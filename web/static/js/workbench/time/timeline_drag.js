// Hands in the cascade: pull the slanted line's end to change the gap, bend it at its middle, drag one
// bar to give that unit a time of its own, drag the end of a bar to make all slower or faster. What
// they do is an edit like any other; while a hand drags, the picture and the rows show its preview.

import { framesSaid, toThousandths } from "../values/measure.js";
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
const setValue = (where, value) => ({ name: "set-value", path: where, value });

/** From a shift in frames to the edit that it makes; each tells what it changes as well. `path` is of the
    move that is dragged. */
const HANDS = {
  gap({ path, level, index }, by) {
    const { ranks, gap, span } = level;
    const rank = ranks[index];
    const here = `${path}.${level.path}`;
    if (span !== null) {
      const value = toThousandths(span + (by * Math.max(...ranks)) / rank);
      return {
        edit: setValue(`${here}.span`, value),
        chip: `${level.path}.span`,
        value,
        said: `${framesSaid(value)} from first to last`,
      };
    }
    const value = toThousandths(gap + by / rank);
    return {
      edit: setValue(`${here}.gap`, value),
      chip: `${level.path}.gap`,
      value,
      said: `every ${framesSaid(value)}`,
    };
  },
  bend({ path, level, index, row }, by) {
    const delays = row.map((unit) => level.delays[unit]);
    const first = Math.min(...delays);
    const whole = Math.max(...delays) - first || 1;
    const share = Math.max(-0.9, Math.min(1.9, (level.delays[index] - first + by) / whole));
    return {
      edit: { name: "bend-stagger", path: `${path}.${level.path}`, middle: toThousandths(share) },
      said: `the middle at ${Math.round(share * 100)} %`,
    };
  },
  unit({ path, move, index }, by) {
    const times = move.delays.map((delay, unit) => (unit === index ? toThousandths(delay + by) : delay));
    return {
      edit: setValue(`${path}.stagger`, { times }),
      said: `${move.units[index]} ${framesSaid(times[index])} later`,
    };
  },
  start({ path, move }, by) {
    const value = toThousandths(move.start + by);
    return { edit: setValue(`${path}.start`, value), chip: "start", value, said: `from frame ${value} on` };
  },
  layer({ layer, span }, by) {
    return {
      edit: { name: "shift-layer", layer, by },
      said: `frames ${toThousandths(span[0] + by)} to ${toThousandths(span[1] + by)}`,
    };
  },
  trim({ layer, span, edge }, by) {
    const value = edge ? Math.max(span[0] + 1, span[1] + by) : Math.min(span[1] - 1, span[0] + by);
    return {
      edit: setValue(`${layer}.span.${edge}`, value),
      said: edge ? `up to frame ${value}` : `from frame ${value} on`,
    };
  },
  length({ path, move, index }, by) {
    const whole = move.ends[index] - move.starts[index];
    const wanted = Math.max(1, whole + by);
    return {
      edit: { name: "scale-keys", path: `${path}.amount`, factor: wanted / whole },
      chip: "amount.keys.1.at",
      value: toThousandths(wanted),
      said: `over ${framesSaid(wanted)}`,
    };
  },
};

/** Of a row the unit farthest along that can be seen: the line may lead past the scene. */
function farthest({ ranks }, row, starts) {
  const seen = (unit) => starts[unit] >= 0 && starts[unit] <= state.length;
  return row.reduce((best, unit) => (ranks[unit] > (ranks[best] ?? 0) && seen(unit) ? unit : best), -1);
}

/** The unit in the middle of a row's ranks. */
function middleOf({ ranks }, row) {
  const largest = Math.max(...row.map((unit) => ranks[unit]));
  return row.reduce((best, unit) =>
    Math.abs(ranks[unit] - largest / 2) < Math.abs(ranks[best] - largest / 2) ? unit : best,
  );
}

const longest = (rows) => rows.reduce((best, row) => (row.length > best.length ? row : best), []);

/** The slanted lines of a move, one for each row of units, and the grips on them. */
export function slantedLines(move) {
  const lines = move.hands.flatMap((level) =>
    level.rows.map((row) => ({
      look: level.path === "stagger.groups" ? "outer" : "inner",
      points: row.map((unit) => `${move.starts[unit]},${unit + 0.5}`).join(" "),
    })),
  );
  return { lines, grips: move.hands.map((level, number) => grips(move, level, number)).join("") };
}

function grips(move, level, number) {
  const row = longest(level.rows);
  const last = farthest(level, row, move.starts);
  if (last < 0) return "";
  const middle = middleOf(level, row);
  const grip = (hand, unit, what) => {
    const named = `data-hand="${hand}" data-level="${number}" data-unit="${unit}" title="${what}"`;
    const where = `--f: ${move.starts[unit]}; top: ${((unit + 0.5) / move.units.length) * 100}%`;
    return `<span class="guide__grip guide__grip--${hand}" ${named} style="${where}"></span>`;
  };
  const bend =
    middle === last || level.ranks[middle] === 0 || move.starts[middle] > state.length
      ? ""
      : grip("bend", middle, "Drag sideways to bunch the first or the last");
  return bend + grip("gap", last, "Drag sideways to change the gap");
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
