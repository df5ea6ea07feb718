"""The properties that moves change: their rest value and how several moves combine.

`scale` in a pose stands for scale_x and scale_y together.
"""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np


@dataclass(frozen=True)
class Property:
    """`join(combined, weight, away)` adds one move's part to what the moves before it gave."""

    rest: float
    join: Callable[[np.ndarray, np.ndarray, np.ndarray], np.ndarray]


def _sum(combined: np.ndarray, weight: np.ndarray, away: np.ndarray) -> np.ndarray:
    return combined + weight * away


def _product(combined: np.ndarray, weight: np.ndarray, away: np.ndarray) -> np.ndarray:
    return combined * (1 + weight * (away - 1))


PROPERTIES: dict[str, Property] = {
    **{name: Property(0.0, _sum) for name in ("x", "y", "z")},
    **{name: Property(0.0, _sum) for name in ("rotation", "rotation_x", "rotation_y")},
    **{name: Property(1.0, _product) for name in ("scale_x", "scale_y", "opacity")},
}
POSE_PARTS: dict[str, tuple[str, ...]] = {"scale": ("scale_x", "scale_y")}


# The number with which a property of a pose draws its chances. `scale` is one chance for both axes.
CHANCE_NUMBERS: dict[str, int] = {
    "x": 0,
    "y": 1,
    "z": 2,
    "rotation": 3,
    "rotation_x": 4,
    "rotation_y": 5,
    "scale": 6,
    "scale_x": 6,
    "scale_y": 7,
    "opacity": 9,
}


def parts_of(pose_property: str) -> tuple[str, ...]:
    """The computed properties that a property of a pose stands for."""
    return POSE_PARTS.get(pose_property, (pose_property,))
