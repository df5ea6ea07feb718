"""Stagger: from the ranks of the units to delays."""

from dataclasses import replace
from typing import NamedTuple

import numpy as np

from ..scene.eases import ease_function
from ..scene.moving.moves import Distribution, Stagger
from ..scene.orders import ranks_of
from .units import UnitGroup, Units


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
    group = units.find_group(groups.by) or UnitGroup(
        np.zeros(len(units), dtype=int), np.zeros((1, 2))
    )
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
