"""The sentences of a shape: what it is, and how its line is drawn."""

from typing import Any

from django.utils.html import format_html
from django.utils.safestring import SafeString, mark_safe

from balletto.scene.layers.shape import ShapeLayer
from balletto.scene.shapes import SHAPE_KINDS
from balletto.scene.stroke import STROKE

from .chips import Chip, choice_chip, color_chip
from .phrases import NOW, Moment, edit_of, tight
from .sentence_parts import SentencePart

_STARTS = [
    ({"kind": kind, **model.needed}, model.wording.title) for kind, model in SHAPE_KINDS.items()
]
_GRADIENT = {"kind": "linear", "angle": 90, "colors": ["#F2B705", "#D1495B"]}
_FILLS = [("none", "unfilled"), ("#F2B705", "filled"), (_GRADIENT, "filled with a gradient")]


def shape_sentences(layer: ShapeLayer, moment: Moment = NOW) -> list[SafeString]:
    """What it is, and its line if it has one, as they are at a moment."""
    path, shape = f"{layer.id}.shape", layer.shape
    options = [(shape.model_dump(exclude_unset=True, by_alias=True), shape.kind), *_others(shape)]
    kind = choice_chip(Chip(path, edit_of(path), "Shape"), options[0][0], options)
    form = SentencePart(path, shape, shape.wording, moment).sentence()
    article = "An" if shape.kind[0] in "aeiou" else "A"
    said = [tight(format_html("{} {} {}, {}.", article, kind, form, _fill(layer)))]
    if layer.stroke:
        said.append(
            tight(SentencePart(f"{layer.id}.stroke", layer.stroke, STROKE, moment).sentence())
        )
    return said


def _others(shape: Any) -> list[tuple[Any, str]]:
    return [(start, kind) for start, kind in _STARTS if kind != shape.kind]


def _fill(layer: ShapeLayer) -> SafeString:
    path, fill = f"{layer.id}.fill", layer.fill
    value = fill if isinstance(fill, str) else fill.model_dump()
    kind = "none" if fill == "none" else "#" if isinstance(fill, str) else "gradient"
    options = [
        (value, said) if kind == own else (start, said)
        for (start, said), own in zip(_FILLS, ("none", "#", "gradient"), strict=True)
    ]
    chip = Chip(f"{path}-kind", edit_of(path), "Fill")
    choice = choice_chip(chip, value, options)
    if kind == "#":
        colors = color_chip(Chip(path, edit_of(path), "Colour of the fill"), value)
        return format_html("{} {}", choice, colors)
    if kind == "gradient":
        colors = [
            color_chip(
                Chip(f"{path}.colors.{n}", edit_of(f"{path}.colors.{n}"), f"Colour {n + 1}"), each
            )
            for n, each in enumerate(fill.colors)
        ]
        return format_html("{} {}", choice, mark_safe(" to ".join(colors)))  # noqa: S308 - escaped
    return choice


def shape_more(layer: ShapeLayer) -> list[SafeString]:
    """The keyed values of a shape and its line."""
    parts = [SentencePart(f"{layer.id}.shape", layer.shape, layer.shape.wording)]
    if layer.stroke:
        parts.append(SentencePart(f"{layer.id}.stroke", layer.stroke, STROKE))
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
    none = {"name": "set-value", "path": path, "value": None}
    return [
        {"label": "no dashes" if layer.stroke.dashes else "dashes", "edit": dashes},
        {"label": "no line", "edit": none},
    ]
