"""From a title and times to the values of every unit, all times and units at once."""

from dataclasses import dataclass, field

import numpy as np

from ..lettering.layout import UNIT_KINDS, Layout
from ..scene.document import Title
from ..scene.moves import Move
from ..scene.tracks import value_at
from .properties import PROPERTIES, parts_of
from .reach import reach_of
from .stagger import delays_of


@dataclass(frozen=True)
class Trace:
    """One move worked out: delays (units,) in frames and weights (times, units)."""

    move: Move
    delays: np.ndarray
    weights: np.ndarray
    local_times: np.ndarray


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


def trace(move: Move, layout: Layout, times: np.ndarray) -> Trace:
    """Delays and weights of one move at `times` (t,), frames of the scene."""
    centers = layout.centers[move.unit]
    delays = delays_of(move.stagger, centers)
    local = times[:, None] - move.start - delays
    weights = value_at(move.amount, local) * reach_of(move.reach, centers, times)
    return Trace(move, delays, weights, local)


def compose(title: Title, layout: Layout, times: np.ndarray) -> dict[str, Composite]:
    """For each unit kind that a move of the title touches: its moves added up at `times`."""
    composites: dict[str, Composite] = {}
    for kind in UNIT_KINDS:
        moves = [move for move in title.moves if move.on and move.unit == kind and move.pose.given]
        if moves:
            composites[kind] = _sum_up(moves, layout, times)
    return composites


def _sum_up(moves: list[Move], layout: Layout, times: np.ndarray) -> Composite:
    composite = Composite((len(times), layout.count(moves[0].unit)))
    for move in moves:
        traced = trace(move, layout, times)
        for name, value in move.pose.given.items():
            away = value_at(value, traced.local_times)
            for part in parts_of(name):
                joined = PROPERTIES[part].join(composite[part], traced.weights, away)
                composite.values[part] = joined
    if "opacity" in composite.values:
        composite.values["opacity"] = np.clip(composite.values["opacity"], 0.0, 1.0)
    return composite
