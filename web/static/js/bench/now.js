// Keyed values in sentences say what they are at the playhead: they are asked for when it moves on.

import { keeper } from "./fetched.js";
import { isPlaying } from "./player.js";
import { on, paced, state, url } from "./state.js";
import { setShown } from "./values.js";

const valuesOf = keeper(200);
let wanted = "";

const isInHand = (chip) => chip === document.activeElement && (chip.isContentEditable || chip.classList.contains("is-scrubbed"));

/** Shows the values in the chips of the keyed ones: of vectors each part has its own. */
function show(values) {
  for (const chip of document.querySelectorAll(".val.is-beaded[data-key-path]")) {
    const { chip: path, keyPath } = chip.dataset;
    const value = values[keyPath];
    const part = path === keyPath ? value : value?.[Number(path.slice(keyPath.length + 1))];
    // The keys themselves, which have chips too, stay what they are.
    if (typeof part === "number" && !isInHand(chip)) setShown(chip, part);
  }
}

async function refresh() {
  if (isPlaying() || !state.layer || !document.querySelector(".val.is-beaded")) return;
  const address = (wanted = `${url("values", state.shown, state.frame)}?layer=${state.layer}`);
  try {
    const values = await valuesOf(address);
    if (wanted === address) show(values);
  } catch { /* the picture itself tells when the server is away */ }
}

export function listen() {
  const soon = paced(refresh);
  on("frame", soon);
  on("scene", soon);
}
