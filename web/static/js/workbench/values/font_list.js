// Choosing a font: one list of all families, each in its own letters. What is pointed at, or led to
// by the arrow keys, is looked at in the picture as a scrubbed value is; Enter or a click sets it.

import { tell } from "../../page.js";
import { reloadRules } from "../../font_rules.js";
import { resume, whileBusy } from "../edits/answers.js";
import { ask } from "../edits/ask.js";
import { beginLate, commit } from "../edits/pending.js";
import { remember, remembered } from "../preferences.js";
import { giveUp, isPreviewing, preview } from "../edits/preview.js";
import { isSignedOut } from "../edits/session.js";
import { around } from "./value_chips.js";

const LOOK_MS = 120; // that a family is pointed at before the picture shows it
const MOST_RECENT = 5;

let chip = null; // the one whose font is chosen; null while the list is closed
let coming = null; // the promise of the list, until it is here
let looking = 0; // the timer until what is pointed at is looked at

const list = () => document.getElementById("font-list");
const options = () => document.getElementById("font-options");
const field = () => list().querySelector("input");
const rows = () => [...options().querySelectorAll("[role=option]")];
const shown = () => rows().filter((row) => !row.hidden);
const active = () => options().querySelector(".is-active");
const edit = (row) => ({ ...around(chip), value: row.dataset.name });

const inSight = new IntersectionObserver(
  (entries) => {
    for (const { isIntersecting, target } of entries) {
      if (!isIntersecting) continue;
      target.querySelector(".fontlist__name").style.fontFamily = `"${target.dataset.font}", var(--font-others)`;
      inSight.unobserve(target);
    }
  },
  { rootMargin: "100px" },
);

function show(button) {
  close();
  chip = button;
  chip.setAttribute("aria-expanded", "true");
  list().hidden = false;
  place(button.getBoundingClientRect());
  field().value = "";
  field().focus();
  if (rows().length) arrange();
  const fetched = fetchRows().then((found) => {
    if (coming !== fetched) return; // a newer one is on its way
    coming = null;
    if (found) options().innerHTML = found;
    else if (!rows().length) options().textContent = "The list of fonts does not come. Close it and open it again.";
    if (!chip) return;
    arrange();
    if (field().value && active()) lookAt(active());
  });
  coming = fetched;
}

/** The rows as they are now, since fonts may have come; nothing if they do not come. */
async function fetchRows() {
  try {
    const answer = await ask(list().dataset.from);
    if (!answer.ok || isSignedOut(answer)) return "";
    const found = await answer.text();
    reloadRules(answer.headers.get("X-Fonts"));
    return found;
  } catch {
    return "";
  }
}

function place({ left, top, bottom }) {
  const { width, height } = list().getBoundingClientRect();
  const below = bottom + height + 8 < innerHeight;
  list().style.left = `${Math.max(8, Math.min(left, innerWidth - width - 8))}px`;
  list().style.top = `${below ? bottom + 4 : Math.max(8, Math.min(top - 4 - height, innerHeight - height - 8))}px`;
}

/** Puts favourites and those chosen lately first, marks the one that is set, and filters. */
function arrange() {
  const favourites = remembered("favourite-fonts", []);
  const recent = remembered("recent-fonts", []);
  const rank = ({ dataset: { name } }) =>
    favourites.includes(name) ? 0 : recent.includes(name) ? 1 + recent.indexOf(name) : 1 + MOST_RECENT;
  const ordered = rows().sort((one, other) => rank(one) - rank(other));
  options().append(...ordered);
  for (const row of ordered) {
    row.classList.toggle("is-favourite", favourites.includes(row.dataset.name));
    row.setAttribute("aria-selected", String(row.dataset.name === chip.dataset.fontNow));
    inSight.observe(row);
  }
  filter();
}

const asked = () => ({ text: field().value, kind: list().querySelector("select").value });

const matches = ({ dataset }, { text, kind }) =>
  (!kind || dataset.kind === kind) &&
  text
    .trim()
    .toLowerCase()
    .split(/\s+/)
    .every((word) => dataset.find.includes(word));

function filter() {
  const wanted = asked();
  for (const row of rows()) row.hidden = !matches(row, wanted);
  list().querySelector(".fontlist__none").hidden = shown().length > 0 || !rows().length;
  const now = shown().find((row) => row.dataset.name === chip.dataset.fontNow);
  mark(field().value ? shown()[0] : now);
}

/** Marks a row as the one that Enter sets. */
function mark(row) {
  active()?.classList.remove("is-active");
  row?.classList.add("is-active");
  row?.scrollIntoView({ block: "nearest" });
  field().setAttribute("aria-activedescendant", row?.id ?? "");
}

function lookAt(row) {
  clearTimeout(looking);
  looking = setTimeout(() => {
    if (!chip || !row.isConnected) return;
    if (row.dataset.name === chip.dataset.fontNow) isPreviewing() && giveUp();
    else preview(edit(row));
  }, LOOK_MS);
}

function set(row) {
  const wanted = edit(row);
  const isNew = row.dataset.name !== chip.dataset.fontNow;
  const recent = remembered("recent-fonts", []).filter((name) => name !== row.dataset.name);
  remember("recent-fonts", [row.dataset.name, ...recent].slice(0, MOST_RECENT));
  close(true, !isNew);
  if (isNew) commit(wanted);
}

/** What was typed is set once the list is here: a hand need not wait for it. */
function setOnceItComes() {
  const wanted = asked();
  if (!coming || !wanted.text.trim()) return;
  const base = around(chip);
  beginLate(
    async () => {
      while (coming) await coming;
    },
    () => {
      const row = rows().find((each) => matches(each, wanted));
      if (row) commit({ ...base, value: row.dataset.name });
      else tell(`No font is called “${wanted.text.trim()}”.`);
    },
  );
  close(true);
}

function toggleFavourite(row) {
  const favourites = remembered("favourite-fonts", []);
  const { name } = row.dataset;
  const is = favourites.includes(name);
  remember("favourite-fonts", is ? favourites.filter((each) => each !== name) : [...favourites, name]);
  row.classList.toggle("is-favourite", !is);
}

function close(focus = false, isGivenUp = true) {
  if (!chip) return;
  clearTimeout(looking);
  if (isGivenUp && isPreviewing()) giveUp();
  list().hidden = true;
  chip.setAttribute("aria-expanded", "false");
  const key = chip.dataset.chip;
  const button = chip;
  chip = null;
  resume();
  if (focus) (button.isConnected ? button : document.querySelector(`[data-chip="${key}"]`))?.focus();
}

function click(event) {
  const button = event.target.closest("[data-font-now]");
  const row = event.target.closest(".fontlist__row");
  if (button) return button === chip ? close() : void show(button);
  if (row && event.target.closest("[data-star]")) return toggleFavourite(row);
  if (row) return set(row);
  if (chip && !event.target.closest("#font-list")) close();
}

const MOVES = { ArrowDown: 1, ArrowUp: -1, PageDown: 8, PageUp: -8 };

function key(event) {
  if (!chip || !list().contains(event.target)) return;
  if (event.key === "Escape") close(true);
  else if (event.key === "Enter" && event.ctrlKey && active()) toggleFavourite(active());
  else if (event.key === "Enter" && active()) set(active());
  else if (event.key === "Enter") setOnceItComes();
  else if (event.key in MOVES && event.target === field()) step(MOVES[event.key]);
  else return event.stopPropagation(); // what is typed here is no shortcut
  event.preventDefault();
  event.stopPropagation();
}

function step(by) {
  const visible = shown();
  const at = visible.indexOf(active());
  const row = visible[Math.max(0, Math.min(visible.length - 1, at < 0 && by > 0 ? 0 : at + by))];
  if (!row) return;
  mark(row);
  lookAt(row);
}

function point({ target }) {
  const row = chip && target.closest?.(".fontlist__row");
  if (!row || row === active()) return;
  mark(row);
  lookAt(row);
}

export function listen() {
  whileBusy(() => Boolean(chip)); // an answer would take the chip from under the list
  document.addEventListener("click", click);
  document.addEventListener("keydown", key, true);
  list().addEventListener("pointermove", point);
  list().addEventListener("focusout", ({ relatedTarget }) => {
    if (relatedTarget && !list().contains(relatedTarget) && relatedTarget !== chip) close();
  });
  list().addEventListener("input", ({ target }) => target === field() && (filter(), active() && lookAt(active())));
  list().addEventListener("change", ({ target }) => target.matches("select") && filter());
}
