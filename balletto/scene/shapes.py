"""Shapes: lines and forms that a shape layer draws. The data only; balletto.picture.shapes makes
their outlines, about the origin of the layer.

A new kind is a model here with its line in SHAPE_KINDS, and a function there.
"""

from typing import Annotated, Literal

from pydantic import Field

from .masks import Size2
from .model import Color, Degrees, Model, Percent, kind_of, number, one_of
from .orders import Point
from .outlines import Drawing
from .selectors import Distance
from .tracks import changing

Corners = number("a number of corners", int, ge=3, le=200)


class Line(Model):
    """From one point to another."""

    kind: Literal["line"]
    start: changing(Point) = Field((-300, 0), alias="from")
    end: changing(Point) = Field((300, 0), alias="to")


class Rectangle(Model):
    """Of a size, about the origin, with corners of a radius."""

    kind: Literal["rectangle"]
    size: changing(Size2) = (600, 200)
    corner: changing(Distance) = 0


class Ellipse(Model):
    """In a box of a size about the origin."""

    kind: Literal["ellipse"]
    size: changing(Size2) = (300, 300)


class Arc(Model):
    """A part of an ellipse: from an angle on (0 is to the right, on clockwise), over `sweep`."""

    kind: Literal["arc"]
    size: changing(Size2) = (300, 300)
    angle: changing(Degrees) = -90
    sweep: changing(Degrees) = 270


class Polygon(Model):
    """With corners at even steps on a circle, the first at the top."""

    kind: Literal["polygon"]
    corners: Corners = 6
    radius: changing(Distance) = 150


class Star(Model):
    """With corners in turn on two circles, the first at the top of the outer one."""

    kind: Literal["star"]
    corners: Corners = 5
    outer: changing(Distance) = 150
    inner: changing(Distance) = 70


class Path(Model):
    """Any path, as the path data of SVG."""

    kind: Literal["path"]
    path: Drawing


SHAPE_KINDS: dict[str, type[Model]] = {
    "line": Line,
    "rectangle": Rectangle,
    "ellipse": Ellipse,
    "arc": Arc,
    "polygon": Polygon,
    "star": Star,
    "path": Path,
}
AnyShape = one_of(kind_of, f"a shape of one of the kinds {', '.join(SHAPE_KINDS)}", **SHAPE_KINDS)

Dashes = Annotated[
    tuple[number("a length in pixels", gt=0, le=10_000), ...], Field(min_length=2, max_length=16)
]


class Stroke(Model):
    """The line along the edge of a shape: its width, dashes (on, off, ... in px), ends, joins.

    `dash_shift` moves the dashes along. Seen is what lies `from` so many `to` so many percent of
    its length, moved on by `travel`: keyed, the line draws itself on and off.
    """

    width: changing(Distance) = 6
    color: changing(Color) = "#FFFFFF"
    dashes: Dashes | None = None
    dash_shift: changing(number("a length in pixels", ge=-1_000_000, le=1_000_000)) = 0
    ends: Literal["flat", "round", "square"] = "round"
    joins: Literal["sharp", "round", "cut"] = "round"
    first: changing(Percent) = Field(0, alias="from")
    last: changing(Percent) = Field(100, alias="to")
    travel: changing(Percent) = 0
