"""A line around all of a layer together."""

import math
from typing import Annotated, ClassVar, Literal

import cv2
import numpy as np

from ...raster.coloring import in_one_color
from ...raster.pixel_buffer import PixelBuffer, Scale, product
from ..model import Color, Counts, Number
from ..values import measures
from ..values.tracks import Changing
from ..values.wording import Said, Wording
from .base import WIDEST, Effect, Values

LineWidth = Annotated[float, Number("a number of pixels", Counts.PICTURE_LENGTH, ge=0, le=WIDEST)]
# A disc is widened by a ring of discs, twice its radius away, to one of three times its radius.
# There they stand a third of their radius apart: what is left between is below half a pixel.
_APART = 1 / 3


class OutlineEffect(Effect):
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
        grown = buffer.grown(math.ceil(across), math.ceil(down))
        alpha = cv2.extractChannel(grown.pixels, 3)
        wide = alpha
        wider = max(across, down)
        for radius in _rings(round(wider)):
            wide = cv2.dilate(wide, _ring(radius * across / wider, radius * down / wider))
        # What is seen of the line behind the original, premultiplied.
        line = in_one_color(product(wide, 255 - alpha), values["color"])
        return grown.like(cv2.add(grown.pixels, line))

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


def _ring(across: float, down: float) -> np.ndarray:
    """The middle and whole shifts on a ring, as close as the discs need that stand on it: as 1
    among 0 (rows, columns)."""
    count = max(8, math.ceil(2 * math.pi * 2 / _APART))
    angles = 2 * np.pi * np.arange(count) / count
    columns, rows = np.round(across * np.cos(angles)), np.round(down * np.sin(angles))
    far = int(np.abs(columns).max()), int(np.abs(rows).max())
    ring = np.zeros((2 * far[1] + 1, 2 * far[0] + 1), dtype=np.uint8)
    ring[rows.astype(int) + far[1], columns.astype(int) + far[0]] = 1
    ring[far[1], far[0]] = 1
    return ring
