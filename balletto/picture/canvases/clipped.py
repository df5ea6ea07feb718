"""Putting pixels that are at hand into an outline, in their places."""

import numpy as np
import skia

from ...raster.pixel_buffer import AS_IT_IS, image_of

SMALL = 128 * 128  # px of a picture: for fewer, pixels of their own are hardly worth it


def in_sight(canvas: skia.Canvas, bounds: skia.Rect) -> skia.IRect | None:
    """The pixels of a canvas that bounds in its present space may touch; None if there are none."""
    seen = canvas.getTotalMatrix().mapRect(bounds).roundOut()
    return seen if seen.intersect(canvas.getDeviceClipBounds()) else None


def edge_in_sight(canvas: skia.Canvas, outline: skia.Path, seen: skia.IRect) -> skia.Path | None:
    """An outline as it lies on a canvas; None if it goes around all of the box `seen`."""
    edge = skia.Path(outline)
    edge.transform(canvas.getTotalMatrix())
    return None if edge.conservativelyContainsRect(skia.Rect.Make(seen)) else edge


def put_within(
    canvas: skia.Canvas,
    outline: skia.Path,
    pixels: np.ndarray,
    seen: skia.IRect,
    paint: skia.Paint,
    is_opaque: bool = True,
) -> None:
    """Draws pixels (height, width, 4), BGRA premultiplied, in the box `seen` of a canvas, as far as
    they lie within an outline in its present space."""
    edge = edge_in_sight(canvas, outline, seen)
    canvas.save()
    canvas.resetMatrix()
    if edge is not None:
        canvas.clipPath(edge, skia.ClipOp.kIntersect, True)
    canvas.drawImage(image_of(pixels, is_opaque), seen.left(), seen.top(), AS_IT_IS, paint)
    canvas.restore()
