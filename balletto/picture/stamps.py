"""Stamps: small pictures of letters, for the many copies of a trail, which differ by where they
stand. Placing a picture takes a tenth of the time that filling its outline does.

A stamp is made for each quarter of a pixel at which a copy stands, so that copies are at most an
eighth of a pixel off; the letter itself is never stamped.
"""

from collections.abc import Callable
from typing import Any, NamedTuple

import skia

from .canvas import Letter
from .pane import Pane, Scale

_PHASES = 4  # a pixel, along each axis
_MOST_STAMPS = 4096
_MOST_PIXELS = 256 * 256  # of one: larger letters are few, and are filled
_DIGITS = 4  # of the linear part by which stamps are told apart


class _Stamp(NamedTuple):
    image: skia.Image
    left: int
    top: int


# Draws a letter, as opaque as can be, on a canvas through a matrix.
Draw = Callable[[skia.Canvas, skia.Matrix, Letter], None]


class Stamps:
    """The stamps that a canvas has made; `draw` makes them."""

    def __init__(self, draw: Draw):
        self._draw = draw
        self._made: dict[Any, _Stamp | None] = {}

    def put(self, canvas: skia.Canvas, letter: Letter, pane: Pane, scale: Scale) -> bool:
        """Draws a letter from a stamp, on the canvas of a pane; False if it cannot be."""
        a, b, x, c, d, y, e, f, g = letter.matrix
        if e or f or g != 1:
            return False  # seen in perspective, each copy has a form of its own
        across, down = scale.across, scale.down
        x, y = x * across - pane.left, y * down - pane.top
        linear = tuple(
            round(number, _DIGITS) for number in (a * across, b * across, c * down, d * down)
        )
        column, row = round(x * _PHASES), round(y * _PHASES)
        phase = (column % _PHASES, row % _PHASES)
        key = (letter.outline, letter.fill, letter.line, letter.blur, linear, phase)
        if key not in self._made:
            if len(self._made) >= _MOST_STAMPS:
                self._made.clear()
            self._made[key] = self._make(letter, linear, phase)
        stamp = self._made[key]
        if stamp is None:
            return False
        paint = skia.Paint(Alphaf=letter.opacity)
        place = (column // _PHASES + stamp.left, row // _PHASES + stamp.top)
        canvas.resetMatrix()
        canvas.drawImage(stamp.image, *place, skia.SamplingOptions(), paint)
        return True

    def _make(
        self, letter: Letter, linear: tuple[float, ...], phase: tuple[int, int]
    ) -> _Stamp | None:
        a, b, c, d = linear
        x, y = (part / _PHASES for part in phase)
        matrix = skia.Matrix.MakeAll(a, b, x, c, d, y, 0, 0, 1)
        bounds = letter.outline.path.computeTightBounds()
        more = (letter.line.width if letter.line else 0) + 3 * letter.blur
        box = matrix.mapRect(bounds.makeOutset(more, more)).roundOut()
        if (box.width() + 2) * (box.height() + 2) > _MOST_PIXELS:
            return None
        pane = Pane.empty(box.left() - 1, box.top() - 1, box.right() + 1, box.bottom() + 1)
        matrix.postTranslate(-pane.left, -pane.top)
        self._draw(pane.canvas, matrix, letter)
        return _Stamp(pane.image(), pane.left, pane.top)
