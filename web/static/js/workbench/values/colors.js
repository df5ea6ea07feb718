// Colours are picked in the page's own picker: on a field and a slider, by swatches, or typed in hex.
// The colours of the scene and those picked last are offered. While it is picked a colour is held like
// any value that is still being made.

import Coloris from "../../../vendor/coloris-0.25.0.min.js";
import { resume, whileBusy } from "../edits/answers.js";
import { heldAs, hold, letGo, release } from "../edits/pending.js";
import { giveUp } from "../edits/preview.js";
import { remember, remembered } from "../preferences.js";
import { around } from "./value_chips.js";

const FIELDS = "input[type=color]";
const PAUSE_MS = 1500; // a hand that rests so long on a colour has made it
const MOST_RECENT = 8;
const MOST_SWATCHES = 21; // three rows

const keyOf = (field) => `color ${field.dataset.edit}`;
const isOpen = () => Boolean(document.querySelector(".clr-open"));
const recent = () => remembered("colors", []);
let field = null; // that is picked for
let kept = ""; // its value that is made, as far as edits have been
let last = ""; // the one that was picked last

/** Before it opens, the picker gets what it offers; the browser's own stays away. */
function prepare(event) {
  if (!event.target.matches?.(FIELDS)) return;
  event.preventDefault();
  field = event.target;
  kept = last = field.value;
  const colors = document.getElementById("workbench-state").dataset.colors.split(" ").filter(Boolean);
  const swatches = [...new Set([...colors, ...recent()].map((color) => color.toLowerCase()))].slice(0, MOST_SWATCHES);
  Coloris({ swatches, themeMode: document.documentElement.dataset.theme === "evening" ? "dark" : "light" });
}

const isValue = (target) => target.matches?.(`${FIELDS}[data-edit]`);

function picked({ target }) {
  if (!isValue(target)) return;
  if (target !== field) {
    field = target;
    kept = ""; // what it was is not known any more
  } else if (!heldAs(keyOf(target))) kept = last; // it has rested, and is made
  last = target.value;
  hold(keyOf(target), { ...around(target), value: last }, { pause: PAUSE_MS });
}

/** What was picked is made; a colour that is the old one again is none. */
function left({ target }) {
  if (!isValue(target) || !heldAs(keyOf(target))) return;
  if (target.value === kept) {
    letGo();
    giveUp();
  } else {
    remember("colors", [last, ...recent().filter((each) => each !== last)].slice(0, MOST_RECENT));
    release();
  }
}

/** Enter takes what is typed; on the field, which has the focus again then, it would open the picker anew. */
function enter(event) {
  if (event.key !== "Enter" || !event.target.matches?.(".clr-picker input")) return;
  event.preventDefault();
  event.target.blur();
}

export function listen() {
  Coloris.init();
  Coloris({
    el: FIELDS,
    wrap: false,
    alpha: false,
    format: "hex",
    selectInput: true,
    margin: 6,
    closeButton: true,
    closeLabel: "Done",
    a11y: {
      open: "Pick a colour",
      close: "Done",
      marker: "Saturation {s}, brightness {v}",
      hueSlider: "Hue",
      input: "Colour in hex",
      swatch: "Colour",
      instruction: "Saturation and brightness: arrow keys change them",
    },
  });
  whileBusy(isOpen);
  document.addEventListener("click", prepare, true);
  document.addEventListener("keydown", enter, true);
  document.addEventListener("input", picked);
  document.addEventListener("change", left);
  // Its own event, which does not bubble.
  document.addEventListener(
    "close",
    (event) => {
      if (!event.target.matches?.(FIELDS)) return;
      left(event);
      setTimeout(resume);
    },
    true,
  );
}
