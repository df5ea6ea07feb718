// What every page does: ask before removing, close menus and messages.

document.addEventListener("submit", (event) => {
  const question = event.target.dataset.confirm;
  if (question && !window.confirm(question)) event.preventDefault();
});

document.addEventListener("click", (event) => {
  event.target.closest(".notice__close")?.closest(".notice").remove();
  for (const menu of document.querySelectorAll(MENUS)) {
    const isDone = event.target.closest("button, a") && !event.target.closest("[data-stays]");
    if (!menu.contains(event.target) || isDone) menu.open = false;
  }
});

// Menus close on a click outside, when what is chosen in them is done, and on Escape.
const MENUS = "details[open][data-menu]";

document.addEventListener("keydown", (event) => {
  const menu = event.key === "Escape" && document.querySelector(MENUS);
  if (!menu) return;
  event.preventDefault();
  menu.open = false;
  menu.querySelector("summary").focus();
});

// Paper or evening: kept in a cookie, so that the next page comes as it is to look.
document.addEventListener("click", (event) => {
  if (!event.target.closest("[data-theme-switch]")) return;
  const root = document.documentElement;
  const isEvening = root.dataset.theme !== "evening";
  if (isEvening) root.dataset.theme = "evening";
  else delete root.dataset.theme;
  document.cookie = `theme=${isEvening ? "evening" : "paper"}; path=/; max-age=31536000; samesite=lax`;
  for (const button of document.querySelectorAll("[data-theme-switch]"))
    button.setAttribute("aria-pressed", String(isEvening));
});

// A choice that is all that its form asks sends it at once.
document.addEventListener("change", (event) => {
  if (event.target.matches("[data-submit-on-change]")) event.target.form.requestSubmit();
});

// Two clips side by side start together, and the second follows the first.
document.addEventListener("click", (event) => {
  if (!event.target.closest("[data-play-both]")) return;
  const [first, second] = document.querySelectorAll("[data-in-step] video");
  if (!first || !second) return;
  const isPaused = first.paused;
  second.currentTime = first.currentTime;
  for (const video of [first, second]) isPaused ? video.play() : video.pause();
});
document.addEventListener(
  "seeked",
  (event) => {
    const videos = [...document.querySelectorAll("[data-in-step] video")];
    if (event.target === videos[0] && videos[1]?.paused) videos[1].currentTime = event.target.currentTime;
  },
  true,
);

/** Shows a message at the top of the page, which stays until it is closed; `action`, { said, act }, is
    a button in it. */
export function tell(text, kind = "error", action = null) {
  const notice = document.createElement("p");
  notice.className = `notice notice--${kind}`;
  const said = document.createElement("span");
  said.textContent = text;
  const close = document.createElement("button");
  close.type = "button";
  close.className = "notice__close";
  close.setAttribute("aria-label", "Close this message");
  close.textContent = "×";
  notice.append(said, ...(action ? [actionButton(action)] : []), close);
  document.getElementById("notices").replaceChildren(notice);
}

function actionButton({ said, act }) {
  const button = Object.assign(document.createElement("button"), {
    type: "button",
    className: "btn btn--sm",
    textContent: said,
  });
  button.addEventListener("click", () => {
    button.closest(".notice").remove();
    act();
  });
  return button;
}

/** What answers leave as it is: each says of an old and a fresh part of a page whether the old stays. */
export const keepers = [];

// Polling swaps whole parts of a page: what is marked data-own belongs to the script or the
// browser (a playing video, drawn rows) and is left as it is, like a field that is being typed in.
if (window.Idiomorph) {
  Idiomorph.defaults.callbacks.beforeNodeMorphed = (old, fresh) => {
    if (!(old instanceof Element) || !(fresh instanceof Element)) return true;
    if (old.id === fresh.id && old.hasAttribute("data-own")) return false;
    if (old === document.activeElement && old.matches("textarea, input[type=text]")) return false;
    if (keepers.some((keeps) => keeps(old, fresh))) return false;
    if (old instanceof HTMLDetailsElement && fresh instanceof HTMLDetailsElement) fresh.open = old.open;
    return true;
  };
}

// The rules of fonts that few texts need are many: nothing waits for them.
addEventListener("load", () => {
  const rules = Object.assign(document.createElement("link"), {
    rel: "stylesheet",
    href: document.body.dataset.rulesLater,
  });
  document.head.append(rules);
});
