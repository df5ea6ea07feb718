"""Reach: how strongly each unit takes part in a move, by a list of joined selectors.

A kind of selector is one module with a function (selector, units, times, property number) ->
weights, and its line in SELECTORS. The times are (times, 1), or (times, units) where each unit is
asked at times of its own; the weights are (times, units).
"""

from collections.abc import Callable
from typing import Any

import numpy as np

from ...scene.tracks import value_at
from ..units import Units
from .jitter import jitter
from .scatter import scatter
from .spot import spot
from .sweep import sweep
from .wave import wave

SelectorFunction = Callable[[Any, Units, np.ndarray, int], np.ndarray]
SELECTORS: dict[str, SelectorFunction] = {
    "sweep": sweep,
    "scatter": scatter,
    "wave": wave,
    "jitter": jitter,
    "spot": spot,
}
# The kinds that give each property a chance of its own.
BY_PROPERTY = {"scatter", "jitter"}

JOINS: dict[str, Callable[[np.ndarray, np.ndarray], np.ndarray]] = {
    "multiply": np.multiply,
    "add": np.add,
    "subtract": np.subtract,
    "min": np.minimum,
    "max": np.maximum,
    "difference": lambda value, other: np.abs(value - other),
}


def differs_by_property(selectors: tuple[Any, ...]) -> bool:
    """Whether the reach of one property is not that of another."""
    return any(selector.kind in BY_PROPERTY for selector in selectors)


def reach_of(
    selectors: tuple[Any, ...], units: Units, times: np.ndarray, property_number: int = 0
) -> np.ndarray:
    """Weights (times, units) of all selectors joined; 1 throughout where there are none.

    times: in frames of the scene, (t,), or (t, units) where each unit is asked at its own times
    property_number: for chances, that of x if not given
    """
    times = times if times.ndim > 1 else times[:, None]
    joined: np.ndarray | None = None
    for selector in selectors:
        value = SELECTORS[selector.kind](selector, units, times, property_number)
        value = value * (value_at(selector.strength, times) / 100)
        joined = value if joined is None else JOINS[selector.combine](joined, value)
    return np.ones((len(times), len(units))) if joined is None else joined
