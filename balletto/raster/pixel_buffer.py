"""Buffers: pieces of a picture in memory, on which Skia draws and effects work."""

import math
from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple

import numpy as np
import skia

# Beyond the picture, in px of it: wider smears may lack light from farther off.
MOST_MARGIN = 1500
# Pixels of a buffer, a picture with what its effects reach beyond it: at most; so many times
# those of what it grows from; and so many in any case.
MOST_PIXELS, MOST_TIMES, ANYHOW = 2**25, 64, 2**22

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
    def edges(self) -> Edges:
        """The edges of the picture with its margin."""
        across, down = math.ceil(self.far * self.across), math.ceil(self.far * self.down)
        return -across, -down, self.width + across, self.height + down


@dataclass(frozen=True, eq=False)
class PixelBuffer:
    """Pixels (height, width, 4), BGRA premultiplied, 8 bit: the order that Skia is fastest in.

    left, top: where its first pixel lies, in pixels of the picture in memory
    """

    pixels: np.ndarray
    left: int = 0
    top: int = 0

    @classmethod
    def empty(cls, left: int, top: int, right: int, bottom: int) -> "PixelBuffer":
        """A new transparent buffer between these edges; at least one pixel large."""
        shape = (max(bottom - top, 1), max(right - left, 1), 4)
        return cls(np.zeros(shape, dtype=np.uint8), left, top)

    @property
    def right(self) -> int:
        return self.left + self.pixels.shape[1]

    @property
    def bottom(self) -> int:
        return self.top + self.pixels.shape[0]

    @cached_property
    def surface(self) -> skia.Surface:
        """Skia's view of the same memory."""
        height, width = self.pixels.shape[:2]
        info = skia.ImageInfo.Make(width, height, skia.kBGRA_8888_ColorType, skia.kPremul_AlphaType)
        return skia.Surface.MakeRasterDirect(info, self.pixels)

    @property
    def canvas(self) -> skia.Canvas:
        return self.surface.getCanvas()

    def image(self) -> skia.Image:
        """The pixels as they are now, for drawing elsewhere."""
        return self.surface.makeImageSnapshot()

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
        wider = np.pad(self.pixels, ((up, low), (left, right), (0, 0)))
        return PixelBuffer(wider, self.left - left, self.top - up)

    def continued(self, scale: Scale) -> "PixelBuffer":
        """A copy that goes on beyond its edges, over the margin of the scale, as it is there."""
        across, down = math.ceil(scale.far * scale.across), math.ceil(scale.far * scale.down)
        if not across and not down:
            return self.like(self.pixels.copy())
        wider = np.pad(self.pixels, ((down, down), (across, across), (0, 0)), mode="edge")
        return PixelBuffer(wider, self.left - across, self.top - down)

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

    def filtered(self, color_filter: skia.ColorFilter) -> "PixelBuffer":
        """The buffer with its colours put through a filter."""
        made = PixelBuffer.empty(self.left, self.top, self.right, self.bottom)
        paint = skia.Paint(ColorFilter=color_filter, BlendMode=skia.BlendMode.kSrc)
        made.canvas.drawImage(self.image(), 0, 0, skia.SamplingOptions(), paint)
        return made


def _between(room: int, wanted: int) -> int:
    """How many pixels to add where there is room for some: two at least, which stay empty."""
    return max(2, min(room + 2, wanted))


def times_alpha(pixels: np.ndarray, alpha: np.ndarray) -> np.ndarray:
    """Premultiplied pixels let through by alpha (height, width), 0..255; new."""
    product = pixels.astype(np.uint16) * alpha[..., None]
    # Division by 255, rounded, in whole numbers.
    product += 128
    return ((product + (product >> 8)) >> 8).astype(np.uint8)
