// Masks of the selected layer, and the ends of a line, over the picture: dragged by their middle, their
// sides and corner, and turned. The server says how a place in the picture is one of their own space.

import { keying } from "../keyframes/keying.js";
import { state } from "../state.js";
import { grip, shape } from "../elements.js";
import { toTenths } from "../values/measure.js";
import { GRIP_VALUES, MASK_VALUES, placeOn } from "../figures/masking.js";
import { away, beyond, turning } from "../figures/plane.js";
import { through } from "../figures/through.js";

const OUT = 26; // px of the screen from a mask to the grip that turns it

const edit = (path, value) => ({ name: "set-value", path, value, at: state.frame, ...keying(path) });
const maskPath = ({ index }, name) => `${state.layer}.masks.${index}.${name}`;

function maskHandles(mask, number, px) {
  const hand = (name) => ({ "data-grip": "mask", "data-number": number, "data-hand": name });
  const handles = [
    shape("polygon", { points: mask.outline.map((point) => point.join(",")).join(" "), class: "mask" }),
    grip(placeOn(mask, [0, 0]), px, { class: "spot__grip mask__middle", ...hand("center") }),
  ];
  if (!mask.size) return handles;
  const [width, height] = mask.size.map((side) => side / 2);
  const top = placeOn(mask, [0, -height]);
  const knob = beyond(top, away(top, placeOn(mask, [0, 0])), OUT * px);
  return [
    ...handles,
    shape("line", { x1: top[0], y1: top[1], x2: knob[0], y2: knob[1], class: "mask" }),
    grip(knob, px, { class: "spot__grip", ...hand("rotation") }),
    grip(placeOn(mask, [width, 0]), px, { class: "spot__grip", ...hand("width") }),
    grip(placeOn(mask, [0, height]), px, { class: "spot__grip", ...hand("height") }),
    grip(placeOn(mask, [width, height]), px, { class: "spot__grip", ...hand("size") }),
  ];
}

const line = (points, name) =>
  shape("polyline", { points: points.map((place) => place.join(",")).join(" "), class: name });

/** What is dragged of copies or of a flurry. */
const gripsOf = (part, held, px) =>
  held.grips.map(({ seen, name }, number) =>
    grip(seen, px, { class: "spot__grip", "data-grip": part, "data-number": number, "data-hand": name }),
  );

/** Where copies stand; where pieces are thrown, and the ways of some. */
function partHandles({ copies, flurry }, px) {
  const ofCopies = copies ? [line(copies.seen, "mask"), ...gripsOf("copies", copies, px)] : [];
  if (!flurry) return ofCopies;
  const ways = flurry.ways.map((way) => line(way, "flown"));
  return [...ofCopies, ...ways, line(flurry.fan, "mask"), ...gripsOf("flurry", flurry, px)];
}

export function shapeHandles({ places, px }) {
  const ends = (places.line?.seen ?? []).map((place, number) =>
    grip(place, px, { class: "spot__grip", "data-grip": "line-end", "data-number": number }),
  );
  const parts = partHandles(places, px);
  return [...parts, ...(places.masks ?? []).flatMap((mask, number) => maskHandles(mask, number, px)), ...ends];
}

/** The hand of a part of the layer that has grips. */
const partHand =
  (part) =>
  ({ number }, { places }) => {
    const { back, grips } = places[part];
    const held = grips[number];
    const turns = turning(held.value + held.minus);
    const said = held.name.split(".").at(-1);
    return (here) => {
      const value = GRIP_VALUES[held.hand](held, through(back, here), turns);
      const path = `${state.layer}.${held.path}`;
      return { edit: edit(path, value), said: `${said} of the ${part} ${[value].flat().join(", ")}` };
    };
  };

export const formHands = {
  copies: partHand("copies"),
  flurry: partHand("flurry"),
  mask({ number, hand }, { places }, from) {
    const mask = places.masks[number];
    return (here, event) => {
      const [name, value] = MASK_VALUES[hand](mask, here, from, event.shiftKey);
      return { edit: edit(maskPath(mask, name), value), said: `${name} of the mask ${[value].flat().join(", ")}` };
    };
  },
  "line-end"({ number }, { places }) {
    const name = number === "1" ? "to" : "from";
    return (here) => {
      const value = through(places.line.back, here).map(toTenths);
      return {
        edit: edit(`${state.layer}.shape.${name}`, value),
        said: `${number === "1" ? "end" : "start"} at ${value.join(", ")}`,
      };
    };
  },
};
