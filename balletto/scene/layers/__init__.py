"""Layers: what a scene is made of, from titles to groups. A kind is a module of this folder; how it
is drawn is told by the module of the same name in balletto/picture/layers."""

from ..kinds import kinds_in
from ..model import kind_of, one_of
from .base import Layer

__all__ = ["LAYER_KINDS", "AnyLayer", "Layer"]

LAYER_KINDS = kinds_in(__name__, __path__, Layer)
AnyLayer = one_of(kind_of, f"a layer of one of the kinds {', '.join(LAYER_KINDS)}", **LAYER_KINDS)
