// What hands make of the box of a layer: corners from the upper left on, clockwise; its pivot, scale and rotation.

import { toThousandths } from "../values/measure.js";
import { along, angleFromAcross, away, beyond, length, middle, turning } from "./plane.js";

/** Where the knob that turns stands: beyond the middle of the upper side, so far; and that middle. */
export function knobPlace(corners, far) {
  const top = middle(corners[0], corners[1]);
  return [top, beyond(top, away(top, middle(corners[2], corners[3])), far)];
}

/** The sides that are long enough for a grip of their own, with its place. */
export const longSides = (corners, least) =>
  [0, 1, 2, 3]
    .map((side) => ({ side, ends: [corners[side], corners[(side + 1) % 4]] }))
    .filter(({ ends }) => length(away(...ends)) > least)
    .map(({ side, ends }) => ({ side, place: middle(...ends) }));

/** The scale of a box whose corner is dragged from a point to another: by as much as it has come away. */
export function scaled({ pivot, scale }, from) {
  const start = length(away(from, pivot)) || 1;
  return (here) => scale.map((old) => toThousandths((old * length(away(here, pivot))) / start));
}

/** The scale of a box one of whose sides is dragged: the upper and the lower change its height. */
export function stretched({ corners, pivot, scale }, side, from) {
  const axis = side % 2 ? 0 : 1;
  const direction = axis
    ? away(middle(corners[2], corners[3]), middle(corners[0], corners[1]))
    : away(middle(corners[1], corners[2]), middle(corners[3], corners[0]));
  const start = along(from, pivot, direction);
  // A side on which the pivot lies has no lever: then the box itself is the measure.
  const hasLever = Math.abs(start) > length(direction) * 0.05;
  const lever = hasLever ? start : length(direction) * (side === 1 || side === 2 ? 1 : -1);
  return (here) => {
    const by = along(here, pivot, direction) - start;
    return scale.map((old, index) => (index === axis ? toThousandths(old * (1 + by / lever)) : old));
  };
}

/** The rotation of a box whose knob is dragged, beyond whole turns too; in steps of 15°, or of tenths. */
export function turnedTo({ pivot, rotation }, from) {
  const start = angleFromAcross(away(from, pivot));
  const follow = turning(start);
  return (here, inSteps) => {
    const wanted = rotation[2] + follow(angleFromAcross(away(here, pivot))) - start;
    return inSteps ? Math.round(wanted / 15) * 15 : Math.round(wanted * 10) / 10;
  };
}

/** Where a pivot comes to stand: at a corner, the middle of a side or of the box that is near, else where it is. */
export function pivotPlace(corners, here, near) {
  const sides = corners.map((corner, index) => middle(corner, corners[(index + 1) % 4]));
  const catchers = [...corners, ...sides, middle(corners[0], corners[2])];
  const caught = near ? catchers.find((point) => length(away(point, here)) < near) : null;
  return (caught ?? here).map((number) => Math.round(number * 100) / 100);
}
