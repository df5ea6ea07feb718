// What hands make of the reach of a move: the edges of a sweep, and spots.

import { toTenths } from "../values/measure.js";
import { angleFromAcross, away, length, turned } from "./plane.js";

/** What an edge of a sweep sets, which of two it is, and where it stands when it is dragged so far across. */
export function edgeOf(sweep, isFront) {
  // Of two values the lower is the back edge, however they are named.
  const [back, front] = sweep.low <= sweep.high ? ["low", "high"] : ["high", "low"];
  const name = isFront ? front : back;
  return (across) => {
    const value = toTenths(sweep[name] + across * sweep.step);
    return { name, value, seen: toTenths(value + sweep.travel) };
  };
}

/** How far a sweep has travelled when its band is dragged so far across. */
export const travelled = (sweep, across) => toTenths(sweep.travel + across * sweep.step);

/** A radius changed by as much as the hand has come nearer to the middle or gone away from it. */
function radius({ center, ...spot }, name, here, from) {
  const far = (point) => length(away(point, center));
  return [name, toTenths(Math.max(0, spot[name] + far(here) - far(from)))];
}

/** What each hand of a spot sets: a name and its value. */
export const SPOT_VALUES = {
  center: (_, here) => ["center", here.map(toTenths)],
  start: (_, here) => ["from", here.map(toTenths)],
  end: (_, here) => ["to", here.map(toTenths)],
  outer: (spot, here, from) => radius(spot, "outer", here, from),
  inner: (spot, here, from) => radius(spot, "inner", here, from),
  angle: ({ center }, here) => ["angle", toTenths(angleFromAcross(away(here, center)))],
  width: ({ center, angle }, here) => ["width", toTenths(2 * Math.abs(turned(away(here, center), -angle)[1]))],
};

/** The two ends of a line through a point at an angle, so far to both sides, shifted across itself. */
export function lineThrough(point, angle, far, by) {
  const place = (x) => turned([x, by], angle).map((value, axis) => value + point[axis]);
  return [place(-far), place(far)];
}
