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

/** To another page of the application, by its name, as the page of the workbench knows them. */
const visit = (page) => () => location.assign(document.querySelector(`[data-page="${page}"]`).href);

/** What is done to a layer, where there is one. */
export const ofLayer = (action) => () =>
  state.layer ? action() : tell("There is no layer yet: add a title first.", "info");

// What each is called, its key, what it does, and other words that it is looked for by.
export const COMMANDS = [
  ["Play or pause", "Space", toggle, "preview loop"],
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
  ["Undo", "Ctrl Z", () => walk("undo"), "back"],
  ["Redo", "Ctrl Shift Z", () => walk("redo")],
  ["Add a move", "", ofLayer(openGallery), "animation animate preset effect entrance exit gallery"],
  ["Add a title", "", addTitle, "text words type headline"],
  ["Add an adjustment: effects on all below", "", () => commit({ name: "add-adjustment" }), "grade colour all layers"],
  ["Group the selected layers", "", actions.groupLayers, "together combine"],
  ["Copy what is selected: keyframes, or layers", "Ctrl C", actions.copy],
  ["Paste at the playhead", "Ctrl V", actions.paste],
  ["Duplicate what is selected", "Ctrl D", actions.duplicate, "copy clone"],
  ["Remove what is selected", "Delete", actions.remove, "delete"],
  ["Copy the style of the title", "", actions.copyStyle],
  ["Copy the moves of the title", "", actions.copyMoves],
  ["Copy the move", "", actions.copyMove],
  ["Split the layer at the playhead", "", actions.splitLayer, "cut"],
  ["To the start of the layer", "Shift Home", ofLayer(() => goTo(actions.layerEnd(0)))],
  ["To the end of the layer", "Shift End", ofLayer(() => goTo(actions.layerEnd(1)))],
  ["Set a marker at the playhead", "M", actions.addMarker, "cue point beat"],
  ["Select all keyframes", "", actions.selectAllKeys],
  ["Reverse the keyframes", "", actions.reverseKeys],
  ["Align the keyframes to the playhead", "", actions.alignKeys],
  ["Flatten the curve at the keyframes", "", actions.flattenKeys],
  ["Spread keyframes or layers along a curve", "", press("[data-open-spread]"), "stagger delay distribute"],
  ["Keying on or off", "", toggleKeying],
  ["Cascade", "", () => openView("cascade")],
  ["Keyframes", "", () => openView("keyframes"), "keys animate"],
  ["Curves", "", () => openView("curves"), "easing ease graph speed"],
  ["Keep this, go on in a new take", "", press("[data-take-keep]")],
  ["Flip to the other take and back", "C", flip],
  ["Takes side by side", "Shift C", toggleBeside],
  ["The picture on the whole screen", "W", toggleWholeScreen, "fullscreen"],
  ["The picture nearer", "+", nearer],
  ["The picture farther", "−", farther],
  ["Fit the picture", "0", fit],
  ["Show the whole time", "", wholeTime],
  [
    "Centre the title",
    "",
    ofLayer(() => commit({ name: "center", layer: state.layer, axes: "xy" })),
    "middle align position",
  ],
  ["The move is by character", "1", unit("character")],
  ["The move is by word", "2", unit("word")],
  ["The move is by line", "3", unit("line")],
  ["History", "", openHistory, "undo versions earlier older before"],
  ["The scene as text", "", openSceneText],
  ["Paper or evening", "", press("[data-theme-switch]"), "dark light theme"],
  [
    "Add a file: a picture, a video, music",
    "",
    () => document.getElementById("file-field").click(),
    "photo image sound song upload import media",
  ],
  ["Fonts: those that there are, and your own", "", visit("fonts"), "typeface font add upload"],
  ["Files: what you sent", "", visit("library"), "pictures music sounds uploads"],
  ["Renders: your clips", "", visit("renders"), "clips finished downloads"],
  ["Projects", "", visit("projects"), "scenes home back"],
  ["The guide", "", visit("guide"), "help how manual tutorial learn"],
  ["Render clip", "", press("#render-clip"), "export save download mp4 video gif movie webm output"],
];

const BY_KEY = new Map(COMMANDS.filter(([, key]) => key).map(([, key, act]) => [key, act]));

/** What is done by what is pressed; undefined if nothing is. */
export const commandFor = (event) => BY_KEY.get(toldKey(event));
