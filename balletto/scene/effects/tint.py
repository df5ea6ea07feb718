"""Colours toward one."""

from typing import ClassVar, Literal

import numpy as np

from ...raster.coloring import rgb
from ..model import Color, Share
from ..values.measures import Measure
from ..values.tracks import Changing
from ..values.wording import Said, Wording
from .base import ColorEffect, Mixing, Values

_LUMA = np.array([0.2126, 0.7152, 0.0722])  # of BT.709
_SHARE = Measure(" %", drag=0.5, low=0, high=100)


class Tint(ColorEffect):
    """All colours toward one, which dark parts take darker: `amount` percent of the way to it
    times the luma."""

    rank: ClassVar = 60
    limits: ClassVar = {"amount": (0, 100)}
    wording: ClassVar = Wording(
        "Tint",
        "Tinted {color} by {amount}.",
        {
            "color": Said("Colour of the tint", is_color=True),
            "amount": Said("Amount of the tint", _SHARE, 100),
        },
    )

    kind: Literal["tint"]
    color: Changing[Color] = "#F2B705"
    amount: Changing[Share] = 100

    @classmethod
    def mixing(cls, values: Values) -> Mixing:
        share = values["amount"] / 100
        return (1 - share) * np.eye(3) + share * np.outer(rgb(values["color"]), _LUMA), 0.0
