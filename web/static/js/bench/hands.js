// Hands in the cascade: pull the slanted line's end to change the gap, bend it at its middle, drag one
// bar to give that unit a time of its own, drag the end of a bar to make all slower or faster. What
// they do is an edit like any other; while a hand drags, the picture and the rows show its preview.

import { framesSaid } from "./measure.js";
import { resume, whileBusy } from "./answers.js";
import { commit, latest, release } from "./pending.js";
import { giveUp, preview } from "./preview.js";
import { catchers, snappedBy } from "./snap.js";
import { state } from "./state.js";
import { pick } from "./units.js";
import { setShown } from "./values.js";

const EDGE = 7; // px at the end of a bar that change the length
let drag = null;

const rounded = (number, event) => (event.altKey ? Math.round(number * 10) / 10 : Math.round(number));
const clean = (number) => Math.round(number * 1000) / 1000;
const path = (move) => `${state.layer}.moves.${move.id}`;
const setValue = (where, value) => ({ name: "set-value", path: where, value });

/** From a shift in frames to the edit that it makes; each tells what it changes as well. */
const HANDS = {
  gap({ move, level, index }, by) {
    const { ranks, gap, span } = level;
    const rank = ranks[index];
    const here = `${path(move)}.${level.path}`;
    if (span !== null) {
      const value = clean(latest(`${here}.span`, span) + (by * Math.max(...ranks)) / rank);
      return { edit: setValue(`${path(move)}.${level.path}.span`, value), chip: `${level.path}.span`, value, said: `${framesSaid(value)} from first to last` };
    }
    const value = clean(latest(`${here}.gap`, gap) + by / rank);
    return { edit: setValue(`${path(move)}.${level.path}.gap`, value), chip: `${level.path}.gap`, value, said: `every ${framesSaid(value)}` };
  },
  bend({ move, level, index, row }, by) {
    const delays = row.map((unit) => level.delays[unit]);
    const first = Math.min(...delays);
    const whole = Math.max(...delays) - first || 1;
    const share = Math.max(-0.9, Math.min(1.9, (level.delays[index] - first + by) / whole));
    return { edit: { name: "bend-stagger", path: `${path(move)}.${level.path}`, middle: clean(share) }, said: `the middle at ${Math.round(share * 100)} %` };
  },
  unit({ move, index }, by) {
    const delays = latest(`${path(move)}.stagger`, {}).times ?? move.delays;
    const times = delays.map((delay, place) => (place === index ? clean(delay + by) : delay));
    return { edit: setValue(`${path(move)}.stagger`, { times }), said: `${move.units[index]} ${framesSaid(times[index])} later` };
  },
  start({ move }, by) {
    const value = clean(latest(`${path(move)}.start`, move.start) + by);
    return { edit: setValue(`${path(move)}.start`, value), chip: "start", value, said: `from frame ${value} on` };
  },
  layer({ layer, span }, by) {
    return { edit: { name: "shift-layer", layer, by }, said: `frames ${clean(span[0] + by)} to ${clean(span[1] + by)}` };
  },
  trim({ layer, span, edge }, by) {
    const value = edge ? Math.max(span[0] + 1, span[1] + by) : Math.min(span[1] - 1, span[0] + by);
    return { edit: setValue(`${layer}.span.${edge}`, value), said: edge ? `up to frame ${value}` : `from frame ${value} on` };
  },
  length({ move, index }, by) {
    const whole = move.ends[index] - move.starts[index];
    const wanted = Math.max(1, whole + by);
    return { edit: { name: "scale-keys", path: `${path(move)}.amount`, factor: wanted / whole }, chip: "amount.keys.1.at", value: clean(wanted), said: `over ${framesSaid(wanted)}` };
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
  return row.reduce((best, unit) => (Math.abs(ranks[unit] - largest / 2) < Math.abs(ranks[best] - largest / 2) ? unit : best));
}

const longest = (rows) => rows.reduce((best, row) => (row.length > best.length ? row : best), []);

/** The slanted lines of a move, one for each row of units, and the grips on them. */
export function slantedLines(move) {
  const lines = move.hands.flatMap((level) => level.rows.map((row) => ({ look: level.path === "stagger.groups" ? "outer" : "inner", points: row.map((unit) => `${move.starts[unit]},${unit + 0.5}`).join(" ") })));
  return { lines, grips: move.hands.map((level, number) => grips(move, level, number)).join("") };
}

function grips(move, level, number) {
  const row = longest(level.rows);
  const last = farthest(level, row, move.starts);
  if (last < 0) return "";
  const middle = middleOf(level, row);
  const grip = (hand, unit, what) => `<span class="guide__grip guide__grip--${hand}" data-hand="${hand}" data-level="${number}" data-unit="${unit}" title="${what}" style="--f: ${move.starts[unit]}; top: ${((unit + 0.5) / move.units.length) * 100}%"></span>`;
  const bend = middle === last || level.ranks[middle] === 0 || move.starts[middle] > state.length ? "" : grip("bend", middle, "Drag sideways to bunch the first or the last");
  return bend + grip("gap", last, "Drag sideways to change the gap");
}

/** A hand on a layer's bar: its ends trim it, its middle moves it in time. */
function onLayer(event, bar) {
  const { left, right, width } = bar.getBoundingClientRect();
  const edge = right - event.clientX < EDGE ? 1 : event.clientX - left < EDGE ? 0 : null;
  const span = bar.dataset.span.split(",").map(Number);
  const lane = bar.closest(".lane").getBoundingClientRect();
  const layer = bar.closest("[data-layer]").dataset.layer;
  return { hand: edge === null || width < 3 * EDGE ? "layer" : "trim", layer, span, edge, width: lane.width };
}

function begin(event, motion) {
  if (event.button !== 0) return null;
  const layerBar = event.target.closest("[data-span]");
  if (layerBar) return onLayer(event, layerBar);
  const moveBar = event.target.closest("[data-move-span]");
  if (moveBar) {
    const move = motion?.moves.find(({ id }) => id === moveBar.dataset.moveSpan);
    return move && { hand: "start", move, index: 0, width: moveBar.closest(".lane").getBoundingClientRect().width };
  }
  const grip = event.target.closest("[data-hand]");
  const bar = event.target.closest(".crow .bar");
  const move = motion?.moves.find(({ id }) => id === state.move) ?? motion?.moves[0];
  if (!move || !(grip || bar)) return null;
  const lane = event.target.closest(".lane").getBoundingClientRect();
  if (grip) {
    const level = move.hands[Number(grip.dataset.level)];
    return { hand: grip.dataset.hand, move, level, row: longest(level.rows), index: Number(grip.dataset.unit), width: lane.width };
  }
  const index = Number(bar.dataset.unit);
  const atEnd = bar.getBoundingClientRect().right - event.clientX < EDGE;
  if (atEnd && document.querySelector(`[data-chip="${CSS.escape(path(move))}.amount.keys.1.at"]`)) return { hand: "length", move, index, width: lane.width };
  return { hand: "unit", move, index, width: lane.width };
}

function shown(answer) {
  const chip = answer.chip && drag.move && document.querySelector(`[data-chip="${CSS.escape(`${path(drag.move)}.${answer.chip}`)}"]`);
  if (chip) setShown(chip, answer.value);
  const label = document.getElementById("hand-said");
  label.hidden = false;
  label.textContent = answer.said;
  label.style.left = `${drag.at[0] + 14}px`;
  label.style.top = `${drag.at[1] - 24}px`;
}

/** What of a layer's bar is caught by other times: its ends, or the one that is dragged. */
const caught = ({ hand, span, edge }) => (hand === "layer" ? span : [span[edge]]);

function moveHand(event) {
  if (!drag) return;
  const plain = ((event.clientX - drag.x) / drag.width) * state.length;
  const by = drag.span ? snappedBy(plain, caught(drag), drag.places, event) : rounded(plain, event);
  drag.at = [event.clientX, event.clientY];
  if (by === drag.by) return;
  drag.by = by;
  drag.answer = HANDS[drag.hand](drag, by);
  shown(drag.answer);
  preview(drag.answer.edit);
}

function end(keep) {
  if (!drag) return;
  const { answer, by, hand, move, index, more } = drag;
  drag = null;
  document.body.classList.remove("is-handling");
  document.getElementById("hand-said").hidden = true;
  if (keep && !answer && hand === "unit") pick(move, index, more);
  if (keep && answer && by) commit(answer.edit);
  else if (answer) giveUp();
  resume();
}

/** `motion` gives the numbers that are drawn now. */
export function listen(motion) {
  whileBusy(() => Boolean(drag));
  document.addEventListener("pointerdown", (event) => {
    const begun = begin(event, motion());
    if (!begun) return;
    event.preventDefault();
    release();
    drag = { ...begun, x: event.clientX, at: [event.clientX, event.clientY], by: 0, more: event.shiftKey, places: begun.layer ? catchers(begun.layer) : [] };
    document.body.classList.add("is-handling");
  });
  document.addEventListener("pointermove", moveHand);
  document.addEventListener("pointerup", () => end(true));
  document.addEventListener("pointercancel", () => end(false));
  document.addEventListener("keydown", (event) => event.key === "Escape" && end(false), true);
}
