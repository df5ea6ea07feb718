"""The sentence of where a layer stands."""

from typing import Any

from ...scene.layers import Layer
from ...scene.values.measures import (
    DEGREES,
    NEARER_DEEPER,
    OPACITY,
    PERCENT_OF_ONE,
    PIXELS,
    Measure,
)
from ...scene.values.tracks import Tied, Track
from ..wording.pieces import (
    Component,
    Keys,
    Link,
    NumberPiece,
    Pieces,
    Unshown,
    Usual,
    joined,
    said,
)
from ..wording.texts import course_text, text_of

STANDS = "Stands {} across, {} down and {}"
TURNED, WIDE, OPAQUE = "turned {}", "{} wide and {} high", "{} opaque"
IN_DEPTH = "in depth tipped {} and swung {}"
ALL_BELOW = "Works on all below it, by {}."
# What leads to what a place, a turn or a size follows as a whole.
_WHOLE = {"position": "Stands at {}", "rotation": "turned as {}", "scale": "sized {}"}
_LABELS = {"position": "Position", "rotation": "Turn", "scale": "Size"}
_PARTS: dict[str, tuple[tuple[str, Measure, float | None], ...]] = {
    "position": (("Across", PIXELS, None), ("Down", PIXELS, None), ("Depth", NEARER_DEEPER, 0)),
    "rotation": (("Tip", DEGREES, 0), ("Swing", DEGREES, 0), ("Turn", DEGREES, 0)),
    "scale": (("Width", PERCENT_OF_ONE, 1), ("Height", PERCENT_OF_ONE, 1)),
}


def say_place(layer: Layer) -> Pieces:
    """Where a layer stands, how it is turned, how large and how opaque it is."""
    path, value = f"{layer.id}.transform.opacity", layer.transform.opacity
    number = NumberPiece(path, "Opacity", path, value=value, measure=OPACITY, rest=1)
    if layer.works_below:
        return said(ALL_BELOW, said(OPAQUE, number))
    clauses = [_stands(layer), _turned(layer), _sized(layer), said(OPAQUE, number)]
    return said("{}{}.", joined(clauses), _in_depth(layer))


def _stands(layer: Layer) -> Pieces:
    keys = _keys(layer, "position", PIXELS)
    return _followed(layer, "position", said(f"{STANDS}{{}}", *_parts(layer, "position"), keys))


def _turned(layer: Layer) -> Pieces:
    keys = _keys(layer, "rotation", DEGREES)
    return _followed(layer, "rotation", said(f"{TURNED}{{}}", _parts(layer, "rotation")[2], keys))


def _sized(layer: Layer) -> Pieces:
    keys = _keys(layer, "scale", PERCENT_OF_ONE)
    return _followed(layer, "scale", said(f"{WIDE}{{}}{{}}", *_parts(layer, "scale"), Link(), keys))


def _followed(layer: Layer, name: str, plain: Pieces) -> Pieces:
    """A place, a turn or a size, plain; or, in the text, what it follows as a whole, while on pages
    its numbers stand there as they are now."""
    value = getattr(layer.transform, name)
    if not isinstance(value, Tied):
        return plain
    return (Unshown(_WHOLE[name].format(course_text(value, str))), Usual(plain))


def _in_depth(layer: Layer) -> Pieces:
    """How it is tipped and swung, in the text, if it is at any time; pages show it elsewhere."""
    rotation: Any = layer.transform.rotation
    keys = [key.value for key in rotation.keys] if isinstance(rotation, Track) else [rotation]
    if isinstance(rotation, Tied) or not any(value[0] or value[1] for value in keys):
        return ()
    return (Unshown(f", {text_of(say_depth(layer))}"),)


def say_depth(layer: Layer, template: str = IN_DEPTH) -> Pieces:
    """How it is tipped and swung."""
    return said(template, *_parts(layer, "rotation")[:2])


def place_text(layer: Layer) -> str:
    """Where a layer stands, as plain text; what its keys say stands in parentheses."""
    return text_of(say_place(layer))


def _parts(layer: Layer, name: str) -> list[Component]:
    """Each number of a place, a turn or a size."""
    path, value = f"{layer.id}.transform.{name}", getattr(layer.transform, name)
    return [
        Component(path, label, path, value=value, index=index, measure=measure, rest=rest)
        for index, (label, measure, rest) in enumerate(_PARTS[name])
    ]


def _keys(layer: Layer, name: str, measure: Measure) -> Keys:
    path, value = f"{layer.id}.transform.{name}", getattr(layer.transform, name)
    return Keys(path, _LABELS[name], path, value=value, measure=measure)
