// The path that the selected title stands along, over the picture: its line, a grip on it that the text is
// drawn along by, and one above it that lifts the text off.

import { grip, shape } from "../elements.js";
import { keying } from "../keyframes/keying.js";
import { toTenths } from "../values/measure.js";
import { state } from "../state.js";

const LIFTED = 30; // px of the screen from the grip on the path to the one above it

const place = (name) => `${state.layer}.along.${name}`;
const edit = (name, value) => ({
  name: "set-value",
  path: place(name),
  value,
  at: state.frame,
  ...keying(place(name)),
});

export function alongHandles({ places, px }) {
  const { along } = places;
  if (!along) return [];
  const hand = (name) => ({ class: "spot__grip", "data-grip": "along", "data-hand": name });
  const size = Math.hypot(...along.up) || 1;
  const lifted = along.foot.map((value, axis) => value + (along.up[axis] / size) * LIFTED * px);
  return [
    shape("polyline", { points: along.points.map((point) => point.join(",")).join(" "), class: "along" }),
    grip(lifted, px, hand("rise"), 9, 4.5),
    grip(along.foot, px, hand("offset")),
  ];
}

/** How many percent along the path the point of it is that is next to a place. */
function nearest({ points, percents }, [x, y]) {
  let least = Infinity;
  let found = 0;
  for (let index = 1; index < points.length; index++) {
    const [[ax, ay], [bx, by]] = [points[index - 1], points[index]];
    const [across, down] = [bx - ax, by - ay];
    const long = across * across + down * down || 1;
    const share = Math.min(1, Math.max(0, ((x - ax) * across + (y - ay) * down) / long));
    const away = Math.hypot(ax + share * across - x, ay + share * down - y);
    if (away < least) {
      least = away;
      found = percents[index - 1] + share * (percents[index] - percents[index - 1]);
    }
  }
  return found;
}

export const alongHands = {
  along({ hand }, { places }, from) {
    const { along } = places;
    if (!along) return null; // it stands straight meanwhile
    return hand === "rise" ? lift(along, from) : slide(along, from);
  },
};

function slide(along, from) {
  let last = nearest(along, from);
  let value = along.offset;
  return (here) => {
    const next = nearest(along, here);
    let step = next - last;
    // Round a closed path the nearer way is meant, as often as the hand goes round.
    if (along.closed) step -= Math.round(step / 100) * 100;
    last = next;
    value += step;
    const rounded = toTenths(value);
    return { edit: edit("offset", rounded), said: `${rounded} % along the path` };
  };
}

function lift(along, from) {
  const { rise, up } = along;
  const long = up[0] * up[0] + up[1] * up[1] || 1;
  return (here) => {
    const by = ((here[0] - from[0]) * up[0] + (here[1] - from[1]) * up[1]) / long;
    const value = toTenths(rise + by);
    return { edit: edit("rise", value), said: `${value} px off the path` };
  };
}
