"""Smears: the mean of many copies along a line, or away from a point.

2**k copies take k steps: each adds to what there is the same, shifted twice as far as the step
before did. In half floats, since each step rounds.
"""

import math
from collections.abc import Callable
from typing import Any

import numpy as np
import skia

from ..pixel_buffer import PixelBuffer, Scale

_MOST_STEPS = 9  # 512 copies
_LINEAR = skia.SamplingOptions(skia.FilterMode.kLinear)


def directional_blur(buffer: PixelBuffer, values: dict[str, Any], scale: Scale) -> PixelBuffer:
    """Along `angle`, over `length`."""
    angle = math.radians(values["angle"])
    x, y = (
        values["length"] * scale.across * math.cos(angle),
        values["length"] * scale.down * math.sin(angle),
    )
    steps = _steps_for(math.hypot(x, y))
    if not steps:
        return buffer
    grown = buffer.grown(math.ceil(abs(x) / 2) + 1, math.ceil(abs(y) / 2) + 1)
    count = 2**steps

    def shifted(copies: int) -> skia.Matrix:
        return skia.Matrix.Translate(x * copies / count, y * copies / count)

    # The copies stand at even steps about the place of the original.
    start = skia.Matrix.Translate(-x * (count - 1) / count / 2, -y * (count - 1) / count / 2)
    return _smeared(grown, start, shifted, steps)


def zoom_blur(buffer: PixelBuffer, values: dict[str, Any], scale: Scale) -> PixelBuffer:
    """Away from (`x`, `y`), px of the picture, by up to `amount` percent of the distance."""
    center = (values["x"] * scale.across - buffer.left, values["y"] * scale.down - buffer.top)
    height, width = buffer.pixels.shape[:2]
    corners = [(x - center[0], y - center[1]) for x in (0, width) for y in (0, height)]
    most = values["amount"] / 100
    steps = _steps_for(most * max(math.hypot(*corner) for corner in corners))
    if not steps:
        return buffer
    # Outward as far as it goes, but not beyond the picture.
    left, right = (max(0, math.ceil(most * way)) for way in (center[0], width - center[0]))
    up, down = (max(0, math.ceil(most * way)) for way in (center[1], height - center[1]))
    left, right = min(left, max(buffer.left, 0)), min(right, max(scale.width - buffer.right, 0))
    up, down = min(up, max(buffer.top, 0)), min(down, max(scale.height - buffer.bottom, 0))
    wider = np.pad(buffer.pixels, ((up, down), (left, right), (0, 0)))
    grown = PixelBuffer(wider, buffer.left - left, buffer.top - up)
    about = (center[0] + left, center[1] + up)
    rate = (1 + most) ** (1 / 2**steps)

    def scaled(copies: int) -> skia.Matrix:
        factor = rate**copies
        matrix = skia.Matrix.Translate(*about)
        matrix.preScale(factor, factor)
        matrix.preTranslate(-about[0], -about[1])
        return matrix

    return _smeared(grown, skia.Matrix(), scaled, steps)


def _steps_for(pixels: float) -> int:
    """So many that copies are at most a pixel apart."""
    return min(_MOST_STEPS, math.ceil(math.log2(pixels))) if pixels > 1 else 0


def _smeared(
    buffer: PixelBuffer, start: skia.Matrix, further: Callable[[int], skia.Matrix], steps: int
) -> PixelBuffer:
    """The mean of 2**steps copies, the nth of which is `further(n)` away from `start`."""
    height, width = buffer.pixels.shape[:2]
    info = skia.ImageInfo.Make(width, height, skia.kRGBA_F16_ColorType, skia.kPremul_AlphaType)
    half = skia.Paint(BlendMode=skia.BlendMode.kPlus, Alphaf=0.5)
    image = _moved(info, buffer.image(), start)
    for step in range(steps):
        surface = skia.Surface.MakeRaster(info)
        canvas = surface.getCanvas()
        canvas.drawImage(image, 0, 0, skia.SamplingOptions(), half)
        canvas.concat(further(2**step))
        canvas.drawImage(image, 0, 0, _LINEAR, half)
        image = surface.makeImageSnapshot()
    made = PixelBuffer.empty(buffer.left, buffer.top, buffer.right, buffer.bottom)
    made.canvas.drawImage(image, 0, 0)
    return made


def _moved(info: skia.ImageInfo, image: skia.Image, matrix: skia.Matrix) -> skia.Image:
    surface = skia.Surface.MakeRaster(info)
    canvas = surface.getCanvas()
    canvas.concat(matrix)
    canvas.drawImage(image, 0, 0, _LINEAR)
    return surface.makeImageSnapshot()
