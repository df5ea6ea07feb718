"""Adjustments: effects on what lies below, as strong as they are opaque."""

from typing import ClassVar

from ...scene.layers.adjustment import Adjustment
from .group import PreparedGroup


class PreparedAdjustment(PreparedGroup):
    """An adjustment made ready: how opaque it is."""

    prepares: ClassVar = Adjustment
