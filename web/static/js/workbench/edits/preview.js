// Previews: what an edit would make is looked at while a value is scrubbed, stepped or dragged. Only
// the newest of many is asked for, and none while edits are on their way: it stands on them.

import { tell } from "../../page.js";
import { ask } from "./ask.js";
import { addressOf, box, keepFrame } from "../picture/frames.js";
import { alsoWanted, bring, numbersIn } from "./numbers.js";
import { headers, isSignedOut } from "./session.js";
import { read, selection, show, state, url } from "../state.js";

const NUMBERS_MS = 300; // between previews that bring numbers, while a value is scrubbed
let isUnderWay = false;
let wanted = null; // the edit to look at
let wantedOf = 0; // the revision by which that edit names what it changes
let isAsked = false; // whether that has been asked for
let turn = 0;
let broughtAt = 0; // when a preview last brought numbers
let mayAsk = () => true;

/** `may` says whether a preview can be asked for now. */
export function previewWhile(may) {
  mayAsk = may;
}

/** Shows what an edit would make. */
export function preview(edit, seen = state.seen) {
  wanted = edit;
  wantedOf = seen;
  isAsked = false;
  askIfDue();
}

/** Whether something is looked at that is not kept. */
export const isPreviewing = () => wanted !== null;

/** Asks for what is to be looked at, once that is possible; `again` on what is there now. */
export function askIfDue(again = false) {
  if (again) isAsked = false;
  if (wanted && !isAsked && !isUnderWay && mayAsk()) look();
}

/** Forgets what was to be looked at. */
export function dropPreviews() {
  wanted = null;
  turn += 1;
}

/** Goes back to what is kept, as when a scrub is given up. */
export function giveUp() {
  dropPreviews();
  read();
}

async function look() {
  const asked = turn;
  const { frame, revision } = state;
  const width = box();
  isAsked = true;
  isUnderWay = true;
  const isLate = () => asked !== turn || revision !== state.revision;
  try {
    const also = areNumbersDue() ? alsoWanted() : {};
    const body = new URLSearchParams({
      ...selection(),
      ...also,
      box: width,
      base: revision,
      seen: wantedOf,
      preview: 1,
      edit: JSON.stringify(wanted),
    });
    const response = await ask(url("edit"), { method: "POST", headers: headers(), body });
    if (isSignedOut(response)) return; // the edit itself will say so
    const digest = response.headers.get("X-Digest");
    const answer = digest ? await response.formData() : await response.json();
    const told = digest ? await numbersIn(answer) : [];
    if (isLate()) return;
    if (!digest) return refused(response.status, answer.message);
    keepFrame(addressOf(digest, frame, width), answer.get("frame"));
    show(digest);
    bring(told);
  } catch {
    if (!isLate()) tell("The server does not answer. What is on the page is not lost.");
  } finally {
    isUnderWay = false;
    if (revision !== state.revision) isAsked = false;
    askIfDue();
  }
}

/** A preview that cannot be made is said, but for one on a state that has changed: its edit will be. */
function refused(status, message) {
  if (status !== 409) tell(message || "This cannot be shown.");
}

/** Whether a preview brings the numbers too: always while a hand in a view of time or on the picture
    looks at them, and every now and then while a value is scrubbed. */
function areNumbersDue() {
  const isLooking = document.querySelector("body.is-handling, #over.is-dragging, .workbench:not([data-view=cascade])");
  if (!isLooking && performance.now() - broughtAt < NUMBERS_MS) return false;
  broughtAt = performance.now();
  return true;
}
