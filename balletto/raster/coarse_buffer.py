"""Buffers of what is soft: fewer pixels, which are stretched when they are asked for."""

from collections.abc import Callable
from functools import cached_property

import cv2
import numpy as np

from .pixel_buffer import Edges, PixelBuffer


class CoarseBuffer(PixelBuffer):
    """A buffer that is kept in pixels (rows, columns, 4) each as large as `across` x `down` of the
    picture's. What changes each pixel for itself (`changed`), and what leaves some of them out
    (`within`), work on those few.

    left, top: where the first of them lies; edges: what is seen of it, if that is not all
    """

    def __init__(
        self,
        coarse: np.ndarray,
        left: int,
        top: int,
        across: int,
        down: int,
        edges: Edges | None = None,
    ):
        self._coarse, self._by = coarse, (across, down)
        self._origin = (left, top)
        rows, columns = coarse.shape[:2]
        whole = (left, top, left + columns * across, top + rows * down)
        self.left, self.top, self.right, self.bottom = edges or whole

    @cached_property
    def pixels(self) -> np.ndarray:  # type: ignore[override]
        """As many pixels as it takes up, stretched evenly between those that it is kept in."""
        if self._by == (1, 1):
            rows, columns = self._cells(1, 0), self._cells(0, 0)
            return np.ascontiguousarray(self._coarse[rows, columns])
        # One pixel more on each side, since those near the edge lie between it and the next.
        rows, columns = self._cells(1, 1), self._cells(0, 1)
        seen = self._coarse[rows, columns]
        size = (seen.shape[1] * self._by[0], seen.shape[0] * self._by[1])
        wide = cv2.resize(seen, size, interpolation=cv2.INTER_LINEAR)
        left = self.left - self._origin[0] - columns.start * self._by[0]
        top = self.top - self._origin[1] - rows.start * self._by[1]
        inner = wide[top : top + self.bottom - self.top, left : left + self.right - self.left]
        return np.ascontiguousarray(inner)

    def _cells(self, axis: int, more: int) -> slice:
        """Those of the few pixels, with `more` on each side, that lie between the edges, from left
        to right (axis 0) or from the top down (axis 1)."""
        side = self._coarse.shape[1 - axis]
        origin, by = self._origin[axis], self._by[axis]
        low, high = ((self.left, self.right), (self.top, self.bottom))[axis]
        first, end = (low - origin) // by - more, -((origin - high) // by) + more
        return slice(max(first, 0), min(end, side))

    def within(self, edges: Edges) -> PixelBuffer:
        left, top = max(self.left, edges[0]), max(self.top, edges[1])
        right, bottom = min(self.right, edges[2]), min(self.bottom, edges[3])
        if left >= right or top >= bottom:
            return PixelBuffer.empty(left, top, left, top)
        return CoarseBuffer(self._coarse, *self._origin, *self._by, (left, top, right, bottom))

    def changed(self, change: Callable[[np.ndarray], np.ndarray]) -> PixelBuffer:
        edges = (self.left, self.top, self.right, self.bottom)
        return CoarseBuffer(change(self._coarse), *self._origin, *self._by, edges)
