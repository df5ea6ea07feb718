// The reach of the selected move, on the letters: the two edges of a sweep and the wedge that shows
// its softness, and the shape of a spot.

import { keying } from "../keyframes/keying.js";
import { state } from "../state.js";
import { grip, shape } from "../elements.js";
import { away, beyond, moved } from "../figures/plane.js";
import { edgeOf, lineThrough, SPOT_VALUES, travelled } from "../figures/reaching.js";

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
  const foot = beyond(bottom, away(bottom, top), 16 * px);
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
  band({ center, angle, width }, number, px) {
    const far = Math.hypot(state.width, state.height);
    const side = (by) => lineShape(lineThrough(center, angle, far, by), `spot ${by ? "" : "spot--inner"}`);
    return [
      side(0),
      side(width / 2),
      side(-width / 2),
      grip(center, px, data(number, "center")),
      grip(lineThrough(center, angle, 0, width / 2)[0], px, data(number, "width")),
      grip(lineThrough(center, angle, 60 * px, 0)[1], px, data(number, "angle")),
    ];
  },
};

const lineShape = ([[x1, y1], [x2, y2]], name) => shape("line", { x1, y1, x2, y2, class: name });

/** A short line through a place, across the way from a start to an end. */
function acrossLine(place, start, end, px) {
  const [x, y] = away(beyond(place, away(end, start), 40 * px), place);
  return lineShape([moved(place, [-y, x]), moved(place, [y, -x])], "spot spot--inner");
}

export const reachHands = {
  /** An edge changes where the band ends. */
  "sweep-edge"({ number, edge }, { places }, from) {
    const sweep = places.sweeps[number];
    const dragged = edgeOf(sweep, edge === "1");
    return (here) => {
      const { name, value, seen } = dragged(here[0] - from[0]);
      return {
        edit: edit(sweep.index, name, value),
        said: `${edge === "1" ? "front" : "back"} edge at ${seen}`,
      };
    };
  },
  /** The wedge moves the band as a whole. */
  "sweep-band"({ number }, { places }, from) {
    const sweep = places.sweeps[number];
    return (here) => {
      const value = travelled(sweep, here[0] - from[0]);
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
