// The gallery: every preset moving on the words of the selected title. The films are pictures of many
// frames, drawn by the server; the style sheet runs them past.

import { commit } from "./server.js";
import { state, url } from "./state.js";

const gallery = () => document.getElementById("gallery");

/** Shows the gallery, with the films of the selected title. */
export function openGallery() {
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

function click(event) {
  const card = event.target.closest("[data-add-move]");
  const group = event.target.closest("[data-gallery-group]");
  if (event.target.closest("#open-gallery")) openGallery();
  else if (card) {
    gallery().close();
    commit({ name: "add-move", layer: state.layer, preset: card.dataset.addMove });
  } else if (group) {
    document.getElementById(group.dataset.galleryGroup).scrollIntoView({ block: "start" });
  } else if (event.target === gallery() || event.target.closest("[data-close-gallery]")) gallery().close();
}

export function listen() {
  document.addEventListener("click", click);
}
