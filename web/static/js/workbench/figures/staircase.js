// The staircase of a stagger: its rows and grips, and what hands that drag them say. A move is as the server tells
// it: units, starts, ends, delays, and `hands`, the levels on which it is staggered.

import { framesSaid, toThousandths } from "../values/measure.js";

const setValue = (path, value) => ({ name: "set-value", path, value });

/** From a shift in frames to the edit that it makes; each tells what it changes as well. `path` is of the
    move that is dragged. */
export const HANDS = {
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
function farthest({ ranks }, row, starts, length) {
  const seen = (unit) => starts[unit] >= 0 && starts[unit] <= length;
  return row.reduce((best, unit) => (ranks[unit] > (ranks[best] ?? 0) && seen(unit) ? unit : best), -1);
}

/** The unit in the middle of a row's ranks. */
function middleOf({ ranks }, row) {
  const largest = Math.max(...row.map((unit) => ranks[unit]));
  return row.reduce((best, unit) =>
    Math.abs(ranks[unit] - largest / 2) < Math.abs(ranks[best] - largest / 2) ? unit : best,
  );
}

export const longest = (rows) => rows.reduce((best, row) => (row.length > best.length ? row : best), []);

/** The slanted lines of a move, one for each row of units. */
export const slantedLines = (move) =>
  move.hands.flatMap((level) =>
    level.rows.map((row) => ({
      look: level.path === "stagger.groups" ? "outer" : "inner",
      points: row.map((unit) => `${move.starts[unit]},${unit + 0.5}`).join(" "),
    })),
  );

/** The units by which hands take hold of a level in a scene of a length: its `gap`, and where it `bend`s; null where
    there is nothing to take hold of. */
export function gripsOf(move, level, length) {
  const row = longest(level.rows);
  const gap = farthest(level, row, move.starts, length);
  if (gap < 0) return { gap: null, bend: null };
  const middle = middleOf(level, row);
  const isOut = middle === gap || level.ranks[middle] === 0 || move.starts[middle] > length;
  return { gap, bend: isOut ? null : middle };
}

/** Bars side by side in as few rows as may be: of each, from its first to its end, the row. */
export function packed(spans) {
  const until = [];
  return spans.map(([first, end]) => {
    const free = until.findIndex((before) => before <= first);
    const place = free < 0 ? until.length : free;
    until[place] = end;
    return place;
  });
}

/** For characters, the word that begins at each; nothing where units are others, or white space takes part. */
export function wordsOf({ unit, units, words }) {
  if (unit !== "character" || units.includes(" ")) return [];
  const texts = [];
  units.forEach((text, index) => {
    texts[words[index]] = (texts[words[index]] ?? "") + text;
  });
  return words.map((word, index) => (word === words[index - 1] ? "" : texts[word]));
}

/** The rows from first to end that are in sight, with some beyond. */
export function rowsInSight(top, box, height, beyond, count) {
  const first = Math.max(0, Math.floor((box.top - top) / height) - beyond);
  return { first, end: Math.min(count, Math.ceil((box.bottom - top) / height) + beyond) };
}
