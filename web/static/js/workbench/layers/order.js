// The order of the layers: dragged by their numbers in the list.

import { resume, whileBusy } from "../edits/answers.js";
import { commit } from "../edits/pending.js";

let drag = null;

const slabs = () => [...document.querySelectorAll(".slab")];

function unmark() {
  for (const slab of slabs()) {
    slab.classList.remove("is-before", "is-after", "is-dragged");
    slab.style.translate = "";
  }
}

/** Before which slab, counted from the front, the pointer is. */
function placeAt(y) {
  const found = slabs().findIndex((slab) => {
    const { top, height } = slab.getBoundingClientRect();
    return !slab.classList.contains("is-dragged") && y < top + height / 2;
  });
  return found < 0 ? slabs().length : found;
}

function move(event) {
  if (!drag) return;
  const by = event.clientY - drag.y;
  if (!drag.moved && Math.abs(by) < 4) return;
  drag.moved = true;
  unmark();
  drag.slab.classList.add("is-dragged");
  drag.slab.style.translate = `0 ${by}px`;
  drag.before = placeAt(event.clientY);
  const all = slabs();
  if (drag.before < all.length) all[drag.before].classList.add("is-before");
  else all.at(-1).classList.add("is-after");
}

function end(keep) {
  if (!drag) return;
  const { layer, before, moved } = drag;
  drag = null;
  unmark();
  const ids = slabs().map((slab) => slab.dataset.layer);
  const behind = ids.slice(before).find((id) => id !== layer) ?? null;
  const isElsewhere = behind !== (ids[ids.indexOf(layer) + 1] ?? null);
  if (keep && moved && isElsewhere) commit({ name: "put-layer", layer, front_of: behind });
  resume();
}

export function listen() {
  document.addEventListener("pointerdown", (event) => {
    const grab = event.target.closest?.("[data-grab]");
    if (!grab || event.button !== 0) return;
    event.preventDefault();
    drag = { layer: grab.dataset.grab, slab: grab.closest(".slab"), y: event.clientY, moved: false };
  });
  whileBusy(() => Boolean(drag?.moved));
  document.addEventListener("pointermove", move);
  document.addEventListener("pointerup", () => end(true));
  document.addEventListener("pointercancel", () => end(false));
  document.addEventListener("keydown", (event) => event.key === "Escape" && end(false), true);
}
