"""Shapes as layers."""

from typing import ClassVar, Literal

from ..forms.stroke import Stroke
from ..letters.style import Fill
from ..shapes import AnyShape
from .base import Layer, LayerMoves


class ShapeLayer(Layer):
    """A layer of one shape, about the layer's origin."""

    rank: ClassVar = 10
    title: ClassVar = "Shape"
    has_outlines: ClassVar = True

    kind: Literal["shape"]
    shape: AnyShape
    fill: Fill = "none"
    stroke: Stroke | None = Stroke()
    moves: LayerMoves = ()
