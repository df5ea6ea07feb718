// The reach of the selected move, on the letters: the two edges of a sweep and the wedge that shows
// its softness, and the shape of a spot.

import { keying } from "../keyframes/keying.js";
import { state } from "../state.js";
import { grip, shape } from "../elements.js";
import { toTenths } from "../values/measure.js";

const path = (index, name) => `${state.layer}.moves.${state.move}.reach.${index}.${name}`;
const edit = (index, name, value) => ({
  name: "set-value",
  path: path(index, name),
  value,
  at: state.frame,
  ...keying(path(index, name)),
});

export function reachHandles({ places, px }) {
  const sweeps = (places.sweeps ?? []).flatMap((sweep, number) => sweepHandles(sweep, number, px));
  return [...sweeps, ...(places.spots ?? []).flatMap((spot, number) => SPOTS[spot.shape](spot, number, px))];
}

function sweepHandles(sweep, number, px) {
  const wedge = sweep.wedge.length
    ? [
        shape("polygon", {
          points: sweep.wedge.map((point) => point.join(",")).join(" "),
          class: "wedge",
          "data-grip": "sweep-band",
          "data-number": number,
        }),
      ]
    : [];
  return [...wedge, ...sweep.edges.flatMap(([top, bottom], edge) => edgeHandles(top, bottom, edge, number, px))];
}

function edgeHandles(top, bottom, edge, number, px) {
  const away = [bottom[0] - top[0], bottom[1] - top[1]];
  const size = Math.hypot(...away) || 1;
  const foot = bottom.map((value, axis) => value + (away[axis] / size) * 16 * px);
  const name = edge ? "front" : "back";
  return [
    shape("line", { x1: top[0], y1: top[1], x2: foot[0], y2: foot[1], class: "edge__line" }),
    shape("rect", {
      x: foot[0] - 5 * px,
      y: foot[1] - 8 * px,
      width: 10 * px,
      height: 16 * px,
      rx: 4 * px,
      class: "edge__grip",
      "data-grip": "sweep-edge",
      "data-number": number,
      "data-edge": edge,
    }),
    shape(
      "text",
      {
        x: foot[0] + (edge ? 8 : -8) * px,
        y: foot[1] + 4 * px,
        "text-anchor": edge ? "start" : "end",
        class: "tag tag--sweep",
        style: `font-size: ${11 * px}px`,
      },
      name,
    ),
  ];
}

const data = (number, hand) => ({ class: "spot__grip", "data-grip": "spot", "data-number": number, "data-spot": hand });

const APART = 14; // px of the screen: no closer do the grips of a small spot stand to its middle

const SPOTS = {
  round({ center: [x, y], inner, outer }, number, px) {
    return [
      shape("circle", { cx: x, cy: y, r: Math.max(0, outer), class: "spot" }),
      shape("circle", { cx: x, cy: y, r: Math.max(0, inner), class: "spot spot--inner" }),
      grip([x, y], px, data(number, "center")),
      grip([x + Math.max(outer, APART * px), y], px, data(number, "outer")),
      grip([x, y - Math.max(inner, APART * px)], px, data(number, "inner")),
    ];
  },
  slope({ start, end }, number, px) {
    return [
      shape("line", { x1: start[0], y1: start[1], x2: end[0], y2: end[1], class: "spot" }),
      ...[
        [start, "start"],
        [end, "end"],
      ].flatMap(([place, hand]) => [acrossLine(place, start, end, px), grip(place, px, data(number, hand))]),
    ];
  },
  band({ center: [x, y], angle, width }, number, px) {
    const [cos, sin] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
    const far = Math.hypot(state.width, state.height);
    const side = (by) =>
      shape("line", {
        x1: x - cos * far - sin * by,
        y1: y - sin * far + cos * by,
        x2: x + cos * far - sin * by,
        y2: y + sin * far + cos * by,
        class: `spot ${by ? "" : "spot--inner"}`,
      });
    return [
      side(0),
      side(width / 2),
      side(-width / 2),
      grip([x, y], px, data(number, "center")),
      grip([x - (sin * width) / 2, y + (cos * width) / 2], px, data(number, "width")),
      grip([x + cos * 60 * px, y + sin * 60 * px], px, data(number, "angle")),
    ];
  },
};

function acrossLine([x, y], start, end, px) {
  const away = [end[0] - start[0], end[1] - start[1]];
  const size = (Math.hypot(...away) || 1) / (40 * px);
  return shape("line", {
    x1: x - away[1] / size,
    y1: y + away[0] / size,
    x2: x + away[1] / size,
    y2: y - away[0] / size,
    class: "spot spot--inner",
  });
}

/** A radius changed by as much as the hand has come nearer to the middle or gone away from it. */
function radius({ center, ...spot }, name, here, from) {
  const far = (point) => Math.hypot(point[0] - center[0], point[1] - center[1]);
  return [name, toTenths(Math.max(0, spot[name] + far(here) - far(from)))];
}

/** What each hand of a spot sets: a name and its value. */
const SPOT_VALUES = {
  center: (_, here) => ["center", here.map(toTenths)],
  start: (_, here) => ["from", here.map(toTenths)],
  end: (_, here) => ["to", here.map(toTenths)],
  outer: (spot, here, from) => radius(spot, "outer", here, from),
  inner: (spot, here, from) => radius(spot, "inner", here, from),
  angle: ({ center }, here) => [
    "angle",
    toTenths((Math.atan2(here[1] - center[1], here[0] - center[0]) * 180) / Math.PI),
  ],
  width({ center, angle }, here) {
    const turn = (angle * Math.PI) / 180;
    return [
      "width",
      toTenths(2 * Math.abs((here[1] - center[1]) * Math.cos(turn) - (here[0] - center[0]) * Math.sin(turn))),
    ];
  },
};

export const reachHands = {
  /** An edge changes where the band ends. */
  "sweep-edge"({ number, edge }, { places }, from) {
    const sweep = places.sweeps[number];
    // Of two values the lower is the back edge, however they are named.
    const [back, front] = sweep.low <= sweep.high ? ["low", "high"] : ["high", "low"];
    const name = edge === "1" ? front : back;
    return (here) => {
      const value = toTenths(sweep[name] + (here[0] - from[0]) * sweep.step);
      return {
        edit: edit(sweep.index, name, value),
        said: `${edge === "1" ? "front" : "back"} edge at ${toTenths(value + sweep.travel)}`,
      };
    };
  },
  /** The wedge moves the band as a whole. */
  "sweep-band"({ number }, { places }, from) {
    const sweep = places.sweeps[number];
    return (here) => {
      const value = toTenths(sweep.travel + (here[0] - from[0]) * sweep.step);
      return { edit: edit(sweep.index, "travel", value), said: `travelled ${value}` };
    };
  },
  spot({ number, spot: hand }, { places }, from) {
    const spot = places.spots[number];
    return (here) => {
      const [name, value] = SPOT_VALUES[hand](spot, here, from);
      return { edit: edit(spot.index, name, value), said: `${name} ${[value].flat().join(", ")}` };
    };
  },
};
