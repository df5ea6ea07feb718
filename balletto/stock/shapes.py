"""The shapes that ship, as path data of SVG: about 200 px across, their middle at 0, 0."""

from collections.abc import Callable, Iterable
from functools import cache

import numpy as np

Points = Iterable[tuple[float, float]]
SHAPES: dict[str, Callable[[], str]] = {}


def _shape(make: Callable[[], str]) -> Callable[[], str]:
    SHAPES[make.__name__.strip("_").replace("_", " ")] = cache(make)
    return make


def _said(number: float) -> str:
    return f"{round(number, 1):g}"


def _polygon(points: Points) -> str:
    """Straight lines from point to point, and back to the first."""
    return "M" + "L".join(f"{_said(x)} {_said(y)}" for x, y in points) + "Z"


def _curve(points: Points) -> str:
    """A smooth closed curve through points: each part a cubic whose handles lie along the way from
    the point before to the one after (E. Catmull, R. Rom, 1974)."""
    at = np.array(list(points), dtype=float)
    ways = (np.roll(at, -1, axis=0) - np.roll(at, 1, axis=0)) / 6
    parts = [f"M{_said(at[0, 0])} {_said(at[0, 1])}"]
    for here, _ in enumerate(at):
        then = (here + 1) % len(at)
        three = (at[here] + ways[here], at[then] - ways[then], at[then])
        parts.append("C" + " ".join(f"{_said(x)} {_said(y)}" for x, y in three))
    return "".join(parts) + "Z"


def _round(radius: float, x: float = 0, y: float = 0, is_hole: bool = False) -> str:
    """A circle of two arcs; a hole goes round the other way."""
    way, r = int(not is_hole), _said(radius)
    left, right, high = _said(x - radius), _said(x + radius), _said(y)
    arc = f"A{r} {r} 0 1 {way}"
    return f"M{left} {high}{arc} {right} {high}{arc} {left} {high}Z"


def _about(count: int, *radii: float, turn: float = -90) -> list[tuple[float, float]]:
    """Points about the middle: at each of so many angles one of the radii in turn."""
    angles = np.radians(turn + np.arange(count) * 360 / count)
    lengths = np.array([radii[number % len(radii)] for number in range(count)])
    return list(zip(lengths * np.cos(angles), lengths * np.sin(angles), strict=True))


@_shape
def _heart() -> str:
    return "M0 88C-62 42-100 4-100-42C-100-76-76-96-48-96C-26-96-9-84 0-64C9-84 26-96 48-96C76-96 100-76 100-42C100 4 62 42 0 88Z"


@_shape
def _drop() -> str:
    return "M0-110C10-76 70-22 70 36A70 70 0 0 1-70 36C-70-22-10-76 0-110Z"


@_shape
def _leaf() -> str:
    return "M-96 96C-104-10-30-96 96-96C100 28 14 104-96 96Z"


@_shape
def _flower() -> str:
    return _curve(_about(24, 102, 96, 62, 96)) + _round(26, is_hole=True)


@_shape
def _cloud() -> str:
    return "M-62 62C-94 62-112 42-112 16C-112-10-92-28-66-28C-60-66-30-84 4-82C36-80 58-60 64-34C92-36 112-16 112 12C112 42 92 62 60 62Z"


@_shape
def _crescent() -> str:
    return "M36-94A100 100 0 1 0 36 94A76 76 0 1 1 36-94Z"


@_shape
def _bolt() -> str:
    return _polygon([(22, -110), (-64, 18), (-8, 18), (-26, 110), (64, -24), (6, -24)])


@_shape
def _arrow() -> str:
    points = [(-100, -28), (14, -28), (14, -78), (104, 0), (14, 78), (14, 28), (-100, 28)]
    return _polygon(points)


@_shape
def _chevron() -> str:
    return _polygon([(-64, -96), (6, -96), (76, 0), (6, 96), (-64, 96), (6, 0)])


@_shape
def _cross() -> str:
    arm, far = 30, 96
    return _polygon([
        (-arm, -far), (arm, -far), (arm, -arm), (far, -arm), (far, arm), (arm, arm),
        (arm, far), (-arm, far), (-arm, arm), (-far, arm), (-far, -arm), (-arm, -arm),
    ])  # fmt: skip


@_shape
def _ring() -> str:
    return _round(100) + _round(68, is_hole=True)


@_shape
def _gear() -> str:
    """Twelve teeth, each a quarter of its turn wide at the top."""
    step, points = 360 / 12, []
    for tooth in range(12):
        for share, radius in ((-0.3, 80), (-0.19, 104), (0.19, 104), (0.3, 80)):
            angle = np.radians(step * (tooth + share) - 90)
            points.append((radius * np.cos(angle), radius * np.sin(angle)))
    return _polygon(points) + _round(36, is_hole=True)


@_shape
def _seal() -> str:
    return _curve(_about(32, 102, 88))


@_shape
def _bubble() -> str:
    return "M-76-84H76C96-84 108-72 108-52V22C108 42 96 54 76 54H-14L-62 100L-54 54H-76C-96 54-108 42-108 22V-52C-108-72-96-84-76-84Z"


@_shape
def _banner() -> str:
    body = _polygon([(-84, -30), (84, -30), (84, 30), (-84, 30)])
    left = [(-84, -12), (-128, -12), (-110, 18), (-128, 48), (-68, 48), (-68, 30), (-84, 30)]
    return body + _polygon(left[::-1]) + _polygon([(-x, y) for x, y in left])


@_shape
def _shield() -> str:
    return "M0-106C28-86 58-78 88-78C92-4 70 66 0 106C-70 66-92-4-88-78C-58-78-28-86 0-106Z"


@_shape
def _comet() -> str:
    return "M22 60A38 38 0 1 0 60 22C20 4-50-50-110-110C-72-34-14 40 22 60Z"


@_shape
def _planet() -> str:
    """A ball with a ring: before the ball the ring has a gap on either side, behind it it is
    hidden. All in the plane of the ring at first, then tilted."""
    ball, gap, outer, inner = 64.0, 6.0, (120.0, 38.0), (94.0, 24.0)
    turn = np.radians(np.arange(0, 360, 2))
    round_x, round_y = ball * np.cos(turn), ball * np.sin(turn)

    def front(ellipse: tuple[float, float], x: np.ndarray) -> np.ndarray:
        return ellipse[1] * np.sqrt(1 - (x / ellipse[0]) ** 2)

    def part_of_ball(is_in: np.ndarray, edge: tuple[float, float], shift: float) -> np.ndarray:
        first = int(np.flatnonzero(is_in & ~np.roll(is_in, 1))[0])
        order = (np.arange(len(turn)) + first) % len(turn)
        x, y = round_x[order][is_in[order]], round_y[order][is_in[order]]
        along = np.linspace(x[-1], x[0], 12)[1:-1]
        return np.stack([np.append(x, along), np.append(y, front(edge, along) + shift)], axis=1)

    above = part_of_ball(round_y < front(inner, round_x) - gap, inner, -gap)
    below = part_of_ball(round_y > front(outer, round_x) + gap, outer, gap)
    half = np.radians(np.arange(-89, 270, 4))  # from behind round the front to behind

    def seen(ellipse: tuple[float, float]) -> np.ndarray:
        points = np.stack([ellipse[0] * np.cos(half), ellipse[1] * np.sin(half)], axis=1)
        return points[(points[:, 1] > 0) | (np.hypot(*points.T) > ball + gap)]

    ring = np.concatenate([seen(outer), seen(inner)[::-1]])
    tilt = np.radians(-24)
    turned = np.array([[np.cos(tilt), np.sin(tilt)], [-np.sin(tilt), np.cos(tilt)]])
    return "".join(_polygon((part @ turned).tolist()) for part in (above, below, ring))


@_shape
def _sparkle() -> str:
    return "M0-110C10-32 32-10 110 0C32 10 10 32 0 110C-10 32-32 10-110 0C-32-10-10-32 0-110Z"


@_shape
def _hourglass() -> str:
    return "M-70-106H70V-84C70-40 24-22 24 0C24 22 70 40 70 84V106H-70V84C-70 40-24 22-24 0C-24-22-70-40-70-84Z"
