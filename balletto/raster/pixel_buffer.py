"""Buffers: pieces of a picture in memory, on which Skia draws and effects work."""

import math
from collections.abc import Callable
from functools import cached_property
from typing import NamedTuple

import cv2
import numpy as np
import skia

# Beyond the picture, in px of it: wider smears may lack light from farther off.
MOST_MARGIN = 1500
# Pixels of a buffer, a picture with what its effects reach beyond it: at most; so many times
# those of what it grows from; and so many in any case.
MOST_PIXELS, MOST_TIMES, ANYHOW = 2**25, 64, 2**22

_KIND = (skia.kBGRA_8888_ColorType, skia.kPremul_AlphaType)
AS_IT_IS = skia.SamplingOptions()  # pixel by pixel

Edges = tuple[int, int, int, int]  # left, top, right, bottom


def _share(width: int, height: int, across: float, down: float) -> float:
    """How much of a growth on all sides there is memory for, 0..1."""
    a, b = 4 * across * down, 2 * (width * down + height * across)
    own = width * height
    room = max(min(MOST_PIXELS, max(MOST_TIMES * own, ANYHOW)) - own, 0)
    if a + b <= room:
        return 1.0
    return (math.sqrt(b * b + 4 * a * room) - b) / (2 * a) if a else room / b


class Scale(NamedTuple):
    """How many pixels in memory make one of the scene's picture, and how many there are of it."""

    across: float
    down: float
    width: int
    height: int
    margin: float = 0.0  # px of the scene around the picture that may still come into sight

    @property
    def far(self) -> float:
        """The margin, as far as there is memory for: no more than MOST_PIXELS in all."""
        far = min(self.margin, MOST_MARGIN)
        return far * _share(self.width, self.height, far * self.across, far * self.down)

    @property
    def reach(self) -> tuple[int, int]:
        """The same across and down in pixels in memory."""
        return math.ceil(self.far * self.across), math.ceil(self.far * self.down)

    @property
    def edges(self) -> Edges:
        """The edges of the picture with its margin."""
        across, down = self.reach
        return -across, -down, self.width + across, self.height + down


class PixelBuffer:
    """Pixels (height, width, 4), BGRA premultiplied, 8 bit: the order that Skia is fastest in.

    left, top, right, bottom: where it lies, in pixels of the picture in memory
    """

    def __init__(self, pixels: np.ndarray, left: int = 0, top: int = 0):
        self.pixels = pixels
        self.left, self.top = left, top
        self.right, self.bottom = left + pixels.shape[1], top + pixels.shape[0]

    @classmethod
    def empty(cls, left: int, top: int, right: int, bottom: int) -> "PixelBuffer":
        """A new transparent buffer between these edges; at least one pixel large."""
        shape = (max(bottom - top, 1), max(right - left, 1), 4)
        return cls(np.zeros(shape, dtype=np.uint8), left, top)

    @property
    def size(self) -> tuple[int, int]:
        """Width and height in pixels."""
        return self.right - self.left, self.bottom - self.top

    @cached_property
    def surface(self) -> skia.Surface:
        """Skia's view of the same memory."""
        height, width = self.pixels.shape[:2]
        info = skia.ImageInfo.Make(width, height, *_KIND)
        return skia.Surface.MakeRasterDirect(info, self.pixels)

    @property
    def canvas(self) -> skia.Canvas:
        return self.surface.getCanvas()

    def put_on(
        self,
        canvas: skia.Canvas,
        left: int = 0,
        top: int = 0,
        paint: skia.Paint | None = None,
    ) -> None:
        """Draws the pixels on a canvas, the first of them there."""
        canvas.drawImage(image_of(self.pixels), left, top, AS_IT_IS, paint)

    def grown(self, across: int, down: int, edges: Edges | None = None) -> "PixelBuffer":
        """A copy with so many more transparent pixels on every side; beyond `edges` just two."""
        height, width = self.pixels.shape[:2]
        share = _share(width, height, across, down)
        left = right = across = int(across * share)
        up = low = down = int(down * share)
        if edges is not None:
            left, right = (
                _between(room, across) for room in (self.left - edges[0], edges[2] - self.right)
            )
            up, low = (
                _between(room, down) for room in (self.top - edges[1], edges[3] - self.bottom)
            )
        wider = cv2.copyMakeBorder(self.pixels, up, low, left, right, cv2.BORDER_CONSTANT)
        return PixelBuffer(wider, self.left - left, self.top - up)

    def seen_through(self, edges: Edges) -> "PixelBuffer":
        """What lies between edges, as new pixels; beyond its own it goes on as it is there."""
        inner = self.within(edges)
        around = (inner.top - edges[1], edges[3] - inner.bottom, inner.left - edges[0])
        right = edges[2] - inner.right
        wider = cv2.copyMakeBorder(inner.pixels, *around, right, cv2.BORDER_REPLICATE)
        return PixelBuffer(wider, edges[0], edges[1])

    def part(self, left: int, top: int, right: int, bottom: int) -> np.ndarray:
        """A view of the pixels between these edges; empty if there are none."""
        rows = slice(max(top - self.top, 0), max(bottom - self.top, 0))
        columns = slice(max(left - self.left, 0), max(right - self.left, 0))
        return self.pixels[rows, columns]

    def within(self, edges: Edges) -> "PixelBuffer":
        """What lies between the edges left, top, right, bottom; itself if that is all."""
        left, top = max(self.left, edges[0]), max(self.top, edges[1])
        right, bottom = min(self.right, edges[2]), min(self.bottom, edges[3])
        if (left, top, right, bottom) == (self.left, self.top, self.right, self.bottom):
            return self
        if left >= right or top >= bottom:
            return PixelBuffer.empty(left, top, left, top)
        rows, columns = (
            slice(top - self.top, bottom - self.top),
            slice(left - self.left, right - self.left),
        )
        return PixelBuffer(np.ascontiguousarray(self.pixels[rows, columns]), left, top)

    def like(self, pixels: np.ndarray) -> "PixelBuffer":
        """Other pixels at the same place."""
        return PixelBuffer(np.ascontiguousarray(pixels, dtype=np.uint8), self.left, self.top)

    def changed(self, change: Callable[[np.ndarray], np.ndarray]) -> "PixelBuffer":
        """The buffer with each of its pixels changed for itself: `change` gives new ones."""
        return self.like(change(self.pixels))


def _between(room: int, wanted: int) -> int:
    """How many pixels to add where there is room for some: two at least, which stay empty."""
    return max(2, min(room + 2, wanted))


def image_of(pixels: np.ndarray, is_opaque: bool = False) -> skia.Image:
    """Pixels (height, width, 4) as Skia draws them. They are not copied, and Skia keeps no hold of
    them: whoever has the image must have them as long, or the process ends."""
    alpha = skia.kOpaque_AlphaType if is_opaque else skia.kPremul_AlphaType
    return skia.Image.fromarray(pixels, skia.kBGRA_8888_ColorType, alpha, copy=False)


def product(one: np.ndarray, other: np.ndarray) -> np.ndarray:
    """Shares of shares, all as 0..255."""
    multiplied: np.ndarray = cv2.multiply(one, other, scale=1 / 255)
    return multiplied


def times_alpha(pixels: np.ndarray, alpha: np.ndarray) -> np.ndarray:
    """Premultiplied pixels let through by alpha (height, width), 0..255; new."""
    return product(pixels, cv2.merge((alpha,) * 4))
