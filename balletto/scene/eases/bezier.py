"""A cubic curve with two handles."""

from typing import ClassVar

import numpy as np

from ..values.wording import Said
from .base import PROGRESS, VALUE, EaseFunction, EaseKind, Progress, Value


class Bezier(EaseKind):
    """CSS cubic-bezier(): `bezier` is x1, y1, x2, y2, the x within 0..1."""

    rank: ClassVar = 40
    key: ClassVar = "bezier"
    title: ClassVar = "a curve of its own"
    start: ClassVar = {"bezier": [0.3, 0, 0.3, 1]}
    is_drawn: ClassVar = True
    words: ClassVar = "({bezier})"
    values: ClassVar = {
        "bezier": Said(
            "Handles",
            parts=(
                Said("First handle across", PROGRESS),
                Said("First handle up", VALUE),
                Said("Second handle across", PROGRESS),
                Said("Second handle up", VALUE),
            ),
        )
    }

    bezier: tuple[Progress, Value, Progress, Value]

    def function(self) -> EaseFunction:
        return bezier_ease(*self.bezier)


def bezier_ease(x1: float, y1: float, x2: float, y2: float) -> EaseFunction:
    """The y of the cubic Bezier (0,0) (x1,y1) (x2,y2) (1,1) as a function of its x.

    Solves x(t) = s by Newton's method, or by halving where that does not settle, as on vertical
    tangents; the residue in x is below 1e-11. Exactly 0 at 0 and 1 at 1.
    """
    cx, bx = 3 * x1, 3 * (x2 - 2 * x1)
    ax = 1 - cx - bx
    cy, by = 3 * y1, 3 * (y2 - 2 * y1)
    ay = 1 - cy - by

    def ease(s: np.ndarray) -> np.ndarray:
        s = np.asarray(s, dtype=float)
        value = np.where(s < 1, 0.0, 1.0)
        moving = (s > 0) & (s < 1)  # as a rule most units are at rest: solve for the others alone
        if moving.any():
            value[moving] = solve(s[moving])
        return value

    def solve(s: np.ndarray) -> np.ndarray:
        t = s.copy()
        for _ in range(5):  # enough but where a tangent is nearly vertical
            slope = (3 * ax * t + 2 * bx) * t + cx
            if slope.min() < 1e-3:
                break
            t = np.clip(t - (((ax * t + bx) * t + cx) * t - s) / slope, 0.0, 1.0)
        if np.abs(((ax * t + bx) * t + cx) * t - s).max() > 1e-11:
            t = bisect(s)
        return ((ay * t + by) * t + cy) * t

    def bisect(s: np.ndarray) -> np.ndarray:
        low, high = np.zeros_like(s), np.ones_like(s)
        for _ in range(54):  # halvings that exhaust a double
            t = (low + high) / 2
            below = ((ax * t + bx) * t + cx) * t < s
            low, high = np.where(below, t, low), np.where(below, high, t)
        return (low + high) / 2

    return ease
