// Drawings of what can be said, as the server tells them: lines of 36 x 20.

import { shape } from "../elements.js";

export function drawn(path) {
  const drawing = shape("svg", { viewBox: "0 0 36 20", class: "drawn", "aria-hidden": "true" });
  drawing.append(shape("path", { d: path }));
  return drawing;
}
