"""The sentences of a shape: what it is, and how its line is drawn."""

from typing import Any

from django.utils.safestring import SafeString

from balletto.scene.layers.shape import ShapeLayer
from balletto.sentences.layers.shapes import say_shape

from .phrases import NOW, Moment, shown
from .sentence_parts import SentencePart


def shape_sentences(layer: ShapeLayer, moment: Moment = NOW) -> list[SafeString]:
    """What it is, and its line if it has one, as they are at a moment."""
    said = [shown(say_shape(layer), moment)]
    if layer.stroke:
        line = SentencePart(f"{layer.id}.stroke", layer.stroke, layer.stroke.said, moment)
        said.append(line.sentence())
    return said


def shape_more(layer: ShapeLayer) -> list[SafeString]:
    """The keyed values of a shape and its line."""
    parts = [SentencePart(f"{layer.id}.shape", layer.shape, layer.shape.wording)]
    if layer.stroke:
        parts.append(SentencePart(f"{layer.id}.stroke", layer.stroke, layer.stroke.said))
    return [clause for part in parts for clause in part.more()]


def shape_actions(layer: ShapeLayer) -> list[dict[str, Any]]:
    """A line, or none; dashes, or none."""
    path = f"{layer.id}.stroke"
    if layer.stroke is None:
        value = {"width": 6, "color": "#FFFFFF"}
        edit = {"name": "set-value", "path": path, "value": value}
        return [{"label": "a line", "edit": edit}]
    dashes = {"name": "set-value", "path": f"{path}.dashes", "value": [24, 16]}
    if layer.stroke.dashes:
        dashes = {"name": "clear-value", "path": f"{path}.dashes"}
    each = {"name": "set-value", "path": f"{path}.each", "value": not layer.stroke.each}
    none = {"name": "set-value", "path": path, "value": None}
    return [
        {"label": "no dashes" if layer.stroke.dashes else "dashes", "edit": dashes},
        {
            "label": "contours one by one" if layer.stroke.each else "contours at once",
            "edit": each,
        },
        {"label": "no line", "edit": none},
    ]
