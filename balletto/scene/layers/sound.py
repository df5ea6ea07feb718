"""Sounds as layers."""

from typing import ClassVar, Literal

from ..media import FileName, Seconds
from ..model import Decibels
from ..tracks import Changing
from .base import Layer


class SoundLayer(Layer):
    """A layer that is heard, from a file (WAV, FLAC, MP3, OGG): louder by `gain` decibels, fading
    in at its beginning and out at its end."""

    rank: ClassVar = 50
    title: ClassVar = "Sound"
    is_heard: ClassVar = True
    draws_itself: ClassVar = False
    has_place: ClassVar = False

    kind: Literal["sound"]
    file: FileName
    start: Seconds = 0
    gain: Changing[Decibels] = 0
    fade_in: Seconds = 0
    fade_out: Seconds = 0

    @property
    def words(self) -> str:
        """The name of its file."""
        return self.file
