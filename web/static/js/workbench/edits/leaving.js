// Leaving the page: what the server has not answered yet is sent along, or waited for.

import { flush, isPending, mustStay, release, unanswered } from "./pending.js";
import { headers } from "./session.js";
import { state, url } from "../state.js";

const MOST_ON_LEAVING = 60_000; // bytes that browsers send while a page goes

/** What was not answered yet, as it is sent while the page goes. What stands on anything else than edits
    and undos would be misapplied. */
function leftBehind() {
  const made = unanswered().filter(({ isSelection }) => !isSelection);
  const other = made.findIndex(({ edit, isWalk }) => !edit && !isWalk);
  return made.slice(0, other < 0 ? made.length : other).map(({ name, edit, frame, seen: at, isWalk, address }) => ({
    request: name,
    layer: state.layer,
    frame,
    seen: at,
    ...(isWalk ? { walk: address[0] } : { edit }),
  }));
}

const leaving = () => new URLSearchParams({ base: state.revision, steps: JSON.stringify(leftBehind()) });

/** Sends it: there is no time for answers. */
function sendOnLeaving() {
  release();
  if (leftBehind().length)
    fetch(url("leave"), { method: "POST", headers: headers(), body: leaving(), keepalive: true });
}

/** Asks a person to stay while what waits cannot go along: the server is away, or it is too much. */
function askToStay(event) {
  if (isPending() && (mustStay() || leaving().toString().length > MOST_ON_LEAVING)) event.preventDefault();
}

/** A link that leads away waits until all is kept. */
function followLater(event) {
  const link = event.target.closest("a[href]");
  if (
    !link ||
    !isPending() ||
    event.button !== 0 ||
    event.ctrlKey ||
    event.metaKey ||
    event.shiftKey ||
    link.target === "_blank"
  )
    return;
  event.preventDefault();
  flush().then(() => location.assign(link.href));
}

/** So does a form; those that make edits themselves do not leave. */
function submitLater(event) {
  if (
    event.defaultPrevented ||
    event.target.method === "dialog" ||
    !isPending() ||
    event.target.matches("[data-tie], [data-stays]")
  )
    return;
  event.preventDefault();
  const { target, submitter } = event;
  flush().then(() => target.requestSubmit(submitter));
}

export function listen() {
  document.addEventListener("click", followLater);
  document.addEventListener("submit", submitLater, true);
  addEventListener("pagehide", sendOnLeaving);
  addEventListener("beforeunload", askToStay);
}
