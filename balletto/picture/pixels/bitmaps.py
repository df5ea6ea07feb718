"""Bitmaps: pictures of pixels, as they fill a place in what is drawn."""

import math
from dataclasses import dataclass, field
from functools import cached_property

import cv2
import numpy as np
import skia

from ...raster.blurring import halved_pixels
from ...raster.pixel_buffer import image_of

_NONE = np.zeros((0, 0, 4), dtype=np.uint8)
_LEVELS = 16  # between a picture and its half
_SMALLEST = 2.0**-12

# Left, top, right, bottom in px.
Box = tuple[float, float, float, float]


@dataclass(frozen=True)
class Bitmap:
    """A picture of pixels (height, width, 4), BGRA premultiplied; two with one `key` are alike.

    own_size: how large it means to be, where that is not one for each pixel
    """

    key: str
    pixels: np.ndarray = field(compare=False, repr=False)
    own_size: tuple[float, float] | None = None
    _smaller: tuple[int, np.ndarray] = field(
        default=(0, _NONE), init=False, compare=False, repr=False
    )

    @property
    def size(self) -> tuple[float, float]:
        return self.own_size or (self.pixels.shape[1], self.pixels.shape[0])

    @cached_property
    def is_opaque(self) -> bool:
        """Whether nothing shines through it."""
        return bool(cv2.extractChannel(self.pixels, 3).min() == 255)

    def smaller(self, scale: float) -> tuple[np.ndarray, int]:
        """Pixels of it that may be drawn `scale` times as large as its own without skipping any:
        halved as often as that takes, and softened as much as lies between two halvings. And how
        many of its own one of them is wide."""
        level = round(max(0.0, -math.log2(max(scale, _SMALLEST))) * _LEVELS)
        if level == 0:
            return self.pixels, 1
        known = self._smaller  # once: another thread may put another in its place meanwhile
        if known[0] != level:
            known = (level, _halved(self.pixels, level / _LEVELS))
            object.__setattr__(self, "_smaller", known)
        return known[1], 1 << level // _LEVELS

    @cached_property
    def image(self) -> skia.Image:
        """The same pixels as Skia draws them: as long as the bitmap is there."""
        return image_of(self.pixels)


@dataclass(frozen=True)
class Photo:
    """A bitmap that fills a box of a layer's space; or only its opacity, in one colour."""

    bitmap: Bitmap
    box: Box
    color: str | None = None


def _halved(pixels: np.ndarray, times: float) -> np.ndarray:
    """Pixels halved so many times; between two of them, softened so much of the way to the next."""
    whole = int(times)
    larger = halved_pixels(pixels, whole, whole, cv2.BORDER_REPLICATE)
    share = times - whole
    if not share:
        return larger
    smaller = halved_pixels(larger, 1, 1, cv2.BORDER_REPLICATE)
    size = (smaller.shape[1] * 2, smaller.shape[0] * 2)
    soft = cv2.resize(smaller, size, interpolation=cv2.INTER_LINEAR)
    soft = soft[: larger.shape[0], : larger.shape[1]]
    return cv2.addWeighted(soft, share, larger, 1 - share, 0)
