// The sound of the scene, heard while it plays: mixed by the server, kept in step with the frames.

import { currentSpeed, isPlaying } from "./player.js";
import { on, state, url } from "../state.js";

const MOST_AWAY_S = 0.15; // from where the playhead is, before it is set again
const audio = new Audio();
audio.preload = "auto";

const here = () => state.frame / state.rate;

/** Has the sound of what is shown at hand; a preview is heard as the scene was before. */
function load() {
  const wanted = state.hasSound ? url("sound", state.digest) : "";
  if (audio.dataset.address === wanted) return;
  audio.dataset.address = wanted;
  if (wanted) audio.src = wanted;
  else audio.removeAttribute("src");
}

function play() {
  if (!state.hasSound) return;
  audio.currentTime = here();
  audio.playbackRate = currentSpeed();
  audio.play().catch(() => {}); // not allowed, or not there yet: the picture plays all the same
}

function keepInStep() {
  if (!isPlaying() || audio.paused) return;
  if (Math.abs(audio.currentTime - here()) > MOST_AWAY_S) audio.currentTime = here();
}

export function listen() {
  on("scene", load);
  on("played", play);
  on("paused", () => audio.pause());
  on("frame", keepInStep);
}
