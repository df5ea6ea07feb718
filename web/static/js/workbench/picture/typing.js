// Typing in the picture: a double click on a title puts the caret between its letters. The words go
// through the field of the layer, so that what is typed there and here is the same.

import { select } from "../edits/pending.js";
import { emit, state } from "../state.js";
import { shape } from "../elements.js";
import { count } from "../layers/text.js";

let editing = "";

const fieldOf = (layer) => document.getElementById(`text-${layer}`);

/** Whether a title is being typed in the picture. */
export const isEditing = () => Boolean(editing) && document.activeElement === fieldOf(editing);

/** Puts the caret before a letter of a title, or behind its last. */
export function editTextAt(layer, letter) {
  const field = fieldOf(layer);
  editing = layer;
  if (layer !== state.layer) select({ layer, letters: null, move: "" });
  else if (state.letters) select({ letters: null });
  const graphemes = [...new Intl.Segmenter(undefined, { granularity: "grapheme" }).segment(field.value)];
  const at = letter ? (graphemes[letter.index]?.index ?? field.value.length) : field.value.length;
  field.focus();
  field.setSelectionRange(at, at);
  emit("picture");
}

/** The line between letters where the next would be typed, and the letters that are selected. */
export function caretDrawing({ places, px }) {
  if (!isEditing()) return [];
  const { selectionStart, selectionEnd, value } = fieldOf(editing);
  const [first, end] = [count(value.slice(0, selectionStart)), count(value.slice(0, selectionEnd))];
  const inside = places.characters.filter(({ index }) => index >= first && index < end);
  const marked = inside.map(({ corners }) =>
    shape("polygon", { points: corners.map((corner) => corner.join(",")).join(" "), class: "is-letter" }),
  );
  return [...marked, ...caret(places.characters, first === end ? first : end, px)];
}

function caret(characters, at, px) {
  const next = characters.find(({ index }) => index === at);
  const before = characters.filter(({ index }) => index < at).sort((a, b) => b.index - a.index)[0];
  const after = characters.filter(({ index }) => index > at).sort((a, b) => a.index - b.index)[0];
  const side = next
    ? [next.corners[0], next.corners[3]]
    : before
      ? [before.corners[1], before.corners[2]]
      : after
        ? [after.corners[0], after.corners[3]]
        : null;
  if (!side) return [];
  // Behind white space the caret stands off the last letter, so that a typed space can be seen.
  const gap = !next && before ? (at - before.index - 1) * 8 * px : 0;
  const [[x1, y1], [x2, y2]] = side;
  return [shape("line", { x1: x1 + gap, y1, x2: x2 + gap, y2, class: "caret" })];
}

export function listen() {
  document.addEventListener("selectionchange", () => isEditing() && emit("picture"));
  document.addEventListener("focusout", () => {
    // When parts of the page come anew the field loses the focus for a moment.
    if (editing)
      setTimeout(() => {
        if (isEditing()) return;
        editing = "";
        emit("picture");
      });
  });
  document.addEventListener("keydown", (event) => {
    if (event.key !== "Escape" || !isEditing()) return;
    document.activeElement.blur();
    document.getElementById("picture").focus();
  });
}
