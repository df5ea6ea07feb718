// The way of a title whose position is keyed: a dot for each frame, so that their spacing shows the
// speed, a bead for each keyframe, and handles that bend the way between them.

import { state } from "../state.js";
import { grip, shape } from "../elements.js";
import { away, opposed, straight } from "../figures/plane.js";
import { toTenths } from "../values/measure.js";

const path = () => `${state.layer}.transform.position`;

/** Whether a bead lies where the title itself is dragged: then it leaves that to the title. */
const isUnder = ([x, y], pivot, px) => Math.hypot(x - pivot[0], y - pivot[1]) < 6 * px;

export function pathHandles({ places, own, px }) {
  const { way } = places;
  if (!way) return [];
  const line = way.dots.map((dot) => dot.join(",")).join(" ");
  return [
    shape("polyline", { points: line, class: "path__line path__line--halo" }),
    shape("polyline", { points: line, class: "path__line" }),
    ...way.dots.map(([x, y]) => shape("circle", { cx: x, cy: y, r: 1.6 * px, class: "path__dot" })),
    ...way.keys.flatMap((key, index) => tangentHandles(key, index, px)),
    ...way.keys.flatMap(({ place: [x, y], at }, index) => [
      shape("circle", {
        cx: x,
        cy: y,
        r: 5 * px,
        class: [
          "bead",
          Math.round(at) === state.frame ? "bead--now" : "",
          isUnder([x, y], own.pivot, px) ? "bead--under" : "",
        ].join(" "),
        "data-grip": "way-key",
        "data-key": index,
      }),
      shape(
        "text",
        { x: x + 9 * px, y: y - 7 * px, class: "tag", style: `font-size: ${11 * px}px` },
        String(toTenths(at)),
      ),
    ]),
  ];
}

/** Handles of a bead: those it has, and stubs from which they can be pulled. */
function tangentHandles(key, index, px) {
  return ["in", "out"].flatMap((side) => {
    if (!key[side]) return [];
    const [[x, y], [hx, hy]] = [key.place, key[side]];
    return [
      shape("line", { x1: x, y1: y, x2: hx, y2: hy, class: "grip-arm" }),
      grip([hx, hy], px, { class: "grip", "data-grip": "way-handle", "data-key": index, "data-side": side }, 8, 2),
    ];
  });
}

const setKey = (index, field, value) => ({ name: "set-value", path: `${path()}.keys.${index}.${field}`, value });

export const wayHands = {
  /** A bead moves its key; with Alt it pulls a pair of handles out of it. */
  "way-key"({ key }, { places }, from) {
    const index = Number(key);
    const { at, value: old, scale } = places.way.keys[index];
    return (here, event) => {
      let by = here.map((value, axis) => (value - from[axis]) * scale);
      if (event.altKey) return { edit: pulled(index, by, places.way.keys.length), said: "bent" };
      if (event.shiftKey) by = straight(by);
      const value = [toTenths(old[0] + by[0]), toTenths(old[1] + by[1]), old[2]];
      return {
        edit: setKey(index, "value", value),
        said: `frame ${toTenths(at)}: ${value[0]} across, ${value[1]} down`,
      };
    };
  },
  /** A handle bends one side, and with it the other; with Alt that side alone. */
  "way-handle"({ key, side }, { places }) {
    const index = Number(key);
    const { place, scale } = places.way.keys[index];
    const other = side === "in" ? "out" : "in";
    return (here, event) => {
      const value = here.map((number, axis) => toTenths((number - place[axis]) * scale));
      const edits = [setKey(index, side, value)];
      if (!event.altKey && places.way.keys[index][other]) {
        const was = away(places.way.keys[index][other], place).map((number) => number * scale);
        edits.push(setKey(index, other, opposed(value, was).map(toTenths)));
      }
      return {
        edit: edits.length === 1 ? edits[0] : { name: "several", edits, said: "Way bent" },
        said: `${value[0]} across, ${value[1]} down of its bead`,
      };
    };
  },
};

function pulled(index, by, count) {
  const edits = [];
  if (index < count - 1) edits.push(setKey(index, "out", by.map(toTenths)));
  if (index > 0)
    edits.push(
      setKey(
        index,
        "in",
        by.map((number) => toTenths(-number)),
      ),
    );
  return edits.length === 1 ? edits[0] : { name: "several", edits, said: "Way bent" };
}
