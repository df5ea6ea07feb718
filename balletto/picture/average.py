"""The mean of several drawings in linear light: the blur of motion (model, section 9)."""

from collections.abc import Callable, Iterable, Sequence

import numpy as np
import skia

from .canvas import Letter
from .pane import Pane

Draw = Callable[[Pane, Iterable[Letter], skia.Canvas], None]


def mean_in_linear_light(pane: Pane, samples: Sequence[Sequence[Letter]], draw: Draw) -> Pane:
    """An empty pane, filled with the mean of what samples of letters make, premultiplied.

    Where all is of one colour, the mean in linear light has that colour and the mean opacity, as
    has the mean of the plain numbers, which is much quicker.
    """
    if _is_of_one_color(samples):
        return _plain_mean(pane, samples, draw)
    return _linear_mean(pane, samples, draw)


def _is_of_one_color(samples: Sequence[Sequence[Letter]]) -> bool:
    colors = set()
    for letters in samples:
        for letter in letters:
            colors.add(letter.fill)
            colors.add(letter.line.color if letter.line else letter.fill)
    colors.discard(None)
    return len(colors) <= 1 and all(isinstance(color, str) for color in colors)


def _plain_mean(pane: Pane, samples: Sequence[Sequence[Letter]], draw: Draw) -> Pane:
    total = np.zeros(pane.pixels.shape, dtype=np.uint16)  # 255 times at most 64 samples
    one = Pane.empty(pane.left, pane.top, pane.right, pane.bottom)
    for letters in samples:
        one.canvas.clear(0)
        draw(one, letters, one.canvas)
        total += one.pixels
    return pane.like((total + len(samples) // 2) // len(samples))


def _linear_mean(pane: Pane, samples: Sequence[Sequence[Letter]], draw: Draw) -> Pane:
    linear, plain = skia.ColorSpace.MakeSRGBLinear(), skia.ColorSpace.MakeSRGB()
    surface = skia.Surface.MakeRaster(_info(pane, skia.kRGBA_F16_ColorType, linear))
    canvas = surface.getCanvas()
    share = skia.Paint(Alphaf=1 / len(samples), BlendMode=skia.BlendMode.kPlus)
    for letters in samples:
        canvas.resetMatrix()
        canvas.saveLayer(None, share)
        draw(pane, letters, canvas)
        canvas.restore()
    made = Pane.empty(pane.left, pane.top, pane.right, pane.bottom)
    wanted = _info(pane, skia.kBGRA_8888_ColorType, plain)
    surface.makeImageSnapshot().readPixels(wanted, made.pixels, made.pixels.strides[0], 0, 0)
    return made


def _info(pane: Pane, color_type: skia.ColorType, space: skia.ColorSpace) -> skia.ImageInfo:
    height, width = pane.pixels.shape[:2]
    return skia.ImageInfo.Make(width, height, color_type, skia.kPremul_AlphaType, space)
