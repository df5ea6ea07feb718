// What the page knows of the scene, read from #workbench-state, and what is selected and shown.
// `shown` is the digest of what is looked at: the newest revision, or a preview of an edit.

const bus = new EventTarget();

export const state = {
  scene: 0,
  revision: 0,
  seen: 0, // the revision that the parts of the page show
  digest: "",
  shown: "",
  length: 1,
  rate: 30,
  width: 1920,
  height: 1080,
  layer: "",
  also: [], // other layers that are selected with it
  move: "",
  letters: null,
  frame: 0,
  ids: [], // of all layers, the front one first
  markers: [],
  hasSound: false,
  folds: new Set(), // of keyframes, that are open
};

/**
 * Calls `listener` when something happens: "scene" (shown or selected changed), "frame", "rows"
 * (keyed values came), "values" (what they are at the playhead), "keys" (other keyframes are
 * selected), "view" (another view of time), "picture" (what is drawn over it), "painted" (the picture
 * at the playhead is there), "motion" (the numbers of the cascade came), "refused" (an edit was not
 * made), "played" and "paused" (playing begins and ends).
 */
export function on(name, listener, options = {}) {
  bus.addEventListener(name, listener, options);
}

export function emit(name) {
  bus.dispatchEvent(new Event(name));
}

const PAUSE_MS = 110;
const REST_MS = 250; // after so long without another preview a hand rests

/**
 * The same action with pauses between calls, so that the picture comes first. While previews follow
 * each other it is done once one is painted whose numbers came with it, or when the hand rests.
 */
export function paced(action, numbers) {
  let timer = 0;
  let isResting = false;
  let last = 0;
  const act = () => {
    clearTimeout(timer);
    timer = 0;
    last = performance.now();
    action();
  };
  on("painted", () => numbers.isAtHand() && act());
  return () => {
    const isPreview = state.shown !== state.digest;
    if (timer && !isResting && !isPreview) return;
    clearTimeout(timer);
    isResting = isPreview;
    if (!isPreview && performance.now() - last > PAUSE_MS) act();
    else timer = setTimeout(act, isPreview ? REST_MS : PAUSE_MS);
  };
}

/** Opens the scene where it was left, or, the first time, where its titles have landed; a new one at
    its start. */
export function open() {
  take();
  const start = isNew() ? 0 : (state.length * 2) / 3;
  state.frame = within(Number(sessionStorage.getItem(`frame-${state.scene}`) ?? start));
  emit("scene");
}

/** Whether the scene was made just now. */
export const isNew = () => new URLSearchParams(location.search).has("new");

/** Takes over what the server said last. */
export function read() {
  take();
  emit("scene");
}

/** A whole frame within the scene. */
const within = (frame) => Math.max(0, Math.min(state.length - 1, Math.floor(frame)));

function take() {
  const data = document.getElementById("workbench-state").dataset;
  const [over, under] = data.rate.split("/").map(Number);
  state.scene = Number(data.scene);
  state.seen = Number(data.revision);
  // What was answered may wait to be shown: what is known of the scene never goes back to what the page shows.
  if (state.seen >= state.revision) [state.revision, state.digest] = [state.seen, data.digest];
  state.shown = state.digest;
  state.length = Number(data.length);
  state.rate = over / under;
  state.width = Number(data.width);
  state.height = Number(data.height);
  state.hasSound = data.sound === "yes";
  state.layer = data.layer;
  state.move = data.move;
  state.letters = data.first === "" ? null : [Number(data.first), Number(data.end)];
  state.frame = Math.min(state.frame, state.length - 1);
  state.ids = JSON.parse(data.layers);
  state.also = JSON.parse(data.also);
  state.markers = JSON.parse(data.markers);
}

/** All selected layers, from the front to the back. */
export const selectedLayers = () => state.ids.filter((layer) => layer === state.layer || state.also.includes(layer));

/** Looks at a preview of an edit. */
export function show(digest) {
  state.shown = digest;
  emit("scene");
}

/** Goes to a frame, kept within the scene. */
export function goTo(frame) {
  state.frame = within(Math.round(frame));
  try {
    sessionStorage.setItem(`frame-${state.scene}`, state.frame);
  } catch {
    /* private windows may refuse; the place is then not remembered */
  }
  emit("frame");
}

/** What the page stands at: what is selected, at which frame. */
export const standing = () =>
  Object.fromEntries(["layer", "also", "move", "letters", "frame"].map((name) => [name, state[name]]));

/** Does something as if the page stood elsewhere. */
export function asIf(elsewhere, act) {
  const here = Object.fromEntries(Object.keys(elsewhere).map((name) => [name, state[name]]));
  Object.assign(state, elsewhere);
  try {
    return act();
  } finally {
    Object.assign(state, here);
  }
}

/** The selection as values of a request, with what is open. */
export function selection() {
  const opened = [...document.querySelectorAll("details.more[open]")]
    .map((more) => more.id)
    .concat(...state.folds)
    .join();
  const values = { layer: state.layer, also_layers: state.also.join(), move: state.move, frame: state.frame, opened };
  if (state.letters) [values.first, values.end] = state.letters;
  return values;
}

export function url(...parts) {
  return `/scenes/${state.scene}/${parts.join("/")}${parts.length ? "/" : ""}`;
}
