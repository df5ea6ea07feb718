// Frames: asked of the server by the content of the scene and kept. While the playhead is scrubbed
// and the machine is slow, smaller ones are asked for.

import { ask } from "../edits/ask.js";
import { url } from "../state.js";

export const AHEAD = 40; // frames decoded ahead of the playhead
const MOST_BYTES = 256 * 2 ** 20; // of compressed frames kept
const MOST_BITMAPS = AHEAD * 4;
const MOST_PIXELS = 200 * 2 ** 20; // of all of them, four bytes each: AHEAD of the largest, for two takes side by side
const BOXES = [480, 960, 1440, 1920];
const SLOW_MS = 90; // a frame that takes longer, on the way, is asked for smaller
const REST_MS = 180; // after so long without another change the scrubbing is over

const blobs = new Map(); // address -> promise of a blob
const sizes = new Map(); // address -> bytes, of those that are here
let bytes = 0; // of all of them
const bitmaps = new Map(); // address -> bitmap
let pixels = 0; // of all of them
let lately = 0; // ms that frames took lately
let changedAt = 0;
let resting = 0; // the timer until the scrubbing is over
let isScrubbed = false;
let isPlayedSmall = false;

let full = 0; // the box for the picture as large as it is shown; 0 if that is to be measured anew
for (const name of ["resize", "zoom", "fullscreenchange"])
  addEventListener(
    name,
    () => {
      full = 0;
    },
    true,
  );

// Measured seldom: it makes the browser lay out the page, and every frame is asked for by its box.
function fullBox() {
  const shown = document.getElementById("picture").clientWidth * Math.min(devicePixelRatio, 2);
  return BOXES.find((width) => width >= Math.max(shown, 960)) ?? BOXES.at(-1);
}

/** The box that frames are drawn for: 960 wide, or more where the picture is shown larger. */
export function box() {
  full ||= fullBox();
  return isSmall() || isPlayedSmall ? BOXES[Math.max(0, BOXES.indexOf(full) - 1)] : full;
}

/** Lets frames be smaller while they are played, or not any more. */
export function playSmall(is) {
  isPlayedSmall = is;
}

/** Whether frames are smaller than they could be, for the sake of speed. */
export const isSmall = () => isScrubbed && lately > SLOW_MS;

/** Says that the playhead or a value has moved on; calls `rested` once it stays. */
export function moved(rested) {
  const now = performance.now();
  if (now - changedAt < REST_MS) isScrubbed = true;
  changedAt = now;
  clearTimeout(resting);
  resting = setTimeout(() => {
    const wasSmall = isSmall();
    isScrubbed = false;
    if (wasSmall) rested();
  }, REST_MS);
}

export const addressOf = (digest, frame, width = box()) => `${url("frames", digest, frame)}?box=${width}`;

/** Whether a frame is here or on its way. */
export const isAskedFor = (address) => blobs.has(address);

export const bitmapAt = (address) => bitmaps.get(address);

function blobOf(address) {
  if (!blobs.has(address)) {
    const found = ask(address).then((response) => {
      if (!response.ok) throw new Error(`The frame could not be drawn (${response.status}).`);
      return response.blob();
    });
    keepBlob(address, found);
  }
  return blobs.get(address);
}

export const RUN = 6; // frames asked for in one answer while playing: alone each costs a third more

/** Asks for frames of a state in one answer: for as many of those that follow the first as are
    not under way yet; gives how many once they are here. The bitmaps are fetched one by one after, as
    ever. */
export async function askRun(digest, first, length) {
  const wanted = [];
  for (let frame = first; frame < length && wanted.length < RUN && !blobs.has(addressOf(digest, frame)); frame += 1)
    wanted.push(frame);
  if (wanted.length < 2) return 0;
  const form = ask(`${url("frames", digest, first, "run", wanted.length)}?box=${box()}`).then((response) => {
    if (!response.ok) throw new Error(`The frames could not be drawn (${response.status}).`);
    return response.formData();
  });
  for (const frame of wanted) {
    const address = addressOf(digest, frame);
    keepBlob(
      address,
      form.then((fields) => fields.get(String(frame)) ?? Promise.reject(new Error("The frame did not come."))),
    );
  }
  await form.catch(() => {});
  return wanted.length;
}

/** Keeps a frame that is on its way; one that does not come is forgotten, and so are the oldest ones. */
function keepBlob(address, blob) {
  forget(address);
  blobs.set(address, blob);
  blob.then(
    ({ size }) => {
      if (blobs.get(address) !== blob) return; // another one is kept by now
      sizes.set(address, size);
      bytes += size;
      while (bytes > MOST_BYTES && sizes.size > 1) forget(sizes.keys().next().value);
    },
    () => blobs.get(address) === blob && blobs.delete(address),
  );
}

function forget(address) {
  bytes -= sizes.get(address) ?? 0;
  sizes.delete(address);
  blobs.delete(address);
}

/** Keeps a frame that came with another answer. */
export const keepFrame = (address, blob) => keepBlob(address, Promise.resolve(blob));

/** The bitmap of a frame, fetched and decoded. */
export async function bitmapOf(address) {
  if (!bitmaps.has(address)) {
    const started = performance.now();
    const bitmap = await createImageBitmap(await blobOf(address));
    if (isScrubbed) lately = lately * 0.6 + (performance.now() - started) * 0.4;
    if (bitmaps.has(address))
      bitmap.close(); // it was asked for twice
    else keepBitmap(address, bitmap);
  }
  return bitmaps.get(address);
}

/** Keeps a decoded frame; the oldest ones go. */
function keepBitmap(address, bitmap) {
  bitmaps.set(address, bitmap);
  pixels += bitmap.width * bitmap.height;
  while (bitmaps.size > MOST_BITMAPS || (pixels > MOST_PIXELS && bitmaps.size > 1)) {
    const [oldest, old] = bitmaps.entries().next().value;
    pixels -= old.width * old.height; // closed, it has none
    old.close();
    bitmaps.delete(oldest);
  }
}

export function paint(canvas, bitmap, address) {
  if (canvas.width !== bitmap.width || canvas.height !== bitmap.height) {
    canvas.width = bitmap.width;
    canvas.height = bitmap.height;
  }
  const context = canvas.getContext("2d");
  context.clearRect(0, 0, canvas.width, canvas.height);
  context.drawImage(bitmap, 0, 0);
  canvas.dataset.shown = address;
}
