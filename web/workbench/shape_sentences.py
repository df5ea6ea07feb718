"""The sentences of a shape: what it is, and how its line is drawn."""

from typing import Any

from django.utils.html import format_html
from django.utils.safestring import SafeString, mark_safe

from balletto.scene import measures
from balletto.scene.layers import ShapeLayer
from balletto.scene.measures import Measure

from .chips import Chip, choice_chip, color_chip
from .phrases import NOW, Moment, edit_of, tight
from .sentence_parts import Said, Sentence, SentencePart

_CORNERS = Measure(" corners", drag=0.05, low=3, high=200, one=" corner")
_SIZE = Said("Size", is_pair=True)
_RADIUS = Said("Radius", measures.LENGTH_PX, 150)
_EITHER_WAY = measures.PERCENT

SHAPES: dict[str, Sentence] = {
    "line": Sentence(
        "line",
        "from {from} to {to}",
        {"from": Said("Start", is_point=True), "to": Said("End", is_point=True)},
    ),
    "rectangle": Sentence(
        "rectangle",
        "of {size}, corners of {corner}",
        {"size": _SIZE, "corner": Said("Corners", measures.LENGTH_PX, 0)},
    ),
    "ellipse": Sentence("ellipse", "of {size}", {"size": _SIZE}),
    "arc": Sentence(
        "arc",
        "of {size}, from {angle} on over {sweep}",
        {
            "size": _SIZE,
            "angle": Said("Where it starts", measures.DEGREES, -90),
            "sweep": Said("How far it goes", measures.DEGREES, 270),
        },
    ),
    "polygon": Sentence(
        "polygon",
        "with {corners}, {radius} out",
        {"corners": Said("Corners", _CORNERS), "radius": _RADIUS},
    ),
    "star": Sentence(
        "star",
        "with {corners}, {outer} out and {inner} in",
        {
            "corners": Said("Corners", _CORNERS),
            "outer": Said("Outer radius", measures.LENGTH_PX, 150),
            "inner": Said("Inner radius", measures.LENGTH_PX, 70),
        },
    ),
    "path": Sentence("path", "of its own"),
}
_PATH = "M-150 40C-90 -90 90 90 150 -40"
_STARTS = [
    *(({"kind": kind}, kind) for kind in SHAPES if kind != "path"),
    ({"kind": "path", "path": _PATH}, "path"),
]

_ENDS = (("flat", "flat ends"), ("round", "round ends"), ("square", "square ends"))
_JOINS = (("sharp", "sharp corners"), ("round", "round corners"), ("cut", "cut corners"))
STROKE = Sentence(
    "line",
    "A line of {width}, {color}, {ends} and {joins}, drawn from {from} to {to} of its length, "
    "moved on by {travel}.",
    {
        "width": Said("Width of the line", measures.LENGTH_PX, 6),
        "color": Said("Colour of the line", is_color=True),
        "ends": Said("Ends of the line", options=_ENDS),
        "joins": Said("Corners of the line", options=_JOINS),
        "from": Said("Start of the line", _EITHER_WAY, 0),
        "to": Said("End of the line", _EITHER_WAY, 100),
        "travel": Said("Travel of the line", _EITHER_WAY, 0),
    },
)
_GRADIENT = {"kind": "linear", "angle": 90, "colors": ["#F2B705", "#D1495B"]}
_FILLS = [("none", "unfilled"), ("#F2B705", "filled"), (_GRADIENT, "filled with a gradient")]


def shape_sentences(layer: ShapeLayer, moment: Moment = NOW) -> list[SafeString]:
    """What it is, and its line if it has one, as they are at a moment."""
    path, shape = f"{layer.id}.shape", layer.shape
    options = [(shape.model_dump(exclude_unset=True, by_alias=True), shape.kind), *_others(shape)]
    kind = choice_chip(Chip(path, edit_of(path), "Shape"), options[0][0], options)
    form = SentencePart(path, shape, SHAPES[shape.kind], moment).sentence()
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
    parts = [SentencePart(f"{layer.id}.shape", layer.shape, SHAPES[layer.shape.kind])]
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
