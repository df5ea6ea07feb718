// Time: the field, the ruler, the buttons and the playhead.

import { tell } from "../../page.js";
import { pause } from "../picture/player.js";
import { commit } from "../edits/pending.js";
import { base, readTyped } from "./typed_time.js";
import { goTo, on, state } from "../state.js";

const two = (number) => String(number).padStart(2, "0");

/** "00:01:12 / 42": minutes, seconds and frames, and the frame counted through. */
function said(frame) {
  const seconds = Math.floor(frame / base());
  return `${two(Math.floor(seconds / 60))}:${two(seconds % 60)}:${two(frame % base())} / ${frame}`;
}

const SAID = /^\d+:\d\d:\d\d \/ (\d+)$/;

async function typed(event) {
  const field = event.target;
  const shown = field.value.trim().match(SAID);
  const frame = shown ? Number(shown[1]) : await readTyped(field, "frame", state.frame);
  if (frame === null) return;
  pause();
  goTo(frame);
  if (frame >= state.length)
    tell(`Frame ${Math.round(frame)} is beyond the end: the last one is ${state.length - 1}.`, "info");
  field.value = said(state.frame);
}

function showPlace() {
  const field = document.getElementById("time");
  if (document.activeElement !== field) field.value = said(state.frame);
  const place = document.getElementById("playhead");
  place.style.setProperty("--f", state.frame);
  for (const part of place.children) part.style.setProperty("--f", state.frame);
  place.lastElementChild.textContent = state.frame;
  const length = document.getElementById("length");
  if (document.activeElement !== length) length.value = state.length;
  for (const line of document.querySelectorAll("[data-frame-said]")) line.textContent = state.frame;
}

function scrubRuler(event) {
  const ruler = event.target.closest?.("#ruler");
  if (!ruler || (event.type === "pointermove" && !ruler.hasPointerCapture(event.pointerId))) return;
  if (event.type === "pointerdown") {
    ruler.setPointerCapture(event.pointerId);
    pause();
  }
  const { left, width } = ruler.getBoundingClientRect();
  goTo(((event.clientX - left) / width) * state.length);
}

export function go(where) {
  pause();
  const frames = {
    start: 0,
    end: state.length - 1,
    back: state.frame - 1,
    next: state.frame + 1,
    "back-ten": state.frame - 10,
    "next-ten": state.frame + 10,
  };
  goTo(frames[where]);
}

async function lengthTyped(event) {
  if (event.target.id !== "length") return;
  const length = await readTyped(event.target, "length", state.length);
  if (length !== null && Math.round(length) !== state.length)
    commit({ name: "set-length", length: Math.max(1, Math.round(length)) });
}

export function listen() {
  const field = document.getElementById("time");
  field.addEventListener("change", typed);
  field.addEventListener("keydown", (event) => event.key === "Enter" && field.blur());
  field.addEventListener("focus", () => field.select());
  field.addEventListener("blur", () => {
    if (!field.matches(".is-wrong")) showPlace();
  });
  document.addEventListener("pointerdown", scrubRuler);
  document.addEventListener("pointermove", scrubRuler);
  document.addEventListener("change", lengthTyped);
  document.addEventListener(
    "keydown",
    (event) => event.target.id === "length" && event.key === "Enter" && event.target.blur(),
  );
  document.addEventListener("click", (event) => {
    const button = event.target.closest("[data-go]");
    if (button) go(button.dataset.go);
  });
  on("frame", showPlace);
  on("scene", showPlace);
}
