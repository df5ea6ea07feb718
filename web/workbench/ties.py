"""Which values may be tied, and to which: the lists from which a tie is made."""

from collections.abc import Iterator
from typing import Any

from balletto.scene.document import Scene
from balletto.scene.layers import Title
from balletto.scene.moves import Move
from balletto.scene.tracks import Tied

from .words import value_said

Named = tuple[str, str]
# The numbers of selectors that may change over time.
_SELECTOR_NUMBERS = (
    "strength", "low", "high", "travel", "soft_low", "soft_high", "cycles", "period", "phase",
    "soft", "hold", "together", "inner", "outer", "angle", "width", "floor",
)  # fmt: skip


def tie_ends(title: Title, move: Move) -> list[Named]:
    """What can be tied from the card of a move: its own values, and the place of its title."""
    ends = [(path, value_said(path)) for path in _move_values(title, move)]
    places = [path for path, _ in _place_values(title, parts=False)]
    return ends + [(path, f"{value_said(path)} of the title") for path in places]


def tie_targets(scene: Scene) -> list[Named]:
    """All that can be followed in a scene, and whose it is."""
    targets = []
    for title in scene.layers:
        name = title.name or " ".join(title.text.split()) or title.id
        targets += [
            (path, f"{value_said(path)} of {name}") for path, _ in _place_values(title, parts=True)
        ]
        for move in title.moves:
            targets += [
                (path, f"{value_said(path)} of {move.name or 'Move'}")
                for path in _move_values(title, move)
            ]
    return targets


def ties_of(title: Title, move: Move) -> list[Named]:
    """The values of a move and its title that are tied now."""
    tied = [path for path, value in _values(title, move) if isinstance(value, Tied)]
    return [(path, value_said(path)) for path in tied]


def _values(title: Title, move: Move) -> Iterator[tuple[str, Any]]:
    base = f"{title.id}.moves.{move.id}"
    yield f"{base}.amount", move.amount
    for name, value in move.pose.given.items():
        yield f"{base}.pose.{name}", value
    for index, selector in enumerate(move.reach):
        for name in _SELECTOR_NUMBERS:
            if hasattr(selector, name):
                yield f"{base}.reach.{index}.{name}", getattr(selector, name)
    yield from _place_values(title, parts=False)


def _move_values(title: Title, move: Move) -> list[str]:
    base = f"{title.id}.moves."
    return [path for path, _ in _values(title, move) if path.startswith(base)]


def _place_values(title: Title, parts: bool) -> Iterator[tuple[str, Any]]:
    """The values of a transform; with `parts`, those of vectors one by one as well."""
    for name, value in title.transform:
        if name == "pivot":
            continue  # stays as it is said
        path = f"{title.id}.transform.{name}"
        yield path, value
        if parts and name != "opacity":
            for part in range(2 if name == "scale" else 3):
                yield f"{path}.{part}", None
