"""Eases: how the stretch between two keys is travelled.

An ease is a name ("soft-landing") or a small object ({"bezier": [x1, y1, x2, y2]}). `ease_function`
turns either into a function of s, an array of any shape with values in 0..1. A new kind of ease is
one model with a `function` and one entry in EASE_KINDS.
"""

import math
from collections.abc import Callable
from functools import lru_cache
from typing import Annotated, Any, Literal

import numpy as np
from pydantic import AfterValidator, Field, model_validator
from pydantic_core import PydanticCustomError

from .model import Counts, Model, Number, one_of, shown

EaseFunction = Callable[[np.ndarray], np.ndarray]

# The control points of W3C CSS Easing's cubic-bezier(), named by how they feel.
NAMED_BEZIERS: dict[str, tuple[float, float, float, float]] = {
    "soft-start": (0.32, 0, 0.67, 0),
    "soft-landing": (0.33, 1, 0.68, 1),
    "soft-both": (0.65, 0, 0.35, 1),
    "quick-landing": (0.16, 1, 0.3, 1),
    "overshoot": (0.34, 1.56, 0.64, 1),
    "wind-up": (0.36, 0, 0.66, -0.56),
}

_Progress = Annotated[float, Number("a number of the progress axis", Counts.PART, ge=0, le=1)]
_Value = Annotated[float, Number("a number", Counts.PART, ge=-1000, le=1000)]


class Bezier(Model):
    """CSS cubic-bezier(): `bezier` is x1, y1, x2, y2, the x within 0..1."""

    bezier: tuple[_Progress, _Value, _Progress, _Value]

    def function(self) -> EaseFunction:
        return bezier_ease(*self.bezier)


class Steps(Model):
    """CSS steps(): `steps` stairs; `jump` says at which ends there is a jump."""

    steps: Annotated[int, Number("a whole number of steps", Counts.COUNT, ge=1, le=1000)]
    jump: Literal["start", "end", "both", "none"] = "end"

    @model_validator(mode="after")
    def _has_a_stair(self) -> "Steps":
        if self.jump == "none" and self.steps < 2:
            raise PydanticCustomError("needs", "at least two steps are needed where none jumps")
        return self

    def function(self) -> EaseFunction:
        early = self.jump in ("start", "both")
        stairs = self.steps + {"both": 1, "none": -1}.get(self.jump, 0)

        def ease(s: np.ndarray) -> np.ndarray:
            # A hair before a stair counts as on it: 0.3 * 10 is 2.9999999999999996 in doubles.
            reached = np.floor(np.asarray(s, dtype=float) * self.steps + 1e-9) + early
            return np.clip(reached, 0, stairs) / stairs

        return ease


class Points(Model):
    """CSS linear(): straight pieces through the points [s, value], s rising from 0 to 1."""

    points: Annotated[tuple[tuple[_Progress, _Value], ...], Field(min_length=2, max_length=1000)]

    @model_validator(mode="after")
    def _rises(self) -> "Points":
        places = [point[0] for point in self.points]
        if places[0] != 0 or places[-1] != 1 or places != sorted(places):
            raise PydanticCustomError("needs", "points in order, from s = 0 to s = 1, are needed")
        return self

    def function(self) -> EaseFunction:
        places, values = np.array(self.points, dtype=float).T
        return lambda s: np.interp(s, places, values)


class Spring(Model):
    """A damped spring let go at 0, settled to 1/1000 at s = 1; `spring` is its damping ratio."""

    spring: Annotated[float, Number("a damping ratio", Counts.FACTOR, gt=0, le=1)]

    def function(self) -> EaseFunction:
        damping = self.spring
        frequency = math.log(1000) / damping

        def ease(s: np.ndarray) -> np.ndarray:
            s = np.asarray(s, dtype=float)
            if damping == 1:
                left = np.exp(-frequency * s) * (1 + frequency * s)
            else:
                swing = frequency * math.sqrt(1 - damping**2)
                lag = damping * frequency / swing
                turns = np.cos(swing * s) + lag * np.sin(swing * s)
                left = np.exp(-damping * frequency * s) * turns
            return np.where(s >= 1, 1.0, np.where(s <= 0, 0.0, 1 - left))

        return ease


class Bounce(Model):
    """A dropped ball: it falls for half a flight and rebounds `bounce` times, each flight half as
    long as the one before, in parabolas that touch 1."""

    bounce: Annotated[int, Number("a whole number of rebounds", Counts.COUNT, ge=0, le=20)]

    def function(self) -> EaseFunction:
        flights = np.array([0.5**count for count in range(self.bounce + 1)])
        # The fall is the second half of a first flight that began before 0.
        ends = np.cumsum(flights) - flights[0] / 2
        flights, ends = flights / ends[-1], ends / ends[-1]

        def ease(s: np.ndarray) -> np.ndarray:
            s = np.asarray(s, dtype=float)
            flight = np.minimum(np.searchsorted(ends, s, side="left"), len(ends) - 1)
            length = flights[flight]
            from_top = (s - (ends[flight] - length / 2)) / (length / 2)
            # Height falls with the square of the flight's length, as time in the air does.
            height = (length / flights[0]) ** 2 * (1 - from_top**2)
            return np.where(s >= 1, 1.0, 1 - height)

        return ease


EASE_KINDS: dict[str, type[Model]] = {
    "bezier": Bezier,
    "steps": Steps,
    "points": Points,
    "spring": Spring,
    "bounce": Bounce,
}


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


def _linear(s: np.ndarray) -> np.ndarray:
    return np.asarray(s, dtype=float)


def _hold(s: np.ndarray) -> np.ndarray:
    return np.zeros_like(np.asarray(s, dtype=float))


EASE_NAMES: tuple[str, ...] = ("linear", "hold", *NAMED_BEZIERS)
# These look at the keys beside the stretch too, so they stand between keys alone: see tracks.py.
TRACK_EASE_NAMES: tuple[str, ...] = (*EASE_NAMES, "auto", "flow")


def _one_of_names(names: tuple[str, ...]) -> Any:
    def known(name: str) -> str:
        if name not in names:
            raise PydanticCustomError(
                "needs",
                "an ease is needed, one of {names} or an object such as {example}; got {got}",
                {
                    "names": ", ".join(names),
                    "example": '{"bezier": [0.3, 0, 0.7, 1]}',
                    "got": shown(name),
                },
            )
        return name

    listed = Field(json_schema_extra={"enum": list(names)})
    return Annotated[str, listed, AfterValidator(known)]


def _ease_kind(data: Any) -> str:
    if isinstance(data, str):
        return "name"
    keys = data if isinstance(data, dict) else getattr(type(data), "model_fields", ())
    return next((kind for kind in EASE_KINDS if kind in keys), "")


_WHAT = 'an ease (a name such as "soft-landing", or {"bezier": [x1, y1, x2, y2]})'
Ease = one_of(_ease_kind, _WHAT, name=_one_of_names(EASE_NAMES), **EASE_KINDS)
TrackEase = one_of(_ease_kind, _WHAT, name=_one_of_names(TRACK_EASE_NAMES), **EASE_KINDS)


@lru_cache(maxsize=512)
def ease_function(ease: Any) -> EaseFunction:
    """The function of an ease; takes and gives arrays of one shape, s within 0..1."""
    if ease == "linear":
        return _linear
    if ease == "hold":
        return _hold
    if isinstance(ease, str):
        return bezier_ease(*NAMED_BEZIERS[ease])
    return ease.function()
