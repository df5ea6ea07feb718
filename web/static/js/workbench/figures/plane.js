// Points of the picture, as [across, down].

export const middle = ([ax, ay], [bx, by]) => [(ax + bx) / 2, (ay + by) / 2];
export const away = ([ax, ay], [bx, by]) => [ax - bx, ay - by];
export const length = ([x, y]) => Math.hypot(x, y);
export const moved = (point, by) => point.map((value, axis) => value + by[axis]);

const radians = (degrees) => (degrees * Math.PI) / 180;
const degrees = (angle) => (angle * 180) / Math.PI;

/** A point turned about [0, 0], in degrees clockwise. */
export function turned([x, y], by) {
  const [cos, sin] = [Math.cos(radians(by)), Math.sin(radians(by))];
  return [x * cos - y * sin, x * sin + y * cos];
}

/** The angle of a direction, clockwise from across; and clockwise from straight up. */
export const angleFromAcross = ([x, y]) => degrees(Math.atan2(y, x));
export const angleFromUp = ([x, y]) => degrees(Math.atan2(x, -y));

/** How far a point is along a direction from another. */
export const along = (point, from, direction) => {
  const [x, y] = away(point, from);
  return (x * direction[0] + y * direction[1]) / length(direction);
};

/** A point beyond another, so far along a direction; there, if that has no length. */
export function beyond(point, direction, far) {
  const size = length(direction) || 1;
  return point.map((value, axis) => value + (direction[axis] / size) * far);
}

/** Follows an angle over the top, so that it goes on beyond half a turn. */
export function turning(from) {
  let last = from;
  return (angle) => {
    last += ((((angle - last) % 360) + 540) % 360) - 180;
    return last;
  };
}

/** The other handle of a bend as long as it was, straight across from one that was dragged. */
export const opposed = (handle, other) => beyond([0, 0], handle, -length(other));

/** A way along the axis on which it goes farther. */
export const straight = ([x, y]) => (Math.abs(x) > Math.abs(y) ? [x, 0] : [0, y]);

/** The box that two points span: its least and its greatest corner. */
export const boxOf = (one, other) => [
  one.map((value, axis) => Math.min(value, other[axis])),
  one.map((value, axis) => Math.max(value, other[axis])),
];

/** Whether a shape, by its corners, may touch a box: whether the box around it does. */
export const touches = (corners, [least, most]) =>
  [0, 1].every((axis) => {
    const values = corners.map((corner) => corner[axis]);
    return Math.max(...values) >= least[axis] && Math.min(...values) <= most[axis];
  });

/** Whether a point lies in a shape whose corners go round clockwise, without a dent. */
export const isWithin = ([x, y], corners) =>
  corners.every(([ax, ay], index) => {
    const [bx, by] = corners[(index + 1) % corners.length];
    return (bx - ax) * (y - ay) - (by - ay) * (x - ax) >= 0;
  });
