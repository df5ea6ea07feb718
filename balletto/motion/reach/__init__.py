"""Reach: how strongly each unit takes part in a move, by a list of joined selectors.

A kind of selector is one module with a function (selector, rest centres, times) ->
(times, units), and
its line in SELECTORS.
"""

from collections.abc import Callable
from typing import Any

import numpy as np

from ...scene.tracks import value_at
from .sweep import sweep

SelectorFunction = Callable[[Any, np.ndarray, np.ndarray], np.ndarray]
SELECTORS: dict[str, SelectorFunction] = {"sweep": sweep}

JOINS: dict[str, Callable[[np.ndarray, np.ndarray], np.ndarray]] = {
    "multiply": np.multiply,
    "add": np.add,
    "subtract": np.subtract,
    "min": np.minimum,
    "max": np.maximum,
    "difference": lambda value, other: np.abs(value - other),
}


def reach_of(selectors: tuple[Any, ...], centers: np.ndarray, times: np.ndarray) -> np.ndarray:
    """Weights (times, units) of all selectors joined; 1 throughout where there are none.

    times: (t,) in frames of the scene; centers: (n, 2), the rest centres of the units.
    """
    joined: np.ndarray | None = None
    for selector in selectors:
        value = SELECTORS[selector.kind](selector, centers, times)
        value = value * (value_at(selector.strength, times)[:, None] / 100)
        joined = value if joined is None else JOINS[selector.combine](joined, value)
    return np.ones((len(times), len(centers))) if joined is None else joined
