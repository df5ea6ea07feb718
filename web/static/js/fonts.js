// The page of fonts: the same words in every family, set larger or smaller, heavier or lighter.
// A family is loaded once it comes into sight: three hundred at a time would hold up the page.

import { reloadRules } from "./font_rules.js";
import { tell } from "./page.js";

const page = document.getElementById("fonts");
const words = document.getElementById("fonts-words");
const isTyped = () => words.value && words.value !== words.defaultValue;
const size = document.getElementById("fonts-size");
const find = document.getElementById("fonts-find");
const kind = document.getElementById("fonts-kind");
const lines = () => page.querySelectorAll("[data-font]");

const seen = new IntersectionObserver(
  (entries) => {
    for (const { isIntersecting, target } of entries) {
      if (!isIntersecting) continue;
      target.style.fontFamily = `"${target.dataset.font}", var(--font-others)`;
      seen.unobserve(target);
    }
  },
  { rootMargin: "300px" },
);

function write() {
  for (const line of lines()) line.textContent = isTyped() ? words.value : line.dataset.sample;
}

function resize() {
  page.style.setProperty("--specimen-size", `${size.value}px`);
  size.nextElementSibling.value = `${size.value} px`;
}

function filter() {
  const wanted = find.value.trim().toLowerCase().split(/\s+/);
  let count = 0;
  for (const each of page.querySelectorAll(".specimen")) {
    const is =
      wanted.every((word) => each.dataset.find.includes(word)) && (!kind.value || each.dataset.kind === kind.value);
    each.hidden = !is;
    if (is) count += 1;
  }
  document.getElementById("fonts-none").hidden = count > 0;
}

/** Sets a line at the axes that stand below it; those that nobody moved stay as the font has them. */
function scrub(input) {
  input.dataset.moved = "";
  input.nextElementSibling.value = String(Math.round(Number(input.value) * 100) / 100);
  const specimen = input.closest(".specimen");
  const moved = [...specimen.querySelectorAll("[data-axis][data-moved]")];
  const line = specimen.querySelector("[data-font]");
  line.style.fontVariationSettings = moved.map((each) => `"${each.dataset.axis}" ${each.value}`).join(", ");
  const of = (tag) => moved.find((each) => each.dataset.axis === tag)?.value;
  line.style.fontWeight = of("wght") ?? ""; // a static family has a file for each
  line.style.fontStretch = of("wdth") ? `${of("wdth")}%` : "";
  line.style.fontStyle = Number(of("ital")) >= 0.5 ? "italic" : "";
}

words.addEventListener("input", write);
size.addEventListener("input", resize);
find.addEventListener("input", filter);
kind.addEventListener("change", filter);
page.addEventListener("input", ({ target }) => target.matches("[data-axis]") && scrub(target));
/** Shows all specimens as they are to be seen: those that came just now, too. */
function show() {
  for (const line of lines()) seen.observe(line);
  write();
  resize();
  filter();
}

show();
// A hand may have been quicker than this script.
for (const input of page.querySelectorAll("[data-axis]")) if (input.value !== input.defaultValue) scrub(input);

// Files that are chosen, or dropped anywhere on the page, are sent one by one: the first ones are there
// while the others are on their way, and one that does not arrive is none of the others' business.
const form = document.getElementById("send-fonts");
const waiting = [];
let isSending = false;

/** What is wrong with a file that was sent; nothing if all is well. Throws where nobody is signed in. */
async function sent(file) {
  const body = new FormData();
  body.append("file", file);
  const headers = { Accept: "application/json", "X-CSRFToken": form.elements.csrfmiddlewaretoken.value };
  const answer = await fetch(form.action, { method: "POST", headers, body }).catch(() => null);
  if (answer?.status === 403 || answer?.redirected) throw new Error("Nobody is signed in here any more.");
  const told = await answer?.json().catch(() => null);
  return told?.wrong ?? [`${file.name} did not arrive: send it again.`];
}

async function send(files) {
  waiting.push(...files);
  if (isSending) return;
  isSending = true;
  const progress = document.getElementById("fonts-sending");
  const wrong = [];
  let count = 0;
  try {
    while (waiting.length) {
      count += 1;
      progress.value = `Sending ${count} of ${count + waiting.length - 1} …`;
      wrong.push(...(await sent(waiting[0])));
      waiting.shift();
    }
  } catch (error) {
    wrong.push(`${error.message} Sign in and send the other ${waiting.length} again.`);
    waiting.length = 0;
  }
  isSending = false;
  progress.value = "";
  form.reset();
  await refresh();
  const good = count - wrong.length;
  if (!wrong.length) tell(count === 1 ? "The font is here." : `All ${count} files are here.`, "success");
  else tell([...(good > 0 ? [`${good} of ${count} files are here.`] : []), ...wrong].join(" "));
}

/** Brings one's own families up to date. */
async function refresh() {
  const answer = await fetch(location.href).catch(() => null);
  if (!answer?.ok || answer.redirected) return;
  const fresh = new DOMParser().parseFromString(await answer.text(), "text/html");
  document.getElementById("fonts-own").replaceWith(fresh.getElementById("fonts-own"));
  reloadRules(fresh.getElementById("own-fonts").dataset.state);
  show();
}

addEventListener("beforeunload", (event) => isSending && event.preventDefault());
form.addEventListener("submit", (event) => {
  event.preventDefault();
  send([...form.elements.file.files]);
});
for (const name of ["dragover", "dragleave", "drop"])
  addEventListener(name, (event) => {
    if (!event.dataTransfer?.types.includes("Files")) return;
    event.preventDefault();
    page.classList.toggle("is-target", name === "dragover");
    if (name === "drop") send([...event.dataTransfer.files]);
  });
