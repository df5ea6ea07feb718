"""Mattes: a layer that says where another is seen. The data only; what draws
them is balletto.picture.composing.masks."""

from typing import Literal

from ..model import Identifier, Model


class Matte(Model):
    """The layer `layer` says where this one is seen: by its opacity, or by how light it is. It is
    not drawn itself, unless `visible`."""

    layer: Identifier
    by: Literal["alpha", "luminance"] = "alpha"
    invert: bool = False
    visible: bool = False
