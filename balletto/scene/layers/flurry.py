"""Flurries as layers."""

from typing import ClassVar, Literal

from ..forms.flurry import Flurry
from .base import Layer, LayerMoves


class FlurryLayer(Layer):
    """A layer of many small things that are thrown from its origin."""

    rank: ClassVar = 15
    title: ClassVar = "Flurry"

    kind: Literal["flurry"]
    flurry: Flurry
    moves: LayerMoves = ()
