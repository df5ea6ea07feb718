"""A line around all of a layer together."""

import math
from typing import Annotated, ClassVar, Literal

import numpy as np

from ...raster.pixel_buffer import PixelBuffer, Scale
from .. import measures
from ..model import Color, Counts, Number
from ..tracks import Changing
from ..wording import Said, Wording
from .base import WIDEST, Effect, Values

LineWidth = Annotated[float, Number("a number of pixels", Counts.PICTURE_LENGTH, ge=0, le=WIDEST)]
# A disc is widened by a ring of discs, twice its radius away, to one of three times its radius.
# There they stand a third of their radius apart: what is left between is below half a pixel.
_APART = 1 / 3


class Outline(Effect):
    """A line of `width` around all of the layer together, beneath it."""

    rank: ClassVar = 90
    limits: ClassVar = {"width": (0, WIDEST)}
    nothing_at: ClassVar = "width"
    wording: ClassVar = Wording(
        "Outline of the whole",
        "A line of {width} around all of it, {color}.",
        {
            "width": Said("Width of the line", measures.LENGTH_PX, 6),
            "color": Said("Colour of the line", is_color=True),
        },
    )

    kind: Literal["outline"]
    width: Changing[LineWidth] = 6
    color: Changing[Color] = "#FFFFFF"

    @classmethod
    def apply(cls, buffer: PixelBuffer, values: Values, scale: Scale) -> PixelBuffer:
        """The buffer on a copy of itself in `color` that reaches `width` further to all sides."""
        across, down = values["width"] * scale.across, values["width"] * scale.down
        if max(across, down) < 0.5:
            return buffer
        beyond = math.ceil(across), math.ceil(down)
        grown = buffer.grown(*beyond)
        alpha = grown.pixels[..., 3]
        wide = alpha
        wider = max(across, down)
        for radius in _rings(round(wider)):
            narrow, wide = wide, wide.copy()
            for x, y in _offsets(radius * across / wider, radius * down / wider):
                _raise(wide, narrow, x, y)
        color = [int(values["color"][at : at + 2], 16) for at in (5, 3, 1)] + [255]
        line = wide[..., None] * np.array(color, dtype=np.uint16) // 255
        # The original over the line, premultiplied.
        rest = 255 - alpha[..., None].astype(np.uint16)
        return grown.like(grown.pixels + (line * rest + 127) // 255)

    @classmethod
    def margin(cls, values: Values) -> float:
        return values["width"]


def _rings(width: int) -> list[int]:
    """The radii of rings that one after another make a disc of a radius."""
    rings = []
    while width > 1:
        rings.append(width * 2 // 3)
        width -= rings[-1]
    return [width, *reversed(rings)]


def _offsets(across: float, down: float) -> list[tuple[int, int]]:
    """Whole shifts on a ring, as close as the discs need that stand on it."""
    count = max(8, math.ceil(2 * math.pi * 2 / _APART))
    angles = 2 * np.pi * np.arange(count) / count
    shifts = zip(across * np.cos(angles), down * np.sin(angles), strict=True)
    return list(dict.fromkeys((round(x), round(y)) for x, y in shifts))


def _raise(wide: np.ndarray, alpha: np.ndarray, x: int, y: int) -> None:
    """Raises `wide` to `alpha` shifted, which has room around it for that."""
    height, width = alpha.shape
    there = wide[max(y, 0) : height + min(y, 0), max(x, 0) : width + min(x, 0)]
    here = alpha[max(-y, 0) : height - max(y, 0), max(-x, 0) : width - max(x, 0)]
    np.maximum(there, here, out=there)
