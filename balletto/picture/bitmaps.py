"""Bitmaps: pictures of pixels, as they fill a place in what is drawn."""

from dataclasses import dataclass, field
from functools import cached_property

import numpy as np
import skia

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

    @property
    def size(self) -> tuple[float, float]:
        return self.own_size or (self.pixels.shape[1], self.pixels.shape[0])

    @cached_property
    def image(self) -> skia.Image:
        """Skia's own copy of it."""
        kinds = skia.kBGRA_8888_ColorType, skia.kPremul_AlphaType
        return skia.Image.fromarray(self.pixels, *kinds)


@dataclass(frozen=True)
class Photo:
    """A bitmap that fills a box of a layer's space; or only its opacity, in one colour."""

    bitmap: Bitmap
    box: Box
    color: str | None = None
