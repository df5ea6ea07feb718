"""Masks and mattes: how much of a buffer is let through, pixel by pixel."""

from collections.abc import Callable, Sequence

import numpy as np
import skia
from PIL import Image, ImageFilter

from ..motion.layer_motion import moved_matrices
from ..raster.pixel_buffer import PixelBuffer, Scale
from ..scene.document import Scene
from ..scene.layers import Layer
from ..scene.masks import SOFTEST_MASK, Mask
from ..scene.primitives import moved
from ..scene.tracks import value_at
from .canvas import Canvas, Cut

_FINE = 12.0  # px: a softer edge than that has no detail of its own


def cuts_of(canvas: Canvas, scene: Scene, layer: Layer, frame: float) -> tuple[Cut, ...]:
    """The masks of a layer that are on, in a frame."""
    masks = [mask for mask in layer.masks if mask.on]
    if not masks:
        return ()
    own = moved_matrices(scene, layer, np.array([frame]))[0].reshape(-1).tolist()
    across, down = scene.view.origin
    picture = [1.0, 0.0, across, 0.0, 1.0, down, 0.0, 0.0, 1.0]
    at = np.array(frame)
    return tuple(_cut(canvas, mask, picture if mask.fixed else own, at) for mask in masks)


def _cut(canvas: Canvas, mask: Mask, matrix: list[float], at: np.ndarray) -> Cut:
    form = mask.outline(at)
    center, turned = value_at(mask.center, at).tolist(), float(value_at(mask.rotation, at))
    return Cut(
        canvas.outline(moved(form, center, turned)),
        matrix,
        mask.mode,
        mask.invert,
        float(np.clip(value_at(mask.feather, at), 0, SOFTEST_MASK)),
        float(value_at(mask.expand, at)),
        float(np.clip(value_at(mask.opacity, at), 0, 1)),
    )


_JOINS: dict[str, Callable[[np.ndarray, np.ndarray], np.ndarray]] = {
    "add": lambda old, new: old + new - old * new,
    "subtract": lambda old, new: old * (1 - new),
    "intersect": lambda old, new: old * new,
}


def let_through(cuts: Sequence[Cut], buffer: PixelBuffer, scale: Scale) -> np.ndarray:
    """How much masks let through of a buffer, (height, width), 0..255."""
    shape = buffer.pixels.shape[:2]
    share = np.zeros(shape) if cuts[0].mode == "add" else np.ones(shape)
    for cut in cuts:
        share = _JOINS[cut.mode](share, _coverage(cut, buffer, scale) * cut.opacity)
    return np.round(share * 255).astype(np.uint8)


def _coverage(cut: Cut, buffer: PixelBuffer, scale: Scale) -> np.ndarray:
    """How much a mask covers each pixel of a buffer, 0..1; softened from beyond its edges too."""
    soft = cut.feather * (scale.across + scale.down) / 2
    # What is softened over many pixels is drawn on fewer, and stretched after.
    by = int(soft // _FINE) + 1
    beyond = -(-int(np.ceil(3 * soft)) // by)
    height, width = (-(-side // by) for side in buffer.pixels.shape[:2])
    drawn = PixelBuffer.empty(0, 0, width + 2 * beyond, height + 2 * beyond)
    matrix = skia.Matrix.Scale(scale.across, scale.down)
    matrix.postTranslate(beyond * by - buffer.left, beyond * by - buffer.top)
    matrix.postScale(1 / by, 1 / by)
    matrix.preConcat(skia.Matrix.MakeAll(*cut.matrix))
    drawn.canvas.setMatrix(matrix)
    paint = skia.Paint(AntiAlias=True, Color=skia.ColorWHITE)
    drawn.canvas.drawPath(cut.outline.path, paint)
    if cut.expand:
        paint.setStyle(skia.Paint.kStroke_Style)
        paint.setStrokeJoin(skia.Paint.kRound_Join)
        paint.setStrokeWidth(2 * abs(cut.expand))
        if cut.expand < 0:
            paint.setBlendMode(skia.BlendMode.kDstOut)
        drawn.canvas.drawPath(cut.outline.path, paint)
    alpha = drawn.pixels[..., 3]
    if beyond:
        blurred = Image.fromarray(alpha).filter(ImageFilter.GaussianBlur(soft / by))
        inner = blurred.crop((beyond, beyond, beyond + width, beyond + height))
        alpha = np.asarray(inner.resize((width * by, height * by), Image.Resampling.BILINEAR))
    share = alpha[: buffer.pixels.shape[0], : buffer.pixels.shape[1]] / 255
    return 1 - share if cut.invert else share


def matte_of(buffer: PixelBuffer, by: str, invert: bool) -> np.ndarray:
    """What a drawn matte lets through, (height, width), 0..255: its opacity, or its light (the
    luma of BT.709 of its colours over black)."""
    if by == "alpha":
        share = buffer.pixels[..., 3]
    else:
        light = buffer.pixels[..., :3] @ np.array([0.0722, 0.7152, 0.2126])  # blue, green, red
        share = np.round(light).astype(np.uint8)
    return 255 - share if invert else share
