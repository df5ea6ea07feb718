"""Masks and mattes: how much of a buffer is let through, pixel by pixel."""

import math
from collections.abc import Callable, Sequence

import cv2
import numpy as np
import skia

from ...motion.spaces.layer_motion import moved_matrices
from ...raster.blurring import halvings, left_to_do, softened
from ...raster.pixel_buffer import PixelBuffer, Scale, product
from ...scene.document import Scene
from ...scene.forms.primitives import moved
from ...scene.layers import Layer
from ...scene.masks import SOFTEST_MASK, Mask
from ...scene.values.tracks import value_at
from ..canvases.canvas import Canvas, MaskCut
from ..letterforms.outlines import prepared


def cuts_of(canvas: Canvas, scene: Scene, layer: Layer, frame: float) -> tuple[MaskCut, ...]:
    """The masks of a layer that are on, in a frame."""
    masks = [mask for mask in layer.masks if mask.on]
    if not masks:
        return ()
    own = moved_matrices(scene, layer, np.array([frame]))[0].reshape(-1).tolist()
    across, down = scene.view.origin
    picture = [1.0, 0.0, across, 0.0, 1.0, down, 0.0, 0.0, 1.0]
    at = np.array(frame)
    return tuple(_cut(canvas, mask, picture if mask.fixed else own, at) for mask in masks)


def _cut(canvas: Canvas, mask: Mask, matrix: list[float], at: np.ndarray) -> MaskCut:
    form = mask.outline(at)
    center, turned = value_at(mask.center, at).tolist(), float(value_at(mask.rotation, at))
    return MaskCut(
        prepared(moved(form, center, turned), canvas.outline),
        matrix,
        mask.mode,
        mask.invert,
        float(np.clip(value_at(mask.feather, at), 0, SOFTEST_MASK)),
        float(value_at(mask.expand, at)),
        float(np.clip(value_at(mask.opacity, at), 0, 1)),
    )


# What is let through, 0..255, of what was and what a mask covers.
_JOINS: dict[str, Callable[[np.ndarray, np.ndarray], np.ndarray]] = {
    "add": lambda old, new: 255 - product(255 - old, 255 - new),
    "subtract": lambda old, new: product(old, 255 - new),
    "intersect": product,
}


def let_through(cuts: Sequence[MaskCut], buffer: PixelBuffer, scale: Scale) -> np.ndarray:
    """How much masks let through of a buffer, (height, width), 0..255."""
    width, height = buffer.size
    share = np.full((height, width), 0 if cuts[0].mode == "add" else 255, dtype=np.uint8)
    for cut in cuts:
        share = _JOINS[cut.mode](share, _coverage(cut, buffer, scale))
    return share


def _coverage(cut: MaskCut, buffer: PixelBuffer, scale: Scale) -> np.ndarray:
    """How much a mask covers each pixel of a buffer, 0..255; softened from beyond its edges too."""
    soft = cut.feather * (scale.across + scale.down) / 2
    # What is softened over many pixels is drawn on fewer, and stretched after.
    by = 1 << halvings(soft)
    beyond = math.ceil(3 * soft / by)
    width, height = buffer.size
    columns, rows = -(-width // by), -(-height // by)
    matrix = skia.Matrix.Scale(scale.across, scale.down)
    matrix.postTranslate(beyond * by - buffer.left, beyond * by - buffer.top)
    matrix.postScale(1 / by, 1 / by)
    matrix.preConcat(skia.Matrix.MakeAll(*cut.matrix))
    alpha = _drawn(cut, matrix, columns + 2 * beyond, rows + 2 * beyond)
    if beyond:
        left = left_to_do(soft, by)
        inner = softened(alpha, left, left)[beyond : beyond + rows, beyond : beyond + columns]
        alpha = cv2.resize(inner, (columns * by, rows * by), interpolation=cv2.INTER_LINEAR)
    share = alpha[:height, :width]
    if cut.invert:
        share = 255 - share
    return share if cut.opacity >= 1 else cv2.convertScaleAbs(share, alpha=cut.opacity)


def _drawn(cut: MaskCut, matrix: skia.Matrix, width: int, height: int) -> np.ndarray:
    """A mask without its softness: how much of each pixel it covers, (height, width), 0..255."""
    alpha = np.zeros((height, width), dtype=np.uint8)
    info = skia.ImageInfo.Make(width, height, skia.kAlpha_8_ColorType, skia.kPremul_AlphaType)
    surface = skia.Surface.MakeRasterDirect(info, alpha)
    canvas = surface.getCanvas()
    canvas.setMatrix(matrix)
    paint = skia.Paint(AntiAlias=True, Color=skia.ColorWHITE)
    canvas.drawPath(cut.outline.path, paint)
    if cut.expand:
        paint.setStyle(skia.Paint.kStroke_Style)
        paint.setStrokeJoin(skia.Paint.kRound_Join)
        paint.setStrokeWidth(2 * abs(cut.expand))
        if cut.expand < 0:
            paint.setBlendMode(skia.BlendMode.kDstOut)
        canvas.drawPath(cut.outline.path, paint)
    return alpha


def matte_of(buffer: PixelBuffer, by: str, invert: bool) -> np.ndarray:
    """What a drawn matte lets through, (height, width), 0..255: its opacity, or its light (the
    luma of BT.709 of its colours over black)."""
    if by == "alpha":
        share = cv2.extractChannel(buffer.pixels, 3)
    else:
        light = np.array([[0.0722, 0.7152, 0.2126, 0.0]], dtype=np.float32)  # blue, green, red
        share = cv2.transform(buffer.pixels, light)
    return 255 - share if invert else share
