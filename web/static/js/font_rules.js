// The rules by which a page loads a person's own fonts: asked for again once there are others.

/** Loads the rules of a state of the fonts, if they are of another. */
export function reloadRules(state) {
  const link = document.getElementById("own-fonts");
  if (link.dataset.state === state) return;
  link.dataset.state = state;
  link.href = `${link.href.split("?")[0]}?${state}`;
}
