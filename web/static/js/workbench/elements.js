// Making parts of the page and of drawings.

const NAMESPACE = "http://www.w3.org/2000/svg";

/** An SVG element with attributes, and a text in it. */
export function shape(name, attributes, text = "") {
  const made = document.createElementNS(NAMESPACE, name);
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, value);
  if (text) made.textContent = text;
  return made;
}

/** An element of the page with classes, and a text in it. */
export const element = (name, classes, text = "") =>
  Object.assign(document.createElement(name), { className: classes, textContent: text });
