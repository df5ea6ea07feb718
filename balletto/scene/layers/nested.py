"""Scenes as layers of others."""

from typing import ClassVar, Literal

from ..media import After
from ..model import Identifier, InnerFrames
from .base import Layer, LayerMoves


class NestedLayer(Layer):
    """A layer of a whole scene, one of those that this scene has in `scenes`. At the first frame of
    its span the other is at its frame `shift`."""

    rank: ClassVar = 40
    title: ClassVar = "Scene"

    kind: Literal["scene"]
    scene: Identifier
    shift: InnerFrames = 0
    after: After = "hold"
    moves: LayerMoves = ()
