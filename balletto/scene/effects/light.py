"""Brightness and contrast."""

from typing import ClassVar, Literal

import numpy as np

from ..values.tracks import Changing
from ..values.wording import Said, Wording
from .base import AMOUNT, ANY_AMOUNT, Amount, ColorEffect, Mixing, Values


class Light(ColorEffect):
    """`brightness` percent of what it was, then `contrast` percent of the distance from the middle
    grey."""

    rank: ClassVar = 80
    limits: ClassVar = {"brightness": ANY_AMOUNT, "contrast": ANY_AMOUNT}
    wording: ClassVar = Wording(
        "Brightness and contrast",
        "{brightness} bright, {contrast} of contrast.",
        {
            "brightness": Said("Brightness", AMOUNT, 100),
            "contrast": Said("Contrast", AMOUNT, 100),
        },
    )

    kind: Literal["light"]
    brightness: Changing[Amount] = 100
    contrast: Changing[Amount] = 100

    @classmethod
    def mixing(cls, values: Values) -> Mixing:
        bright, contrast = values["brightness"] / 100, values["contrast"] / 100
        return bright * contrast * np.eye(3), 0.5 - 0.5 * contrast
