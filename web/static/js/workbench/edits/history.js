// The history of the scene: all that was done, and back to any of it.

import { ask } from "./ask.js";
import { backTo, flush } from "./pending.js";
import { url } from "../state.js";

export async function openHistory() {
  await flush();
  const sheet = document.getElementById("history");
  const list = document.getElementById("history-list");
  list.textContent = "Looking it up …";
  sheet.showModal();
  try {
    const answer = await ask(url("history"));
    if (!answer.ok) throw new Error(String(answer.status));
    list.innerHTML = await answer.text();
  } catch {
    list.textContent = "The history cannot be shown now; try again in a moment.";
  }
}

export function listen() {
  document.addEventListener("click", (event) => {
    const sheet = event.target.closest("dialog.flap");
    const back = event.target.closest("[data-back-to]");
    if (event.target.closest("[data-open-history]")) openHistory();
    else if (back) {
      sheet.close();
      backTo(Number(back.dataset.backTo));
    } else if (sheet && (event.target === sheet || event.target.closest("[data-close-flap]"))) sheet.close();
  });
}
