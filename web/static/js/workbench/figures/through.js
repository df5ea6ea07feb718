// Places seen through the maps that the server gives: three rows, in homogeneous coordinates.

/** Where a point goes through a map. */
export function through(rows, [x, y]) {
  const [across, down, depth] = rows.map(([a, b, c]) => a * x + b * y + c);
  return [across / depth, down / depth];
}
