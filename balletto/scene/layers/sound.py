"""Sounds as layers."""

from typing import ClassVar, Literal

import numpy as np

from ..media import FileName, Seconds
from ..model import Decibels
from ..values.tracks import Changing, value_at
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

    def amplitude(self, times: np.ndarray) -> np.ndarray:
        """How many times as loud as its file it is by its gain, at frames of the scene."""
        amplitude: np.ndarray = 10 ** (
            np.broadcast_to(value_at(self.gain, times), times.shape) / 20
        )
        return amplitude

    def faded(self, since: np.ndarray, lasts: float) -> np.ndarray:
        """How loud it is by its fades, even in amplitude, so many seconds since its beginning, of
        all that it lasts."""
        shares = np.ones(since.shape)
        if self.fade_in:
            shares *= np.clip(since / self.fade_in, 0, 1)
        if self.fade_out:
            shares *= np.clip((lasts - since) / self.fade_out, 0, 1)
        return shares
