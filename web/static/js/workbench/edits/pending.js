// Pending edits: all that hands have done and the server has not answered yet. An edit is taken with
// its layer, path and value when the hand acts. One that is still being made, by steps or by typing, is
// held for a moment; then it stands in a queue, whose requests go out one after another, each on the
// revision that the one before it made. What cannot be sent now is sent again by itself; a request has
// a name, so that it is made once even if its answer was lost.

import { tell } from "../../page.js";
import { ask } from "./ask.js";
import { keep, takeOver } from "./answers.js";
import { askIfDue, dropPreviews, preview, previewWhile } from "./preview.js";
import { headers, isSignedOut, signedIn } from "./session.js";
import { emit, selection, show, state, url } from "../state.js";

const PAUSE_MS = 350; // steps that follow each other faster make one edit
const FIRST_WAIT_MS = 500; // before a request is sent again
const LONGEST_WAIT_MS = 8_000;
const TRIES = 3; // after which a request that the server fails at may be given up
const FAULTS = new Set([429, 500, 502, 503, 504]);

const queue = []; // requests, the first of which may be under way
let held = null; // the edit that is being made
let isRunning = false;
let isAway = false;
const late = []; // hands that wait for what they start from, each with the requests made after it
let isBeginning = false; // whether one of them begins now
let wake = null; // ends a pause before a request is sent again
const whenEmpty = [];

/** Holds an edit that is still being made under a key, and looks at it; after a pause, or when the
    hand does something else, it is made. */
export function hold(key, edit, { pause = PAUSE_MS, isQuiet = false } = {}) {
  if (held && held.key !== key) release();
  clearTimeout(held?.timer);
  held = { key, edit, frame: state.frame, seen: held?.seen ?? seen(), timer: setTimeout(release, pause) };
  sayKept();
  if (!isQuiet) preview(edit, held.seen);
}

/** The edit that is held under a key, or null. */
export const heldAs = (key) => (held?.key === key ? held.edit : null);

/** Makes the edit that is held. */
export function release() {
  if (!held) return;
  const { edit, frame, seen: at, timer } = held;
  clearTimeout(timer);
  held = null;
  addEdit({ edit, frame, seen: at });
}

/** Gives the edit up that is held. */
export function letGo() {
  clearTimeout(held?.timer);
  held = null;
  sayKept();
}

/**
 * Makes an edit. `done` is called with its answer once that is on the page; `refused(message, isTyped)`, if it
 * cannot be made, says so in place of the usual message.
 */
export function commit(edit, { done = null, refused = null, seen: at = null, name = undefined } = {}) {
  release();
  addEdit({ edit, done, refused, seen: at, name, frame: state.frame });
}

/** Posts to an address of the scene, whose answer brings the changed parts; values may come last. */
export function post(...address) {
  const values = typeof address.at(-1) === "object" ? address.pop() : {};
  release();
  add({ address, values, frame: state.frame });
}

/** Goes back or forth in the history: "undo" or "redo". */
export function walk(which) {
  release();
  add({ address: [which], values: {}, frame: state.frame, isWalk: true });
}

/** Makes the scene what it was at a revision. */
export const backTo = (number) => post("back", number);

/** Selects a layer, move or letters; the parts that show them are asked for. */
export function select(changes = {}, done = null) {
  release();
  Object.assign(state, changes);
  const last = queue.at(-1);
  if (last?.isSelection && queue.length > 1 && !last.done) queue.pop();
  queue.push({ address: ["parts"], isSelection: true, done });
  run();
}

/** Is there once all that hands have done is kept. */
export function flush() {
  release();
  return late.length ? late.at(-1).begun.then(flush) : answered();
}

/** Is there once all that was asked for is answered. */
export const answered = () => (queue.length ? new Promise((done) => whenEmpty.push(done)) : Promise.resolve());

export const isAnswered = () => !queue.length;

export const isPending = () => Boolean(held) || late.length > 0 || queue.length > 0;

/** Lets a hand begin once `ready` says so. What hands do after it waits for it: its edit comes first. */
export function beginLate(ready, begin) {
  release();
  const own = { requests: [] };
  own.begun = Promise.resolve(late.at(-1)?.begun)
    .then(ready)
    .then(() => {
      isBeginning = true;
      begin();
    })
    .catch(reportError)
    .finally(() => {
      isBeginning = false;
      late.shift();
      queue.push(...own.requests);
      sayKept();
      run();
    });
  late.push(own);
  sayKept();
}

/** The requests that were not answered yet, the first of which may be under way. */
export const unanswered = () => queue;

/** Whether something waits that cannot go along with a page that goes. */
export const mustStay = () => isAway || late.length > 0;

/** These, and those that wait for a hand that was made before them. */
const requests = () => [...queue, ...late.flatMap((hand) => hand.requests)];

/** The newest edit on its way, or one that it is made of, of which `is` holds; undefined if none. */
export function newest(is) {
  const edits = [...requests().map(({ edit }) => edit), held?.edit].filter(Boolean);
  return edits.flatMap((edit) => edit.edits ?? [edit]).findLast(is);
}

/** Whether an edit is on its way that is `edit` but for its value. */
export const isOnItsWay = (edit) =>
  Boolean(
    newest((each) =>
      Object.entries(edit).every(([name, value]) => JSON.stringify(each[name]) === JSON.stringify(value)),
    ),
  );

/** Whether something is on its way after which a value may be another than the page knows: an undo, an
    edit that is no plain value, or one of a part that holds it. What is held under `own` is its own. */
export function isUncertain(path, own) {
  if (late.length) return true;
  const others = [...queue.filter(({ isSelection }) => !isSelection), ...(held && held.key !== own ? [held] : [])];
  return others.some(({ edit }) => !edit || (edit.edits ?? [edit]).some((each) => !isPlain(each, path)));
}

const isPlain = (edit, path) =>
  edit.name === "set-text" || (edit.name === "set-value" && !edit.typed && !path?.startsWith(`${edit.path}.`));

/** The revision by which a hand names what it changes: what the page shows, or what a late hand begins with. */
const seen = () => (isBeginning ? state.revision : state.seen);

const addEdit = (request) => add({ ...request, address: ["edit"], values: { edit: JSON.stringify(request.edit) } });

function add(request) {
  dropPreviews();
  const bytes = crypto.getRandomValues(new Uint8Array(12));
  const name = Array.from(bytes, (byte) => byte.toString(16).padStart(2, "0")).join("");
  const waitsFor = isBeginning ? null : late.at(-1);
  const named = { name: request.name ?? name, seen: request.seen ?? seen() };
  (waitsFor?.requests ?? queue).push({ ...request, ...named });
  sayKept();
  queueMicrotask(run); // a late hand acts as if the page stood elsewhere; what is sent goes by where it stands
}

async function run() {
  if (isRunning) return;
  isRunning = true;
  let wait = FIRST_WAIT_MS;
  while (queue.length) {
    const answer = await answerTo(queue[0]);
    if (answer) {
      wait = FIRST_WAIT_MS;
      sayBack();
      try {
        settle(queue.shift(), answer);
      } catch (error) {
        reportError(error); // what waits behind it goes out in any case
      }
    } else if (queue.length) {
      await new Promise((done) => {
        wake = done;
        setTimeout(done, wait);
      });
      wait = Math.min(LONGEST_WAIT_MS, 2 * wait);
    }
    sayKept();
  }
  isRunning = false;
  for (const done of whenEmpty.splice(0)) done();
  askIfDue(true);
}

/** The answer to a request: its response and text; null if it is to be sent again. */
async function answerTo(request) {
  try {
    const response = await send(request);
    if (isSignedOut(response)) {
      await signedIn();
      request.tries = (request.tries ?? 0) + 1;
      if (request.tries > 1) sayAway("The server refuses this page", request.tries >= TRIES);
      return null;
    }
    const text = await response.text();
    if (!FAULTS.has(response.status)) return { response, text };
    request.tries = (request.tries ?? 0) + 1;
    sayAway("The server has a fault", request.tries >= TRIES);
  } catch {
    sayAway("The server does not answer", false);
  }
  return null;
}

function send({ address, values, frame, seen: at, name, isSelection }) {
  if (isSelection) return ask(`${url(...address)}?${new URLSearchParams(selection())}`);
  const body = new URLSearchParams({ ...selection(), frame, seen: at, base: state.revision, request: name, ...values });
  return ask(url(...address), { method: "POST", headers: headers(), body });
}

function settle(request, { response, text }) {
  if (response.ok) {
    if (!request.isSelection) document.getElementById("notices").replaceChildren();
    takeOver(
      response,
      text,
      queue.some(({ isSelection }) => isSelection),
    );
    request.done?.(response);
  } else if (response.status === 409) changedElsewhere(request, messageIn(text));
  else refuse(request, text);
}

function messageIn(text) {
  try {
    return JSON.parse(text).message;
  } catch {
    return "";
  }
}

/** Gives up what was asked for right after an edit that is not made and meant for it: an undo, or a step
    on the value that it would have given. */
function giveUpAfter({ edit }) {
  const isStep = (next) => next?.typed?.by !== undefined && next.path === edit.path;
  if (!edit) return;
  if (queue[0]?.isWalk || isStep(queue[0]?.edit)) queue.shift();
  if (isStep(held?.edit)) letGo();
}

/** Says that an edit was not made. */
function refuse(request, text) {
  const message = messageIn(text) || "This could not be done.";
  const isTyped = text.includes('"typed"');
  giveUpAfter(request);
  emit("refused");
  if (request.refused) request.refused(message, isTyped);
  else tell(message);
  if (!request.isSelection && !isTyped)
    select(); // the page showed what the hand had wanted
  else show(state.digest);
}

/** Another tab was quicker: its state is shown, and what was to be made can be made on it. */
function changedElsewhere(request, message) {
  const left = [request, ...queue.splice(0)].filter(({ edit }) => edit);
  emit("refused");
  select({}, () => {
    const count = left.length > 1 ? `${left.length} changes` : "your change";
    tell(
      message,
      "error",
      left.length
        ? {
            said: `Make ${count} on this state`,
            act: () => left.forEach(({ edit, seen: at }) => commit(edit, { seen: at })),
          }
        : null,
    );
  });
}

// What the page says of it

const counted = () => {
  const count = requests().filter(({ isSelection }) => !isSelection).length + late.length + (held ? 1 : 0);
  return count === 1 ? "1 change" : `${count} changes`;
};

/** Says whether all that was changed is kept. */
function sayKept() {
  const kept = document.getElementById("kept");
  const isBusy = Boolean(held) || late.length > 0 || queue.some(({ isSelection }) => !isSelection);
  kept.classList.toggle("is-busy", isBusy);
  const said = isBusy ? (isAway ? `${counted()} waiting` : "Keeping changes") : "All changes kept";
  if (kept.lastElementChild.textContent !== said) kept.lastElementChild.textContent = said;
}

/** Says that the server is away, and what of it is kept; `sayBack`, that it is there again. */
export function sayAway(what, mayGiveUp) {
  isAway = true;
  const isMade = late.length > 0 || queue.some(({ isSelection }) => !isSelection);
  const [are, themselves] = counted() === "1 change" ? ["is", "itself"] : ["are", "themselves"];
  const lost = isMade
    ? ` ${counted()} of yours ${are} kept here and will be sent again by ${themselves}.`
    : " The page tries again by itself.";
  const giveUp = { said: "Leave this change out", act: giveUpFirst };
  tell(`${what}.${lost}`, "error", mayGiveUp ? giveUp : { said: "Try now", act: () => wake?.() });
}

function giveUpFirst() {
  queue.shift();
  select();
  wake?.();
}

export function sayBack() {
  if (!isAway) return;
  isAway = false;
  document.getElementById("notices").replaceChildren();
}

export function listen(on) {
  on("scene", sayKept); // an answer that is shown while others are awaited says that all is kept
  previewWhile(() => !queue.length);
  keep(
    (old, fresh) =>
      old.dataset?.edit && old.dataset.edit === fresh.dataset.edit && isOnItsWay(JSON.parse(old.dataset.edit)),
  );
  addEventListener("online", () => wake?.());
}
