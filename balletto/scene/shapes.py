"""Shapes: lines and forms that a shape layer draws. The data only; balletto.picture.shapes makes
their outlines, about the origin of the layer.

A new kind is a model here with its line in SHAPE_KINDS, and a function there.
"""

from typing import Annotated, Literal

from pydantic import Field

from .masks import Size2
from .model import Color, Counts, Degrees, Distance, Model, Number, Percent, Pixels, kind_of, one_of
from .orders import Point
from .outlines import Drawing
from .tracks import Changing

Corners = Annotated[int, Number("a number of corners", Counts.COUNT, ge=3, le=200)]


class Line(Model):
    """From one point to another."""

    kind: Literal["line"]
    start: Changing[Point] = Field((-300, 0), alias="from")
    end: Changing[Point] = Field((300, 0), alias="to")


class Rectangle(Model):
    """Of a size, about the origin, with corners of a radius."""

    kind: Literal["rectangle"]
    size: Changing[Size2] = (600, 200)
    corner: Changing[Distance] = 0


class Ellipse(Model):
    """In a box of a size about the origin."""

    kind: Literal["ellipse"]
    size: Changing[Size2] = (300, 300)


class Arc(Model):
    """A part of an ellipse: from an angle on (0 is to the right, on clockwise), over `sweep`."""

    kind: Literal["arc"]
    size: Changing[Size2] = (300, 300)
    angle: Changing[Degrees] = -90
    sweep: Changing[Degrees] = 270


class Polygon(Model):
    """With corners at even steps on a circle, the first at the top."""

    kind: Literal["polygon"]
    corners: Corners = 6
    radius: Changing[Distance] = 150


class Star(Model):
    """With corners in turn on two circles, the first at the top of the outer one."""

    kind: Literal["star"]
    corners: Corners = 5
    outer: Changing[Distance] = 150
    inner: Changing[Distance] = 70


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

DashLength = Annotated[float, Number("a length in pixels", Counts.LENGTH, gt=0, le=10_000)]
Dashes = Annotated[
    tuple[DashLength, ...],
    Field(min_length=2, max_length=16),
]


class Stroke(Model):
    """The line along the edge of a shape: its width, dashes (on, off, ... in px), ends, joins.

    `dash_shift` moves the dashes along. Seen is what lies `from` so many `to` so many percent of
    its length, moved on by `travel`: keyed, the line draws itself on and off.
    """

    width: Changing[Distance] = 6
    color: Changing[Color] = "#FFFFFF"
    dashes: Dashes | None = None
    dash_shift: Changing[Pixels] = 0
    ends: Literal["flat", "round", "square"] = "round"
    joins: Literal["sharp", "round", "cut"] = "round"
    first: Changing[Percent] = Field(0, alias="from")
    last: Changing[Percent] = Field(100, alias="to")
    travel: Changing[Percent] = 0
