// How numbers are said: the page's side of `Measure` in balletto/scene/values/measures.py.

// What a chip does not say of its measure.
const USUAL = {
  unit: "",
  scale: 1,
  drag: 1,
  step: 1,
  below: "",
  above: "",
  low: null,
  high: null,
  before: "",
  one: "",
};

export const measureOf = (chip) => ({ ...USUAL, ...JSON.parse(chip.dataset.measure) });

/** The number in words: "120 px below". */
export function say(measure, value) {
  const shown = value * measure.scale;
  const direction = measure.below ? (shown < 0 ? measure.below : measure.above) : "";
  const number = String(Number((measure.below ? Math.abs(shown) : shown).toFixed(2))).replace("-", "−");
  const unit = measure.one && Math.abs(shown) === 1 ? measure.one : measure.unit;
  return [measure.before, number + unit, direction].filter(Boolean).join(" ");
}

/** A number of frames in words: "1 frame", "2.5 frames". */
export const framesSaid = (number) => say({ ...USUAL, unit: " frames", one: " frame" }, number);

/** The value of a typed text that is a number and nothing else, to be shown until it is read; or null. */
export function plainNumber(measure, text) {
  const found = text
    .trim()
    .replace(/[−–]/, "-")
    .match(/^-?(\d+([.,]\d*)?|[.,]\d+)$/);
  const value = found ? Number(found[0].replace(",", ".")) / measure.scale : NaN;
  return Number.isFinite(value) && within(measure, value) === value ? value : null;
}

export function within(measure, value) {
  const low = measure.low ?? -Infinity;
  const high = measure.high ?? Infinity;
  return Math.max(low, Math.min(high, value));
}

/** The value on the grid of its step, without the dust of binary fractions. */
export function rounded(measure, value, finer = 1) {
  const grid = measure.step / finer;
  return Number((Math.round(value / grid) * grid).toFixed(6));
}

/** Numbers without the dust of binary fractions. */
export const toThousandths = (number) => Math.round(number * 1000) / 1000;
export const toTenths = (number) => Math.round(number * 10) / 10;
