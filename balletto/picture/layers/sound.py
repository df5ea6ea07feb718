"""Sounds: they are heard, not seen."""

from typing import ClassVar

from ...scene.layers.sound import SoundLayer
from .base import PreparedLayer


class PreparedSound(PreparedLayer):
    """Nothing to draw."""

    prepares: ClassVar = SoundLayer
