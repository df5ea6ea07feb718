// Making parts of the page and of drawings.

const NAMESPACE = "http://www.w3.org/2000/svg";

/** An SVG element with attributes, and a text in it. */
export function shape(name, attributes, text = "") {
  const made = document.createElementNS(NAMESPACE, name);
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, value);
  if (text) made.textContent = text;
  return made;
}

/** A square with round corners to take hold of in the picture; `side` and `corner` in px of the screen, of which
 * `px` of the drawing make one. */
export const grip = ([x, y], px, attributes, side = 9, corner = 3) =>
  shape("rect", {
    x: x - (side / 2) * px,
    y: y - (side / 2) * px,
    width: side * px,
    height: side * px,
    rx: corner * px,
    ...attributes,
  });

/** An element of the page with classes, and a text in it. */
export const element = (name, classes, text = "") =>
  Object.assign(document.createElement(name), { className: classes, textContent: text });
