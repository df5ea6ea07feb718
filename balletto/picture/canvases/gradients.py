"""Filling outlines with gradients.

Skia works out each pixel of a gradient, in fifteen times the time that copying it takes. A large
one is worked out here for every fourth pixel each way and stretched, since it changes slowly.
"""

import math
from functools import lru_cache

import cv2
import numpy as np
import skia

from ...raster.coloring import rgb
from .canvas import Gradient
from .clipped import SMALL, in_sight, put_within

_STEPS = 2048  # colours of a gradient that are told apart
_COARSE = 4
_SLOW = 200  # px: a gradient that is shorter than that changes too fast to be stretched


def fill_with_gradient(
    canvas: skia.Canvas, path: skia.Path, gradient: Gradient, paint: skia.Paint
) -> bool:
    """Fills a path that takes up much of the picture, as opaque and as blended as a paint says;
    False if it does not, or is seen in perspective."""
    matrix = canvas.getTotalMatrix()
    seen = in_sight(canvas, path.getBounds())
    if seen is None or matrix.hasPerspective() or seen.width() * seen.height() < SMALL:
        return False
    inverse = skia.Matrix()
    if not matrix.invert(inverse):
        return False
    length = math.dist(gradient.start, gradient.end) * matrix.mapRadius(1)
    by = _COARSE if length > _SLOW else 1
    put_within(canvas, path, _pixels(gradient, inverse, seen, by), seen, paint)
    return True


def _pixels(gradient: Gradient, inverse: skia.Matrix, seen: skia.IRect, by: int) -> np.ndarray:
    """The colours of a gradient in a box of the picture, (height, width, 4), opaque."""
    columns, rows = -(-seen.width() // by), -(-seen.height() // by)
    # The middles of the pixels, or of squares of them.
    across = (seen.left() + (np.arange(columns) + 0.5) * by).astype(np.float32)
    down = (seen.top() + (np.arange(rows) + 0.5) * by).astype(np.float32)[:, None]
    x = inverse[0] * across + inverse[1] * down + (inverse[2] - gradient.start[0])
    y = inverse[3] * across + inverse[4] * down + (inverse[5] - gradient.start[1])
    way = np.subtract(gradient.end, gradient.start)
    length = max(float(np.hypot(*way)), 1e-3)
    if gradient.is_round:
        shares = cv2.magnitude(x, y) * (1 / length)
    else:
        shares = x * (way[0] / length**2) + y * (way[1] / length**2)
    steps = np.clip(shares * _STEPS, 0, _STEPS - 1).astype(np.int16)
    few = _colors(gradient.colors)[steps].view(np.uint8).reshape(rows, columns, 4)
    if by == 1:
        return few
    wide = cv2.resize(few, (columns * by, rows * by), interpolation=cv2.INTER_LINEAR)
    return np.ascontiguousarray(wide[: seen.height(), : seen.width()])


@lru_cache(maxsize=256)
def _colors(colors: tuple[str, ...]) -> np.ndarray:
    """The colours at even steps along a gradient, as BGRA in one number each."""
    given = np.array([rgb(color)[::-1] for color in colors]) * 255
    places = (np.arange(_STEPS) + 0.5) / _STEPS
    stops = np.linspace(0, 1, len(colors))
    mixed = np.full((_STEPS, 4), 255, dtype=np.uint8)
    for channel in range(3):
        mixed[:, channel] = np.round(np.interp(places, stops, given[:, channel]))
    return mixed.view(np.uint32)[:, 0]
