"""Still pictures as layers."""

from typing import ClassVar, Literal

from ..media import FileName
from .base import Layer, LayerMoves


class PictureLayer(Layer):
    """A layer of a still picture from a file (PNG, JPEG, WebP, SVG), its middle at the layer's
    origin, a pixel of it as large as one of the scene."""

    rank: ClassVar = 20
    title: ClassVar = "Picture"

    kind: Literal["picture"]
    file: FileName
    moves: LayerMoves = ()

    @property
    def words(self) -> str:
        """The name of its file."""
        return self.file
