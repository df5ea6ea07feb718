// Reading frames and numbers of frames that are typed: the core reads them ("1:12", "1.5 s", "540/2").

import { tell } from "../../page.js";
import { ask } from "../edits/ask.js";
import { state, url } from "../state.js";

/**
 * The number that is typed in a field, in the measure `of`: "frame", "frames" or "length"; `now` is what
 * "+5" adds to. Null, the field marked and the reason said, if it is none.
 */
export async function readTyped(field, of, now = "") {
  const text = field.value.trim();
  field.classList.remove("is-wrong");
  const plain = text.match(/^([+\-−]?)(\d+)$/);
  if (plain)
    return Number(plain[2]) * (plain[1] === "-" || plain[1] === "−" ? -1 : 1) + (plain[1] === "+" ? Number(now) : 0);
  try {
    const answer = await ask(`${url("read")}?${new URLSearchParams({ text, of, now })}`);
    const told = await answer.json();
    if (answer.ok) return told.value;
    const label = field.getAttribute("aria-label") || field.labels?.[0]?.textContent.trim() || "Time";
    tell(`“${label}”: ${told.message}`);
  } catch {
    tell("The server does not answer; what you typed is still there. Try again in a moment.");
  }
  field.classList.add("is-wrong");
  return null;
}

/** Enter in the field called `id` does what `begin` gives, with the number that is typed. What that is
    done to is for `begin` to take at once: the number may be read late. */
export function onEnter(id, begin) {
  document.addEventListener("keydown", async (event) => {
    const field = event.target;
    if (field.id !== id || event.key !== "Enter") return;
    const act = begin();
    const by = await readTyped(field, "frames", 0);
    if (by === null) return;
    field.value = "";
    act(by);
  });
}

/** Frames of the scene in a second, as the clock counts them. */
export const base = () => Math.round(state.rate);
