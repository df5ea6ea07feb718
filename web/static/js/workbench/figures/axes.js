// The value axis of a chart.

/** The range that a course needs: what it takes, or some air about one that stays. */
export function rangeOf(values) {
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const air = high - low || Math.abs(high) * 0.2 || 1;
  return high > low ? [low, high] : [low - air / 2, high + air / 2];
}

/** Round numbers between two. */
export function stepsBetween(low, high) {
  const raw = (high - low) / 4;
  const power = 10 ** Math.floor(Math.log10(raw));
  const step = [1, 2, 5, 10].map((factor) => factor * power).find((each) => each >= raw);
  const first = Math.ceil(low / step - 1e-9);
  return Array.from(
    { length: Math.floor((high - low) / step + 1e-9) + 1 },
    (_, index) => (first + index) * step,
  ).filter((value) => value <= high + step * 1e-6);
}

/** The handles of a curve from (0, 0) to (1, 1), of which one stands elsewhere: within its box, a little above and
    below. */
export function bent(handles, index, x, y) {
  const next = [...handles];
  next[index * 2] = Math.max(0, Math.min(1, x));
  next[index * 2 + 1] = Math.max(-0.5, Math.min(1.5, y));
  return next;
}
