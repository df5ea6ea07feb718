// Three steps to a first clip, beside a person's first scene, once: gone with Escape, its cross, or the clip.

const card = () => document.getElementById("first-steps");

// What each step leads to.
const THERE = { words: ".slab__text", move: "#say-moves-text", clip: "#render-clip" };

function dismiss() {
  card()?.remove();
  const address = new URL(location.href);
  address.searchParams.delete("first");
  history.replaceState(null, "", address);
}

export function listen() {
  if (!card()) return;
  card().addEventListener("click", (event) => {
    const step = event.target.closest("[data-step]");
    if (step) document.querySelector(THERE[step.dataset.step])?.focus();
    else if (event.target.closest("[data-dismiss]")) dismiss();
  });
  document.addEventListener("keydown", (event) => {
    if (event.key === "Escape" && !event.target.closest("dialog")) dismiss();
  });
}
