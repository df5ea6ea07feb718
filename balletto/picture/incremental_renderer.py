"""Drawing one frame after another on one canvas, touching only the rows that change."""

import math

import numpy as np

from .canvas import DrawItem
from .compositing import CompositeNode, draw_node
from .frame import Picture
from .skia_canvas import SkiaCanvas

Rows = tuple[int, int]


class IncrementalRenderer:
    """Successive frames of a picture in the same memory: `pixels`; at `size` or the scene's own."""

    def __init__(self, picture: Picture, size: tuple[int, int] | None = None):
        self._picture = picture
        width, height = picture.scene.size
        wide, high = size or (width, height)
        self._scale = (wide / width, high / height)
        self._canvas = SkiaCanvas(wide, high, self._scale)
        self._nodes: list[CompositeNode] | None = None
        self._background: DrawItem | None = None
        self._rows: Rows = (0, 0)

    @property
    def pixels(self) -> np.ndarray:
        """The frame drawn last, (height, width, 4), BGRA premultiplied."""
        return self._canvas.pixels

    def draw(self, frame: float) -> Rows:
        """Draws a frame and gives the rows, from first to end, in which it may differ."""
        nodes = self._picture.nodes(self._canvas, frame)
        rows = self._in_memory(self._picture.rows(nodes))
        background = self._picture.background_item(self._canvas, frame)
        is_all, last = self._nodes is None or background != self._background, self._rows
        if nodes == self._nodes and not is_all:
            return 0, 0
        self._nodes, self._rows, self._background = nodes, rows, background
        changed = (0, len(self.pixels)) if is_all else _both(rows, last)
        self._canvas.clear(self._picture.background_color, changed)
        if background:
            self._canvas.lay_background(background, changed)
        for node in nodes:
            draw_node(self._canvas, node)
        return changed

    def _in_memory(self, rows: Rows) -> Rows:
        """Rows of the scene's picture as those of the memory that they touch."""
        if rows[0] >= rows[1]:
            return 0, 0
        down = self._scale[1]
        return max(math.floor(rows[0] * down) - 1, 0), min(
            math.ceil(rows[1] * down) + 1, len(self.pixels)
        )


def _both(one: Rows, other: Rows) -> Rows:
    """The rows from the first to the last of either; an empty one does not count."""
    if one[0] >= one[1]:
        return other
    if other[0] >= other[1]:
        return one
    return min(one[0], other[0]), max(one[1], other[1])
