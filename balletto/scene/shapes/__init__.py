"""Shapes: lines and forms that a shape layer draws. A kind is a module of this folder, with its
model, its words and its outline."""

from ..kinds import kinds_in
from ..model import kind_of, one_of
from .base import Shape

__all__ = ["SHAPE_KINDS", "AnyShape", "Shape"]

SHAPE_KINDS = kinds_in(__name__, __path__, Shape)
AnyShape = one_of(kind_of, f"a shape of one of the kinds {', '.join(SHAPE_KINDS)}", **SHAPE_KINDS)
