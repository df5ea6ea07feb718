// Edits: looked at while a value is scrubbed (preview), and made (commit). Requests that change
// the scene go out one after another, each on the revision that the one before it gave (hx-sync on
// the body). Buttons only say their edit in data-do: parts of the page are morphed, and a button that
// htmx had bound to one address would keep it when it is made into another button.

import { tell } from "../page.js";
import { addressOf, box, keepFrame } from "./frames.js";
import { alsoWanted, bring, numbersIn } from "./numbers.js";
import { emit, read, selection, show, state, url } from "./state.js";

const headers = JSON.parse(document.body.getAttribute("hx-headers"));
const NUMBERS_MS = 300; // between previews that bring numbers, while a value is scrubbed
const PATIENCE_MS = 20_000; // after so long a preview that hangs gives way to the next
let inFlight = false;
let waiting = null;
let turn = 0;
let broughtAt = 0; // when a preview last brought numbers
let posts = 0; // edits sent and not answered yet
let afterPosts = [];

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
    const { frame } = state;
    const also = areNumbersDue() ? alsoWanted() : {};
    const body = new URLSearchParams({ ...selection(), ...also, box: box(), base: state.revision, preview: 1, edit: JSON.stringify(edit) });
    const response = await fetch(url("edit"), { method: "POST", headers, body, signal: AbortSignal.timeout(PATIENCE_MS) });
    if (isSignedOut(response.url)) return tell(SIGNED_OUT);
    const digest = response.headers.get("X-Digest");
    const answer = digest ? await response.formData() : await response.json();
    const told = digest ? await numbersIn(answer) : [];
    if (asked !== turn) return;
    if (!digest) return refused(response.status, answer.message);
    keepFrame(addressOf(digest, frame), answer.get("frame"));
    show(digest);
    bring(told);
  } catch {
    if (asked === turn) tell("The server does not answer. What is on the page is not lost; try again in a moment.");
  } finally {
    inFlight = false;
    if (waiting) askForPreview();
  }
}

/** Whether a preview brings the numbers too: always while a hand in a view of time or on the picture
    looks at them, and every now and then while a value is scrubbed. */
function areNumbersDue() {
  const isLooking = document.querySelector("body.is-handling, #over.is-dragging, .bench:not([data-view=cascade])");
  if (!isLooking && performance.now() - broughtAt < NUMBERS_MS) return false;
  broughtAt = performance.now();
  return true;
}

function dropPreviews() {
  waiting = null;
  turn += 1;
}

/** Makes an edit; the answer brings the changed parts of the page. */
export function commit(edit) {
  dropPreviews();
  sent();
  htmx.ajax("POST", url("edit"), { source: document.body, swap: "none", values: { edit: JSON.stringify(edit) } });
}

/** Posts to an address of the scene, whose answer brings the changed parts; values may come last. */
export function post(...parts) {
  const values = typeof parts.at(-1) === "object" ? parts.pop() : {};
  dropPreviews();
  sent();
  htmx.ajax("POST", url(...parts), { source: document.body, swap: "none", values });
}

/** Goes back or forth in the history: "undo" or "redo". */
export const walk = (which) => post(which);

/** Goes back to what is kept, as when a scrub is given up. */
export function giveUp() {
  dropPreviews();
  read();
}

/** Makes the scene what it was at a revision. */
export const backTo = (number) => post("back", number);

/** Selects a layer, move or letters; the parts that show them are asked for. */
export function select(changes) {
  Object.assign(state, changes);
  htmx.ajax("GET", url("parts"), { source: document.body, swap: "none", values: selection() });
}

/** Keeps an edit while the page is being left, when there is no time for an answer. */
export function keepOnLeaving(edit) {
  const body = new URLSearchParams({ ...selection(), base: state.revision, edit: JSON.stringify(edit) });
  fetch(url("edit"), { method: "POST", headers, body, keepalive: true });
}

/** Calls `action` once every edit that was sent is answered. */
export function whenKept(action) {
  if (posts) afterPosts.push(action);
  else action();
}

function sent() {
  posts += 1;
  sayKept(false);
}

function answered() {
  posts = Math.max(0, posts - 1);
  sayKept(posts === 0);
  if (posts) return;
  for (const action of afterPosts) action();
  afterPosts = [];
}

/** Says whether all that was changed is kept. */
export function sayKept(is) {
  const kept = document.getElementById("kept");
  kept.classList.toggle("is-busy", !is);
  kept.querySelector("span").textContent = is ? "All changes kept" : "Keeping changes";
}

const isSignedOut = (address) => address.includes("/accounts/sign-in/");
const SIGNED_OUT = "You are signed out, so the last change was not kept. Sign in again in another tab, then make it once more here.";

function refused(status, message) {
  if (status === 409) {
    sessionStorage.setItem("told", message);
    location.reload();
  } else {
    tell(status === 403 ? SIGNED_OUT : message || "This could not be done.");
    emit("refused");
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
    const { successful, xhr, requestConfig } = event.detail;
    const isPost = requestConfig.verb === "post";
    if (isSignedOut(xhr.responseURL ?? "")) tell(SIGNED_OUT);
    else if (successful) {
      if (isPost) document.getElementById("notices").replaceChildren();
      read();
    }
    if (isPost) answered();
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
