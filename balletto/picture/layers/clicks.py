"""Clicks: they are heard, not seen."""

from typing import ClassVar

from ...scene.layers.clicks import ClicksLayer
from .base import PreparedLayer


class PreparedClicks(PreparedLayer):
    """Nothing to draw."""

    prepares: ClassVar = ClicksLayer
