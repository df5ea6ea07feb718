"""From a title and times to the values of every unit, all times and units at once."""

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cache, partial
from typing import Any

import numpy as np

from ..lettering.layout import UNIT_KINDS, Layout
from ..scene.document import Scene
from ..scene.layers import Title
from ..scene.moves import Move
from ..scene.tracks import Track, changes_over_time, value_at
from .follow import followed, followed_alike
from .properties import ABOUT_PIVOT, chance_number, parts_of, property_of
from .reach import differs_by_property, reach_of
from .stagger import delays_of
from .units import Units, units_of

# Over a longer course than this, what units have in common is no longer worth working out whole.
MOST_FRAMES_ALIKE = 20_000
# A point in a box, and whose box it is.
Pivot = tuple[tuple[float, float], str]


@dataclass(frozen=True)
class Trace:
    """One move worked out: delays (units,) in frames, local times and weights (times, units) of
    property x, and `weights_of` those of another property, where chance makes a difference."""

    move: Move
    delays: np.ndarray
    local_times: np.ndarray
    weights_of: Callable[[str], np.ndarray]

    @property
    def weights(self) -> np.ndarray:
        return self.weights_of("x")


@dataclass(frozen=True)
class Composite:
    """All moves of one unit kind added up.

    values: of just the properties that they touch, (times, units), tints for colours
    pivot: what they turn and stretch about; where moves have pivots that differ, `turns` has the
        turning and stretching about each
    cell_tracking: that of all characters, white space included, where that takes part
    """

    shape: tuple[int, int]
    pivot: Pivot = ((0.5, 0.5), "unit")
    values: dict[str, Any] = field(default_factory=dict)
    turns: dict[Pivot, "Composite"] = field(default_factory=dict)
    cell_tracking: np.ndarray | None = None

    def __getitem__(self, name: str) -> Any:
        """The values of a property, (times, units); just its rest where no move touches it."""
        return self.values.get(name, property_of(name).rest)

    def full(self, name: str) -> np.ndarray:
        """The values of a property, (times, units), read-only."""
        return np.broadcast_to(self[name], self.shape)

    def join(self, name: str, weights: np.ndarray, away: np.ndarray) -> None:
        """Adds a move's part."""
        self.values[name] = property_of(name).join(self[name], weights, away)


def trace(move: Move, units: Units, times: np.ndarray) -> Trace:
    """Delays and weights of one move of `units` at `times` (t,), frames of the scene."""
    delays = delays_of(move.stagger, units)
    local = times[:, None] - move.start - delays

    def plain(at: np.ndarray, number: int) -> np.ndarray:
        amount = value_at(move.amount, at - move.start - delays)
        return amount * reach_of(move.reach, units, at, number) if move.reach else amount

    @cache
    def weights(number: int) -> np.ndarray:
        if move.follow is None or not _has_course(move):
            return plain(times[:, None], number)
        if _moves_alike(move, delays, local):
            course = partial(value_at, move.amount)
            since = move.amount.keys[0].at
            return followed_alike(course, move.follow, units.rate, since, local)
        course = partial(plain, number=number)
        return followed(course, move.follow, units.rate, times, len(units))

    def weights_of(name: str) -> np.ndarray:
        by_property = differs_by_property(move.reach)
        return weights(chance_number(name, move.pose.given) if by_property else 0)

    return Trace(move, delays, local, weights_of)


def _has_course(move: Move) -> bool:
    """Whether the weights of a move may change over time, so that there is something to follow."""
    return changes_over_time(move.amount) or bool(move.reach)


def _moves_alike(move: Move, delays: np.ndarray, local_times: np.ndarray) -> bool:
    """Whether all units go through one course in their own time, none before the scene begins."""
    amount = move.amount
    if move.reach or not isinstance(amount, Track) or amount.before != "hold":
        return False
    if not local_times.size:
        return False
    starts_later = amount.keys[0].at >= -move.start - delays.min()
    return bool(starts_later and np.ptp(local_times) < MOST_FRAMES_ALIKE)


def compose(scene: Scene, title: Title, layout: Layout, times: np.ndarray) -> dict[str, Composite]:
    """For each unit kind that a move of the title touches: its moves added up at `times`."""
    composites: dict[str, Composite] = {}
    for kind in UNIT_KINDS:
        moves = [move for move in title.moves if move.unit == kind and does_something(move)]
        if kind == "character" and any(move.spaces for move in moves):
            composites[kind] = _with_spaces(moves, scene, title, layout, times)
        elif moves:
            units = units_of(scene, title, layout, kind)
            composites[kind] = _sum_up(moves, lambda _, units=units: units, times, None)
    return composites


def does_something(move: Move) -> bool:
    """Whether a move can change anything at all."""
    return move.on and bool(move.pose.given or move.until_turn)


def _with_spaces(
    moves: list[Move], scene: Scene, title: Title, layout: Layout, times: np.ndarray
) -> Composite:
    """The characters' moves added up, some of which move white space too."""
    all_cells = units_of(scene, title, layout, "character", spaces=True)
    seen = units_of(scene, title, layout, "character")

    def pick(move: Move) -> Units:
        return all_cells if move.spaces else seen

    def narrowed(composite: Composite) -> Composite:
        values = {name: _columns(value, visible) for name, value in composite.values.items()}
        turns = {pivot: narrowed(part) for pivot, part in composite.turns.items()}
        tracking = composite.values.get("tracking")
        return Composite((len(times), len(visible)), composite.pivot, values, turns, tracking)

    visible = layout.visible
    return narrowed(_sum_up(moves, pick, times, (len(all_cells), visible)))


def _columns(value: Any, visible: np.ndarray) -> Any:
    return value[:, visible] if isinstance(value, np.ndarray) else value.of(visible)


def _sum_up(
    moves: list[Move],
    units_for: Callable[[Move], Units],
    times: np.ndarray,
    widened: tuple[int, np.ndarray] | None,
) -> Composite:
    """`widened` says how many columns there are and which of them are the visible characters."""
    count = widened[0] if widened else len(units_for(moves[0]))
    pivots = list(dict.fromkeys(_pivot_of(move) for move in moves))
    composite = Composite((len(times), count), pivots[0])
    if len(pivots) > 1:
        composite.turns.update({pivot: Composite(composite.shape, pivot) for pivot in pivots})
    for move in moves:
        traced = trace(move, units_for(move), times)
        place = widened if widened and not move.spaces else None
        turns = composite.turns.get(_pivot_of(move))
        for name, value in move.pose.given.items():
            away, weights = value_at(value, traced.local_times), traced.weights_of(name)
            if place:
                away, weights = _widened(away, *place), _widened(weights, *place)
            for part in parts_of(name):
                composite.join(part, weights, away)
                if turns is not None and part in ABOUT_PIVOT:
                    turns.join(part, weights, away)
        if move.until_turn == "hidden":
            hidden = (traced.local_times < 0).astype(float)
            composite.join("opacity", _widened(hidden, *place) if place else hidden, np.zeros(1))
    if "opacity" in composite.values:
        composite.values["opacity"] = np.clip(composite.values["opacity"], 0.0, 1.0)
    return composite


def _pivot_of(move: Move) -> Pivot:
    return move.pivot, move.pivot_of


def _widened(values: np.ndarray, count: int, visible: np.ndarray) -> np.ndarray:
    """Values of the visible characters among those of all, which are 0."""
    wide = np.zeros((len(values), count, *values.shape[2:]))
    wide[:, visible] = values
    return wide
