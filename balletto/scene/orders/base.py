"""What all orders have: from units to a rank each."""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Protocol

import numpy as np


@dataclass(frozen=True)
class Ordering:
    """What an order may look at: the centres (n, 2) of the units at rest, a seed, given ranks, a
    point and, if it asks for them, the centres in the picture."""

    centers: np.ndarray
    seed: int = 0
    ranks: tuple[float, ...] | None = None
    point: tuple[float, float] | None = None
    seen: np.ndarray = field(default_factory=lambda: np.empty((0, 2)))

    @property
    def count(self) -> int:
        return len(self.centers)

    @property
    def index(self) -> np.ndarray:
        return np.arange(self.count, dtype=float)


class Ranking(Protocol):
    """The ranks (n,) of units; they need not be whole."""

    def __call__(self, units: Ordering, /) -> np.ndarray: ...


@dataclass(frozen=True)
class Order:
    """How units are ranked.

    words: how it reads; needs: the field that says more of it: its seed, point or ranks
    starts_with: the value of that field for one that is new, in a picture of a size
    looks_at_picture: whether it asks where the units are seen
    """

    words: str
    ranks: Ranking
    rank: int
    needs: str = ""
    starts_with: Callable[[tuple[int, int]], Any] | None = None
    looks_at_picture: bool = False


# By the name that an order has in the file.
FOUND: dict[str, Order] = {}


def order(name: str, words: str, rank: int, **more: Any) -> Callable[[Ranking], Ranking]:
    """Registers a function as the order of that name. `rank` is where it stands in lists."""

    def register(ranks: Ranking) -> Ranking:
        FOUND[name] = Order(words, ranks, rank, **more)
        return ranks

    return register


def in_turn(places: np.ndarray) -> np.ndarray:
    """The place of each unit in a list of units."""
    ranks = np.empty(len(places))
    ranks[places] = np.arange(len(places))
    return ranks


def by_coordinate(coordinates: np.ndarray) -> np.ndarray:
    """Coordinates scaled to 0..n-1; all 0 where they are equal."""
    if not len(coordinates) or np.ptp(coordinates) == 0:
        return np.zeros(len(coordinates))
    return (coordinates - coordinates.min()) / np.ptp(coordinates) * (len(coordinates) - 1)
