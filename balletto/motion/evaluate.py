"""From a title and times to the values of every unit, all times and units at once."""

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cache, partial
from typing import Any, cast

import numpy as np

from ..lettering.layout import UNIT_KINDS, Layout
from ..scene.document import Scene
from ..scene.layers.title import Title
from ..scene.moving.moves import Move
from ..scene.pose import (
    PROPERTIES,
    Asked,
    X,
    chance_number,
    join_of,
    limited,
    parts_of,
)
from ..scene.values.tracks import Track, changes_over_time, value_at
from .follow import JUST_BEFORE, followed, followed_alike
from .reach import differs_by_property, reach_of
from .recent import Recent
from .spaces.gathering import ways_together
from .spaces.off_picture import off_picture
from .stagger import delays_of
from .units import UnitPart, Units, cells_among, is_of_whole_units, part_of, units_for

# Over a longer course than this, what units have in common is no longer worth working out whole.
MOST_FRAMES_ALIKE = 20_000
# A point in a box, and whose box it is.
PivotPoint = tuple[tuple[float, float], str]


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


def _no_units() -> np.ndarray:
    return np.zeros(0, dtype=int)


@dataclass(frozen=True)
class Composite:
    """All moves of one unit kind added up, or those of some letters that are not whole units.

    kind: of the units; member: (characters,) the unit of each character; boxes, edges: of the units
    values: of just the properties that they touch, (times, units), tints for colours
    pivot: what they turn and stretch about; where moves have pivots that differ, `turns` has the
        turning and stretching about each
    cell_tracking: that of all characters, white space included, where that takes part
    """

    shape: tuple[int, int]
    kind: str = "character"
    member: np.ndarray = field(default_factory=_no_units)
    boxes: np.ndarray = field(default_factory=_no_units)
    edges: np.ndarray = field(default_factory=_no_units)
    pivot: PivotPoint = ((0.5, 0.5), "unit")
    values: dict[str, Any] = field(default_factory=dict)
    turns: dict[PivotPoint, "Composite"] = field(default_factory=dict)
    cell_tracking: np.ndarray | None = None

    def __getitem__(self, name: str) -> Any:
        """The values of a property, (times, units); just its rest where no move touches it."""
        return self.values.get(name, join_of(name).rest)

    def of_characters(self, name: str) -> np.ndarray:
        """The values of a property for each character, (times, characters)."""
        return self.full(name)[:, self.member]

    def full(self, name: str) -> np.ndarray:
        """The values of a property, (times, units), read-only."""
        return np.broadcast_to(self[name], self.shape)

    def join(self, name: str, weights: np.ndarray, away: np.ndarray) -> None:
        """Adds a move's part."""
        self.values[name] = join_of(name).add(self[name], weights, away)

    def limit(self, name: str) -> None:
        """Keeps the values of a property within its limits, if it has any."""
        if name in self.values:
            self.values[name] = limited(name, self.values[name])

    def of_units(self, name: str, units: np.ndarray) -> Any:
        """The values of a property, or its tints, that are there, of some units."""
        return join_of(name).of_units(self.values[name], units)


def turns_about_pivot(name: str) -> bool:
    """Whether a property turns or stretches about a pivot."""
    return name in PROPERTIES and PROPERTIES[name].turns_about_pivot


def trace(move: Move, units: Units, times: np.ndarray, delays: np.ndarray | None = None) -> Trace:
    """Delays and weights of one move of `units` at `times` (t,), frames of the scene; `delays`, if
    they are known."""
    if delays is None:
        delays = delays_of(move.stagger, units)
    local = times[:, None] - move.start - delays

    def plain(at: np.ndarray, amount: Any, asked: Asked = X, before: float = 0.0) -> np.ndarray:
        course = value_at(amount, at - move.start - delays - before)
        return course * reach_of(move.reach, units, at, asked) if move.reach else course

    def worked_out(amount: Any, asked: Asked) -> np.ndarray:
        if move.follow is None or not _has_course(move):
            return plain(times[:, None], amount, asked)
        if _moves_alike(move, delays, local):
            course = partial(value_at, amount)
            since = cast(Track[Any], amount).keys[0].at  # what has a course has keys
            return followed_alike(course, move.follow, units.rate, since, local)
        course = partial(plain, amount=amount, asked=asked)
        # The amount as it stands before a key that may stand at frame 0, whose ease may jump.
        start = course(np.zeros((1, 1)), before=JUST_BEFORE)[0]
        return followed(course, move.follow, units.rate, times, len(units), start)

    by_property = differs_by_property(move.reach)
    common = cache(lambda: worked_out(move.amount, X))

    @cache
    def weights_of(name: str) -> np.ndarray:
        if not by_property and name not in move.eases:
            return common()
        asked = Asked(name, chance_number(name, move.pose.given)) if by_property else X
        return worked_out(move.amount_of(name), asked)

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
    """The moves of a title added up at `times`, from the outermost units to the innermost: for each
    unit kind that they touch, and for parts of words, lines or the title that move by themselves.
    """
    composites: dict[str, Composite] = {}
    for kind in reversed(UNIT_KINDS):
        moves = [move for move in title.moves if move.unit == kind and does_something(move)]
        parts = {move.among: part_of(layout, kind, move.among) for move in moves}
        whole = [m for m in moves if kind == "character" or _is_whole(layout, kind, m, parts)]
        if whole:
            composites[kind] = _Sum(scene, title, layout, kind, times).of(whole)
        for among in dict.fromkeys(move.among for move in moves if move not in whole):
            own = [move for move in moves if move.among == among]
            some = _Sum(scene, title, layout, kind, times).of_some(own, parts[among])
            composites[f"{kind} among {among}"] = some
    return composites


def _is_whole(layout: Layout, kind: str, move: Move, parts: dict[Any, UnitPart]) -> bool:
    return move.among is None or is_of_whole_units(layout, kind, parts[move.among])


def does_something(move: Move) -> bool:
    """Whether a move can change anything at all."""
    wanted = move.pose.given or move.pose.off or move.until_turn or move.becomes
    return move.on and bool(wanted)


_recent = Recent(most=256)


def _timed_units(
    scene: Scene, title: Title, layout: Layout, move: Move
) -> tuple[Units, np.ndarray]:
    """The units of a move of a title, and their delays, which are the same in all frames."""

    def make() -> Any:
        units = units_for(scene, title, layout, move)
        return units, delays_of(move.stagger, units), title, layout, move

    # By what they are, not by what they say, which takes longer to compare than to work out; the
    # results keep them there, so that no other takes their place.
    units, delays, *_ = _recent.of(scene, (id(title), id(layout), id(move)), make)
    return units, delays


# How many columns values have, and which of them a move's own are.
Widened = tuple[int, np.ndarray]


@dataclass(frozen=True)
class _Sum:
    """Adds moves of one unit kind of a title up."""

    scene: Scene
    title: Title
    layout: Layout
    kind: str
    times: np.ndarray

    def of(self, moves: list[Move]) -> Composite:
        """Moves of whole units, of which some may move only some, or white space too."""
        layout, kind = self.layout, self.kind
        spaced = kind == "character" and any(move.spaces for move in moves)
        count = len(layout.cell_indices) if spaced else layout.count(kind)

        def widened(move: Move) -> Widened | None:
            if spaced and move.spaces:
                cells = cells_among(layout, move.among)
                return None if move.among is None else (count, cells)
            if move.among is None and not spaced:
                return None
            part = part_of(layout, kind, move.among)
            own = np.unique(layout.member[kind][part.letters])
            return (count, layout.visible[own]) if spaced else (count, own)

        whole = part_of(layout, kind)
        composite = self._summed(moves, count, widened, whole)
        return self._narrowed(composite, whole) if spaced else composite

    def of_some(self, moves: list[Move], part: UnitPart) -> Composite:
        """Moves of units that are parts of others; all other letters are one unit more, at rest."""
        count = len(part.boxes)
        member = np.full(len(self.layout.characters), count)
        member[part.letters] = part.member
        boxes = np.concatenate([part.boxes.reshape(-1, 4), np.zeros((1, 4))])
        edges = np.concatenate([part.edges.reshape(-1, 2), np.zeros((1, 2), dtype=int)])
        wider = UnitPart(part.letters, member, boxes, part.centers, edges)
        return self._summed(moves, count + 1, lambda _: (count + 1, np.arange(count)), wider)

    def _narrowed(self, composite: Composite, whole: UnitPart) -> Composite:
        """Values of all cells as those of the characters."""
        visible = self.layout.visible

        def narrowed(part: Composite) -> Composite:
            values = {
                name: join_of(name).of_units(value, visible) for name, value in part.values.items()
            }
            turns = {pivot: narrowed(each) for pivot, each in part.turns.items()}
            return self._empty(len(visible), whole, part.pivot, values, turns,
                               part.values.get("tracking"))  # fmt: skip

        return narrowed(composite)

    def _empty(self, count: int, part: UnitPart, *more: Any) -> Composite:
        shape = (len(self.times), count)
        return Composite(shape, self.kind, part.member, part.boxes, part.edges, *more)

    def _summed(
        self,
        moves: list[Move],
        count: int,
        widened: Callable[[Move], Widened | None],
        part: UnitPart,
    ) -> Composite:
        pivots = list(dict.fromkeys(_pivot_of(move) for move in moves))
        composite = self._empty(count, part, pivots[0])
        if len(pivots) > 1:
            composite.turns.update({pivot: self._empty(count, part, pivot) for pivot in pivots})
        for move in moves:
            self._join(composite, move, widened(move))
        composite.limit("opacity")
        return composite

    def _join(self, composite: Composite, move: Move, place: Widened | None) -> None:
        """Adds one move's part."""
        units, delays = _timed_units(self.scene, self.title, self.layout, move)
        traced = trace(move, units, self.times, delays)
        turns = composite.turns.get(_pivot_of(move))
        for name, value in move.pose.given.items():
            away, weights = value_at(value, traced.local_times), traced.weights_of(name)
            if name == "gather":
                ways = ways_together(units, self.layout, move)
                self._shift(composite, (weights * away)[..., None] * ways, place)
                continue
            if place:
                away, weights = _widened(away, *place), _widened(weights, *place)
            for part in parts_of(name):
                composite.join(part, weights, away)
                if turns is not None and turns_about_pivot(part):
                    turns.join(part, weights, away)
        if move.pose.off is not None:
            self._join_off(composite, move, traced, place)
        if move.until_turn == "hidden":
            hidden = (traced.local_times < 0).astype(float)
            composite.join("opacity", _widened(hidden, *place) if place else hidden, np.zeros(1))

    def _join_off(
        self, composite: Composite, move: Move, traced: Trace, place: Widened | None
    ) -> None:
        """Adds the way out of the picture: as far as the property goes that leads there."""
        shifts = off_picture(self.scene, self.title, self.layout, move, self.times)
        weights = traced.weights_of("x" if move.pose.off in ("left", "right") else "y")
        names = ("off_x", "off_y") if self.title.along else ("x", "y")
        self._shift(composite, weights[..., None] * shifts, place, names)

    def _shift(
        self,
        composite: Composite,
        by: np.ndarray,
        place: Widened | None,
        names: tuple[str, str] = ("x", "y"),
    ) -> None:
        """Adds ways (times, units, 2) to where units are."""
        for axis, name in enumerate(names):
            way = by[..., axis]
            composite.join(name, _widened(way, *place) if place else way, np.ones(1))


def _pivot_of(move: Move) -> PivotPoint:
    return move.pivot, move.pivot_of


def _widened(values: np.ndarray, count: int, visible: np.ndarray) -> np.ndarray:
    """Values of the visible characters among those of all, which are 0."""
    wide = np.zeros((len(values), count, *values.shape[2:]))
    wide[:, visible] = values
    return wide
