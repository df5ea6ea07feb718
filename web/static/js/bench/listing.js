// The list of layers keeps the selected one in view; in a new scene its words are to be typed over.

import { isNew, state } from "./state.js";

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
