// Live values: drag sideways to scrub, click to type, arrows to step, double-click back to rest.

import { tell } from "../page.js";
import { keying } from "./keying.js";
import { measureOf, parse, rounded, say, within } from "./measure.js";
import { commit, giveUp, preview } from "./server.js";
import { state } from "./state.js";

const STEP_PAUSE_MS = 350; // steps by key that follow each other faster make one edit
let scrub = null;
let stepping = null;

const chipOf = (event) => event.target.closest?.(".val[role=spinbutton]");
const editOf = (chip, value) => ({ ...JSON.parse(chip.dataset.edit), value, ...(needsFrame(chip) && { at: state.frame, ...keying(chip.dataset.keyPath) }) });

// Only values may be keyed; the letters' style and the like know no time.
const needsFrame = (chip) => JSON.parse(chip.dataset.edit).name === "set-value";

/** Shows a value in its chip, without making an edit. */
export function setShown(chip, value) {
  const measure = measureOf(chip);
  chip.textContent = say(measure, value);
  chip.setAttribute("aria-valuenow", value);
  chip.setAttribute("aria-valuetext", chip.textContent);
}

function pace(event) {
  return event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
}

function startScrub(event) {
  const chip = chipOf(event);
  if (!chip || event.button !== 0 || chip.isContentEditable) return;
  event.preventDefault();
  chip.focus();
  chip.setPointerCapture(event.pointerId);
  const value = Number(chip.getAttribute("aria-valuenow"));
  scrub = { chip, measure: measureOf(chip), start: value, value, shown: value, x: event.clientX, moved: false };
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
  setShown(scrub.chip, value);
  preview(editOf(scrub.chip, value));
}

function endScrub() {
  if (!scrub) return;
  const { chip, moved, shown, start } = scrub;
  scrub = null;
  chip.classList.remove("is-scrubbed");
  if (!moved) startTyping(chip);
  else if (shown !== start) commit(editOf(chip, shown));
}

function cancelScrub() {
  const { chip, start } = scrub;
  scrub = null;
  chip.classList.remove("is-scrubbed");
  setShown(chip, start);
  giveUp();
}

function startTyping(chip) {
  chip.dataset.before = chip.textContent;
  chip.contentEditable = "plaintext-only";
  chip.focus();
  getSelection().selectAllChildren(chip);
}

function endTyping(chip, keep) {
  if (!chip.isContentEditable) return;
  const measure = measureOf(chip);
  const value = keep ? parse(measure, chip.textContent) : null;
  if (keep && value === null && chip.textContent !== chip.dataset.before) {
    tell(`A number is needed for “${chip.getAttribute("aria-label")}”; got “${chip.textContent}”.`);
  }
  chip.removeAttribute("contenteditable");
  const old = Number(chip.getAttribute("aria-valuenow"));
  const changed = value !== null && chip.textContent !== chip.dataset.before && value !== old;
  setShown(chip, changed ? value : old);
  if (changed) commit(editOf(chip, value));
}

function backToRest(chip) {
  if (chip.isContentEditable) endTyping(chip, false);
  if (chip.dataset.clears) commit(JSON.parse(chip.dataset.clears));
  else if (chip.dataset.rest !== "") commit(editOf(chip, Number(chip.dataset.rest)));
}

function step(chip, by, event) {
  const measure = measureOf(chip);
  const old = Number(chip.getAttribute("aria-valuenow"));
  const value = within(measure, rounded(measure, old + by * measure.step * pace(event), event.altKey ? 10 : 1));
  setShown(chip, value);
  preview(editOf(chip, value));
  clearTimeout(stepping?.timer);
  stepping = { chip, timer: setTimeout(flushSteps, STEP_PAUSE_MS) };
}

/** Makes the edit of steps that were not kept yet. */
export function flushSteps() {
  if (!stepping) return;
  const { chip, timer } = stepping;
  clearTimeout(timer);
  stepping = null;
  commit(editOf(chip, Number(chip.getAttribute("aria-valuenow"))));
}

const STEPS = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 };

function chipKey(event) {
  const chip = chipOf(event);
  if (!chip) return;
  if (chip.isContentEditable) {
    if (event.key === "Enter" || event.key === "Escape") {
      event.preventDefault();
      endTyping(chip, event.key === "Enter");
      chip.focus();
    }
    event.stopPropagation();
  } else if (event.key === "Escape" && scrub) {
    cancelScrub();
  } else if (event.key in STEPS) {
    event.preventDefault();
    event.stopPropagation();
    step(chip, STEPS[event.key], event);
  } else if (event.key === "Enter") {
    event.preventDefault();
    startTyping(chip);
  } else if (event.key === "Backspace" || event.key === "Delete") {
    event.preventDefault();
    backToRest(chip);
  } else if (event.key.toLowerCase() === "k" && !event.ctrlKey && !event.metaKey) {
    event.stopPropagation();
    keyHere(chip);
  }
}

function keyHere(chip) {
  const path = chip.dataset.keyPath;
  if (path) commit({ name: "add-key", path, at: state.frame });
  else tell(`“${chip.getAttribute("aria-label")}” holds for the whole move and takes no keyframes.`, "info");
}

export function listen() {
  document.addEventListener("pointerdown", startScrub);
  document.addEventListener("pointermove", moveScrub);
  document.addEventListener("pointerup", endScrub);
  document.addEventListener("pointercancel", () => scrub && cancelScrub());
  document.addEventListener("dblclick", (event) => chipOf(event) && backToRest(chipOf(event)));
  document.addEventListener("focusout", (event) => {
    const chip = chipOf(event);
    if (chip) endTyping(chip, true);
    if (chip && stepping?.chip === chip) flushSteps();
  });
  document.addEventListener("keydown", chipKey, true);
  // Colours and plain fields: looked at while they change, made when they are left.
  document.addEventListener("input", (event) => {
    if (event.target.matches("input[type=color][data-edit]")) preview(editOf(event.target, event.target.value));
  });
  document.addEventListener("change", (event) => {
    if (event.target.matches("input[data-edit]")) commit(editOf(event.target, event.target.value));
  });
}
