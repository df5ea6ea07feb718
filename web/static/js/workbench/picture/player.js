// The picture at the playhead, and playing at the scene's rate; with another take beside it, both in
// step.

import {
  AHEAD,
  RUN,
  addressOf,
  askRun,
  bitmapAt,
  bitmapOf,
  isAskedFor,
  isSmall,
  moved,
  paint,
  playSmall,
} from "./frames.js";
import { emit, goTo, on, state } from "../state.js";

const BUFFER_S = 0.4; // how much must be there, at the least, before playing starts
const MOST_WAIT_MS = 4000; // for a slow scene, that is then played as well as it goes
const FORESEEN = 900; // frames; what comes later is not reckoned with
const PARALLEL = 12; // frames fetched and decoded at a time: two runs
const MOST_IN_FLIGHT = 2; // frames asked for while scrubbing; of those after, the newest is next
const AT_EASE = 16; // frames ahead of the playhead that are enough
const SPEEDS = [
  [1, "full speed"],
  [0.5, "half speed"],
  [0.25, "quarter speed"],
];

const canvas = document.getElementById("canvas");
const besideCanvas = document.getElementById("canvas-beside");
const slow = new Set(); // digests of what cannot be drawn as fast as it plays, but smaller
let beside = ""; // the digest of the take that is shown beside
let playing = null;
let speed = 1;
let loop = true;
let inFlight = 0;

/** Each canvas with the digest that it shows. */
const panes = () =>
  beside
    ? [
        [canvas, state.shown],
        [besideCanvas, beside],
      ]
    : [[canvas, state.shown]];
const addresses = (frame) => panes().map(([, digest]) => addressOf(digest, frame));

/** Shows another state beside, or none. */
export function showBeside(digest) {
  beside = digest;
  if (!playing) showFrame();
}

const isShown = () => panes().every(([pane, digest]) => pane.dataset.shown === addressOf(digest, state.frame));

/** Shows the frame at the playhead; while frames are under way, only the newest wish counts. */
async function showFrame() {
  if (!state.shown) return; // the page is not read yet
  document.getElementById("stage-frame").textContent = state.frame;
  document.getElementById("buffer").textContent = isSmall() ? "smaller while scrubbing" : "";
  if (inFlight >= MOST_IN_FLIGHT || isShown()) return;
  const wanted = panes().map(([pane, digest]) => [pane, addressOf(digest, state.frame)]);
  inFlight += 1;
  try {
    await Promise.all(
      wanted.map(async ([pane, address]) => {
        const bitmap = await bitmapOf(address);
        if (!playing) paint(pane, bitmap, address);
      }),
    );
    tellFault("");
  } catch (error) {
    tellFault(error.message);
    return;
  } finally {
    inFlight -= 1;
  }
  if (playing) return;
  if (isShown()) emit("painted");
  else showFrame();
}

/** Says why no picture comes; what others say in the same place stays. */
function tellFault(message) {
  const line = document.getElementById("stage-told");
  if (message || line.dataset.fault) line.textContent = message;
  line.dataset.fault = message;
}

function changed() {
  if (playing) return;
  moved(showFrame);
  showFrame();
}

const pausing = (time) => new Promise((done) => setTimeout(done, time));

/** Asks for frames ahead of the playhead, a few at a time, while playing goes on. */
async function fetchAhead(run) {
  const lanes = Array.from({ length: PARALLEL }, async () => {
    while (playing === run) {
      const frame = nextMissing(run);
      const isAtEase = run.isCalm && frame !== null && (frame - state.frame + state.length) % state.length > AT_EASE;
      // With enough at hand one run follows another after a rest: what plays has the machine too.
      if (frame === null || (isAtEase && (run.asked.size || performance.now() < run.restUntil))) await pausing(30);
      else {
        const started = performance.now();
        askRuns(run, frame);
        run.asked.add(frame);
        await Promise.all(addresses(frame).map(bitmapOf))
          .catch(() => {})
          .finally(() => run.asked.delete(frame));
        run.restUntil = 2 * performance.now() - started;
        run.isCalm = comesInTime(run, 0.5);
      }
    }
  });
  await Promise.all(lanes);
}

/** Asks for a run of frames, and counts those that come. */
async function askRuns(run, frame) {
  const counts = await Promise.all(panes().map(([, digest]) => askRun(digest, frame, state.length)));
  run.came += Math.max(...counts);
}

/** Asks for what lies farther ahead, in a loop from the start on too: a slow scene needs it before it
    is played. */
async function fetchFar(run) {
  const from = state.frame;
  const count = loop ? state.length : state.length - from;
  run.far = AHEAD;
  const lanes = Array.from({ length: PARALLEL / RUN }, async () => {
    while (playing === run && run.far < count) {
      const frame = (from + run.far) % state.length;
      run.far += Math.min(RUN, state.length - frame);
      await askRuns(run, frame);
    }
  });
  await Promise.all(lanes);
}

const isHere = (frame) => addresses(frame).every(bitmapAt);

function nextMissing(run) {
  for (let ahead = 0; ahead < Math.min(AHEAD, state.length); ahead += 1) {
    let frame = state.frame + ahead;
    if (frame >= state.length) {
      if (!loop) return null;
      frame %= state.length;
    }
    if (!run.asked.has(frame) && !isHere(frame)) return frame;
  }
  return null;
}

/** Whether all frames that are missing will come before their turn, at a share of the pace at which
    frames have come so far. */
function comesInTime(run, share = 1) {
  const count = Math.min(FORESEEN, loop ? state.length : state.length - state.frame);
  const ahead = Array.from({ length: count }, (_, n) => n);
  const missing = ahead.filter((n) => !addresses((state.frame + n) % state.length).every(isAskedFor));
  if (!missing.length || !run.came) return true;
  const each = (performance.now() - run.began) / run.came / share;
  return missing.length * each <= (missing.at(-1) * 1000) / (state.rate * speed);
}

/** Whether the next frames are all here. */
const areHere = (count) =>
  Array.from({ length: Math.min(count, state.length - state.frame) }, (_, n) => isHere(state.frame + n)).every(Boolean);

/** Waits until playing can start and go on to the end. A slow scene is played smaller, and waits for
    as long as is bearable if even that is slow. */
async function buffered(run) {
  const line = document.getElementById("buffer");
  while (playing === run) {
    const isSlow = !comesInTime(run, 0.9);
    if (isSlow && !run.isSmall && run.came >= PARALLEL) stepDown(run);
    else if (areHere(Math.ceil(BUFFER_S * state.rate)) && (!isSlow || performance.now() - run.began > MOST_WAIT_MS))
      break;
    line.textContent = run.came ? `fetching frames, ${run.came} so far` : "fetching frames";
    if (!run.far && areHere(AHEAD)) fetchFar(run);
    await pausing(10);
  }
  line.textContent = run.isSmall && playing === run ? "smaller, to keep its speed" : "";
}

function stepDown(run) {
  slow.add(state.shown);
  playSmall(true);
  Object.assign(run, { isSmall: true, began: performance.now(), came: 0 });
}

async function play() {
  const run = {
    asked: new Set(),
    began: performance.now(),
    came: 0,
    dropped: 0,
    far: 0,
    isCalm: true,
    isSmall: slow.has(state.shown),
    restUntil: 0,
  };
  playing = run;
  playSmall(run.isSmall);
  document.getElementById("play").setAttribute("aria-pressed", "true");
  document.getElementById("play").setAttribute("aria-label", "Pause");
  if (!loop && state.frame === state.length - 1) goTo(0);
  fetchAhead(run);
  await buffered(run);
  if (playing !== run) return;
  Object.assign(run, { from: state.frame, at: performance.now(), last: state.frame });
  tellDropped(run);
  emit("played");
  requestAnimationFrame((now) => tick(run, now));
}

function tick(run, now) {
  if (playing !== run) return;
  const passed = Math.max(0, Math.floor(((now - run.at) * state.rate * speed) / 1000));
  let frame = run.from + passed;
  if (frame >= state.length) {
    if (!loop) {
      state.frame = state.length - 1; // whatever was dropped on the way
      return pause();
    }
    frame %= state.length;
  }
  if (passed !== run.passed) {
    const isReady = isHere(frame);
    const skipped = passed - (run.passed ?? -1) - 1;
    run.dropped += skipped + (isReady ? 0 : 1);
    run.passed = passed;
    state.frame = frame;
    if (isReady)
      for (const [pane, digest] of panes()) paint(pane, bitmapAt(addressOf(digest, frame)), addressOf(digest, frame));
    document.getElementById("stage-frame").textContent = frame;
    tellDropped(run);
    emit("frame");
  }
  requestAnimationFrame((next) => tick(run, next));
}

function tellDropped(run) {
  const line = document.getElementById("stage-dropped");
  line.textContent = `${run.dropped} frame${run.dropped === 1 ? "" : "s"} dropped`;
  line.dataset.dropped = run.dropped;
}

export function pause() {
  if (!playing) return;
  playing = null;
  playSmall(false);
  emit("paused");
  document.getElementById("buffer").textContent = "";
  document.getElementById("play").setAttribute("aria-pressed", "false");
  document.getElementById("play").setAttribute("aria-label", "Play");
  goTo(state.frame);
}

export const isPlaying = () => playing !== null;
export const currentSpeed = () => speed;

export function toggle() {
  if (playing) pause();
  else play();
}

/** Full, half or quarter speed, one after the other. */
function nextSpeed() {
  const wasPlaying = isPlaying();
  pause();
  speed = SPEEDS[(SPEEDS.findIndex(([value]) => value === speed) + 1) % SPEEDS.length][0];
  const said = SPEEDS.find(([value]) => value === speed)[1];
  const button = document.getElementById("speed");
  button.textContent = said;
  button.setAttribute("aria-label", `Speed: ${said}`);
  if (wasPlaying) play();
}

function toggleLoop() {
  loop = !loop;
  const button = document.getElementById("loop");
  button.setAttribute("aria-pressed", String(loop));
  button.classList.toggle("is-on", loop);
}

/** The stage alone on the whole screen, and back. */
export function toggleWholeScreen() {
  if (document.fullscreenElement) document.exitFullscreen();
  else document.getElementById("stage").requestFullscreen();
}

export function listen() {
  on("frame", changed);
  on("scene", changed);
  document.getElementById("play").addEventListener("click", toggle);
  document.getElementById("loop").addEventListener("click", toggleLoop);
  document.getElementById("speed").addEventListener("click", nextSpeed);
  document.getElementById("whole").addEventListener("click", toggleWholeScreen);
  for (const name of ["resize", "zoom", "fullscreenchange"]) addEventListener(name, () => playing || showFrame());
}
