// The bead beside a value: it shows on hover and focus where a value can have keyframes, full if one
// stands at the playhead; a click sets or removes that. Folds show the keyframes of a value one by one.

import { isHandling } from "../edits/answers.js";
import { commit, select } from "../edits/pending.js";
import { state } from "../state.js";
import { keyEdit } from "../values/values.js";

const LEAVES_MS = 250; // after which it goes when the pointer has left the value
const ARMS_MS = 250; // after which it takes clicks
let shown = null; // the value that it stands beside
let leaving = 0;
let arming = 0;

const bead = () => document.getElementById("key-bead");

/** The part of a value that says which keyframes it has: its chip, or the field of a colour. */
function sourceOf(target) {
  const value = target.closest?.(".val");
  const source = value?.matches("[data-key-path]") ? value : value?.querySelector("[data-key-path]");
  return source?.dataset.keyPath ? source : null;
}

function show(source) {
  clearTimeout(leaving);
  shown = source;
  draw();
}

function draw() {
  if (!shown?.isConnected) return hide();
  arm();
  const { right, top } = (shown.closest(".val") ?? shown).getBoundingClientRect();
  const has = (shown.dataset.keys ?? "").split(" ").includes(String(state.frame));
  const button = bead();
  button.hidden = false;
  button.style.left = `${right - 7}px`;
  button.style.top = `${top - 11}px`;
  button.classList.toggle("is-set", has);
  const name = shown.getAttribute("aria-label") ?? shown.closest(".val").textContent.trim();
  button.title = has ? `Remove the keyframe at frame ${state.frame}` : `Set a keyframe at frame ${state.frame}`;
  button.setAttribute("aria-label", `${button.title}: ${name}`);
}

/** A press right after it came was meant for what it covers. */
function arm() {
  if (!bead().hidden && bead().dataset.of === shown.dataset.keyPath) return;
  bead().dataset.of = shown.dataset.keyPath;
  bead().classList.add("is-coming");
  clearTimeout(arming);
  arming = setTimeout(() => bead().classList.remove("is-coming"), ARMS_MS);
}

function hide() {
  shown = null;
  bead().hidden = true;
}

function hideSoon() {
  clearTimeout(leaving);
  leaving = setTimeout(() => document.activeElement !== shown && hide(), LEAVES_MS);
}

function toggle() {
  if (!shown) return;
  commit(keyEdit(shown, "toggle-key"));
}

function fold(button) {
  const { fold: name } = button.dataset;
  if (!state.folds.delete(name)) state.folds.add(name);
  select();
}

export function listen(on) {
  document.addEventListener("pointerover", (event) => {
    const source = sourceOf(event.target);
    if (source && !isHandling()) show(source);
    else if (event.target.closest?.("#key-bead")) clearTimeout(leaving);
    else if (shown) hideSoon();
  });
  document.addEventListener("focusin", (event) => {
    const source = sourceOf(event.target);
    if (source) show(source);
    else if (shown && event.target !== bead()) hideSoon();
  });
  // The focus stays where it is: what is typed goes on.
  bead().addEventListener("pointerdown", (event) => event.preventDefault());
  bead().addEventListener("click", toggle);
  document.addEventListener("scroll", () => shown && draw(), true);
  document.addEventListener("click", (event) => {
    const button = event.target.closest("[data-fold]");
    if (button) fold(button);
  });
  const again = () => {
    if (shown && !shown.isConnected) shown = shown.id ? document.getElementById(shown.id) : null;
    if (shown) draw();
    else hide();
  };
  on("frame", again);
  on("scene", again);
}
