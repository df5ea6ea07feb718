// How near time or the picture is looked at, and which part of it.

const between = (low, value, high) => Math.max(low, Math.min(high, value));

/** A part of an axis: `zoom` 1 shows all, `start` is the share that lies before what is shown. */
const held = ({ zoom, start }) => ({ zoom, start: between(0, start, 1 - 1 / zoom) });

/** The part that is shown, nearer by a factor about a share of the axis, at most `most` times. */
export function nearerTime({ zoom, start }, factor, about, most) {
  const next = between(1, zoom * factor, Math.max(1, most));
  return held({ zoom: next, start: about - (about - start) * (zoom / next) });
}

/** The part that is shown, moved by a share of what is shown. */
export const movedTime = ({ zoom, start }, by) => held({ zoom, start: start - by });

/** The part that is shown, so that a share of the axis lies in it; the same, if it does. */
export function following({ zoom, start }, place) {
  if (zoom === 1 || (place >= start && place <= start + 1 / zoom)) return { zoom, start };
  return held({ zoom, start: place - 0.1 / zoom });
}

const LEAST = 0.2;
const MOST = 12;

/** A picture that is looked at so near and so far aside, nearer about a point of the stage from its middle. */
export function nearerPicture({ zoom, pan }, factor, about) {
  const next = between(LEAST, zoom * factor, MOST);
  return { zoom: next, pan: pan.map((value, axis) => about[axis] - (about[axis] - value) * (next / zoom)) };
}
