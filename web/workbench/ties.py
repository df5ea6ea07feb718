"""Which values may be tied, and to which: the lists from which a tie is made."""

from collections.abc import Iterator
from typing import Any

from balletto.scene.document import Scene
from balletto.scene.layers import Layer
from balletto.scene.layers.title import Title
from balletto.scene.moving.moves import Move
from balletto.scene.values.tracks import Tied, Track
from balletto.scene.values.value_names import value_name

Named = tuple[str, str]
# The numbers of selectors that may change over time.
_SELECTOR_NUMBERS = (
    "strength", "low", "high", "travel", "soft_low", "soft_high", "cycles", "period", "phase",
    "soft", "hold", "together", "inner", "outer", "angle", "width", "floor",
)  # fmt: skip


def tie_ends(title: Title, move: Move) -> list[Named]:
    """What can be tied from the card of a move: its own values, and the place of its title."""
    ends = [(path, value_name(title, path)) for path in _move_values(title, move)]
    places = [path for path, _ in _place_values(title, parts=False)]
    return ends + [(path, f"{value_name(title, path)} of the title") for path in places]


def tie_targets(scene: Scene) -> list[Named]:
    """All that can be followed in a scene, and whose it is."""
    targets = []
    for layer in scene.layers:
        name = layer.name or layer.words or layer.id
        paths = [path for path, _ in _place_values(layer, parts=True)]
        paths += [path for path, _ in effect_values(layer)]
        targets += [(path, f"{value_name(layer, path)} of {name}") for path in paths]
        for move in getattr(layer, "moves", ()):
            targets += [
                (path, f"{value_name(layer, path)} of {move.name or 'Move'}")
                for path in _move_values(layer, move)
            ]
    return targets


def ties_of(title: Title, move: Move) -> list[Named]:
    """The values of a move and its title that are tied now."""
    tied = [path for path, value in _values(title, move) if isinstance(value, Tied)]
    return [(path, value_name(title, path)) for path in tied]


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


def effect_values(layer: Layer) -> Iterator[tuple[str, Any]]:
    """The numbers of the effects of a layer that may change over time."""
    for index, effect in enumerate(layer.effects):
        for name, value in effect:
            is_number = isinstance(value, int | float) and not isinstance(value, bool)
            if is_number or isinstance(value, Track | Tied):
                yield f"{layer.id}.effects.{index}.{name}", value


def _place_values(title: Layer, parts: bool) -> Iterator[tuple[str, Any]]:
    """The values of a transform; with `parts`, those of vectors one by one as well."""
    for name, value in title.transform:
        if name == "pivot":
            continue  # stays as it is said
        path = f"{title.id}.transform.{name}"
        yield path, value
        if parts and name != "opacity":
            for part in range(2 if name == "scale" else 3):
                yield f"{path}.{part}", None
