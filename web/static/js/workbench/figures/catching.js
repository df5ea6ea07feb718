// What a time, or a box in the picture, catches at while it is dragged.

const CAUGHT_EDGE = 0.5; // of a frame, within which what is caught counts even beside a whole frame
const SAFE = [0.05, 0.1]; // of the picture, on every side

/** Shares of a side at which safe margins stand. */
export const safeShares = SAFE;

/**
 * The shift nearest to `by` that brings one of `times` to one of `places` that is at most `near` away, or whole
 * frames. Where it is `fine` these are tenths; where it is `free` nothing is caught.
 */
export function caughtShift(by, times, places, { near, fine = false, free = false }) {
  const plain = fine ? Math.round(by * 10) / 10 : Math.round(by);
  if (free) return plain;
  let best = null;
  for (const time of times) {
    for (const place of places) {
      const away = place - time - by;
      if (Math.abs(away) <= near && (best === null || Math.abs(away) < Math.abs(best - by))) best = place - time;
    }
  }
  const isWhole = best !== null && Math.abs(best - by) > CAUGHT_EDGE && Math.abs(plain - by) < 0.02;
  return best === null || isWhole ? plain : Math.round(best * 1000) / 1000;
}

/** The grid's step in a picture: twelve squares to the shorter side. */
export const gridStep = (size) => Math.min(...size) / 12;

/** Where a box may be caught along an axis: each line, and the place of the box that it is for. */
function linesOfPicture(low, high, size) {
  const middle = (low + high) / 2;
  return [
    [size / 2, middle],
    [size / 3, middle],
    [(2 * size) / 3, middle],
    [SAFE[0] * size, low],
    [(1 - SAFE[0]) * size, high],
    [0, low],
    [size, high],
  ];
}

/** Along an axis the sides and the middles of other boxes, for the same of this one. */
function linesOfBoxes(others, low, high, axis) {
  return others.flatMap((corners) => {
    const along = corners.map((corner) => corner[axis]);
    const [first, last] = [Math.min(...along), Math.max(...along)];
    return [
      [first, low],
      [first, high],
      [last, low],
      [last, high],
      [(first + last) / 2, (low + high) / 2],
    ];
  });
}

/** The lines of a grid, for the middle and the sides. */
const linesOfGrid = (low, high, size, step) =>
  [low, high, (low + high) / 2].map((place) => [Math.max(0, Math.min(size, Math.round(place / step) * step)), place]);

/**
 * The shift that brings a box (corners) moved by `by` onto the nearest lines that are at most `near` away: `more`,
 * for each axis, and the `lines` that caught it, each with its axis and where it stands.
 */
export function caughtBox(corners, by, { size, near, grid = false, others = [] }) {
  const lines = [];
  const more = [0, 1].map((axis) => {
    const places = corners.map((corner) => corner[axis] + by[axis]);
    const [low, high] = [Math.min(...places), Math.max(...places)];
    const all = [
      ...linesOfPicture(low, high, size[axis]),
      ...linesOfBoxes(others, low, high, axis),
      ...(grid ? linesOfGrid(low, high, size[axis], gridStep(size)) : []),
    ];
    const [line, place] = all.reduce((best, next) =>
      Math.abs(next[0] - next[1]) < Math.abs(best[0] - best[1]) ? next : best,
    );
    if (Math.abs(line - place) > near) return 0;
    lines.push({ axis, at: line });
    return line - place;
  });
  return { more, lines };
}
