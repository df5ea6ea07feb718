// The chips of numbers: what they are, the edits that they make, and how they show a value.

import { keying } from "../keyframes/keying.js";
import { measureOf, say } from "./measure.js";
import { areLinked } from "./sides.js";
import { selectedLayers, state } from "../state.js";

/** The value that an event is of. */
export const chipOf = (event) => event.target.closest?.(".val[role=spinbutton]");
/** Whether something is being typed in a chip. */
export const isTypedIn = (chip) => chip.isContentEditable;
/** The number of a chip. */
export const now = (chip) => Number(chip.getAttribute("aria-valuenow"));
/** The edit that a chip makes, without its value. */
export const bare = (chip) => JSON.parse(chip.dataset.edit);

/** What an edit of a value says besides the value: the playhead, whether it is to have a keyframe there,
    and the other layers that are selected. */
export function around(chip, edit = bare(chip)) {
  if (edit.name !== "set-value") return edit; // the letters' style and the like know no time
  const layers = selectedLayers();
  const several = layers.length > 1 ? { layers } : {};
  const linked = areLinked(edit.path) ? { linked: true } : {};
  return { ...edit, ...several, ...linked, at: state.frame, ...keying(chip.dataset.keyPath) };
}

/** The edit that gives a chip a value, which a hand has changed from `from`. */
export function changed(chip, value, from) {
  const edit = around(chip);
  return { ...edit, value, ...(edit.layers && { from }) };
}

/** Shows a value in its chip, without making an edit. */
export function setShown(chip, value) {
  const text = say(measureOf(chip), value);
  if (chip.textContent !== text) chip.textContent = text;
  chip.setAttribute("aria-valuenow", value);
  chip.setAttribute("aria-valuetext", text);
}
