// Markers: named moments on the ruler, dragged in time, named by a double click, taken away by Delete.

import { commit, hold, newest } from "../edits/pending.js";
import { catchers, snappedBy } from "./snap.js";
import { goTo, state } from "../state.js";
import { framesAPixel } from "./views.js";

let drag = null;

const markerOf = (event) => event.target.closest?.("[data-marker]");
const placeOf = (marker) => Number(marker.dataset.marker);

function begin(event) {
  const marker = markerOf(event);
  if (!marker || event.button !== 0 || event.target.matches("input")) return;
  event.preventDefault();
  event.stopPropagation();
  marker.focus();
  const index = placeOf(marker);
  drag = { index, x: event.clientX, from: state.markers[index].at, marker };
}

function move(event) {
  if (!drag) return;
  const others = catchers().filter((at) => at !== drag.from);
  drag.at = Math.max(0, drag.from + snappedBy((event.clientX - drag.x) * framesAPixel(), [drag.from], others, event));
  drag.marker.style.setProperty("--f", drag.at);
}

function end(keep) {
  if (!drag) return;
  const { index, at, from, marker } = drag;
  drag = null;
  if (at === undefined) goTo(from);
  else if (keep && at !== from) commit({ name: "change-marker", index, at });
  else marker.style.setProperty("--f", from);
}

/** Puts a field in the marker's place; Enter names it. */
function rename(marker) {
  const index = placeOf(marker);
  const field = Object.assign(document.createElement("input"), {
    className: "marker__name",
    value: state.markers[index].name,
    maxLength: 200,
  });
  field.setAttribute("aria-label", "Name of the marker");
  marker.querySelector("span").replaceChildren(field);
  field.focus();
  field.select();
  const done = (keep) => {
    const name = field.value.trim();
    field.replaceWith(state.markers[index].name);
    if (keep && name && name !== state.markers[index].name) commit({ name: "change-marker", index, marker_name: name });
  };
  field.addEventListener("blur", () => done(true), { once: true });
  field.addEventListener("keydown", (event) => {
    event.stopPropagation();
    if (event.key === "Enter") field.blur();
    if (event.key === "Escape") {
      field.value = "";
      field.blur();
    }
  });
}

function step(index, by) {
  const from =
    newest((edit) => edit.name === "change-marker" && edit.index === index && "at" in edit)?.at ??
    state.markers[index].at;
  hold(`marker ${index}`, { name: "change-marker", index, at: Math.max(0, from + by) });
}

function key(event) {
  const marker = markerOf(event);
  if (event.key === "Escape") return end(false);
  if (!marker || event.target.matches("input")) return;
  const index = placeOf(marker);
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
  if (event.key === "Delete" || event.key === "Backspace") commit({ name: "remove-marker", index });
  else if (event.key === "Enter") rename(marker);
  else if (by) step(index, by * (event.shiftKey ? 10 : 1));
  else return;
  event.preventDefault();
  event.stopPropagation();
}

export function listen() {
  document.addEventListener("pointerdown", begin, true);
  document.addEventListener("pointermove", move);
  document.addEventListener("pointerup", () => end(true));
  document.addEventListener("pointercancel", () => end(false));
  document.addEventListener("dblclick", (event) => markerOf(event) && rename(markerOf(event)));
  document.addEventListener("keydown", key, true);
}
