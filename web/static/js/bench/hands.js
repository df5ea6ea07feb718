// Hands in the cascade: pull the slanted line's end to change the gap, bend it at its middle, drag one
// bar to give that unit a time of its own, drag the end of a bar to make all slower or faster. What
// they do is an edit like any other; while a hand drags, the picture and the rows show its preview.

import { commit, giveUp, preview } from "./server.js";
import { state } from "./state.js";
import { setShown } from "./values.js";

const EDGE = 7; // px at the end of a bar that change the length
let drag = null;

const rounded = (number, event) => (event.altKey ? Math.round(number * 10) / 10 : Math.round(number));
const clean = (number) => Math.round(number * 1000) / 1000;
const path = (move) => `${state.layer}.moves.${move.id}`;
const setValue = (where, value) => ({ name: "set-value", path: where, value });

/** From a shift in frames to the edit that it makes; each tells what it changes as well. */
const HANDS = {
  gap({ move, index }, by) {
    const { ranks, last, gap, span } = move.hands;
    const rank = ranks[index];
    if (span !== null) {
      const value = clean(span + (by * ranks[last]) / rank);
      return { edit: setValue(`${path(move)}.stagger.span`, value), chip: "stagger.span", value, said: `${value} frames from first to last` };
    }
    const value = clean(gap + by / rank);
    return { edit: setValue(`${path(move)}.stagger.gap`, value), chip: "stagger.gap", value, said: `every ${value} frames` };
  },
  bend({ move }, by) {
    const { middle, last } = move.hands;
    const first = Math.min(...move.delays);
    const whole = move.delays[last] - first || 1;
    const share = Math.max(-0.9, Math.min(1.9, (move.delays[middle] - first + by) / whole));
    return { edit: { name: "bend-stagger", path: `${path(move)}.stagger`, middle: clean(share) }, said: `the middle at ${Math.round(share * 100)} %` };
  },
  unit({ move, index }, by) {
    const times = move.delays.map((delay, place) => (place === index ? clean(delay + by) : delay));
    return { edit: setValue(`${path(move)}.stagger`, { times }), said: `${move.units[index]} ${clean(times[index])} frames later` };
  },
  start({ move }, by) {
    const value = clean(move.start + by);
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
    return { edit: { name: "scale-keys", path: `${path(move)}.amount`, factor: wanted / whole }, chip: "amount.keys.1.at", value: clean(wanted), said: `over ${clean(wanted)} frames` };
  },
};

/** The unit farthest along the slanted line that can be seen: the line may lead past the scene. */
function farthest({ hands: { ranks }, starts }) {
  const seen = (index) => starts[index] >= 0 && starts[index] <= state.length;
  return ranks.reduce((best, rank, index) => (rank > (ranks[best] ?? 0) && seen(index) ? index : best), -1);
}

/** Puts the grips on the slanted line of a move. */
export function grips(move) {
  if (!move.hands.ranks) return "";
  const { middle } = move.hands;
  const last = farthest(move);
  if (last < 0) return "";
  const grip = (hand, index, what) => `<span class="guide__grip guide__grip--${hand}" data-hand="${hand}" title="${what}" style="--f: ${move.starts[index]}; top: ${((index + 0.5) / move.units.length) * 100}%"></span>`;
  return (middle === last || move.starts[middle] > state.length ? "" : grip("bend", middle, "Drag sideways to bunch the first or the last")) + grip("gap", last, "Drag sideways to change the gap");
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
  if (grip) return { hand: grip.dataset.hand, move, index: farthest(move), width: lane.width };
  const index = [...document.querySelectorAll("#cascade .crow .bar")].indexOf(bar);
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

function moveHand(event) {
  if (!drag) return;
  const by = rounded(((event.clientX - drag.x) / drag.width) * state.length, event);
  drag.at = [event.clientX, event.clientY];
  if (by === drag.by) return;
  drag.by = by;
  drag.answer = HANDS[drag.hand](drag, by);
  shown(drag.answer);
  preview(drag.answer.edit);
}

function end(keep) {
  if (!drag) return;
  const { answer, by } = drag;
  drag = null;
  document.body.classList.remove("is-handling");
  document.getElementById("hand-said").hidden = true;
  if (keep && answer && by) commit(answer.edit);
  else if (answer) giveUp();
}

/** `motion` gives the numbers that are drawn now. */
export function listen(motion) {
  document.addEventListener("pointerdown", (event) => {
    const begun = begin(event, motion());
    if (!begun) return;
    event.preventDefault();
    drag = { ...begun, x: event.clientX, at: [event.clientX, event.clientY], by: 0 };
    document.body.classList.add("is-handling");
  });
  document.addEventListener("pointermove", moveHand);
  document.addEventListener("pointerup", () => end(true));
  document.addEventListener("pointercancel", () => end(false));
  document.addEventListener("keydown", (event) => event.key === "Escape" && end(false), true);
}
