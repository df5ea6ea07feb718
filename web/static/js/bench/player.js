// Frames: asked of the server by the content of the scene, kept, and played at the scene's rate.

import { emit, goTo, on, state, url } from "./state.js";

const AHEAD = 40; // frames decoded ahead of the playhead
const MOST_BLOBS = 3000; // compressed frames kept
const BUFFER_S = 0.5; // how much must be there before playing starts
const BOXES = [960, 1440, 1920];
const PARALLEL = 3; // more would take the machine from what draws and plays

const canvas = document.getElementById("canvas");
const context = canvas.getContext("2d");
const blobs = new Map(); // address -> promise of a blob
const bitmaps = new Map(); // address -> bitmap
let playing = null;
const SPEEDS = [[1, "full speed"], [0.5, "half speed"], [0.25, "quarter speed"]];
let speed = 1;
let loop = true;
let wanted = "";

/** The box that frames are drawn for: 960 wide, or more where the picture is shown larger. */
function box() {
  const shown = document.getElementById("picture").clientWidth * Math.min(devicePixelRatio, 2);
  return BOXES.find((width) => width >= shown) ?? BOXES.at(-1);
}

const address = (frame) => `${url("frames", state.shown, frame)}?box=${box()}`;

function blobOf(place) {
  if (!blobs.has(place)) {
    const found = fetch(place).then((response) => {
      if (!response.ok) throw new Error(`The frame could not be drawn (${response.status}).`);
      return response.blob();
    });
    found.catch(() => blobs.delete(place));
    blobs.set(place, found);
    if (blobs.size > MOST_BLOBS) blobs.delete(blobs.keys().next().value);
  }
  return blobs.get(place);
}

async function bitmapOf(place) {
  if (!bitmaps.has(place)) {
    const bitmap = await createImageBitmap(await blobOf(place));
    bitmaps.set(place, bitmap);
    while (bitmaps.size > AHEAD * 2) {
      const oldest = bitmaps.keys().next().value;
      bitmaps.get(oldest).close();
      bitmaps.delete(oldest);
    }
  }
  return bitmaps.get(place);
}

function paint(bitmap, place) {
  if (canvas.width !== bitmap.width || canvas.height !== bitmap.height) {
    canvas.width = bitmap.width;
    canvas.height = bitmap.height;
  }
  context.clearRect(0, 0, canvas.width, canvas.height);
  context.drawImage(bitmap, 0, 0);
  canvas.dataset.shown = place;
}

/** Shows the frame at the playhead, as soon as it is there and if it is still wanted then. */
async function showFrame() {
  if (!state.shown) return; // the page is not read yet
  const place = (wanted = address(state.frame));
  document.getElementById("stage-frame").textContent = state.frame;
  if (canvas.dataset.shown === place) return;
  try {
    const bitmap = await bitmapOf(place);
    if (wanted === place) paint(bitmap, place);
  } catch (error) {
    if (wanted === place) document.getElementById("stage-told").textContent = error.message;
  }
}

/** Asks for frames ahead of the playhead, a few at a time, while playing goes on. */
async function fetchAhead(run) {
  const lanes = Array.from({ length: PARALLEL }, async () => {
    while (playing === run) {
      const frame = nextMissing(run);
      if (frame === null) await new Promise((done) => setTimeout(done, 30));
      else {
        run.asked.add(frame);
        await bitmapOf(address(frame)).catch(() => {}).finally(() => run.asked.delete(frame));
      }
    }
  });
  await Promise.all(lanes);
}

function nextMissing(run) {
  for (let ahead = 0; ahead < Math.min(AHEAD, state.length); ahead += 1) {
    let frame = state.frame + ahead;
    if (frame >= state.length) {
      if (!loop) return null;
      frame %= state.length;
    }
    if (!run.asked.has(frame) && !bitmaps.has(address(frame))) return frame;
  }
  return null;
}

function isBuffered() {
  const need = Math.min(Math.ceil(BUFFER_S * state.rate), state.length - state.frame);
  return Array.from({ length: need }, (_, n) => bitmaps.has(address(state.frame + n))).every(Boolean);
}

async function play() {
  const run = { asked: new Set(), dropped: 0, shown: 0 };
  playing = run;
  document.getElementById("play").setAttribute("aria-pressed", "true");
  document.getElementById("play").setAttribute("aria-label", "Pause");
  if (!loop && state.frame === state.length - 1) goTo(0);
  fetchAhead(run);
  document.getElementById("buffer").textContent = "fetching frames";
  while (playing === run && !isBuffered()) await new Promise((done) => setTimeout(done, 15));
  document.getElementById("buffer").textContent = "";
  if (playing !== run) return;
  Object.assign(run, { from: state.frame, at: performance.now(), last: state.frame });
  tellDropped(run);
  requestAnimationFrame((now) => tick(run, now));
}

function tick(run, now) {
  if (playing !== run) return;
  const passed = Math.max(0, Math.floor(((now - run.at) * state.rate * speed) / 1000));
  let frame = run.from + passed;
  if (frame >= state.length) {
    if (!loop) return pause();
    frame %= state.length;
  }
  if (passed !== run.passed) {
    const bitmap = bitmaps.get(address(frame));
    const skipped = passed - (run.passed ?? -1) - 1;
    run.dropped += skipped + (bitmap ? 0 : 1);
    run.passed = passed;
    state.frame = frame;
    if (bitmap) paint(bitmap, address(frame));
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
  document.getElementById("buffer").textContent = "";
  document.getElementById("play").setAttribute("aria-pressed", "false");
  document.getElementById("play").setAttribute("aria-label", "Play");
  goTo(state.frame);
}

export const isPlaying = () => playing !== null;

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

export function listen() {
  on("frame", () => playing || showFrame());
  on("scene", () => playing || showFrame());
  document.getElementById("play").addEventListener("click", toggle);
  document.getElementById("loop").addEventListener("click", toggleLoop);
  document.getElementById("speed").addEventListener("click", nextSpeed);
  for (const name of ["resize", "zoom"]) addEventListener(name, () => playing || showFrame());
}
