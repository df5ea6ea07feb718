"""Where items are drawn, in pixels in memory."""

import math
from collections.abc import Sequence

import numpy as np
import skia

from ...raster.pixel_buffer import Edges, Scale
from ..canvases.canvas import DrawItem

_FAR = 2**24  # px: what lies at or behind the camera may be drawn anywhere
_BEHIND = 1e-6
_SPARE = 0.01  # px: Skia counts in shorter numbers


def boxes_of_items(items: Sequence[DrawItem], scale: Scale) -> np.ndarray:
    """The edges between which items draw on a picture of a scale, (items, 4): left, top, right and
    bottom in whole pixels, at the most. All at once, since there may be a thousand."""
    if not items:
        return np.zeros((0, 4), dtype=int)
    a, b, x, c, d, y, e, f, g = np.array([item.matrix for item in items]).T
    left, top, right, bottom = np.array([item.outline.extent for item in items]).T
    lines = np.array([_beyond(item) for item in items])
    across = np.array([left - lines, right + lines, right + lines, left - lines])
    down = np.array([top - lines, top - lines, bottom + lines, bottom + lines])
    depths = e * across + f * down + g
    before = np.maximum(depths, _BEHIND)
    columns = (a * across + b * down + x) / before * scale.across
    rows = (c * across + d * down + y) / before * scale.down
    blurs = np.array([item.blur for item in items])
    soft = 3 * blurs * np.sqrt(np.abs(a * d - b * c) * (scale.across * scale.down))
    far = soft + _SPARE
    low = np.floor([columns.min(axis=0) - far, rows.min(axis=0) - far])
    high = np.ceil([columns.max(axis=0) + far, rows.max(axis=0) + far])
    boxes = np.clip(np.concatenate([low, high]), -_FAR, _FAR)
    boxes[:, depths.min(axis=0) <= _BEHIND] = [[-_FAR], [-_FAR], [_FAR], [_FAR]]
    boxes[np.isnan(boxes)] = 0
    return boxes.T.astype(int)


def meeting(boxes: np.ndarray, edges: Edges) -> np.ndarray:
    """Which of boxes (..., 4) share pixels with what lies between edges, (...) of bool."""
    left, top, right, bottom = edges
    met: np.ndarray = (boxes[..., 0] < right) & (boxes[..., 2] > left)
    return met & (boxes[..., 1] < bottom) & (boxes[..., 3] > top)


def edges_through(item: DrawItem, matrix: skia.Matrix, soft: float) -> Edges:
    """The same for one item through a matrix, softened by so many pixels."""
    more = _beyond(item)
    bounds = matrix.mapRect(skia.Rect.MakeLTRB(*item.outline.extent).makeOutset(more, more))
    far = math.ceil(3 * soft)
    left, top = math.floor(bounds.left()) - far, math.floor(bounds.top()) - far
    return left, top, math.ceil(bounds.right()) + far, math.ceil(bounds.bottom()) + far


def _beyond(item: DrawItem) -> float:
    """How far a line reaches beyond an outline, in its space."""
    line = item.line
    return line.width * (2 if line.joins == "sharp" else 1) if line else 0.0
