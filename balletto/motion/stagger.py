"""Stagger: from the order of the units to a rank each, and from ranks to delays.

An order is a function from `Ordering` to ranks; a new one is a function and its name in ORDERS.
"""

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from typing import NamedTuple

import numpy as np

from ..scene.eases import ease_function
from ..scene.moves import Distribution, Stagger
from ..scene.orders import Ordered
from .hash_random import SHUFFLE, hash_random
from .units import Group, Units


@dataclass(frozen=True)
class Ordering:
    """What an order may look at: the centres (n, 2) of the units at rest, a seed, given ranks, a
    point and the centres in the picture."""

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
    drawn = hash_random(units.seed, np.arange(units.count), SHUFFLE, 0)
    return _places(np.argsort(drawn, kind="stable"))


def _across(units: Ordering) -> np.ndarray:
    return _by_place(units.centers[:, 0])


def _down(units: Ordering) -> np.ndarray:
    return _by_place(units.centers[:, 1])


def _from_point(units: Ordering) -> np.ndarray:
    return _by_place(np.hypot(*(units.seen - np.array(units.point)).T))


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
    "from-point": _from_point,
    "by-hand": _by_hand,
}


def ranks_of(ordered: Ordered, units: Units, indices: np.ndarray | None = None) -> np.ndarray:
    """The rank of each unit, (n,), or of those at `indices` alone; ranks need not be whole."""
    centers = units.centers if indices is None else units.centers[indices]
    seen = np.empty((0, 2))
    if ordered.order == "from-point":
        # Ranks hold for the whole scene: the layer counts as it stands at the beginning.
        seen = units.in_picture(np.zeros((1, 1)))[0]
        seen = seen if indices is None else seen[indices]
    return ORDERS[ordered.order](
        Ordering(centers, ordered.seed, ordered.ranks, ordered.point, seen)
    )


def delays_of(stagger: Stagger | None, units: Units) -> np.ndarray:
    """The delay of each unit in frames, (n,)."""
    count = len(units)
    if stagger is None or not count:
        return np.zeros(count)
    if stagger.times is not None:
        places = np.minimum(np.arange(count), len(stagger.times) - 1)
        return np.array(stagger.times, dtype=float)[places]
    return np.sum([level.delays for level in levels_of(stagger, units)], axis=0)


class Level(NamedTuple):
    """One of the levels of a stagger: the groups in turn, or the units within them.

    ranks, delays: of each unit at this level, (n,)
    rows: the units that come one after another, one array for each slanted line
    """

    distribution: Distribution
    ranks: np.ndarray
    delays: np.ndarray
    rows: list[np.ndarray]


def levels_of(stagger: Stagger, units: Units) -> list[Level]:
    """The levels of a stagger that has an order, the groups first; delays add up over them."""
    if stagger.groups is None:
        ranks = ranks_of(stagger, units)
        return [Level(stagger, ranks, _spread(stagger, ranks), [np.arange(len(units))])]
    groups = stagger.groups
    group = units.find_group(groups.by) or Group(np.zeros(len(units), dtype=int), np.zeros((1, 2)))
    outer_ranks = ranks_of(groups, replace(units, centers=group.centers))
    outer = _spread(groups, outer_ranks)
    ranks, delays = np.zeros(len(units)), np.zeros(len(units))
    rows = [np.flatnonzero(group.member == number) for number in range(len(group.centers))]
    for members in rows:
        ranks[members] = ranks_of(stagger, units, members)
        delays[members] = _spread(stagger, ranks[members])
    leaders = np.array([members[delays[members].argmin()] for members in rows if len(members)])
    return [
        Level(groups, outer_ranks[group.member], outer[group.member], [leaders]),
        Level(stagger, ranks, delays, rows),
    ]


def _spread(timed: Distribution, ranks: np.ndarray) -> np.ndarray:
    """Delays from ranks: the gap from one to the next, or the span from first to last."""
    largest = ranks.max(initial=0)
    if largest <= 0:
        return np.zeros(len(ranks))
    span = timed.span if timed.span is not None else (timed.gap or 0) * largest
    return span * ease_function(timed.curve)(ranks / largest)
