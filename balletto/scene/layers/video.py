"""Videos as layers."""

from typing import ClassVar, Literal

from ..media import Played
from .base import Layer, LayerMoves


class VideoLayer(Played, Layer):
    """A layer of a video from a file, which begins at the first frame of its span."""

    rank: ClassVar = 30
    title: ClassVar = "Video"

    kind: Literal["video"]
    moves: LayerMoves = ()

    @property
    def words(self) -> str:
        """The name of its file."""
        return self.file
