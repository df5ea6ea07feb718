"""From a title and times to the values of every unit, all times and units at once."""

from collections.abc import Callable
from dataclasses import dataclass, field

import numpy as np

from ..lettering.layout import UNIT_KINDS, Layout
from ..scene.document import Scene, Title
from ..scene.moves import Move
from ..scene.tracks import value_at
from .properties import CHANCE_NUMBERS, PROPERTIES, parts_of
from .reach import differs_by_property, reach_of
from .stagger import delays_of
from .units import Units, units_of


@dataclass(frozen=True)
class Trace:
    """One move worked out: delays (units,) in frames, weights (times, units) of property x, and
    `weights_of` those of another property, where chance makes a difference."""

    move: Move
    delays: np.ndarray
    weights: np.ndarray
    local_times: np.ndarray
    weights_of: Callable[[str], np.ndarray]


@dataclass(frozen=True)
class Composite:
    """All moves of one unit kind added up. `values` holds just the properties that they touch."""

    shape: tuple[int, int]
    values: dict[str, np.ndarray] = field(default_factory=dict)

    def __getitem__(self, name: str) -> np.ndarray | float:
        """The values of a property, (times, units); just its rest where no move touches it."""
        return self.values.get(name, PROPERTIES[name].rest)

    def full(self, name: str) -> np.ndarray:
        """The values of a property, (times, units), read-only."""
        return np.broadcast_to(self[name], self.shape)


def trace(move: Move, units: Units, times: np.ndarray) -> Trace:
    """Delays and weights of one move of `units` at `times` (t,), frames of the scene."""
    delays = delays_of(move.stagger, units)
    local = times[:, None] - move.start - delays
    amount = value_at(move.amount, local)
    weights = amount * reach_of(move.reach, units, times)

    def weights_of(name: str) -> np.ndarray:
        if not differs_by_property(move.reach):
            return weights
        return amount * reach_of(move.reach, units, times, CHANCE_NUMBERS[name])

    return Trace(move, delays, weights, local, weights_of)


def compose(scene: Scene, title: Title, layout: Layout, times: np.ndarray) -> dict[str, Composite]:
    """For each unit kind that a move of the title touches: its moves added up at `times`."""
    composites: dict[str, Composite] = {}
    for kind in UNIT_KINDS:
        moves = [move for move in title.moves if move.unit == kind and _does_something(move)]
        if moves:
            composites[kind] = _sum_up(moves, units_of(scene, title, layout, kind), times)
    return composites


def _does_something(move: Move) -> bool:
    return move.on and bool(move.pose.given or move.until_turn)


def _sum_up(moves: list[Move], units: Units, times: np.ndarray) -> Composite:
    composite = Composite((len(times), len(units)))
    for move in moves:
        traced = trace(move, units, times)
        for name, value in move.pose.given.items():
            away, weights = value_at(value, traced.local_times), traced.weights_of(name)
            for part in parts_of(name):
                joined = PROPERTIES[part].join(composite[part], weights, away)
                composite.values[part] = joined
        if move.until_turn == "hidden":
            composite.values["opacity"] = composite["opacity"] * (traced.local_times >= 0)
    if "opacity" in composite.values:
        composite.values["opacity"] = np.clip(composite.values["opacity"], 0.0, 1.0)
    return composite
