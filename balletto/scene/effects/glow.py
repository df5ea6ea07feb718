"""Light around what is drawn."""

from functools import partial
from typing import ClassVar, Literal

import cv2

from ...raster.blurring import blurred
from ...raster.coloring import added, colored
from ...raster.pixel_buffer import PixelBuffer, Scale
from ...raster.svg_filters import flooded, gaussian_blur, number
from ..model import Color
from ..values import measures
from ..values.tracks import Changing
from ..values.wording import Said, Wording
from .base import AMOUNT, ANY_AMOUNT, SOFTEST, Amount, Effect, Softness, Values

_VALUES = {
    "strength": Said("Strength of the glow", AMOUNT, 100),
    "radius": Said("Reach of the glow", measures.BLUR, 24),
}
_COLOR = {"color": Said("Colour of the glow", is_color=True)}


class Glow(Effect):
    """Light around what is drawn: blurred by `radius` and added, `strength` percent of it; of its
    own colours, or of one."""

    rank: ClassVar = 40
    limits: ClassVar = {"radius": (0, SOFTEST), "strength": ANY_AMOUNT}
    wording: ClassVar = Wording(
        "Glow", "Glows {strength} strong, {radius} around, {color}.", {**_VALUES, **_COLOR}
    )
    _colorless: ClassVar = Wording("Glow", "Glows {strength} strong, {radius} around.", _VALUES)

    kind: Literal["glow"]
    radius: Changing[Softness] = 24
    strength: Changing[Amount] = 100
    color: Changing[Color] | None = None

    @property
    def said(self) -> Wording:
        return self._colorless if self.color is None else self.wording

    @classmethod
    def apply(cls, buffer: PixelBuffer, values: Values, scale: Scale) -> PixelBuffer:
        soft = blurred(buffer, values["radius"], values["radius"], scale)
        if values["color"]:
            soft = colored(soft, values["color"])
        strength = values["strength"] / 100
        lit = soft.within(scale.edges).changed(partial(cv2.convertScaleAbs, alpha=strength))
        return added(lit, buffer)

    @classmethod
    def margin(cls, values: Values) -> float:
        return 3 * values["radius"]

    @classmethod
    def svg_filter(cls, values: Values) -> str:
        source = flooded(values["color"]) if values["color"] else ""
        strength = number(values["strength"] / 100)
        return (
            f"{source}{gaussian_blur(values['radius'])}"
            f'<feComposite in2="SourceGraphic" operator="arithmetic" k2="{strength}" k3="1"/>'
        )
