// Width and height, which change together until they are unlinked.

const SIDES = /\.transform\.scale\.[01]$/;
const UNLINKED = "balletto-sides-unlinked";
const isLinked = () => !localStorage.getItem(UNLINKED);

/** Whether the value at a path is a side that takes the other one along. */
export const areLinked = (path) => isLinked() && SIDES.test(path);

/** The chip of the other side, if that goes along. */
export const otherSide = (key) =>
  areLinked(key) ? document.getElementById(`v-${key.slice(0, -1)}${key.endsWith("0") ? 1 : 0}`) : null;

function toggleLink() {
  if (isLinked()) localStorage.setItem(UNLINKED, "yes");
  else localStorage.removeItem(UNLINKED);
  showLinks();
}

function showLinks() {
  for (const button of document.querySelectorAll("[data-link-sides]"))
    button.setAttribute("aria-pressed", String(isLinked()));
}

export function listen(on) {
  on("scene", showLinks);
  document.addEventListener("click", (event) => event.target.closest("[data-link-sides]") && toggleLink());
}
