"""A Gaussian blur."""

from typing import ClassVar, Literal

from ...raster.blurring import blurred
from ...raster.pixel_buffer import PixelBuffer, Scale
from ...raster.svg_filters import gaussian_blur
from ..values import measures
from ..values.tracks import Changing
from ..values.wording import Said, Wording
from .base import SOFTEST, Effect, Softness, Values


class Blur(Effect):
    """A Gaussian blur: `x` and `y` are its deviations across and down."""

    rank: ClassVar = 10
    limits: ClassVar = {"x": (0, SOFTEST), "y": (0, SOFTEST)}
    wording: ClassVar = Wording(
        "Blur",
        "Blurred {x} across and {y} down.",
        {"x": Said("Blur across", measures.BLUR, 12), "y": Said("Blur down", measures.BLUR, 12)},
    )

    kind: Literal["blur"]
    x: Changing[Softness] = 12
    y: Changing[Softness] = 12

    @classmethod
    def apply(cls, buffer: PixelBuffer, values: Values, scale: Scale) -> PixelBuffer:
        return blurred(buffer, values["x"], values["y"], scale)

    @classmethod
    def margin(cls, values: Values) -> float:
        return 3 * max(values["x"], values["y"])

    @classmethod
    def svg_filter(cls, values: Values) -> str:
        return gaussian_blur(values["x"], values["y"])
