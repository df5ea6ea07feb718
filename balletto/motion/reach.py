"""Reach: how strongly each unit takes part in a move, by a list of joined selectors."""

from collections.abc import Callable

import numpy as np

from ..scene.pose import Asked, X
from ..scene.selectors import Selector
from ..scene.values.tracks import value_at
from .units import Units

JOINS: dict[str, Callable[[np.ndarray, np.ndarray], np.ndarray]] = {
    "multiply": np.multiply,
    "add": np.add,
    "subtract": np.subtract,
    "min": np.minimum,
    "max": np.maximum,
    "difference": lambda value, other: np.abs(value - other),
}


def differs_by_property(selectors: tuple[Selector, ...]) -> bool:
    """Whether the reach of one property is not that of another."""
    return any(selector.by_property for selector in selectors)


def reach_of(
    selectors: tuple[Selector, ...], units: Units, times: np.ndarray, asked: Asked = X
) -> np.ndarray:
    """Weights (times, units) of all selectors joined; 1 throughout where there are none.

    times: in frames of the scene, (t,), or (t, units) where each unit is asked at its own times
    asked: the property that they are asked for, which makes a difference to chances
    """
    times = times if times.ndim > 1 else times[:, None]
    joined: np.ndarray | None = None
    for selector in selectors:
        value = selector.weights(units, times, asked)
        value = value * (value_at(selector.strength, times) / 100)
        joined = value if joined is None else JOINS[selector.combine](joined, value)
    return np.ones((len(times), len(units))) if joined is None else joined
