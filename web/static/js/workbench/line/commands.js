// The commands of the workbench, with their keys: one table, which the palette lists and the keys go by.
// "Shift ←" is told as it is pressed; what is pressed with Ctrl has its own conditions (shortcuts.js).

import * as actions from "../edits/actions.js";
import { openHistory } from "../edits/history.js";
import { commit, walk } from "../edits/pending.js";
import { openSceneText } from "../edits/scene_text.js";
import { flip, toggleBeside } from "../edits/takes.js";
import { toldKey } from "../figures/pressed.js";
import { toggleKeying } from "../keyframes/keying.js";
import { addTitle } from "../layers/titles.js";
import { toggle, toggleWholeScreen } from "../picture/player.js";
import { farther, fit, nearer } from "../picture/zoom.js";
import { goTo, state } from "../state.js";
import { go } from "../time/time.js";
import { wholeTime } from "../time/timescale.js";
import { openView } from "../time/views.js";
import { tell } from "../../page.js";
import { openGallery } from "./gallery.js";

/** To the keyframe before or after the playhead; they are those of the selected title. */
function goToKey(way) {
  const frames = JSON.parse(document.getElementById("workbench-state").dataset.keys);
  const found =
    way < 0 ? frames.filter((frame) => frame < state.frame).at(-1) : frames.find((frame) => frame > state.frame);
  if (found !== undefined) goTo(found);
}

const press = (selector) => () => document.querySelector(selector)?.click();
const unit = (value) => () =>
  state.move && commit({ name: "set-value", path: `${state.layer}.moves.${state.move}.unit`, value });

/** What is done to a layer, where there is one. */
export const ofLayer = (action) => () =>
  state.layer ? action() : tell("There is no layer yet: add a title first.", "info");

export const COMMANDS = [
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
  ["Set a keyframe for the value that has the focus, or the selected ones", "K", actions.keyHere],
  ["Hold to here: repeat the last value up to the playhead", "H", actions.holdHere],
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
  ["The scene as text", "", openSceneText],
  ["Paper or evening", "", press("[data-theme-switch]")],
  ["Render clip", "", press("#render-clip")],
];

const BY_KEY = new Map(COMMANDS.filter(([, key]) => key).map(([, key, act]) => [key, act]));

/** What is done by what is pressed; undefined if nothing is. */
export const commandFor = (event) => BY_KEY.get(toldKey(event));
