"""Hue and saturation."""

from typing import ClassVar, Literal

from ...raster.svg_filters import hues_turned, saturated
from ..model import Degrees
from ..values import measures
from ..values.tracks import Changing
from ..values.wording import Said, Wording
from .base import AMOUNT, ANY_AMOUNT, Amount, ColorEffect, Mixing, Values


class Hue(ColorEffect):
    """Colours turned round the circle of hues by `turn`, and made fuller or greyer."""

    rank: ClassVar = 70
    limits: ClassVar = {"saturation": ANY_AMOUNT}
    wording: ClassVar = Wording(
        "Hue and saturation",
        "Hues turned by {turn}, {saturation} full.",
        {
            "turn": Said("Turn of the hues", measures.DEGREES, 0),
            "saturation": Said("Saturation", AMOUNT, 100),
        },
    )

    kind: Literal["hue"]
    turn: Changing[Degrees] = 0
    saturation: Changing[Amount] = 100

    @classmethod
    def mixing(cls, values: Values) -> Mixing:
        turned = hues_turned(values["turn"])
        return saturated(values["saturation"] / 100) @ turned, 0.0
