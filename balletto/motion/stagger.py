"""Stagger: from the order of the units to a rank each, and from ranks to delays.

An order is a function from `Ordering` to ranks; a new one is a function and its name in ORDERS.
"""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from ..scene.eases import ease_function
from ..scene.moves import Stagger
from .chance import SHUFFLE, chance


@dataclass(frozen=True)
class Ordering:
    """What an order may look at: the centres (n, 2) of the units at rest, a seed, given ranks."""

    centers: np.ndarray
    seed: int = 0
    ranks: tuple[float, ...] | None = None

    @property
    def count(self) -> int:
        return len(self.centers)

    @property
    def index(self) -> np.ndarray:
        return np.arange(self.count, dtype=float)


def _forward(units: Ordering) -> np.ndarray:
    return units.index


def _backward(units: Ordering) -> np.ndarray:
    return units.index[::-1]


def _center_out(units: Ordering) -> np.ndarray:
    distance = np.abs(units.index - (units.count - 1) / 2)
    return distance - distance.min(initial=np.inf)


def _ends_in(units: Ordering) -> np.ndarray:
    ranks = _center_out(units)
    return ranks.max(initial=0) - ranks


def _alternate(units: Ordering) -> np.ndarray:
    places = np.concatenate([units.index[::2], units.index[1::2]]).astype(int)
    return _places(places)


def _shuffle(units: Ordering) -> np.ndarray:
    drawn = chance(units.seed, np.arange(units.count), SHUFFLE, 0)
    return _places(np.argsort(drawn, kind="stable"))


def _across(units: Ordering) -> np.ndarray:
    return _by_place(units.centers[:, 0])


def _down(units: Ordering) -> np.ndarray:
    return _by_place(units.centers[:, 1])


def _by_hand(units: Ordering) -> np.ndarray:
    given = units.ranks or (0.0,)
    more = (given[-1],) * max(units.count - len(given), 0)  # the last repeated
    return np.array((*given, *more)[: units.count], dtype=float)


def _places(order: np.ndarray) -> np.ndarray:
    """The place of each unit in a list of units."""
    ranks = np.empty(len(order))
    ranks[order] = np.arange(len(order))
    return ranks


def _by_place(coordinates: np.ndarray) -> np.ndarray:
    """Coordinates scaled to 0..n-1; all 0 where they are equal."""
    if not len(coordinates) or np.ptp(coordinates) == 0:
        return np.zeros(len(coordinates))
    return (coordinates - coordinates.min()) / np.ptp(coordinates) * (len(coordinates) - 1)


ORDERS: dict[str, Callable[[Ordering], np.ndarray]] = {
    "forward": _forward,
    "backward": _backward,
    "center-out": _center_out,
    "ends-in": _ends_in,
    "alternate": _alternate,
    "shuffle": _shuffle,
    "across": _across,
    "down": _down,
    "by-hand": _by_hand,
}


def ranks_of(
    order: str, centers: np.ndarray, seed: int = 0, ranks: tuple[float, ...] | None = None
) -> np.ndarray:
    """The rank of each unit, (n,); ranks need not be whole."""
    return ORDERS[order](Ordering(centers, seed, ranks))


def delays_of(stagger: Stagger | None, centers: np.ndarray) -> np.ndarray:
    """The delay of each unit in frames, (n,), for units with rest centres (n, 2)."""
    if stagger is None:
        return np.zeros(len(centers))
    ranks = ranks_of(stagger.order, centers, stagger.seed, stagger.ranks)
    largest = ranks.max(initial=0)
    if largest <= 0:
        return np.zeros(len(centers))
    span = stagger.span if stagger.span is not None else (stagger.gap or 0) * largest
    return span * ease_function(stagger.curve)(ranks / largest)
