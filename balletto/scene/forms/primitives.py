"""Plain forms as outlines, about the origin: what shapes and masks are made of."""

import math

import numpy as np

from .outlines import PathCommands

# How far the handles of a cubic stand out that follows a quarter of a circle.
_QUARTER = 4 / 3 * math.tan(math.pi / 8)


def polygon(points: list[tuple[float, float]]) -> PathCommands:
    """A closed way through points."""
    first, *rest = points
    return (("move", first), *(("line", point) for point in rest), ("close", ()))


def rectangle(width: float, height: float, corner: float = 0.0) -> PathCommands:
    """A rectangle, its corners rounded by a radius, which fits into it."""
    x, y = width / 2, height / 2
    r = max(0.0, min(corner, x, y))
    if not r:
        return polygon([(-x, -y), (x, -y), (x, y), (-x, y)])
    k = r * (1 - _QUARTER)
    return (
        ("move", (r - x, -y)),
        ("line", (x - r, -y)),
        ("curve", (x - k, -y, x, k - y, x, r - y)),
        ("line", (x, y - r)),
        ("curve", (x, y - k, x - k, y, x - r, y)),
        ("line", (r - x, y)),
        ("curve", (k - x, y, -x, y - k, -x, y - r)),
        ("line", (-x, r - y)),
        ("curve", (-x, k - y, k - x, -y, r - x, -y)),
        ("close", ()),
    )


def ellipse(width: float, height: float) -> PathCommands:
    """A whole ellipse in a box, from its top on, clockwise."""
    return (*arc(width, height, -90, 360), ("close", ()))


def arc(width: float, height: float, start: float, sweep: float) -> PathCommands:
    """A part of an ellipse, as cubics of at most 90 degrees, each within 0.03 % of it."""
    sweep = max(-360.0, min(360.0, sweep))
    count = max(1, math.ceil(abs(sweep) / 90))
    step = math.radians(sweep) / count
    reach = 4 / 3 * math.tan(step / 4)
    half = np.array([width / 2, height / 2])
    angle = math.radians(start)
    here = half * (math.cos(angle), math.sin(angle))
    commands = [("move", tuple(here.tolist()))]
    for _ in range(count):
        leave = here + reach * half * (-math.sin(angle), math.cos(angle))
        angle += step
        here = half * (math.cos(angle), math.sin(angle))
        arrive = here - reach * half * (-math.sin(angle), math.cos(angle))
        commands.append(("curve", tuple(np.concatenate([leave, arrive, here]).tolist())))
    return tuple(commands)


def star(corners: int, outer: float, inner: float) -> PathCommands:
    """Corners in turn on an outer and an inner circle, the first at the top."""
    radii = (outer, inner)
    return polygon([_on_circle(radii[n % 2], n / (2 * corners)) for n in range(2 * corners)])


def regular(corners: int, radius: float) -> PathCommands:
    """A regular polygon, its first corner at the top."""
    return polygon([_on_circle(radius, n / corners) for n in range(corners)])


def _on_circle(radius: float, turn: float) -> tuple[float, float]:
    angle = 2 * math.pi * turn
    return radius * math.sin(angle), -radius * math.cos(angle)


def moved(commands: PathCommands, by: list[float], turned: float) -> PathCommands:
    """An outline turned by degrees, clockwise, then shifted."""
    cos, sin = math.cos(math.radians(turned)), math.sin(math.radians(turned))
    matrix = np.array([[cos, sin], [-sin, cos]])
    return tuple(
        (verb, tuple((np.array(numbers).reshape(-1, 2) @ matrix + by).reshape(-1).tolist()))
        for verb, numbers in commands
    )
