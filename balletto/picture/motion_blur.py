"""The mean of several drawings in linear light: the blur of motion (model, section 9)."""

from collections.abc import Callable, Iterable, Sequence

import numpy as np
import skia

from ..raster.pixel_buffer import PixelBuffer
from .canvas import DrawItem

Draw = Callable[[PixelBuffer, Iterable[DrawItem], skia.Canvas], None]


def mean_in_linear_light(
    buffer: PixelBuffer, samples: Sequence[Sequence[DrawItem]], draw: Draw
) -> PixelBuffer:
    """An empty buffer, filled with the mean of what samples of items make, premultiplied.

    Where all is of one colour, the mean in linear light has that colour and the mean opacity, as
    has the mean of the plain numbers, which is much quicker.
    """
    if _is_of_one_color(samples):
        return _plain_mean(buffer, samples, draw)
    return _linear_mean(buffer, samples, draw)


def _is_of_one_color(samples: Sequence[Sequence[DrawItem]]) -> bool:
    colors = set()
    for items in samples:
        for item in items:
            colors.add(item.fill)
            colors.add(item.line.color if item.line else item.fill)
    colors.discard(None)
    return len(colors) <= 1 and all(isinstance(color, str) for color in colors)


def _plain_mean(
    buffer: PixelBuffer, samples: Sequence[Sequence[DrawItem]], draw: Draw
) -> PixelBuffer:
    total = np.zeros(buffer.pixels.shape, dtype=np.uint16)  # 255 times at most 64 samples
    one = PixelBuffer.empty(buffer.left, buffer.top, buffer.right, buffer.bottom)
    for items in samples:
        one.canvas.clear(0)
        draw(one, items, one.canvas)
        total += one.pixels
    return buffer.like((total + len(samples) // 2) // len(samples))


def _linear_mean(
    buffer: PixelBuffer, samples: Sequence[Sequence[DrawItem]], draw: Draw
) -> PixelBuffer:
    linear, plain = skia.ColorSpace.MakeSRGBLinear(), skia.ColorSpace.MakeSRGB()
    surface = skia.Surface.MakeRaster(_info(buffer, skia.kRGBA_F16_ColorType, linear))
    canvas = surface.getCanvas()
    share = skia.Paint(Alphaf=1 / len(samples), BlendMode=skia.BlendMode.kPlus)
    for items in samples:
        canvas.resetMatrix()
        canvas.saveLayer(None, share)
        draw(buffer, items, canvas)
        canvas.restore()
    made = PixelBuffer.empty(buffer.left, buffer.top, buffer.right, buffer.bottom)
    wanted = _info(buffer, skia.kBGRA_8888_ColorType, plain)
    surface.makeImageSnapshot().readPixels(wanted, made.pixels, made.pixels.strides[0], 0, 0)
    return made


def _info(
    buffer: PixelBuffer, color_type: skia.ColorType, space: skia.ColorSpace
) -> skia.ImageInfo:
    height, width = buffer.pixels.shape[:2]
    return skia.ImageInfo.Make(width, height, color_type, skia.kPremul_AlphaType, space)
