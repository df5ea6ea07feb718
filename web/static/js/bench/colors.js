// Colours are picked in the page's own picker: on a field and a slider, by swatches, or typed in hex.
// The colours of the scene and those picked last are offered. While it is picked a colour is held like
// any value that is still being made.

import Coloris from "../../vendor/coloris-0.25.0.min.js";
import { resume, whileBusy } from "./answers.js";
import { commit, heldAs, hold, release } from "./pending.js";
import { around } from "./values.js";

const FIELDS = "input[type=color]";
const PAUSE_MS = 1500; // a hand that rests so long on a colour has made it
const MOST_RECENT = 8;
const MOST_SWATCHES = 21; // three rows

const keptAs = () => `balletto-colors-${document.body.dataset.person}`;
const keyOf = (field) => `color ${field.dataset.edit}`;
const isOpen = () => Boolean(document.querySelector(".clr-open"));
let made = ""; // the value of the open field that is made

function recent() {
  try {
    return JSON.parse(localStorage.getItem(keptAs())) ?? [];
  } catch {
    return [];
  }
}

const addRecent = (color) => localStorage.setItem(keptAs(), JSON.stringify([color, ...recent().filter((each) => each !== color)].slice(0, MOST_RECENT)));

/** Before it opens, the picker gets what it offers; the browser's own stays away. */
function prepare(event) {
  if (!event.target.matches?.(FIELDS)) return;
  event.preventDefault();
  made = event.target.value;
  const colors = document.getElementById("bench-state").dataset.colors.split(" ").filter(Boolean);
  const swatches = [...new Set([...colors, ...recent()].map((color) => color.toLowerCase()))].slice(0, MOST_SWATCHES);
  Coloris({ swatches, themeMode: document.documentElement.dataset.theme === "evening" ? "dark" : "light" });
}

function picked(event) {
  const { target } = event;
  if (!target.matches(`${FIELDS}[data-edit]`)) return;
  hold(keyOf(target), { ...around(target), value: target.value }, { pause: PAUSE_MS });
  made = target.value;
}

function left(event) {
  const { target } = event;
  if (!target.matches(`${FIELDS}[data-edit]`)) return;
  addRecent(target.value);
  if (heldAs(keyOf(target))) release();
  else if (target.value !== made) commit({ ...around(target), value: target.value });
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
    el: FIELDS, wrap: false, alpha: false, format: "hex", selectInput: true, margin: 6, closeButton: true, closeLabel: "Done",
    a11y: { open: "Pick a colour", close: "Done", marker: "Saturation {s}, brightness {v}", hueSlider: "Hue", input: "Colour in hex", swatch: "Colour", instruction: "Saturation and brightness: arrow keys change them" },
  });
  whileBusy(isOpen);
  document.addEventListener("click", prepare, true);
  document.addEventListener("keydown", enter, true);
  document.addEventListener("input", picked);
  document.addEventListener("change", left);
  document.addEventListener("close", (event) => event.target.matches?.(FIELDS) && setTimeout(resume), true);
}
