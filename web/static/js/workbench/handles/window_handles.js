// The window of the selected title over the picture: the boxes that it lets see through, and, on the
// first of them, a grip on each side to grow it and one within to soften that side.

import { grip, shape } from "../elements.js";
import { toTenths } from "../values/measure.js";
import { state } from "../state.js";
import { through } from "../figures/through.js";

const NAMES = ["left", "upper", "right", "lower"];
// For each side the axis that it lies on, and the way out of the box along that.
const SIDES = [
  [0, -1],
  [1, -1],
  [0, 1],
  [1, 1],
];
const APART = 14; // px of the screen from the grip that softens to the side, where it is not soft yet

/** A place `inward` px of the layer from a side, a quarter along it: its middle has a grip of the layer. */
function placeOn({ box, matrix }, side, inward) {
  const [axis, way] = SIDES[side];
  const place = [box[0] + (box[2] - box[0]) / 4, box[1] + (box[3] - box[1]) / 4];
  place[axis] = box[side] - way * inward;
  return through(matrix, place);
}

/** The line where a side is not soft any more. */
function innerLine(window, side) {
  const [axis, way] = SIDES[side];
  const at = window.box[side] - way * window.soft[side];
  const ends = [window.box[1 - axis], window.box[3 - axis]].map((other) => (axis ? [other, at] : [at, other]));
  const [[x1, y1], [x2, y2]] = ends.map((end) => through(window.matrix, end));
  return shape("line", { x1, y1, x2, y2, class: "mask" });
}

export function windowHandles({ places, px }) {
  const { window } = places;
  if (!window) return [];
  const hand = (name, side) => ({ class: "spot__grip", "data-grip": "window", "data-hand": name, "data-number": side });
  const outlines = window.outlines.map((points) =>
    shape("polygon", { points: points.map((point) => point.join(",")).join(" "), class: "mask" }),
  );
  const grips = SIDES.flatMap((_, side) => [
    ...(window.soft[side] ? [innerLine(window, side)] : []),
    grip(placeOn(window, side, Math.max(window.soft[side], APART * px)), px, hand("soft", side), 9, 4.5),
    grip(placeOn(window, side, 0), px, hand("grow", side)),
  ]);
  return [...outlines, ...grips];
}

/** The sides of a window with another value of one. */
const withSide = (values, side, value) => values.map((old, index) => (index === side ? value : old));

export const windowHands = {
  window({ hand, number }, { places }, from) {
    const { window } = places;
    if (!window) return null; // taken away meanwhile
    const side = Number(number);
    const [axis, way] = SIDES[side];
    const start = through(window.back, from)[axis];
    return (here) => {
      const out = (through(window.back, here)[axis] - start) * way;
      const grown = toTenths(window.grow[side] + out);
      const softened = Math.max(0, toTenths(window.soft[side] - out));
      const value = withSide(window[hand], side, hand === "grow" ? grown : softened);
      const said =
        hand === "grow" ? `${NAMES[side]} edge ${value[side]} px out` : `${NAMES[side]} edge ${value[side]} px soft`;
      return { edit: { name: "set-value", path: `${state.layer}.window.${hand}`, value }, said };
    };
  },
};
