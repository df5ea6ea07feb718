"""Hue and saturation."""

from typing import ClassVar, Literal

import numpy as np

from .. import measures
from ..model import Degrees
from ..tracks import Changing
from ..wording import Said, Wording
from .base import AMOUNT, ANY_AMOUNT, Amount, ColorEffect, Mixing, Values

# How colours turn round the grey axis: W3C Filter Effects 1, feColorMatrix, hueRotate.
_GREY = np.tile([0.213, 0.715, 0.072], (3, 1))
_COS = np.eye(3) - _GREY
_SIN = np.array([[-0.213, -0.715, 0.928], [0.143, 0.140, -0.283], [-0.787, 0.715, 0.072]])


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
        angle = np.radians(values["turn"])
        turned = _GREY + np.cos(angle) * _COS + np.sin(angle) * _SIN
        saturated = _GREY + values["saturation"] / 100 * _COS
        return saturated @ turned, 0.0
