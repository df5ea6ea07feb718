// The gallery: every preset moving on the words of the selected title. The films are pictures of many
// frames, drawn by the server; the style sheet runs them past.

import { commit, flush } from "./pending.js";
import { selectedLayers, state, url } from "./state.js";

const gallery = () => document.getElementById("gallery");

/** Shows the gallery, with the films of the selected title. */
export async function openGallery() {
  await flush();
  // With letters selected, what is added moves these alone.
  const letters = document.querySelector(".slab.is-selected .letters b")?.textContent.trim();
  const text = document.querySelector(".slab.is-selected .slab__text")?.value.trim() || "your title";
  const name = letters ? `${text}, for the letters “${letters}” alone` : text;
  document.getElementById("gallery-name").textContent = name.length > 70 ? `${name.slice(0, 69)}…` : name;
  for (const film of gallery().querySelectorAll("[data-film]")) {
    const address = url("film", state.digest, state.layer, film.dataset.film);
    if (!film.src.endsWith(address)) film.src = address;
  }
  gallery().showModal();
}

/** Gives the selected titles a preset's move, to the selected letters alone if there are any. The hand
    is free then: Space plays. */
export function addPreset(preset) {
  document.activeElement?.blur();
  commit({ name: "add-move", layer: state.layer, layers: selectedLayers(), letters: state.letters, preset });
}

function click(event) {
  const card = event.target.closest("[data-add-move]");
  const group = event.target.closest("[data-gallery-group]");
  if (event.target.closest("#open-gallery")) openGallery();
  else if (card) {
    gallery().close();
    addPreset(card.dataset.addMove);
  } else if (group) {
    document.getElementById(group.dataset.galleryGroup).scrollIntoView({ block: "start" });
  } else if (event.target === gallery() || event.target.closest("[data-close-gallery]")) gallery().close();
}

export function listen() {
  document.addEventListener("click", click);
}
