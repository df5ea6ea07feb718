// Live values: drag sideways to scrub, click to type, arrows to step, double-click back to rest. What
// is typed is read by the server; until it has answered, and while it is not understood, the chip shows
// what was typed.

import { tell } from "../../page.js";
import { isStale, keep, resume, whileBusy } from "../edits/answers.js";
import { isKeying } from "../keyframes/keying.js";
import { measureOf, plainNumber, rounded, say, within } from "./measure.js";
import { commit, heldAs, hold, isOnItsWay, isUncertain, release } from "../edits/pending.js";
import { giveUp, preview } from "../edits/preview.js";
import { otherSide } from "./sides.js";
import { selectedLayers, state } from "../state.js";
import { around, bare, changed, chipOf, isTypedIn, now, setShown } from "./value_chips.js";

const STARTS_TYPING = /^[0-9+\-−*/(.,]$/;
let scrub = null;
let stepping = null; // the chip that steps are made on, and what it was before the first

/** Whether a hand has a chip, or has given it a value that is on its way. */
export const isInHand = (chip) =>
  isTypedIn(chip) || scrub?.chip === chip || chip.matches(".is-wrong") || isOnItsWay(bare(chip));

// Scrubbing

/** Shows the other side as it would be with a value of this one. */
function showOther(chip, value, from) {
  const other = from && otherSide(chip.dataset.chip);
  if (!other) return;
  other.dataset.start ??= now(other);
  setShown(other, (Number(other.dataset.start) * value) / from);
}

function pace(event) {
  return event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
}

function startScrub(event) {
  const pressed = chipOf(event);
  if (!pressed || event.button !== 0 || (isTypedIn(pressed) && !isFresh(pressed))) return;
  event.preventDefault();
  if (document.activeElement !== pressed) document.activeElement?.blur?.(); // what waited for it is shown
  const chip = document.getElementById(pressed.id) ?? pressed;
  const value = now(chip);
  const isAgain = isTypedIn(chip) && chip.dataset.begun === "click";
  scrub = {
    chip,
    measure: measureOf(chip),
    start: value,
    value,
    shown: value,
    x: event.clientX,
    moved: false,
    isAgain,
    isRelative: isRelative(chip),
  };
  endTyping(chip, false);
  chip.focus();
  chip.setPointerCapture(event.pointerId);
  release();
  for (const other of document.querySelectorAll(".val[data-start]")) delete other.dataset.start;
}

function moveScrub(event) {
  if (!scrub) return;
  const by = event.clientX - scrub.x;
  if (!scrub.moved && Math.abs(by) < 3) return;
  scrub.moved = true;
  scrub.x = event.clientX;
  scrub.value += by * scrub.measure.drag * pace(event);
  const value = within(scrub.measure, rounded(scrub.measure, scrub.value, event.altKey ? 10 : 1));
  if (value === scrub.shown) return;
  scrub.shown = value;
  scrub.chip.classList.add("is-scrubbed");
  if (!isUnanswered(scrub.chip)) setShown(scrub.chip, value);
  if (scrub.isRelative) return; // what that is added to is not known yet
  showOther(scrub.chip, value, scrub.start);
  preview(changed(scrub.chip, value, scrub.start));
}

function endScrub(event) {
  if (!scrub) return;
  const { chip, moved, shown, start, isAgain, isRelative: isAdded } = scrub;
  scrub = null;
  chip.classList.remove("is-scrubbed");
  if (!moved) {
    startTyping(chip, null, "click");
    if (isAgain) putCaret(event);
  } else if (isAdded) commit(relativeEdit(chip, shown - start));
  else if (shown !== start || keysHere(chip)) commit(changed(chip, shown, start));
  else giveUp();
  resume();
}

function cancelScrub() {
  const { chip, start } = scrub;
  scrub = null;
  chip.classList.remove("is-scrubbed");
  setShown(chip, start);
  giveUp();
  resume();
}

/** Whether a value is to have a keyframe at the playhead, be it another or not. */
const keysHere = (chip) => isKeying() && Boolean(chip.dataset.keyPath);

// Typing

/** Begins typing, with all selected or with the first characters of a text; `begun` says how. */
function startTyping(chip, text = null, begun = "key") {
  chip.dataset.before ??= chip.textContent;
  chip.dataset.begun = begun;
  delete chip.dataset.touched;
  chip.contentEditable = "plaintext-only";
  if (text !== null) type(chip, text);
  chip.focus();
  getSelection().selectAllChildren(chip);
  if (text !== null) getSelection().collapseToEnd();
}

/** Puts a text in a chip as if it was typed. */
function type(chip, text) {
  chip.textContent = text;
  chip.dataset.touched = "yes";
}

/** Whether typing has just begun: all is selected, nothing typed yet. */
const isFresh = (chip) => !chip.dataset.touched && getSelection().toString() === chip.textContent;

/** A second click on a value puts the caret where it is. */
function putCaret({ clientX, clientY }) {
  const place = document.caretPositionFromPoint(clientX, clientY);
  if (place) getSelection().collapse(place.offsetNode, place.offset);
}

function endTyping(chip, keeps) {
  if (!isTypedIn(chip)) return;
  const { before, touched } = chip.dataset;
  const text = chip.textContent;
  chip.removeAttribute("contenteditable");
  getSelection().removeAllRanges();
  if (chip.matches(".is-asked") && (!keeps || !touched)) {
    chip.textContent = before; // what was typed before and is not answered yet
    delete chip.dataset.before;
  } else if (keeps && !text.trim() && hasRest(chip)) {
    setBack(chip);
    backToRest(chip); // an emptied value is at rest
  } else if (keeps && text.trim() === before && !chip.matches(".is-asked")) {
    setBack(chip);
    if (keeps === "key" && keysHere(chip)) setKey(chip);
  } else if (keeps) sendTyped(chip, text);
  else setBack(chip);
  resume();
}

/** The chip as it was before something was typed. */
function setBack(chip) {
  delete chip.dataset.before;
  chip.classList.remove("is-wrong", "is-asked");
  chip.removeAttribute("aria-invalid");
  setShown(chip, now(chip));
}

function typedEdit(chip, text) {
  const rest = chip.dataset.rest === "" ? null : Number(chip.dataset.rest);
  return { ...around(chip), typed: { text, measure: JSON.parse(chip.dataset.measure), now: now(chip), rest } };
}

/** An edit that adds to what a value is by then. */
const relativeEdit = (chip, by) => ({
  ...around(chip),
  typed: { by, measure: JSON.parse(chip.dataset.measure), now: now(chip) },
});

function sendTyped(chip, text) {
  const { id } = chip;
  const old = now(chip);
  const edit = typedEdit(chip, text);
  chip.classList.remove("is-wrong");
  chip.classList.add("is-asked");
  delete chip.dataset.before;
  chip.setAttribute("aria-valuetext", text);
  const number = plainNumber(measureOf(chip), text);
  if (number !== null) setShown(chip, number);
  const there = () => document.getElementById(id) ?? chip;
  commit(edit, { refused: (message, isTyped) => refused(there(), { message, isTyped, text, old }) });
}

function refused(chip, { message, isTyped, text, old }) {
  chip.setAttribute("aria-valuenow", old);
  if (isTyped) return refuseTyped(chip, message, text);
  tell(message);
  setBack(chip);
}

/** What was typed is no value: it stays, marked, to be typed on. */
function refuseTyped(chip, message, text) {
  chip.textContent = text;
  tell(`“${chip.getAttribute("aria-label")}”: ${message}`);
  chip.classList.remove("is-asked");
  chip.classList.add("is-wrong");
  chip.setAttribute("aria-invalid", "true");
  const elsewhere = document.activeElement;
  if (elsewhere !== document.body && elsewhere !== chip) return;
  startTyping(chip);
}

/** Goes on typing in the next value, or the one before. */
function typeInNext(chip, way) {
  const chips = [...document.querySelectorAll(".val[role=spinbutton]")].filter((each) => each.offsetParent);
  const next = chips[chips.indexOf(chip) + way];
  endTyping(chip, true);
  if (next) startTyping(next);
  else chip.focus();
}

// Steps, rest, keyframes

const keyOf = (chip) => `value ${chip.dataset.edit}`;

function step(chip, by, event) {
  const measure = measureOf(chip);
  if (isRelative(chip)) return stepRelative(chip, by * measure.step * pace(event));
  if (stepping?.chip !== chip || !heldAs(keyOf(chip))) stepping = { chip, start: now(chip) };
  const value = within(measure, rounded(measure, now(chip) + by * measure.step * pace(event), event.altKey ? 10 : 1));
  setShown(chip, value);
  hold(keyOf(chip), changed(chip, value, stepping.start));
}

/** Whether something was typed that is a number only once it is answered, as a sum is. */
const isUnanswered = (chip) => chip.matches(".is-asked") && chip.textContent !== say(measureOf(chip), now(chip));

/** What a value is, is not known while other edits of it are on their way: changes are relative then. */
const isRelative = (chip) => isUnanswered(chip) || isStale() || isUncertain(bare(chip).path, keyOf(chip));

function stepRelative(chip, by) {
  const key = `step ${chip.dataset.edit}`;
  if (!isUnanswered(chip)) setShown(chip, within(measureOf(chip), now(chip) + by));
  hold(key, relativeEdit(chip, by + (heldAs(key)?.typed.by ?? 0)), { isQuiet: true });
}

const hasRest = (chip) => Boolean(chip.dataset.clears) || chip.dataset.rest !== "";

/** The value back to rest; what is not said any more leaves its sentence, which takes the focus. */
function backToRest(chip) {
  if (isTypedIn(chip)) endTyping(chip, false);
  const card = chip.closest(".move, .slab, .appearance, .sentence");
  if (chip.dataset.clears) {
    commit(JSON.parse(chip.dataset.clears), { done: () => chip.isConnected || focusOn(card) });
  } else if (hasRest(chip)) {
    const value = Number(chip.dataset.rest);
    const start = now(chip);
    setShown(chip, value);
    commit({ ...changed(chip, value, start), from: undefined });
  } else {
    tell(`“${chip.getAttribute("aria-label")}” has no place of rest.`, "info");
  }
}

function focusOn(card) {
  const there = card && (document.getElementById(card.id) ?? card);
  if (!there || document.activeElement !== document.body) return;
  there.tabIndex = -1;
  there.focus({ preventScroll: true });
}

/** An edit of the keyframe of a value at the playhead, of all selected layers that have it. */
export function keyEdit(chip, name) {
  const layers = selectedLayers();
  return { name, path: chip.dataset.keyPath, at: state.frame, ...(layers.length > 1 && { layers }) };
}

function setKey(chip, name = "add-key") {
  if (chip.dataset.keyPath) commit(keyEdit(chip, name));
  else tell(`“${chip.getAttribute("aria-label")}” holds for the whole time, so it takes no keyframes.`, "info");
}

/** What keys do to the value that has the focus. */
export const focusedValue = () => document.activeElement?.closest?.("[data-key-path]");

export const keyFocused = (name) => {
  const chip = focusedValue();
  if (chip) setKey(chip, name);
  return Boolean(chip);
};

const STEPS = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 };

function typingKey(chip, event) {
  const letter = event.key.toLowerCase();
  const isPlain = !event.ctrlKey && !event.metaKey && !event.altKey;
  if (event.key === "Enter" || event.key === "Escape") {
    event.preventDefault();
    endTyping(chip, event.key === "Enter" ? "key" : false);
    chip.focus();
  } else if (event.key === "Tab") {
    event.preventDefault();
    typeInNext(chip, event.shiftKey ? -1 : 1);
  } else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
    event.preventDefault();
    endTyping(chip, Boolean(chip.dataset.touched)); // what was typed is taken, and stepped on
    chip.focus();
    step(chip, STEPS[event.key], event);
  } else if (isFresh(chip) && isPlain && (letter === "k" || letter === "h")) {
    event.preventDefault();
    endTyping(chip, false);
    setKey(chip, letter === "k" ? "add-key" : "hold-to");
  } else if (isFresh(chip) && isPlain && event.key === "Delete") {
    event.preventDefault();
    backToRest(chip);
  } else if ((event.ctrlKey || event.metaKey) && (letter === "d" || (letter === "z" && isFresh(chip)))) {
    event.preventDefault();
    endTyping(chip, letter === "d");
    return; // on to the keys of the workbench
  }
  event.stopPropagation();
}

function focusedKey(chip, event) {
  if (event.ctrlKey || event.metaKey) return;
  const letter = event.key.toLowerCase();
  if (event.key === "Escape" && scrub) cancelScrub();
  else if (event.key in STEPS) step(chip, STEPS[event.key], event);
  else if (event.key === "Enter") startTyping(chip);
  else if (event.key === "Backspace" || event.key === "Delete") backToRest(chip);
  else if (letter === "k") setKey(chip);
  else if (letter === "h") setKey(chip, "hold-to");
  else if (STARTS_TYPING.test(event.key)) startTyping(chip, event.key);
  else return;
  event.preventDefault();
  event.stopPropagation();
}

function key(event) {
  const chip = chipOf(event);
  if (chip && isTypedIn(chip)) typingKey(chip, event);
  else if (chip) focusedKey(chip, event);
}

export function listen() {
  whileBusy(() => Boolean(scrub) || Boolean(document.activeElement?.matches?.(".val[contenteditable]")));
  keep((old, fresh) => old.matches?.(".val[role=spinbutton]") && old.id === fresh.id && isInHand(old));
  document.addEventListener("pointerdown", startScrub);
  document.addEventListener("pointermove", moveScrub);
  document.addEventListener("pointerup", endScrub);
  document.addEventListener("pointercancel", () => scrub && cancelScrub());
  document.addEventListener("dblclick", (event) => chipOf(event) && backToRest(chipOf(event)));
  document.addEventListener("focusout", (event) => {
    const chip = chipOf(event);
    if (!chip) return;
    endTyping(chip, true);
    if (heldAs(keyOf(chip)) || heldAs(`step ${chip.dataset.edit}`)) release();
  });
  document.addEventListener("keydown", key, true);
  document.addEventListener("input", (event) => {
    const chip = chipOf(event);
    if (chip) chip.dataset.touched = "yes";
  });
  // Plain fields are taken when they are left.
  document.addEventListener("change", (event) => {
    if (event.target.matches("input[data-edit]:not([type=color])"))
      commit({ ...around(event.target), value: event.target.value });
  });
}
