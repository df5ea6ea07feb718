// The gallery: every preset moving on the words of the selected title. The films are pictures of many
// frames, drawn by the server; the style sheet runs them past.

import { commit, flush } from "../edits/pending.js";
import { selectedLayers, state, url } from "../state.js";

const gallery = () => document.getElementById("gallery");

/** Shows the gallery, with the films of the selected title. */
export async function openGallery() {
  await flush();
  // With letters selected, what is added moves these alone.
  const letters = document.querySelector(".slab.is-selected .letters b")?.textContent.trim();
  const named = document.querySelector(".slab.is-selected :is(.slab__text, .slab__name)");
  const text = named?.value.trim() || named?.placeholder || "your title";
  const name = letters ? `${text}, for the letters “${letters}” alone` : text;
  document.getElementById("gallery-name").textContent = name.length > 70 ? `${name.slice(0, 69)}…` : name;
  // What is for letters alone is offered for titles alone, and what moves by letters said of these.
  const isTitle = Boolean(document.querySelector(".slab.is-selected .slab__text"));
  for (const card of cards()) {
    card.toggleAttribute("data-unfit", !isTitle && "letters" in card.dataset);
    card.querySelector(".gcard__unit").hidden = !isTitle;
    card.hidden = card.hasAttribute("data-unfit");
    if (!card.hidden) showFilm(card);
  }
  gallery().showModal();
}

const cards = () => [...gallery().querySelectorAll(".gcard")];

/** Only the cards stay whose names and parts have all words that are typed; all, if none has. */
function find(text) {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const fit = cards().filter((card) => !card.hasAttribute("data-unfit"));
  const meant = fit.filter((card) => words.every((word) => card.textContent.toLowerCase().includes(word)));
  for (const card of fit) card.hidden = meant.length > 0 && !meant.includes(card);
  for (const group of gallery().querySelectorAll("[data-gallery-part]"))
    group.hidden = !group.querySelector(".gcard:not([hidden])");
}

/** The parts of a card's preset that are switched off. */
const leftOut = (card) =>
  [...card.querySelectorAll("[data-part][aria-checked=false]")].map((part) => part.dataset.part);

/** Shows a preset as it would be added, on the selected title. */
function showFilm(card) {
  const film = card.querySelector("[data-film]");
  const parts = leftOut(card);
  const address = url("film", state.digest, state.layer, film.dataset.film);
  const whole = parts.length ? `${address}?without=${parts}` : address;
  if (!film.src.endsWith(whole)) film.src = whole;
}

/** Switches a part of a preset on or off; the last one stays. */
function switchPart(part) {
  const card = part.closest(".gcard");
  const isOn = part.getAttribute("aria-checked") === "true";
  if (isOn && card.querySelectorAll("[data-part][aria-checked=true]").length < 2) return;
  part.setAttribute("aria-checked", String(!isOn));
  showFilm(card);
}

/** Gives the selected titles a preset's move, to the selected letters alone if there are any. The hand
    is free then: Space plays. */
export function addPreset(preset, without = []) {
  document.activeElement?.blur();
  const edit = { name: "add-move", layer: state.layer, layers: selectedLayers(), letters: state.letters, preset };
  commit({ ...edit, ...(without.length && { without }) });
}

function click(event) {
  const card = event.target.closest("[data-add-move]");
  const part = event.target.closest(".gcard [data-part]");
  const group = event.target.closest("[data-gallery-group]");
  if (event.target.closest("#open-gallery")) openGallery();
  else if (part) switchPart(part);
  else if (card) {
    gallery().close();
    addPreset(card.dataset.addMove, leftOut(card.closest(".gcard")));
  } else if (group) {
    document.getElementById(group.dataset.galleryGroup).scrollIntoView({ block: "start" });
  } else if (event.target === gallery() || event.target.closest("[data-close-gallery]")) gallery().close();
}

export function listen() {
  document.addEventListener("click", click);
  document.addEventListener("input", ({ target }) => target.closest("#gallery .say__text") && find(target.value));
  document.addEventListener("close", ({ target }) => target.id === "gallery" && find(""), true);
}
