"""Sprites: small pictures of letters, put in many places. Placing a picture takes a tenth of the
time that filling its outline does, and far less than softening it.

They serve what need not be in its place to less than a fraction of a pixel: the copies of a trail
and the samples of an open shutter, which are many and a little apart, and what is soft, such as
shadows. A sharp letter by itself is never drawn from one.
"""

import math
from collections.abc import Callable, Iterable, Sequence
from itertools import compress
from typing import Any, Literal, NamedTuple

import cv2
import numpy as np
import skia

from ...raster.blurring import halvings, left_to_do, softened
from ...raster.coarse_buffer import CoarseBuffer
from ...raster.coloring import in_one_color
from ...raster.pixel_buffer import Edges, PixelBuffer, Scale, image_of
from ..composing.item_boxes import edges_through
from ..pixels.bitmaps import Photo
from .canvas import DrawItem

_PHASES = 8  # of a pixel along each axis at which copies stand: they are 1/16 of one off at most
_MOST_BYTES = 64 * 2**20  # that a canvas keeps
_MOST_PIXELS = 512 * 512  # of one that is kept: larger items are few
_LINEAR_STEP = 1e-4  # of the linear part, by which sprites are told apart
# The place, the linear part and the softness of what is soft are told apart by steps that move its
# outermost points by no more than this share of the softness.
_SOFT_STEP = 1 / 20
_SOFTER = math.log1p(_SOFT_STEP)
_SOFTEST = 500  # px of the scene: softer is nothing, however large it is drawn
_LEAST_SOFT = 1.0  # px: what is less soft is filled where it stands, copy or not

# Draws an item, as opaque as can be, on a canvas through a matrix.
DrawSprite = Callable[[skia.Canvas, skia.Matrix, DrawItem], None]


class Sprite(NamedTuple):
    """A picture of an item: its first pixel lies so far from the pixel that the item is at. The
    pixels are those of the image, which is no copy: it may only be drawn while the sprite is
    there."""

    image: skia.Image
    left: int
    top: int
    pixels: np.ndarray


# What stands for an item: its sprite, and the pixel of a buffer where the first of it lies;
# NOTHING, if nothing of it is seen; None, if it is drawn where it stands.
PlacedSprite = tuple[Sprite, int, int] | Literal["nothing"] | None
NOTHING: Literal["nothing"] = "nothing"

Linear = tuple[float, float, float, float]
Pixel = tuple[int, int]


class SpriteCache:
    """The sprites that a canvas has made; `draw` makes them. The oldest go."""

    def __init__(self, draw: DrawSprite):
        self._draw = draw
        self._kept: dict[Any, Sprite] = {}
        self._bytes = 0

    def placed(
        self, items: Sequence[DrawItem], buffer: PixelBuffer, scale: Scale
    ) -> list[PlacedSprite]:
        """What stands for each of these items on a buffer."""
        placed: list[PlacedSprite] = [None] * len(items)
        for number, linear, soft, phase, pixel in _wanted(items, buffer, scale):
            item = items[number]
            fill: Any = item.fill
            if type(fill) is Photo:  # by its name: its pixels are not for sprites to keep
                fill = (fill.bitmap.key, fill.box, fill.color)
            key = (item.outline, fill, item.line, item.filled, linear, soft, phase)
            sprite = self._kept.get(key)
            if sprite is None:
                matrix = _matrix(item, linear, phase)
                edges = edges_through(item, matrix, soft)
                if (edges[2] - edges[0]) * (edges[3] - edges[1]) <= _MOST_PIXELS:
                    sprite = self._made(item, matrix, soft, edges, edges)
                    self._keep(key, sprite)
                elif soft:
                    sprite = self._in_sight(item, matrix, soft, edges, pixel, buffer)
                else:
                    continue
            if sprite is None:
                placed[number] = NOTHING
            else:
                placed[number] = (sprite, pixel[0] + sprite.left, pixel[1] + sprite.top)
        return placed

    def _in_sight(
        self,
        item: DrawItem,
        matrix: skia.Matrix,
        soft: float,
        edges: Edges,
        pixel: Pixel,
        buffer: PixelBuffer,
    ) -> Sprite | None:
        """What is seen on a buffer of an item that is too large to keep; None if nothing is."""
        width, height = buffer.size
        buffer_edges = (-pixel[0], -pixel[1], width - pixel[0], height - pixel[1])
        seen = _common(edges, buffer_edges)
        # Drawn is what is softened into sight, too.
        far = math.ceil(3 * soft)
        drawn = _common(edges, (seen[0] - far, seen[1] - far, seen[2] + far, seen[3] + far))
        if seen[0] >= seen[2] or seen[1] >= seen[3]:
            return None
        return self._made(item, matrix, soft, drawn, seen)

    def _keep(self, key: Any, sprite: Sprite) -> None:
        self._kept[key] = sprite
        self._bytes += _bytes_of(sprite)
        while self._bytes > _MOST_BYTES:
            self._bytes -= _bytes_of(self._kept.pop(next(iter(self._kept))))

    def _made(
        self, item: DrawItem, matrix: skia.Matrix, soft: float, edges: Edges, seen: Edges
    ) -> Sprite:
        """What an item draws between edges, as far as it is seen. What is softened is drawn on
        fewer pixels."""
        by = 1 << halvings(soft)
        left, top, right, bottom = edges
        small = PixelBuffer.empty(0, 0, -(-(right - left) // by), -(-(bottom - top) // by))
        placed = skia.Matrix.Translate(-left, -top)
        placed.preConcat(matrix)
        placed.postScale(1 / by, 1 / by)
        self._draw(small.canvas, placed, item._replace(blur=0.0))
        if not soft:
            return _sprite_of(small.pixels, left, top)
        deviation = left_to_do(soft, by)
        color = item.fill if isinstance(item.fill, str) and item.line is None else None
        # Of one colour only how opaque it is need be softened.
        drawn = cv2.extractChannel(small.pixels, 3) if color else small.pixels
        pixels = softened(drawn, deviation, deviation)
        pixels = CoarseBuffer(pixels, left, top, by, by, seen).pixels
        return _sprite_of(in_one_color(pixels, color) if color else pixels, seen[0], seen[1])


def _sprite_of(pixels: np.ndarray, left: int, top: int) -> Sprite:
    return Sprite(image_of(pixels), left, top, pixels)


def _common(one: Edges, other: Edges) -> Edges:
    """The edges between which both lie."""
    left, top = max(one[0], other[0]), max(one[1], other[1])
    return left, top, min(one[2], other[2]), min(one[3], other[3])


def _wanted(
    items: Sequence[DrawItem], buffer: PixelBuffer, scale: Scale
) -> Iterable[tuple[int, Linear, float, tuple[float, float], Pixel]]:
    """The sprites that are wanted: the number of the item, the linear part of the matrix to draw it
    through (a, b, c, d), how soft it is, where in a pixel its middle lies, and in which of the
    buffer. All at once, since there may be a thousand."""
    numbers = [
        number
        for number, item in enumerate(items)
        if (item.is_copy or item.blur) and item.within is None
    ]
    if not numbers:
        return ()
    some = [items[number] for number in numbers]
    a, b, x, c, d, y, *perspective = np.array([item.matrix for item in some]).T
    linear = np.stack([a, b, c, d]) * np.repeat([scale.across, scale.down], 2)[:, None]
    a, b, c, d = linear
    blur = np.array([item.blur for item in some])
    softest = _SOFTEST * math.sqrt(scale.across * scale.down)
    soft = np.minimum(blur * np.sqrt(np.abs(a * d - b * c)), softest)
    is_soft = soft >= _LEAST_SOFT
    # In perspective each has a form of its own.
    flat = (np.abs(perspective[0]) + np.abs(perspective[1]) == 0) & (perspective[2] == 1)
    fitting = flat & (is_soft | (blur == 0))
    # The softness in steps that are alike in proportion.
    soft = np.where(
        is_soft, np.exp(np.round(np.log(np.maximum(soft, 1e-9)) / _SOFTER) * _SOFTER), 0
    )
    middle = np.array([item.outline.middle for item in some]).T
    radius = np.maximum([item.outline.radius for item in some], 1.0)
    # Where its middle comes to lie is what is kept of the place.
    column = a * middle[0] + b * middle[1] + x * scale.across - buffer.left
    row = c * middle[0] + d * middle[1] + y * scale.down - buffer.top
    step = np.where(is_soft, soft * _SOFT_STEP / radius, _LINEAR_STEP)
    linear = np.round(linear / step) * step
    soft_phases = np.ceil(0.5 / np.maximum(soft * _SOFT_STEP, 1e-3))
    phases = np.where(is_soft, soft_phases, _PHASES)
    places = np.round(np.stack([column, row]) * phases)
    fitting &= np.isfinite(places).all(axis=0) & (np.abs(places) < 2**30).all(axis=0)
    pixels = np.floor_divide(places, phases)
    offset = (places - pixels * phases) / phases
    columns = zip(
        numbers,
        map(tuple, linear.T.tolist()),
        soft.tolist(),
        map(tuple, offset.T.tolist()),
        map(tuple, np.where(fitting, pixels, 0).astype(int).T.tolist()),
        strict=True,
    )
    return compress(columns, fitting.tolist())


def _matrix(item: DrawItem, linear: Linear, phase: tuple[float, float]) -> skia.Matrix:
    """What leads from an item to its sprite, where its middle lies at the phase."""
    a, b, c, d = linear
    x, y = item.outline.middle
    across, down = phase[0] - a * x - b * y, phase[1] - c * x - d * y
    return skia.Matrix.MakeAll(a, b, across, c, d, down, 0, 0, 1)


def _bytes_of(sprite: Sprite) -> int:
    return int(sprite.pixels.nbytes)
