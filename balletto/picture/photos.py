"""Drawing photos: bitmaps in a box of a layer's space.

Those that take up much of a picture, and are not seen in perspective, are turned and scaled by
OpenCV, which takes a quarter of the time that Skia does.
"""

import math

import cv2
import numpy as np
import skia

from .bitmaps import Photo
from .clipped import SMALL, in_sight, put_within

_SMOOTH = skia.SamplingOptions(skia.FilterMode.kLinear, skia.MipmapMode.kLinear)


def draw_photo(canvas: skia.Canvas, photo: Photo, paint: skia.Paint, blur: float) -> None:
    """Draws a photo through the matrix of a canvas, as opaque and as blended as a paint says."""
    if photo.color is not None:
        color = 0xFF000000 | int(photo.color[1:], 16)
        paint.setColorFilter(skia.ColorFilters.Blend(color, skia.BlendMode.kSrcIn))
    matrix, box = canvas.getTotalMatrix(), skia.Rect.MakeLTRB(*photo.box)
    seen = in_sight(canvas, box)
    if blur:
        paint.setImageFilter(skia.ImageFilters.Blur(blur, blur))
    elif seen and not matrix.hasPerspective() and seen.width() * seen.height() > SMALL:
        pixels = _turned(photo, matrix, seen)
        put_within(canvas, skia.Path.Rect(box), pixels, seen, paint, photo.bitmap.is_opaque)
        return
    # Not as a shader, which would be copied through its bytes.
    canvas.drawImageRect(photo.bitmap.image, box, _SMOOTH, paint)


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
    return cv2.warpAffine(
        source,
        rows,
        (seen.width(), seen.height()),
        flags=cv2.INTER_LINEAR,
        borderMode=cv2.BORDER_REPLICATE,
    )
