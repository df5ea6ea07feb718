"""When each unit of a title is away from rest: the bars of the cascade."""

from dataclasses import dataclass

import numpy as np

from ..scene.moving.moves import Move
from ..scene.pose import Asked, chance_number
from ..scene.values.tracks import Track
from .evaluate import trace
from .reach import reach_of
from .units import Units

SHADES = 12
MOST_WEIGHTS = 500_000
_AT_REST = 1e-3


@dataclass(frozen=True)
class Timing:
    """A move of a title over the whole scene.

    delays: (units,) frames
    starts, ends: (units,) frames between which the unit moves; equal where it never does
    shades: (units, SHADES) how far from rest, 0..1, along the bar from start to end
    weights: (frames / stride, units) the weights at every `stride`-th frame of the scene
    reaches: of each selector alone the same, before it is joined to the others
    """

    delays: np.ndarray
    starts: np.ndarray
    ends: np.ndarray
    shades: np.ndarray
    weights: np.ndarray
    reaches: list[np.ndarray]
    stride: int


def timing(move: Move, units: Units) -> Timing:
    """The timing of a move of `units`, over the whole scene."""
    length = units.length
    stride = 1 + length * len(units) // MOST_WEIGHTS
    times = np.arange(0, length, stride, dtype=float)
    traced = trace(move, units, times)
    if isinstance(move.amount, Track):
        keys = move.amount.keys
        starts = move.start + traced.delays + keys[0].at
        ends = move.start + traced.delays + keys[-1].at
    else:
        starts, ends = _active(np.abs(traced.weights) > _AT_REST, times, stride)
    shades = _shades(np.abs(traced.weights), times, starts, ends)
    # Where chance differs by property, that of the first one is shown.
    first = next(iter(move.pose.given), "x")
    asked = Asked(first, chance_number(first, move.pose.given))
    reaches = [reach_of((selector,), units, times, asked) for selector in move.reach]
    return Timing(traced.delays, starts, ends, shades, traced.weights, reaches, stride)


def _active(active: np.ndarray, times: np.ndarray, stride: int) -> tuple[np.ndarray, np.ndarray]:
    """First frame at which each unit is away, and the one after the last; 0 and 0 if never."""
    ever = active.any(axis=0)
    first = times[active.argmax(axis=0)]
    last = times[len(times) - 1 - active[::-1].argmax(axis=0)] + stride
    return np.where(ever, first, 0.0), np.where(ever, last, 0.0)


def _shades(
    away: np.ndarray, times: np.ndarray, starts: np.ndarray, ends: np.ndarray
) -> np.ndarray:
    """How far from rest at even steps along each bar, interpolated between frames."""
    steps = np.linspace(0, 1, SHADES)
    at = starts[:, None] + (ends - starts)[:, None] * steps
    shades = [np.interp(row, times, column) for row, column in zip(at, away.T, strict=True)]
    return np.clip(np.array(shades).reshape(-1, SHADES), 0.0, 1.0)
