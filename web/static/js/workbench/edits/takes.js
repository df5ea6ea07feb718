// Takes: versions of the scene. One is worked on; another can be flipped to at the same frame, or
// watched beside it.

import { tell } from "../../page.js";
import { showBeside } from "../picture/player.js";
import { post } from "./pending.js";
import { on, show, state } from "../state.js";

let flipped = false;
let other = ""; // the digest of the take to compare with

const buttons = () => [...document.querySelectorAll("[data-take]")];
const others = () => buttons().filter((button) => button.getAttribute("aria-checked") === "false");
const nameOf = (digest) => buttons().find((button) => button.dataset.takeDigest === digest)?.textContent;
const isBeside = () => !document.getElementById("picture-beside").hidden;

/** The take to compare with: the one chosen for it, or the one after that which is worked on. */
function compared() {
  const found = others();
  if (!found.length) return null;
  const all = buttons();
  const after = all[(all.findIndex((button) => button.getAttribute("aria-checked") === "true") + 1) % all.length];
  return found.find((button) => button.dataset.takeDigest === other) ?? after;
}

const needsTwo = () => tell("There is nothing to compare with yet: keep a take first (Takes, at the top).", "info");

/** Shows the other take at the same frame, and back. */
export function flip() {
  const take = compared();
  if (!take) return needsTwo();
  flipped = !flipped;
  show(flipped ? take.dataset.takeDigest : state.digest);
}

/** The other take beside the one that is worked on. */
export function toggleBeside() {
  const take = compared();
  if (!take && !isBeside()) return needsTwo();
  document.getElementById("picture-beside").hidden = isBeside();
  document.getElementById("stage").classList.toggle("stage--two", isBeside());
  setBeside();
  showName();
  dispatchEvent(new Event("zoom"));
}

function setBeside() {
  const take = compared();
  if (isBeside() && !take) {
    document.getElementById("picture-beside").hidden = true;
    document.getElementById("stage").classList.remove("stage--two");
  }
  document.getElementById("beside")?.setAttribute("aria-pressed", String(isBeside()));
  document.getElementById("beside")?.classList.toggle("is-on", isBeside());
  showBeside(isBeside() ? take.dataset.takeDigest : "");
}

/** Says which take is seen. */
function showName() {
  if (state.shown === state.digest) flipped = false;
  const own = buttons().find((button) => button.getAttribute("aria-checked") === "true")?.textContent;
  const name = document.getElementById("workbench-state").dataset.name;
  const seen = flipped ? nameOf(state.shown) : own;
  document.getElementById("stage-take").textContent = isBeside()
    ? `${compared().textContent} at the left, ${own} at the right`
    : (seen ?? name);
  document.getElementById("stage").classList.toggle("is-flipped", flipped);
}

function click(event) {
  const of = (name) => event.target.closest(`[data-take${name}]`)?.dataset;
  if (event.target.closest("[data-take-keep]")) post("takes");
  else if (event.target.closest("[data-beside]")) toggleBeside();
  else if (of("-remove")) post("takes", of("-remove").takeRemove, "remove");
  else if (of("-compare")) {
    other = of("-compare").takeCompare;
    if (flipped) show(other);
    else flip();
  } else if (of("")) post("takes", of("").take);
}

export function listen() {
  document.addEventListener("click", click);
  document.addEventListener("change", (event) => {
    const { takeName } = event.target.dataset;
    if (takeName) post("takes", takeName, "name", { name: event.target.value });
  });
  on("scene", () => {
    setBeside();
    showName();
  });
}
