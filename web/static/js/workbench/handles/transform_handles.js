// The grips of the selected title: corners and sides scale it, the knob above turns it, the cross is
// the pivot about which it does both.

import { keying } from "../keyframes/keying.js";
import { state } from "../state.js";
import { grip, shape } from "../elements.js";
import { knobPlace, longSides, pivotPlace, scaled, stretched, turnedTo } from "../figures/transforming.js";

const SIZE = 9; // px of the screen
const REACH = 44; // px within which a finger takes a grip
const isCoarse = matchMedia("(pointer: coarse)");
const KNOB = 24; // px above the box
const LEAST_SIDE = 36; // px of the screen: a shorter side has no grip of its own
const CORNERS = [0, 1, 2, 3];

const square = (place, px, attributes) => grip(place, px, { class: "grip", ...attributes }, SIZE, 2);

/** What a finger may touch of a grip, unseen beneath it. */
function reaches(handles, px) {
  if (!isCoarse.matches) return [];
  const found = handles.filter((mark) => mark.dataset.grip && mark.dataset.grip !== "pivot");
  return found.map((mark) => {
    const at = (name, side) =>
      Number(mark.getAttribute(`c${name}`) ?? Number(mark.getAttribute(name)) + Number(mark.getAttribute(side)) / 2);
    return shape("circle", {
      cx: at("x", "width"),
      cy: at("y", "height"),
      r: (REACH / 2) * px,
      class: "grip-reach",
      ...Object.fromEntries(Object.entries(mark.dataset).map(([name, value]) => [`data-${name}`, value])),
    });
  });
}

export function transformHandles({ own, px }) {
  if (own.bent) return []; // it goes with its path, which has grips of its own
  const { corners, pivot } = own;
  const [top, knob] = knobPlace(corners, KNOB * px);
  const arm = 7 * px;
  const handles = [
    shape("line", { x1: top[0], y1: top[1], x2: knob[0], y2: knob[1], class: "grip-arm" }),
    shape("circle", { cx: knob[0], cy: knob[1], r: 5 * px, class: "grip grip--turn", "data-grip": "turn" }),
    ...CORNERS.map((corner) =>
      square(corners[corner], px, { "data-grip": "scale", "data-corner": corner, class: "grip grip--scale" }),
    ),
    ...longSides(corners, LEAST_SIDE * px).map(({ side, place }) =>
      square(place, px, { "data-grip": "stretch", "data-side": side, class: "grip grip--stretch" }),
    ),
    shape("circle", { cx: pivot[0], cy: pivot[1], r: arm, class: "grip grip--pivot" }),
    // Taken by its ring: through its middle the title itself is dragged.
    shape("circle", {
      cx: pivot[0],
      cy: pivot[1],
      r: isCoarse.matches ? (REACH / 2) * px : arm + 2 * px,
      class: "grip-ring",
      "data-grip": "pivot",
    }),
    shape("path", {
      d: `M${pivot[0] - arm} ${pivot[1]}h${2 * arm}M${pivot[0]} ${pivot[1] - arm}v${2 * arm}`,
      class: "grip-cross",
    }),
  ];
  return [...reaches(handles, px), ...handles];
}

const edit = (name, value) => ({
  name: "set-value",
  path: `${state.layer}.transform.${name}`,
  value,
  at: state.frame,
  ...keying(`${state.layer}.transform.${name}`),
});
const percent = (number) => `${Math.round(number * 100)} %`.replace("-", "−");

const scaleEdit = (value) => ({
  edit: edit("scale", value),
  said: `${percent(value[0])} wide, ${percent(value[1])} high`,
});

export const gripHands = {
  scale(_, { own }, from) {
    const scale = scaled(own, from);
    return (here) => scaleEdit(scale(here));
  },
  stretch({ side }, { own }, from) {
    const scale = stretched(own, Number(side), from);
    return (here) => scaleEdit(scale(here));
  },
  turn(_, { own }, from) {
    const rotation = turnedTo(own, from);
    return (here, event) => {
      const value = rotation(here, event.shiftKey);
      return {
        edit: edit("rotation", [own.rotation[0], own.rotation[1], value]),
        said: `turned ${value}°`.replace("-", "−"),
      };
    };
  },
  pivot(_, { own, px }) {
    return (here, event) => {
      const place = pivotPlace(own.corners, here, event.ctrlKey || event.metaKey ? 0 : 8 * px);
      return {
        edit: { name: "set-pivot", layer: state.layer, place },
        said: `pivot at ${Math.round(place[0])} across, ${Math.round(place[1])} down`,
      };
    };
  },
};
