// Time: the field, the ruler, the buttons and the playhead.

import { pause } from "./player.js";
import { commit } from "./server.js";
import { goTo, on, state } from "./state.js";

const two = (number) => String(number).padStart(2, "0");

/** "00:01:12 / 42": minutes, seconds and frames, and the frame counted through. */
function said(frame) {
  const base = Math.round(state.rate);
  const seconds = Math.floor(frame / base);
  return `${two(Math.floor(seconds / 60))}:${two(seconds % 60)}:${two(frame % base)} / ${frame}`;
}

/** The frame of "42", "+10", "-3", "1.5s", "1:12" (seconds, frames) or "0:01:12"; null if none. */
function parsed(text) {
  const clean = text.split("/").at(-1).trim();
  const base = Math.round(state.rate);
  let found = clean.match(/^([+-]?)(\d+)$/);
  if (found) return found[1] ? state.frame + Number(clean) : Number(clean);
  found = clean.match(/^(\d+([.,]\d+)?)\s*s$/);
  if (found) return Number(found[1].replace(",", ".")) * state.rate;
  found = clean.match(/^((\d+):)?(\d+):(\d+)$/);
  if (found) return (Number(found[2] ?? 0) * 60 + Number(found[3])) * base + Number(found[4]);
  return null;
}

function typed(event) {
  const field = event.target;
  const frame = parsed(field.value);
  field.classList.toggle("is-wrong", frame === null);
  if (frame === null) return;
  pause();
  goTo(frame);
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
  const frames = { start: 0, end: state.length - 1, back: state.frame - 1, next: state.frame + 1, "back-ten": state.frame - 10, "next-ten": state.frame + 10 };
  goTo(frames[where]);
}

function lengthTyped(event) {
  if (event.target.id !== "length") return;
  const found = event.target.value.trim().match(/^(\d+([.,]\d+)?)\s*(s?)/);
  const number = found ? Number(found[1].replace(",", ".")) * (found[3] ? state.rate : 1) : 0;
  event.target.classList.toggle("is-wrong", !found);
  if (found && Math.round(number) !== state.length) commit({ name: "set-length", length: Math.round(number) });
}

export function listen() {
  const field = document.getElementById("time");
  field.addEventListener("change", typed);
  field.addEventListener("keydown", (event) => event.key === "Enter" && field.blur());
  field.addEventListener("focus", () => field.select());
  field.addEventListener("blur", () => { field.classList.remove("is-wrong"); field.value = said(state.frame); });
  document.addEventListener("pointerdown", scrubRuler);
  document.addEventListener("pointermove", scrubRuler);
  document.addEventListener("change", lengthTyped);
  document.addEventListener("keydown", (event) => event.target.id === "length" && event.key === "Enter" && event.target.blur());
  document.addEventListener("click", (event) => {
    const button = event.target.closest("[data-go]");
    if (button) go(button.dataset.go);
  });
  on("frame", showPlace);
  on("scene", showPlace);
}
