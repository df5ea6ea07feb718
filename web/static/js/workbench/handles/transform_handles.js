// The grips of the selected title: corners and sides scale it, the knob above turns it, the cross is
// the pivot about which it does both.

import { keying } from "../keyframes/keying.js";
import { state } from "../state.js";
import { grip, shape } from "../elements.js";
import { toThousandths } from "../values/measure.js";

const SIZE = 9; // px of the screen
const REACH = 44; // px within which a finger takes a grip
const isCoarse = matchMedia("(pointer: coarse)");
const KNOB = 24; // px above the box
const LEAST_SIDE = 36; // px of the screen: a shorter side has no grip of its own
const CORNERS = [0, 1, 2, 3];

const middle = ([ax, ay], [bx, by]) => [(ax + bx) / 2, (ay + by) / 2];
const away = ([ax, ay], [bx, by]) => [ax - bx, ay - by];
const length = ([x, y]) => Math.hypot(x, y);

const square = (place, px, attributes) => grip(place, px, { class: "grip", ...attributes }, SIZE, 2);

/** Where the knob stands: beyond the middle of the upper side. */
function knobPlace(corners, px) {
  const top = middle(corners[0], corners[1]);
  const up = away(top, middle(corners[2], corners[3]));
  const size = length(up) || 1;
  return [top, top.map((value, axis) => value + (up[axis] / size) * KNOB * px)];
}

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
  const [top, knob] = knobPlace(corners, px);
  const arm = 7 * px;
  const handles = [
    shape("line", { x1: top[0], y1: top[1], x2: knob[0], y2: knob[1], class: "grip-arm" }),
    shape("circle", { cx: knob[0], cy: knob[1], r: 5 * px, class: "grip grip--turn", "data-grip": "turn" }),
    ...CORNERS.map((corner) =>
      square(corners[corner], px, { "data-grip": "scale", "data-corner": corner, class: "grip grip--scale" }),
    ),
    ...CORNERS.filter((side) => length(away(corners[side], corners[(side + 1) % 4])) > LEAST_SIDE * px).map((side) =>
      square(middle(corners[side], corners[(side + 1) % 4]), px, {
        "data-grip": "stretch",
        "data-side": side,
        class: "grip grip--stretch",
      }),
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

/** How far a point is along a direction from another. */
const along = (point, from, direction) =>
  (away(point, from)[0] * direction[0] + away(point, from)[1] * direction[1]) / length(direction);

export const gripHands = {
  scale(_, { own }, from) {
    const start = length(away(from, own.pivot)) || 1;
    return (here) => {
      const factor = length(away(here, own.pivot)) / start;
      const value = own.scale.map((old) => toThousandths(old * factor));
      return { edit: edit("scale", value), said: `${percent(value[0])} wide, ${percent(value[1])} high` };
    };
  },
  stretch({ side }, { own }, from) {
    const axis = side % 2 ? 0 : 1; // the upper and lower side change the height
    const { corners } = own;
    const direction = axis
      ? away(middle(corners[2], corners[3]), middle(corners[0], corners[1]))
      : away(middle(corners[1], corners[2]), middle(corners[3], corners[0]));
    const start = along(from, own.pivot, direction);
    // A side on which the pivot lies has no lever: then the box itself is the measure.
    const lever =
      Math.abs(start) > length(direction) * 0.05 ? start : length(direction) * (side === "1" || side === "2" ? 1 : -1);
    return (here) => {
      const by = along(here, own.pivot, direction) - start;
      const value = own.scale.map((old, index) => (index === axis ? toThousandths(old * (1 + by / lever)) : old));
      return { edit: edit("scale", value), said: `${percent(value[0])} wide, ${percent(value[1])} high` };
    };
  },
  turn(_, { own }, from) {
    const angle = (point) => (Math.atan2(...away(point, own.pivot).reverse()) * 180) / Math.PI;
    const start = angle(from);
    let last = start;
    let whole = 0; // so that more than one turn can be made
    return (here, event) => {
      const now = angle(here);
      whole += ((now - last + 540) % 360) - 180;
      last = now;
      const wanted = own.rotation[2] + whole;
      const turned = event.shiftKey ? Math.round(wanted / 15) * 15 : Math.round(wanted * 10) / 10;
      return {
        edit: edit("rotation", [own.rotation[0], own.rotation[1], turned]),
        said: `turned ${turned}°`.replace("-", "−"),
      };
    };
  },
  pivot(_, { own, px }) {
    const { corners } = own;
    const catchers = [
      ...corners,
      ...corners.map((corner, index) => middle(corner, corners[(index + 1) % 4])),
      middle(corners[0], corners[2]),
    ];
    return (here, event) => {
      const near = event.ctrlKey || event.metaKey ? null : catchers.find((point) => length(away(point, here)) < 8 * px);
      const place = (near ?? here).map((number) => Math.round(number * 100) / 100);
      return {
        edit: { name: "set-pivot", layer: state.layer, place },
        said: `pivot at ${Math.round(place[0])} across, ${Math.round(place[1])} down`,
      };
    };
  },
};
