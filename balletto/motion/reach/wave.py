"""Wave: a shape that repeats along the title and in time."""

from collections.abc import Callable

import numpy as np

from ...scene.selectors import Wave
from ...scene.tracks import value_at
from ..stagger import ranks_of
from ..units import Units

# An ease that overshoots, or a tie, may bring a period to 0 and below, where a wave has no meaning.
SHORTEST = 1e-3  # frames


def _fraction(turns: np.ndarray) -> np.ndarray:
    return turns - np.floor(turns)


def _pulse(turns: np.ndarray, soft: np.ndarray) -> np.ndarray:
    """1 in the first half of each turn, -1 in the second; softened where `soft` is above 0."""
    width = np.maximum(soft, 0.001)
    rounded = np.tanh(np.sin(2 * np.pi * turns) / width) / np.tanh(1 / width)
    return np.where(soft > 0, rounded, np.where(_fraction(turns) < 0.5, 1.0, -1.0))


# Each from -1 to 1, as functions of turns and, for the pulse, softness.
SHAPES: dict[str, Callable[[np.ndarray, np.ndarray], np.ndarray]] = {
    "sine": lambda turns, _: np.sin(2 * np.pi * turns),
    "triangle": lambda turns, _: 4 * np.abs(_fraction(turns - 0.25) - 0.5) - 1,
    "saw": lambda turns, _: 2 * _fraction(turns) - 1,
    "pulse": _pulse,
}


def wave(selector: Wave, units: Units, times: np.ndarray, _: int) -> np.ndarray:
    """Weights (times, units) from `low` to `high`."""

    def at(name: str) -> np.ndarray:
        return value_at(getattr(selector, name), times)

    period = np.maximum(at("period"), SHORTEST)
    if selector.loop:
        # A whole number of periods in the scene: its last frame leads into its first.
        period = units.length / np.maximum(np.round(units.length / period), 1)
    along = (ranks_of(selector, units) + 0.5) / max(len(units), 1)
    turns = at("cycles") * along - times / period + at("phase")
    low, high = at("low"), at("high")
    return low + (high - low) * (1 + SHAPES[selector.shape](turns, at("soft"))) / 2
