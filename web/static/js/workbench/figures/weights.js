// How far units are away from rest, as the server tells it: a byte for each unit at each of some frames.

/** From the first start to the last end of a move's units. */
export const span = ({ starts, ends }) => (starts.length ? [Math.min(...starts), Math.max(...ends)] : [0, 0]);

/** The weight of a unit at a frame, 1 = as far as the pose says. */
export function weightAt({ stride, units, bytes }, index, frame) {
  const sample = Math.min(Math.floor(frame / stride) * units.length + index, bytes.length - 1);
  return bytes[sample] / 100;
}

/** The stops of a bar's shading, of 100: how far away, and where along it. */
export const stopsOf = (shades) =>
  shades.map((shade, index) => [Math.round(shade * 100), Math.round((100 * index) / (shades.length - 1))]);

/** Which signs stand below a small chart: none if there are more than can be read side by side. */
export function isCrowded(units, most) {
  const longest = Math.max(...units.map((unit) => [...unit].length), 1);
  return units.length * Math.min(longest, 2) > most;
}

/** Tenths of frames, as they are said. */
export const framesRounded = (number) => String(Number(number.toFixed(1))).replace("-", "−");
