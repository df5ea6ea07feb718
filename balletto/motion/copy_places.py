"""Where the copies of a layer stand by its formation alone, with its chance."""

from typing import Any, NamedTuple

import numpy as np

from ..scene.formations import Formation
from ..scene.formations.grid import GridFormation
from ..scene.hash_random import hash_random
from ..scene.layers import Layer
from ..scene.tracks import value_at

# The units that copies are moved by.
COPIES = ("copy", "row", "column")
# The properties by whose numbers copies draw their chances.
_X, _Y, _TURN, _SCALE = 0, 1, 3, 6


class Stand(NamedTuple):
    """Where copies stand, how they are turned, how large and opaque they are: (times, n, 2), and
    (times, n) each."""

    places: np.ndarray
    turns: np.ndarray
    scales: np.ndarray
    opacity: np.ndarray


def stand_of(formation: Formation, times: np.ndarray) -> Stand:
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
    return Stand(
        places + aside,
        turns + by_share(last.turn, 0.0) + by_chance(chance.turn, _TURN),
        by_share(last.scale, 1.0) * (1 + by_chance(chance.scale, _SCALE)),
        opacity,
    )


def copy_places(layer: Layer, unit: str) -> np.ndarray:
    """Where the copies of a layer, or the middles of the rows or columns of its grid, stand at
    frame 0: (n, 2). Of what is no grid, all copies are one row and one column."""
    formation = layer.formation
    if formation is None:
        raise ValueError(f"{layer.id!r} has no formation")
    places = stand_of(formation, np.zeros(1)).places[0]
    if unit == "copy":
        return places
    if not isinstance(formation, GridFormation):
        return places.mean(axis=0, keepdims=True)
    member = dict(zip(("column", "row"), formation.cells(), strict=True))[unit]
    return np.array([places[member == n].mean(axis=0) for n in range(member.max() + 1)])
