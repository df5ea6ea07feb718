"""Sprites: small pictures of letters, for the many copies of a trail, which differ by where they
stand. Placing a picture takes a tenth of the time that filling its outline does.

A sprite is made for each quarter of a pixel at which a copy stands, so that copies are at most an
eighth of a pixel off; the letter itself is never drawn from one.
"""

from collections.abc import Callable
from typing import Any, NamedTuple

import skia

from ..raster.pixel_buffer import PixelBuffer, Scale
from .canvas import DrawItem

_PHASES = 4  # a pixel, along each axis
_MOST_SPRITES = 4096
_MOST_PIXELS = 256 * 256  # of one: larger items are few, and are filled
_DIGITS = 4  # of the linear part by which sprites are told apart


class _Sprite(NamedTuple):
    image: skia.Image
    left: int
    top: int


# Draws an item, as opaque as can be, on a canvas through a matrix.
Draw = Callable[[skia.Canvas, skia.Matrix, DrawItem], None]


class SpriteCache:
    """The sprites that a canvas has made; `draw` makes them."""

    def __init__(self, draw: Draw):
        self._draw = draw
        self._made: dict[Any, _Sprite | None] = {}

    def put(self, canvas: skia.Canvas, item: DrawItem, buffer: PixelBuffer, scale: Scale) -> bool:
        """Draws an item from a sprite, on the canvas of a buffer; False if it cannot be."""
        a, b, x, c, d, y, e, f, g = item.matrix
        if e or f or g != 1 or item.within is not None:
            return False  # seen in perspective, each copy has a form of its own
        across, down = scale.across, scale.down
        x, y = x * across - buffer.left, y * down - buffer.top
        linear = tuple(
            round(number, _DIGITS) for number in (a * across, b * across, c * down, d * down)
        )
        column, row = round(x * _PHASES), round(y * _PHASES)
        phase = (column % _PHASES, row % _PHASES)
        key = (item.outline, item.fill, item.line, item.blur, item.filled, linear, phase)
        if key not in self._made:
            if len(self._made) >= _MOST_SPRITES:
                self._made.clear()
            self._made[key] = self._make(item, linear, phase)
        sprite = self._made[key]
        if sprite is None:
            return False
        paint = skia.Paint(Alphaf=item.opacity)
        at = (column // _PHASES + sprite.left, row // _PHASES + sprite.top)
        canvas.resetMatrix()
        canvas.drawImage(sprite.image, *at, skia.SamplingOptions(), paint)
        return True

    def _make(
        self, item: DrawItem, linear: tuple[float, ...], phase: tuple[int, int]
    ) -> _Sprite | None:
        a, b, c, d = linear
        x, y = (part / _PHASES for part in phase)
        matrix = skia.Matrix.MakeAll(a, b, x, c, d, y, 0, 0, 1)
        bounds = item.outline.path.computeTightBounds()
        more = (item.line.width if item.line else 0) + 3 * item.blur
        box = matrix.mapRect(bounds.makeOutset(more, more)).roundOut()
        if (box.width() + 2) * (box.height() + 2) > _MOST_PIXELS:
            return None
        buffer = PixelBuffer.empty(box.left() - 1, box.top() - 1, box.right() + 1, box.bottom() + 1)
        matrix.postTranslate(-buffer.left, -buffer.top)
        self._draw(buffer.canvas, matrix, item)
        return _Sprite(buffer.image(), buffer.left, buffer.top)
