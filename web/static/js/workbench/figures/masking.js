// What hands make of masks, and of the parts of a layer that have grips. The server tells the map from their own
// space to the picture (`matrix`) and the one back.

import { toTenths } from "../values/measure.js";
import { angleFromUp, away, length, moved, turned } from "./plane.js";
import { through } from "./through.js";

/** A point of a mask, told from its middle along its own sides, in the picture. */
export const placeOn = (mask, point) => through(mask.matrix, moved(turned(point, mask.rotation), mask.center));

/** A place of the picture as a mask tells it: from its middle, along its own sides. */
const toldBy = (mask, here) => turned(away(through(mask.back, here), mask.center), -mask.rotation);

/** What each hand of a mask sets: a name and its value. */
export const MASK_VALUES = {
  center(mask, here, from) {
    const by = away(through(mask.back, here), through(mask.back, from));
    return ["center", moved(mask.center, by).map(toTenths)];
  },
  rotation: (mask, here) => ["rotation", toTenths(angleFromUp(away(through(mask.back, here), mask.center)))],
  width: (mask, here) => ["size", [toTenths(2 * Math.abs(toldBy(mask, here)[0])), mask.size[1]]],
  height: (mask, here) => ["size", [mask.size[0], toTenths(2 * Math.abs(toldBy(mask, here)[1]))]],
  size(mask, here, from, isEven) {
    const sides = toldBy(mask, here).map((value) => 2 * Math.abs(value));
    if (!isEven) return ["size", sides.map(toTenths)];
    const factor = Math.max(...sides.map((side, axis) => side / (mask.size[axis] || 1)));
    return ["size", mask.size.map((side) => toTenths(side * factor))];
  },
};

/** What a grip of copies or of a flurry sets, from where the hand is in the space of the layer; `turns` follows
    angles over the top. */
export const GRIP_VALUES = {
  offset: ({ origin }, here) => away(here, origin).map(toTenths),
  distance: ({ factor }, here) => toTenths(length(here) * factor),
  across: ({ factor }, here) => toTenths(Math.abs(here[0]) * factor),
  down: ({ factor }, here) => toTenths(Math.abs(here[1]) * factor),
  angle({ minus, factor, least }, here, turns) {
    const value = toTenths((turns(angleFromUp(here)) - minus) * factor);
    return least === null ? value : Math.max(least, value);
  },
};
