// Keyed values in sentences say what they are at the playhead: they are asked for when it moves on.

import { numbers } from "../edits/numbers.js";
import { isPlaying } from "../picture/player.js";
import { emit, on, paced, state, url } from "../state.js";
import { setShown } from "./value_chips.js";
import { isInHand } from "./values.js";
import { view } from "../time/views.js";

const isNeeded = () => !isPlaying() && state.layer && (view() === "curves" || document.querySelector(".val.is-beaded"));
let known = {}; // the keyed values of the selected layer at the playhead

/** What a keyed value is at the playhead, or undefined: of vectors one part. */
export const valueHere = (path, part) => (Array.isArray(known[path]) ? known[path][part] : known[path]);
const values = numbers("values", 200, () =>
  isNeeded() ? `${url("values", state.shown, state.frame)}?layer=${state.layer}` : "",
);

/** Shows the values in the chips of the keyed ones: of vectors each part has its own. */
function show(found) {
  for (const chip of document.querySelectorAll(".val.is-beaded[data-key-path]")) {
    const { chip: path, keyPath } = chip.dataset;
    const value = found[keyPath];
    const part = path === keyPath ? value : value?.[Number(path.slice(keyPath.length + 1))];
    // The keys themselves, which have chips too, stay what they are.
    if (typeof part === "number" && !isInHand(chip)) setShown(chip, part);
  }
}

async function refresh() {
  const found = await values.now();
  if (!found) return;
  known = found;
  show(found);
  emit("values");
}

export function listen() {
  const soon = paced(refresh, values);
  on("frame", soon);
  on("scene", soon);
  on("view", soon);
}
