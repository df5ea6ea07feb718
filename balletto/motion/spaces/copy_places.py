"""Where the copies of a layer stand by its formation alone, with its chance."""

from typing import Any, NamedTuple

import numpy as np

from ...hash_random import hash_random
from ...scene.formations import Formation
from ...scene.formations.grid import GridFormation
from ...scene.layers import Layer
from ...scene.values.tracks import value_at

# The units that copies are moved by, from the inside out.
COPIES = ("copy", "column", "row")
# The properties by whose numbers copies draw their chances.
_X, _Y, _TURN, _SCALE = 0, 1, 3, 6


class CopyStand(NamedTuple):
    """Where copies stand, how they are turned, how large and opaque they are: (times, n, 2), and
    (times, n) each."""

    places: np.ndarray
    turns: np.ndarray
    scales: np.ndarray
    opacity: np.ndarray


def stand_of(formation: Formation, times: np.ndarray) -> CopyStand:
    """Places, turns and the rest by the formation alone, with its chance."""
    places, turns = formation.places(times)
    count = formation.number
    share = np.arange(count) / max(count - 1, 1)
    last, chance = formation.last, formation.chance

    def by_share(value: Any, rest: float) -> np.ndarray:
        away = np.reshape(value_at(value, times), (-1, 1)) - rest
        return np.broadcast_to(rest + away * share, turns.shape)

    def by_chance(value: Any, number: int) -> np.ndarray:
        drawn = 2 * hash_random(chance.seed, np.arange(count), number, 0) - 1
        return np.reshape(value_at(value, times), (-1, 1)) * drawn

    aside = np.stack([by_chance(chance.x, _X), by_chance(chance.y, _Y)], axis=-1)
    opacity = np.clip(by_share(last.opacity, 1.0), 0.0, 1.0) * formation.seen(times)
    return CopyStand(
        places + aside,
        turns + by_share(last.turn, 0.0) + by_chance(chance.turn, _TURN),
        by_share(last.scale, 1.0) * (1 + by_chance(chance.scale, _SCALE)),
        opacity,
    )


def copy_places(layer: Layer, unit: str) -> np.ndarray:
    """Where the copies of a layer, or the middles of its rows or columns, stand at frame 0:
    (n, 2)."""
    formation = layer.formation
    if formation is None:
        raise ValueError(f"{layer.id!r} has no formation")
    places = stand_of(formation, np.zeros(1)).places[0]
    member = members_of(formation, unit)
    sums = [np.bincount(member, places[:, axis]) for axis in (0, 1)]
    return np.stack(sums, axis=-1) / np.bincount(member)[:, None]


def members_of(formation: Formation, unit: str) -> np.ndarray:
    """Which copy, row or column each copy is, (n,). What is no grid is one row and one column."""
    if unit == "copy":
        return np.arange(formation.number)
    if isinstance(formation, GridFormation):
        return dict(zip(("column", "row"), formation.cells(), strict=True))[unit]
    return np.zeros(formation.number, dtype=int)
