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
from ..wording.pieces import course_text

STANDS = "Stands {} across, {} down and {}"
TURNED, WIDE, OPAQUE = "turned {}", "{} wide and {} high", "{} opaque"
IN_DEPTH = "in depth tipped {} and swung {}"
ALL_BELOW = "Works on all below it, by {}."
# What leads to what a place, a turn or a size follows as a whole.
_WHOLE = {"position": "Stands at", "rotation": "turned as", "scale": "sized"}
_MEASURES: dict[str, tuple[Measure, ...]] = {
    "position": (PIXELS, PIXELS, NEARER_DEEPER),
    "rotation": (DEGREES, DEGREES, DEGREES),
    "scale": (PERCENT_OF_ONE, PERCENT_OF_ONE),
    "opacity": (OPACITY,),
}


def place_text(layer: Layer) -> str:
    """Where a layer stands, as plain text; what its keys say stands in parentheses."""
    transform = layer.transform
    opaque = OPAQUE.format(course_text(transform.opacity, lambda value: OPACITY.say(value, 9)))
    if layer.works_below:
        return ALL_BELOW.format(opaque)
    parts = [_said_of(layer, name) for name in _WHOLE] + [opaque]
    rotation: Any = transform.rotation
    keys = [key.value for key in rotation.keys] if isinstance(rotation, Track) else [rotation]
    if not isinstance(rotation, Tied) and any(value[0] or value[1] for value in keys):
        parts.append(IN_DEPTH.format(*_parts(layer, "rotation")[:2]))
    return f"{', '.join(parts)}."


def _said_of(layer: Layer, name: str) -> str:
    """What is said of a place, a turn or a size: its numbers, or as a whole what it follows."""
    value = getattr(layer.transform, name)
    if isinstance(value, Tied):
        return f"{_WHOLE[name]} {course_text(value, str)}"
    parts = _parts(layer, name)
    template = {"position": STANDS, "rotation": TURNED, "scale": WIDE}[name]
    return template.format(*(parts[2:] if name == "rotation" else parts))


def _parts(layer: Layer, name: str) -> list[str]:
    """Each number of a vector in words: of one that is keyed its own course."""
    value = getattr(layer.transform, name)
    texts = []
    for index, measure in enumerate(_MEASURES[name]):
        if isinstance(value, Track):
            texts.append(_course(value, index, measure))
        else:
            texts.append(measure.say(value[index], 9))
    return texts


def _course(track: Track[tuple[float, ...]], index: int, measure: Measure) -> str:
    return course_text(track, lambda value: measure.say(value[index], 9))
