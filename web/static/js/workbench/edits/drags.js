// Drags of what the server knows best. A hand presses at once; what it starts from is known then or a little
// later, and what the pointer did meanwhile is done as soon as it is, even if the hand has let go.

import { resume, whileBusy } from "./answers.js";
import { whenKnown } from "./known.js";
import { state } from "../state.js";

/** Says what a drag does, beside the pointer; nothing puts it away. */
export function said(text, event) {
  const label = document.getElementById("hand-said");
  label.hidden = !text;
  label.textContent = text;
  if (event) label.style.cssText = `left: ${event.clientX + 14}px; top: ${event.clientY - 24}px`;
}

/**
 * Drags of a kind, one at a time. `follow(drag, event)` does what the pointer does, `finish(drag, keep)` makes
 * of it what it makes, and `letGo()` tidies up as soon as the hand lets go.
 */
export function drags({ follow, finish, letGo }) {
  let now = null;

  function end(keep) {
    if (!now) return;
    const own = now;
    now = null;
    letGo();
    if (own.isKnown) settle(own, keep);
    else own.ended = keep;
  }

  function settle(own, keep) {
    finish(own, keep);
    resume();
  }

  /** Escape gives up a drag, and nothing else. */
  function giveUp(event) {
    if (event.key !== "Escape" || !now) return;
    event.preventDefault();
    end(false);
  }

  function move(event) {
    if (!now) return;
    now.last = event;
    if (now.isKnown) follow(now, event);
  }

  document.addEventListener("pointermove", move);
  document.addEventListener("pointerup", () => end(true));
  document.addEventListener("pointercancel", () => end(false));
  document.addEventListener("keydown", giveUp, true);
  whileBusy(() => Boolean(now?.isKnown));

  return {
    /** Whether a drag is the one that a hand has now. */
    isNow: (own) => own === now,
    now: () => now,
    /** Begins a drag that starts from nothing that could be of before. */
    begin(own) {
      now = Object.assign(own, { isKnown: true, seen: state.seen });
    },
    /** Begins one that starts from the numbers of a name: `start(found)` gives what it needs of them, or null
        if there is nothing to drag. */
    beginWith(name, own, start, layer) {
      now = own;
      whenKnown(
        name,
        (found) => {
          const known = start(found);
          if (!known) return now === own && end(false);
          Object.assign(own, known, { isKnown: true, seen: state.revision });
          if (own.last) follow(own, own.last);
          if ("ended" in own) settle(own, own.ended);
        },
        layer,
      );
    },
  };
}
