"""The sentence of a shape: what it is, and how it is filled."""

from typing import Any

from ...scene.layers.shape import ShapeLayer
from ...scene.shapes import SHAPE_KINDS
from ...scene.values.measures import DEGREES
from ...stock.shapes import SHAPES
from ..language.letters import quoted
from ..wording.parts import say_part
from ..wording.pieces import Choice, ColorPiece, NumberPiece, Pieces, joined, said
from ..wording.texts import text_of

A_PATH = "a path drawn as"
UNFILLED, FILLED = "unfilled", "filled"
GRADIENTS = (("linear", "filled with a gradient"), ("round", "filled with a round gradient"))
_COLORS = ["#F2B705", "#D1495B"]
FILL_STARTS: tuple[tuple[str, Any, str], ...] = (
    ("none", "none", UNFILLED),
    ("color", _COLORS[0], FILLED),
    *((kind, {"kind": kind, "colors": _COLORS}, words) for kind, words in GRADIENTS),
)


def say_shape(layer: ShapeLayer) -> Pieces:
    """A shape, without its line."""
    path, shape = f"{layer.id}.shape", layer.shape
    own = shape.model_dump(exclude_unset=True, by_alias=True)
    shipped = shipped_name(getattr(shape, "path", ""))
    title = shipped or shape.wording.title
    others = [
        *((PATHS[name], name) for name in SHAPES if name != shipped),
        *(
            ({"kind": kind, **model.needed}, model.wording.title)
            for kind, model in SHAPE_KINDS.items()
            if kind != shape.kind
        ),
    ]
    kind = Choice(path, "Shape", path, value=own, options=((own, title), *others))
    article = with_article(title).split()[0].capitalize()
    if shipped:
        return said("{} {}, {}.", article, kind, _fill(layer))
    form = say_part(path, shape, shape.wording)
    return said("{} {} {}, {}.", article, kind, form, _fill(layer))


# The shapes that ship, as they are kept in scenes, by what they are called.
PATHS: dict[str, dict[str, Any]] = {
    name: {"kind": "path", "path": drawn()} for name, drawn in SHAPES.items()
}
_NAMES = {data["path"]: name for name, data in PATHS.items()}


def shipped_name(path: str) -> str:
    """What the shape that ships is called that is drawn so; empty if none is."""
    return _NAMES.get(path, "")


def shape_text(layer: ShapeLayer) -> str:
    """A shape as plain text, with its path where that is one of its own."""
    path = getattr(layer.shape, "path", None)
    if path is None or shipped_name(path):
        return text_of(say_shape(layer))
    return f"{A_PATH.capitalize()} {quoted(path)}, {text_of(_fill(layer))}."


def with_article(noun: str) -> str:
    """A noun as one: "a star", "an arc"."""
    return f"{'an' if noun[0] in 'aeiou' else 'a'} {noun}"


def _fill(layer: ShapeLayer) -> Pieces:
    """A colour, a gradient or nothing; what it is can be chosen."""
    path, fill = f"{layer.id}.fill", layer.fill
    value: Any = fill if isinstance(fill, str) else fill.model_dump()
    kind = "none" if fill == "none" else "color" if isinstance(fill, str) else fill.kind
    options = tuple((value if name == kind else start, told) for name, start, told in FILL_STARTS)
    edit = {"name": "set-value", "path": path}
    choice = Choice(f"{path}-kind", "Fill", edit=edit, value=value, options=options)
    if kind == "none":
        return (choice,)
    if kind == "color":
        return said("{} {}", choice, ColorPiece(path, "Colour of the fill", path, value=value))
    colors: list[Pieces] = [
        (ColorPiece(f"{path}.colors.{n}", f"Colour {n + 1}", value=color),)
        for n, color in enumerate(value["colors"])
    ]
    pieces = said("{} from {}", choice, joined(colors, " to "))
    if kind == "round":
        return pieces
    angle = NumberPiece(
        f"{path}.angle", "Angle of the gradient", value=value["angle"], measure=DEGREES, rest=90
    )
    return said("{} turned {}", pieces, angle)
