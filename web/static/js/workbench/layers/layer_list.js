// The list of layers and the timeline keep the selected one in view; in a new scene its words are to be typed over.

import { isNew, state } from "../state.js";

let inView = ""; // the layer that was brought into view

function bring() {
  const slab = document.getElementById(`slab-${state.layer}`);
  if (!slab || state.layer === inView) return;
  const list = slab.parentElement;
  const top = slab.offsetTop - list.offsetTop;
  const isOpening = inView === "";
  inView = state.layer;
  if (isOpening || top < list.scrollTop) list.scrollTop = top;
  else list.scrollTop = Math.max(list.scrollTop, Math.min(top, top + slab.offsetHeight - list.clientHeight));
  bringRow(isOpening);
}

/** The row of the timeline too: at its start in an opened scene, else where it is nearest. */
function bringRow(isOpening) {
  const row = document.getElementById(`row-${state.layer}`);
  const body = document.getElementById("time-body");
  const top = row.offsetTop;
  const isSeen = top >= body.scrollTop && top + row.offsetHeight <= body.scrollTop + body.clientHeight;
  if (isOpening || !isSeen) body.scrollTop = top;
}

function typeOver() {
  if (!isNew()) return;
  history.replaceState(null, "", location.pathname);
  const field = document.getElementById(`text-${state.layer}`);
  field?.focus();
  field?.select();
}

export function listen(on) {
  on("scene", bring);
  on("scene", typeOver, { once: true });
}
