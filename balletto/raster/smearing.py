"""Smears: the mean of many copies along a line, or away from a point.

2**k copies take k steps: each adds to what there is the same, shifted twice as far as the step
before did. In half floats, since each step rounds.
"""

import math
from collections.abc import Callable

import skia

from .pixel_buffer import PixelBuffer

_MOST_STEPS = 9  # 512 copies
_LINEAR = skia.SamplingOptions(skia.FilterMode.kLinear)


def steps_for(pixels: float) -> int:
    """So many that copies are at most a pixel apart."""
    return min(_MOST_STEPS, math.ceil(math.log2(pixels))) if pixels > 1 else 0


def smeared(
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
