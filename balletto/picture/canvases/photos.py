"""Drawing photos: bitmaps in a box of a layer's space.

Those that take up much of a picture, and are not seen in perspective, are turned and scaled by
OpenCV, which takes a quarter of the time that Skia does.
"""

import math
from collections import deque

import cv2
import numpy as np
import skia

from ...raster.pixel_buffer import PixelBuffer
from ...raster.warping import warp
from ..pixels.bitmap_store import BITMAPS
from ..pixels.bitmaps import Bitmap, Photo
from .clipped import SMALL, edge_in_sight, in_sight, put_within

# What was turned last: a photo that is asked for again as it was, stays, and is kept.
_asked: deque[str] = deque(maxlen=64)
_SMOOTH = skia.SamplingOptions(skia.FilterMode.kLinear, skia.MipmapMode.kLinear)


def draw_photo(canvas: skia.Canvas, photo: Photo, paint: skia.Paint, blur: float) -> None:
    """Draws a photo through the matrix of a canvas, as opaque and as blended as a paint says."""
    if photo.color is not None:
        color = 0xFF000000 | int(photo.color[1:], 16)
        paint.setColorFilter(skia.ColorFilters.Blend(color, skia.BlendMode.kSrcIn))
    box, seen = skia.Rect.MakeLTRB(*photo.box), _large_in_sight(canvas, photo)
    if blur:
        paint.setImageFilter(skia.ImageFilters.Blur(blur, blur))
    elif seen:
        pixels = _turned(photo, canvas.getTotalMatrix(), seen)
        put_within(canvas, skia.Path.Rect(box), pixels, seen, paint, photo.bitmap.is_opaque)
        return
    # Not as a shader, which would be copied through its bytes.
    canvas.drawImageRect(photo.bitmap.image, box, _SMOOTH, paint)


def without_edges(canvas: skia.Canvas, photo: Photo, left: int, top: int) -> PixelBuffer | None:
    """The pixels of a large photo, drawn through the matrix of a canvas, whose edges all lie out of
    sight; None if it is another. left, top: the pixel of the picture that the canvas begins at."""
    seen, box = _large_in_sight(canvas, photo), skia.Path.Rect(skia.Rect.MakeLTRB(*photo.box))
    if seen is None or photo.color is not None or edge_in_sight(canvas, box, seen) is not None:
        return None
    pixels = _turned(photo, canvas.getTotalMatrix(), seen)
    return PixelBuffer(pixels, left + seen.left(), top + seen.top())


def _large_in_sight(canvas: skia.Canvas, photo: Photo) -> skia.IRect | None:
    """The pixels of a canvas that a photo may touch, if they are many and flat."""
    seen = in_sight(canvas, skia.Rect.MakeLTRB(*photo.box))
    if seen is None or canvas.getTotalMatrix().hasPerspective():
        return None
    return seen if seen.width() * seen.height() > SMALL else None


def _turned(photo: Photo, matrix: skia.Matrix, seen: skia.IRect) -> np.ndarray:
    """The pixels that are seen of a photo, as if it went on beyond its edges."""
    left, top, right, bottom = photo.box
    own = photo.bitmap.pixels
    across, down = (right - left) / own.shape[1], (bottom - top) / own.shape[0]
    growth = matrix[0] * matrix[4] - matrix[1] * matrix[3]
    source, by = photo.bitmap.smaller(math.sqrt(abs(growth * across * down)))
    # From a pixel of the source, counted from its middle, to the layer, to a pixel that is seen.
    way = skia.Matrix.Translate(-seen.left() - 0.5, -seen.top() - 0.5)
    way.preConcat(matrix)
    way.preTranslate(left, top)
    way.preScale(across * by, down * by)
    way.preTranslate(0.5, 0.5)
    rows = np.array([[way[0], way[1], way[2]], [way[3], way[4], way[5]]])
    size = f"{seen.width()} x {seen.height()}"
    key = f"{photo.bitmap.key} by {by} through {rows.tobytes().hex()} to {size}"

    def turned() -> Bitmap:
        made = np.empty((seen.height(), seen.width(), 4), dtype=np.uint8)
        warp(source, rows, made, cv2.BORDER_REPLICATE)
        return Bitmap(key, made)

    if key in _asked:
        return BITMAPS.get(key, turned).pixels
    _asked.append(key)
    return turned().pixels
