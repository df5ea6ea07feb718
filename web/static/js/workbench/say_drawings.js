// A drawing for each thing that a sentence can go on with, in lines of 36 x 20.

import { shape } from "./elements.js";

const DRAWINGS = {
  who: "M4 15V6H9M4 10H8M14 15V6M12 6H16M22 15V6L27 15V6M32 6H29V15H32",
  where: "M18 17V4M13 9L18 4L23 9",
  by: "M2 10Q7 0 12 10T22 10T32 10",
  when: "M3 5H15M9 10H21M15 15H27",
  ease: "M3 16C12 16 16 4 33 4",
  order: "M4 16V13M11 16V10M18 16V4M25 16V10M32 16V13",
  more: "M10 10H26M18 3V17",
  effect: "M18 3L20 8L25 10L20 12L18 17L16 12L11 10L16 8Z",
  mask: "M6 4H30V16H6ZM12 10A6 5 0 1 0 24 10A6 5 0 1 0 12 10",
  window: "M4 4V16H8M32 4V16H28M10 6H26M10 14H26",
  motion_blur: "M4 6H20M8 10H28M4 14H20M28 5A5 5 0 0 1 28 15",
  style: "M8 16L14 4L20 16M10 12H18M24 16V9M24 9Q30 7 30 12V16M30 12Q24 11 24 14T30 14",
  place: "M18 3V17M6 10H30M15 7L18 3L21 7",
};

/** The drawing of a group; an ease has its own. */
export function drawingOf(group, own = "") {
  const drawing = shape("svg", { viewBox: "0 0 36 20", class: "say__drawing", "aria-hidden": "true" });
  drawing.append(shape("path", { d: own || DRAWINGS[group] || DRAWINGS.more }));
  return drawing;
}
