"""By where units stand: in the title, or in the picture."""

import numpy as np

from .base import Ordering, by_coordinate, order


@order("across", "from left to right", 70)
def across(units: Ordering) -> np.ndarray:
    return by_coordinate(units.centers[:, 0])


@order("down", "from top to bottom", 80)
def down(units: Ordering) -> np.ndarray:
    return by_coordinate(units.centers[:, 1])


def _middle(size: tuple[int, int]) -> list[float]:
    return [size[0] / 2, size[1] / 2]


@order(
    "from-point",
    "from a point out",
    90,
    needs="point",
    starts_with=_middle,
    looks_at_picture=True,
)
def from_point(units: Ordering) -> np.ndarray:
    return by_coordinate(np.hypot(*(units.seen - np.array(units.point)).T))
