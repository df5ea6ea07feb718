// Edits: looked at while a value is scrubbed (preview), and made (commit). Requests that change
// the scene go out one after another, each on the revision that the one before it gave (hx-sync on
// the body). Buttons only say their edit in data-do: parts of the page are morphed, and a button that
// htmx had bound to one address would keep it when it is made into another button.

import { tell } from "../page.js";
import { read, selection, show, state, url } from "./state.js";

const headers = JSON.parse(document.body.getAttribute("hx-headers"));
let inFlight = false;
let waiting = null;
let turn = 0;

/** Shows what an edit would make; only the latest of many is asked for. */
export function preview(edit) {
  waiting = edit;
  if (!inFlight) askForPreview();
}

async function askForPreview() {
  const edit = waiting;
  const asked = turn;
  waiting = null;
  inFlight = true;
  try {
    const body = new URLSearchParams({ ...selection(), base: state.revision, preview: 1, edit: JSON.stringify(edit) });
    const response = await fetch(url("edit"), { method: "POST", headers, body });
    const answer = await response.json();
    if (asked !== turn) return;
    if (response.ok) show(answer.digest);
    else refused(response.status, answer.message);
  } catch {
    if (asked === turn) tell("The server does not answer. What is on the page is not lost; try again in a moment.");
  } finally {
    inFlight = false;
    if (waiting) askForPreview();
  }
}

function dropPreviews() {
  waiting = null;
  turn += 1;
}

/** Makes an edit; the answer brings the changed parts of the page. */
export function commit(edit) {
  dropPreviews();
  busy(true);
  htmx.ajax("POST", url("edit"), { source: document.body, swap: "none", values: { edit: JSON.stringify(edit) } });
}

/** Goes back or forth in the history: "undo" or "redo". */
export function walk(which) {
  dropPreviews();
  busy(true);
  htmx.ajax("POST", url(which), { source: document.body, swap: "none" });
}

/** Goes back to what is kept, as when a scrub is given up. */
export function giveUp() {
  dropPreviews();
  read();
}

/** Selects a layer, move or letters; the parts that show them are asked for. */
export function select(changes) {
  Object.assign(state, changes);
  htmx.ajax("GET", url("parts"), { source: document.body, swap: "none", values: selection() });
}

function busy(is) {
  document.getElementById("kept")?.classList.toggle("is-busy", is);
}

function refused(status, message) {
  if (status === 409) {
    sessionStorage.setItem("told", message);
    location.reload();
  } else {
    tell(message || "This could not be done.");
    read();
  }
}

function messageOf(text) {
  try {
    return JSON.parse(text).message;
  } catch {
    return "";
  }
}

export function listen() {
  document.body.addEventListener("htmx:configRequest", (event) => {
    const { parameters, verb } = event.detail;
    for (const [name, value] of Object.entries(selection())) parameters[name] ??= value;
    if (verb === "post") parameters.base = state.revision;
  });
  document.body.addEventListener("htmx:afterRequest", (event) => {
    busy(false);
    if (event.detail.successful) read();
  });
  document.body.addEventListener("htmx:responseError", (event) => {
    const { status, responseText } = event.detail.xhr;
    refused(status, messageOf(responseText));
  });
  document.body.addEventListener("htmx:sendError", () => tell("The server does not answer; the last change was not made. Try again in a moment."));
  const told = sessionStorage.getItem("told");
  sessionStorage.removeItem("told");
  if (told) tell(told);
}
