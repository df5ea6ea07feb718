// What a sentence can go on with: found by typing, done by Enter. Words that none of it has are the
// sentence itself going on.

import { tell } from "../../page.js";
import { commit, isPending } from "../edits/pending.js";
import { giveUp, isPreviewing, preview } from "../edits/preview.js";
import { meaning } from "./say.js";
import { state } from "../state.js";

const PATIENCE_MS = 5_000; // for what is opened to come
const ASK_MS = 120; // after which words that are no offer are asked about
let asking = 0;

const offersOf = (node) => node.closest("[data-offers]");
const buttons = (offers) => [...offers.querySelectorAll(".offer")];
const shown = (offers) => buttons(offers).filter((button) => !button.hidden);

/** More of the sentence of the move, as that is by then. */
const edit = (offers, text) => ({ name: "say", text, layer: state.layer, move: offers.dataset.offers, goes_on: true });

function find(field) {
  const offers = offersOf(field);
  const words = field.value.toLowerCase().split(/\s+/).filter(Boolean);
  for (const button of buttons(offers)) {
    const text = button.textContent.toLowerCase();
    button.hidden = !words.every((word) => text.includes(word));
  }
  for (const group of offers.querySelectorAll(".offers__group"))
    group.hidden = !group.querySelector(".offer:not([hidden])");
  const [first] = words.length ? shown(offers) : [];
  for (const button of buttons(offers)) button.classList.toggle("is-first", button === first);
  clearTimeout(asking);
  tellOf(offers, "");
  if (words.length && !first) asking = setTimeout(() => look(field), ASK_MS);
  else if (isPreviewing() && !isPending()) giveUp();
}

const tellOf = (offers, words) => {
  offers.querySelector(".offers__none").textContent = words;
};

/** Shows what the sentence would be with what is typed. */
async function look(field) {
  const offers = offersOf(field);
  const typed = field.value;
  const answer = await meaning(typed, { move: offers.dataset.offers, goes_on: 1 });
  if (!field.isConnected || field.value !== typed || !answer) return;
  tellOf(offers, answer.said ? "Enter goes on with it." : (answer.fault?.message ?? ""));
  if (answer.said) preview(edit(offers, typed));
}

function take(field) {
  const offers = offersOf(field);
  const [first] = shown(offers);
  const typed = field.value.trim();
  if (!typed) return;
  field.value = "";
  if (first) first.click();
  else commit(edit(offers, typed), { refused: (message) => refused(field, typed, message) });
  find(field);
}

/** What was refused stands there again; if something else does by now, or nothing is there, it is told. */
function refused(field, typed, message) {
  if (!field.isConnected || field.value) return tell(`“${typed}” was not said: ${message}`);
  field.value = typed;
  tellOf(offersOf(field), message);
}

/** What is opened is typed into at once, as soon as it is there. */
function opened({ target }) {
  if (!target.matches?.(".more--plus[open]")) return;
  const until = performance.now() + PATIENCE_MS;
  const enter = () => {
    const field = target.querySelector("[data-offers-find]");
    const isWaiting = target.isConnected && target.open && target.contains(document.activeElement);
    if (field && isWaiting) field.focus();
    else if (isWaiting && performance.now() < until) requestAnimationFrame(enter);
  };
  enter();
}

function key(event) {
  if (!event.target.matches?.("[data-offers-find]") || event.isComposing) return;
  if (event.key === "Enter") take(event.target);
  else if (event.key === "Escape") event.target.closest("details").open = false;
  else return;
  event.preventDefault();
  event.stopPropagation();
}

/** What was chosen is seen where it was put. */
function chosen(event) {
  const offer = event.target.closest?.(".offer");
  if (offer) offer.closest(".move").querySelector(".move__head").scrollIntoView({ block: "nearest" });
}

export function listen() {
  document.addEventListener("click", chosen);
  document.addEventListener("input", (event) => event.target.matches?.("[data-offers-find]") && find(event.target));
  document.addEventListener("keydown", key);
  document.addEventListener("toggle", opened, true);
}
