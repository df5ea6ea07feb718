// The palette: any command, layer, move or preset by its name (Ctrl+K); "?" lists all with their keys.

import { tell } from "../../page.js";
import * as actions from "../edits/actions.js";
import { addPreset, openGallery } from "./gallery.js";
import { toggleKeying } from "../keyframes/keying.js";
import { goToKey } from "./shortcuts.js";
import { toggle, toggleWholeScreen } from "../picture/player.js";
import { commit, select, walk } from "../edits/pending.js";
import { openHistory } from "../edits/history.js";
import { meaning, sayIt } from "./say.js";
import { goTo, state } from "../state.js";
import { flip, toggleBeside } from "../edits/takes.js";
import { go } from "../time/time.js";
import { addTitle } from "../layers/titles.js";
import { openView } from "../time/views.js";
import { wholeTime } from "../time/timescale.js";
import { farther, fit, nearer } from "../picture/zoom.js";

const press = (selector) => () => document.querySelector(selector)?.click();
const unit = (value) => () =>
  state.move && commit({ name: "set-value", path: `${state.layer}.moves.${state.move}.unit`, value });

/** What is done to a layer, where there is one. */
const ofLayer = (action) => () => (state.layer ? action() : tell("There is no layer yet: add a title first.", "info"));

const COMMANDS = [
  ["Play or pause", "Space", toggle],
  ["To the first frame", "Home", () => go("start")],
  ["To the last frame", "End", () => go("end")],
  ["One frame back", "←", () => go("back")],
  ["One frame on", "→", () => go("next")],
  ["Ten frames back", "Shift ←", () => go("back-ten")],
  ["Ten frames on", "Shift →", () => go("next-ten")],
  ["Type a time", "G", () => document.getElementById("time").focus()],
  ["To the keyframe before", ",", () => goToKey(-1)],
  ["To the keyframe after", ".", () => goToKey(1)],
  ["Set a keyframe for the value that has the focus, or the selected ones", "K", () => actions.keyHere()],
  ["Hold to here: repeat the last value up to the playhead", "H", () => actions.holdHere()],
  ["Select all layers, or all keyframes shown", "Ctrl A", () => actions.selectAll()],
  ["Undo", "Ctrl Z", () => walk("undo")],
  ["Redo", "Ctrl Shift Z", () => walk("redo")],
  ["Add a move", "", ofLayer(openGallery)],
  ["Add a title", "", addTitle],
  ["Add an adjustment: effects on all below", "", () => commit({ name: "add-adjustment" })],
  ["Group the selected layers", "", actions.groupLayers],
  ["Copy what is selected: keyframes, or layers", "Ctrl C", actions.copy],
  ["Paste at the playhead", "Ctrl V", actions.paste],
  ["Duplicate what is selected", "Ctrl D", actions.duplicate],
  ["Remove what is selected", "Delete", actions.remove],
  ["Copy the style of the title", "", actions.copyStyle],
  ["Copy the moves of the title", "", actions.copyMoves],
  ["Copy the move", "", actions.copyMove],
  ["Split the layer at the playhead", "", actions.splitLayer],
  ["To the start of the layer", "Shift Home", ofLayer(() => goTo(actions.layerEnd(0)))],
  ["To the end of the layer", "Shift End", ofLayer(() => goTo(actions.layerEnd(1)))],
  ["Set a marker at the playhead", "M", actions.addMarker],
  ["Select all keyframes", "", actions.selectAllKeys],
  ["Reverse the keyframes", "", actions.reverseKeys],
  ["Align the keyframes to the playhead", "", actions.alignKeys],
  ["Flatten the curve at the keyframes", "", actions.flattenKeys],
  ["Spread keyframes or layers along a curve", "", press("[data-open-spread]")],
  ["Keying on or off", "", toggleKeying],
  ["Cascade", "", () => openView("cascade")],
  ["Keyframes", "", () => openView("keyframes")],
  ["Curves", "", () => openView("curves")],
  ["Keep this, go on in a new take", "", press("[data-take-keep]")],
  ["Flip to the other take and back", "C", flip],
  ["Takes side by side", "Shift C", toggleBeside],
  ["The picture on the whole screen", "W", toggleWholeScreen],
  ["The picture nearer", "+", nearer],
  ["The picture farther", "−", farther],
  ["Fit the picture", "0", fit],
  ["Show the whole time", "", wholeTime],
  ["Centre the title", "", ofLayer(() => commit({ name: "center", layer: state.layer, axes: "xy" }))],
  ["The move is by character", "1", unit("character")],
  ["The move is by word", "2", unit("word")],
  ["The move is by line", "3", unit("line")],
  ["History", "", openHistory],
  ["Paper or evening", "", press("[data-theme-switch]")],
  ["Render clip", "", press("#render-clip")],
  ["Find a command or a layer", "Ctrl K", null],
  ["All commands with their keys", "?", null],
];

let chosen = 0;
let found = [];
let sentence = null; // what is typed, if it is a sentence: the text, and the command that makes it

const palette = () => document.getElementById("palette");
const field = () => document.getElementById("palette-field");

function entries() {
  const layers = [...document.querySelectorAll(".slab")].map((slab) => [
    `Layer: ${nameOf(slab)}`,
    "",
    () => select({ layer: slab.dataset.layer, letters: null, move: "" }),
  ]);
  const moves = [...document.querySelectorAll(".move")].map((card) => [
    `Move: ${card.querySelector(".move__name").value}`,
    "",
    () => select({ move: card.dataset.move }),
  ]);
  const presets = [...document.querySelectorAll("[data-add-move]")].map((card) => [
    `Add: ${card.querySelector(".gcard__name").textContent}`,
    "",
    ofLayer(() => addPreset(card.dataset.addMove)),
  ]);
  const shapes = [...document.querySelectorAll('[data-do*="add-shape"]')].map((button) => [
    `Add a shape: ${button.textContent}`,
    "",
    () => button.click(),
  ]);
  return [...COMMANDS, ...shapes, ...layers, ...moves, ...presets];
}

/** What a layer is called in the list of layers. */
function nameOf(slab) {
  const field = slab.querySelector(".slab__text, .slab__name");
  return field.value.trim() || (field.matches(".slab__text") ? "empty title" : field.placeholder);
}

function list() {
  const words = field().value.toLowerCase().split(/\s+/).filter(Boolean);
  found = entries().filter(([name]) => words.every((word) => name.toLowerCase().includes(word)));
  if (sentence?.text === field().value) found.push(sentence.command); // last: what is chosen stays so
  chosen = Math.max(0, Math.min(chosen, found.length - 1));
  const items = found.map(([name, keys], index) => {
    const item = document.createElement("li");
    item.id = `command-${index}`;
    item.setAttribute("role", "option");
    item.setAttribute("aria-selected", String(index === chosen));
    item.dataset.command = index;
    item.append(
      Object.assign(document.createElement("span"), { textContent: name }),
      Object.assign(document.createElement("kbd"), { textContent: keys }),
    );
    return item;
  });
  if (!items.length)
    items.push(
      Object.assign(document.createElement("li"), {
        className: "palette__none",
        textContent: "Nothing is called that.",
      }),
    );
  document.getElementById("palette-list").replaceChildren(...items);
  field().setAttribute("aria-activedescendant", found.length ? `command-${chosen}` : "");
  document.getElementById(`command-${chosen}`)?.scrollIntoView({ block: "nearest" });
}

/** Whether what is typed is a sentence: then that is listed last. */
async function ask() {
  const text = field().value;
  if (!/\w\s*\S/.test(text)) return;
  const answer = await meaning(text);
  if (!answer?.said || text !== field().value) return;
  sentence = { text, command: [`Say: ${answer.said}`, "Enter", () => say(text)] };
  list();
}

/** Says what is typed. If it is no sentence, it is told why, and stays to be put right. */
function say(text) {
  const refused = (message) => {
    tell(message);
    if (!palette().open) openPalette(text);
  };
  sayIt(text, { refused });
}

export function openPalette(text = "") {
  chosen = 0;
  field().value = text;
  palette().showModal();
  list();
}

/** Does what is chosen. What no command is called may be a sentence that was typed at once. */
function run(index) {
  const text = field().value;
  const action = found[index]?.[2];
  palette().close();
  if (found.length) action?.();
  else if (text.trim()) say(text);
}

function key(event) {
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "k") {
    event.preventDefault();
    return openPalette();
  }
  if (event.key === "?" && !event.target.closest("input, textarea, [contenteditable]")) {
    event.preventDefault();
    return openPalette();
  }
  if (event.target.id !== "palette-field") return;
  const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  if (by) chosen += by;
  else if (event.key === "Enter") return run(chosen);
  else return;
  event.preventDefault();
  list();
}

export function listen() {
  document.addEventListener("keydown", key);
  document.addEventListener("input", (event) => {
    if (event.target.id !== "palette-field") return;
    chosen = 0;
    list();
    ask();
  });
  document.addEventListener("click", (event) => {
    const command = event.target.closest("[data-command]");
    if (event.target.closest("[data-open-palette]")) openPalette();
    else if (command) run(Number(command.dataset.command));
  });
}
