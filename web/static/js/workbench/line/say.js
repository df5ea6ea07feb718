// Saying it: a line into which sentences are typed. While one is typed, the picture shows what it would
// make, and what may come next stands below; Tab takes that, Enter makes it. The core reads: here the
// newest answer is shown, however late or in which order answers come.

import { tell } from "../../page.js";
import { ask } from "../edits/ask.js";
import { answered, beginLate, commit, isPending, newest, select } from "../edits/pending.js";
import { giveUp, isPreviewing, preview } from "../edits/preview.js";
import { asIf, selectedLayers, standing, state, url } from "../state.js";
import { drawn } from "./drawings.js";

const TYPING_MS = 60; // after which what is typed is asked about
const lines = new WeakMap(); // what is known of each line

const lineOf = (node) => node.closest?.("[data-say]");
const field = (line) => line.querySelector(".say__text");

/** What is known of a line: what it says now, what may come next, which of that is chosen. */
function known(line) {
  if (!lines.has(line)) lines.set(line, { turn: 0, next: [], chosen: -1, answer: null, timer: 0 });
  return lines.get(line);
}

/** What a text says, as the edit that it makes; of a `move`, in other words. Layers that were added just
    now are not listed on the page yet. */
function edit(text, move) {
  const listed = selectedLayers();
  const layers = listed.length ? listed : [state.layer, ...state.also];
  return { name: "say", text, layer: state.layer, layers, ...(move ? { move } : { current: state.move }) };
}

// While answers are awaited: what was selected when something was said, and what that left selected,
// whatever hands have selected since.
const became = new Map();
const named = ({ layer, move }) => `${layer} ${move}`;

/** Says a text of what is selected. A sentence before it may still be about to add a layer or a move:
    then it is said of that. */
export function sayIt(text, { move, done, refused } = {}) {
  const then = standing();
  const act = () => {
    const before = named(state);
    const answeredBy = (response) => {
      const after = JSON.parse(response.headers.get("X-Selection"));
      if (named(after) !== before) became.set(before, after);
      done?.();
    };
    commit(edit(text, move), { done: answeredBy, refused });
  };
  if (!move && newest((each) => each.name === "say")) return beginLate(answered, () => asIf(since(then), act));
  became.clear();
  act();
}

/** What hands stood at, on what was added since. */
function since(then) {
  let now = then;
  for (let steps = became.size; steps && became.has(named(now)); steps -= 1)
    now = { ...became.get(named(now)), letters: null, frame: then.frame };
  return now;
}

/** What the server makes of a text, for the selected layer or as `more` says; null if it does not answer. */
export async function meaning(text, more = { current: state.move }) {
  const several = selectedLayers().length > 1 && { several: "" };
  const query = new URLSearchParams({ text, layer: state.layer, ...several, ...more });
  try {
    const response = await ask(`${url("say")}?${query}`);
    return response.ok ? await response.json() : null;
  } catch {
    return null;
  }
}

function typed(line) {
  const about = known(line);
  about.turn += 1;
  about.answer = null;
  about.chosen = -1;
  clearTimeout(about.timer);
  about.timer = setTimeout(() => look(line), TYPING_MS);
  draw(line);
}

/** Asks what is typed means, and shows it unless more was typed meanwhile. */
async function look(line) {
  const about = known(line);
  const { turn } = about;
  const text = field(line).value;
  const { move } = line.dataset;
  const answer = await meaning(text, move && { move });
  if (turn !== about.turn || !line.isConnected) return;
  about.answer = answer;
  about.next = offered(answer);
  draw(line);
  if (answer?.said) preview(edit(text, move));
  else if (isPreviewing() && !isPending()) giveUp();
}

/** What may come next; or, where a word is not understood, those that it may be meant for. */
function offered(answer) {
  const { next = [], fault } = answer ?? {};
  if (next.length || !fault) return next;
  const { start, end, suggestions, drawing } = fault;
  return start === end ? [] : suggestions.map((text) => ({ text, group: "meant", drawing, start, end }));
}

// What is shown

const span = (className, text) => Object.assign(document.createElement("span"), { className, textContent: text });

/** What the chosen completion, or the first, would add behind what is typed. */
function ghostOf(line) {
  const { next, chosen, answer } = known(line);
  const { value, selectionStart } = field(line);
  const found = next[Math.max(chosen, 0)];
  if (!answer || !found || !value || selectionStart !== value.length) return "";
  const begun = value.slice(found.start, found.end);
  return found.text.toLowerCase().startsWith(begun.toLowerCase()) ? found.text.slice(begun.length) : "";
}

/** The typed words, drawn behind the field: values in their colour, what is wrong marked, the ghost. */
function seen(line) {
  const { answer } = known(line);
  const text = field(line).value;
  const marks = (answer?.values ?? []).map(([from, to]) => [from, to, "say__value"]);
  const { fault } = answer ?? {};
  if (fault && fault.end > fault.start && !answer.answer && !isUnfinished(line))
    marks.push([fault.start, fault.end, "say__fault"]);
  const parts = [];
  let at = 0;
  for (const [from, to, name] of marks.sort((a, b) => a[0] - b[0])) {
    if (from < at) continue;
    parts.push(span("", text.slice(at, from)), span(name, text.slice(from, to)));
    at = to;
  }
  return [...parts, span("", text.slice(at)), span("say__ghost", ghostOf(line))];
}

/** The items of the list, made anew; the chosen one is marked. */
function items(line) {
  const { next, chosen } = known(line);
  return next.map(({ text, group, drawing }, index) => {
    const item = document.createElement("li");
    item.id = `${line.id}-next-${index}`;
    item.dataset.next = index;
    item.setAttribute("role", "option");
    item.setAttribute("aria-selected", String(index === chosen));
    item.append(drawn(drawing), span("say__words", text), span("say__group", SAID_OF[group] ?? group));
    return item;
  });
}

// What groups are called where they stand behind a completion.
const SAID_OF = {
  where: "where to",
  by: "by what",
  motion_blur: "motion blur",
  along: "path",
  meant: "is it meant?",
  layer: "new layer",
  run: "letters",
  setting: "this layer",
  try: "try it",
};

/** How what is said in other words is understood: the sentence in ours, and what of it was assumed. */
function inOurWords(answer) {
  if (!answer?.in_our_words) return [];
  const nodes = [];
  let rest = answer.in_our_words;
  for (const assumed of answer.assumed) {
    const at = rest.indexOf(assumed);
    if (at < 0) continue;
    nodes.push(rest.slice(0, at), span("say__assumed", assumed));
    rest = rest.slice(at + assumed.length);
  }
  const ours = span("say__ours", "");
  ours.append(...nodes, `${rest} `);
  return [ours];
}

/** What the guide says to a question, with the way to it. */
function fromGuide(answer) {
  if (!answer?.answer) return [];
  const more = Object.assign(document.createElement("a"), { href: answer.answer.address, textContent: "In the guide" });
  more.target = "_blank";
  return [span("say__answer", `${answer.answer.text} `), more];
}

/** What stands under the list: what is wrong, or what keys do. */
function told(line) {
  const { answer } = known(line);
  if (!answer) return "";
  if (answer.what === "more") return `Enter goes on with “${answer.move}”.`;
  if (answer.said)
    return `Enter ${line.dataset.move ? "changes it" : (DOES[answer.what] ?? `adds the ${answer.what}`)}.`;
  if (answer.answer) return "";
  const { fault } = answer;
  return isUnfinished(line) && known(line).next.length ? "Tab takes what is offered." : (fault?.message ?? "");
}

/** Whether what is not understood is but what is being typed. */
function isUnfinished(line) {
  const { answer, next } = known(line);
  const { length } = field(line).value.trimEnd();
  return Boolean(answer?.fault) && (answer.fault.start >= length || (next.length > 0 && answer.fault.end >= length));
}

// What Enter does with what is said, where that is not added.
const DOES = {
  motion_blur: "adds the motion blur",
  along: "lets it stand along the path",
  style: "sets the style",
  run: "sets these letters",
  place: "puts it there",
  setting: "sets the layer",
  scene: "sets the scene",
  several: "does all of it",
  ask: "does it",
};

function draw(line) {
  const text = field(line);
  const { answer, next, chosen } = known(line);
  const isOpen = document.activeElement === text && (Boolean(text.value) || chosen >= 0);
  line.querySelector(".say__seen").replaceChildren(...seen(line));
  line.querySelector(".say__next").replaceChildren(...items(line));
  const note = line.querySelector(".say__told");
  const words = [...inOurWords(answer), ...fromGuide(answer), told(line)];
  const shown = words.map((part) => part.textContent ?? part).join("");
  if (note.textContent !== shown) note.replaceChildren(...words);
  line.querySelector(".say__flap").hidden = !isOpen || (!next.length && !shown);
  line.classList.toggle("is-said", Boolean(answer?.said));
  text.setAttribute("aria-expanded", String(isOpen && next.length > 0));
  text.setAttribute("aria-activedescendant", chosen >= 0 ? `${line.id}-next-${chosen}` : "");
  line.querySelector("[aria-selected=true]")?.scrollIntoView({ block: "nearest" });
}

// What hands do

/** Puts a completion behind what is typed. */
function take(line, index) {
  const found = known(line).next[index];
  if (!found) return;
  const text = field(line);
  const before = text.value.slice(0, found.start);
  const gap = before && !/[\s(]$/.test(before) ? " " : "";
  const after = found.end ? text.value.slice(found.end).trimStart() : "";
  text.value = `${before}${gap}${found.text} ${after}`;
  text.setSelectionRange(text.value.length, text.value.length);
  typed(line);
}

/** Makes what is typed, and takes the next at once. What is not understood stays, marked, or comes
    back, and nothing is made. */
function make(line) {
  const text = field(line).value;
  const { answer, next, timer } = known(line);
  if (!text.trim()) return;
  if (answer?.answer) return next.length ? take(line, 0) : field(line).select();
  if (answer?.fault) return field(line).select(); // so that typing replaces it
  clearTimeout(timer);
  sayIt(text, {
    move: line.dataset.move,
    done: () => made(line, text),
    refused: (message) => refused(line, text, message),
  });
  if (!line.dataset.move) clear(line);
  line.closest("dialog")?.close();
}

/** A card shows its sentence again, unless more was typed meanwhile. */
function made(line, text) {
  if (line.dataset.move && line.isConnected && field(line).value === text) close(line);
}

/** What was refused stands there again; beside something that is being typed by now, or where the line
    is not seen any more, it is told. */
function refused(line, text, message) {
  const isFree = line.offsetParent && [text, ""].includes(field(line).value);
  if (!isFree) return tell(`“${text}” was not said: ${message}`);
  field(line).value = text;
  field(line).focus();
  field(line).select();
  typed(line);
}

function clear(line) {
  field(line).value = "";
  Object.assign(known(line), { next: [], answer: null, chosen: -1 });
  known(line).turn += 1;
  draw(line);
}

/** Leaves a line; one in a card goes. */
function close(line) {
  const { move } = line.dataset;
  known(line).turn += 1;
  if (!move) return clear(line);
  const hadFocus = line.contains(document.activeElement);
  line.remove();
  if (hadFocus) document.getElementById(`move-${move}`)?.focus();
}

/** What was being shown is forgotten. */
function leave(line) {
  if (!line.dataset.move) field(line).blur();
  close(line);
  if (isPreviewing() && !isPending()) giveUp();
}

const KEYS = {
  ArrowDown: (line) => step(line, 1),
  ArrowUp: (line) => step(line, -1),
  Tab: (line, event) => {
    if (event.shiftKey || !known(line).next.length || !field(line).value) return false;
    return take(line, Math.max(known(line).chosen, 0));
  },
  Enter: (line) => (known(line).chosen >= 0 ? take(line, known(line).chosen) : make(line)),
  Escape: (line, event) => {
    if (line.closest("dialog") && !field(line).value) return false; // it closes that
    event.stopPropagation();
    if (known(line).chosen < 0) return leave(line);
    known(line).chosen = -1;
    return draw(line);
  },
};

function step(line, by) {
  const about = known(line);
  if (!about.next.length) return false;
  about.chosen = Math.max(-1, Math.min(about.chosen + by, about.next.length - 1));
  return draw(line);
}

function key(event) {
  const line = event.target.matches?.(".say__text") && lineOf(event.target);
  if (line && !event.isComposing && KEYS[event.key] && KEYS[event.key](line, event) !== false) event.preventDefault();
  const card = event.key === "Enter" && event.target.matches?.(".move") && event.target;
  if (card) {
    event.preventDefault();
    sayAnew(card);
  }
}

/** Turns the card of a move into the text of its sentence, to be said in other words. */
export function sayAnew(card) {
  const { move } = card.dataset;
  if (document.getElementById(`say-move-${move}`)) return;
  if (move !== state.move) select({ move });
  const line = document.getElementById("say-moves").cloneNode(true);
  line.id = `say-move-${move}`;
  line.dataset.move = move;
  for (const node of line.querySelectorAll("[id], [for]")) {
    for (const name of ["id", "for"])
      if (node[name === "for" ? "htmlFor" : name])
        node.setAttribute(name, node.getAttribute(name).replace("say-moves", line.id));
  }
  const text = field(line);
  text.setAttribute("aria-controls", `${line.id}-next`);
  text.setAttribute("aria-describedby", `${line.id}-told`);
  document.getElementById(`said-${move}`).append(line);
  text.value = card.querySelector(".sentence").dataset.said;
  text.focus();
  text.setSelectionRange(text.value.length, text.value.length);
  typed(line);
}

function click(event) {
  const item = event.target.closest("[data-next]");
  const anew = event.target.closest("[data-say-move]");
  if (item) {
    take(lineOf(item), Number(item.dataset.next));
    field(lineOf(item)).focus();
  } else if (anew) sayAnew(anew.closest(".move"));
}

/** What the address of the page says, as “Try it” in the guide does, stands in the line once. */
function sayWhatIsTried() {
  const address = new URL(location.href);
  const text = address.searchParams.get("say");
  const line = text && document.getElementById("say-moves");
  if (!line) return;
  address.searchParams.delete("say");
  history.replaceState(null, "", address);
  field(line).value = text;
  field(line).focus();
  typed(line);
}

export function listen() {
  sayWhatIsTried();
  document.addEventListener("input", (event) => event.target.matches(".say__text") && typed(lineOf(event.target)));
  document.addEventListener("keydown", key);
  document.addEventListener("click", click);
  // A press on what is offered leaves the line where it is.
  document.addEventListener("pointerdown", (event) => event.target.closest(".say__flap") && event.preventDefault());
  document.addEventListener("scroll", scrolled, true);
  for (const name of ["focusin", "focusout"])
    document.addEventListener(name, (event) => event.target.matches?.(".say__text") && entered(lineOf(event.target)));
}

/** What is seen behind the field scrolls with it. */
function scrolled({ target }) {
  if (target.matches?.(".say__text")) lineOf(target).querySelector(".say__seen").scrollTop = target.scrollTop;
}

/** With the focus, what may come first is offered; without it, nothing is. */
function entered(line) {
  const isIn = document.activeElement === field(line);
  if (isIn && !known(line).answer) typed(line);
  else draw(line);
}
