// What is used less is told under "More". It comes when that is opened, and stays out of other answers.

import { select } from "./edits/pending.js";

function opened(event) {
  if (!event.target.matches?.("details.more[open]") || event.target.childElementCount > 1) return;
  const move = event.target.closest(".move")?.dataset.move;
  select(move ? { move } : {}); // more is told of the selected move alone
}

export function listen() {
  document.addEventListener("toggle", opened, true);
}
