"""Strips of a picture in which a shutter is open, each with as many samples as what is seen in it
needs: a letter that is in two has enough of them in both."""

from collections.abc import Iterable, Iterator
from typing import NamedTuple

import numpy as np

from ...raster.pixel_buffer import Edges, PixelBuffer

_CELL = 32  # px: strips begin and end at multiples of it
# What a strip takes, in pixels of a sample: as such, and besides its samples.
_A_STRIP, _ITS_MEAN = 150_000, 4


class Strip(NamedTuple):
    """A part of a picture, and how many samples of a shutter are enough for it."""

    edges: Edges
    samples: int

    @property
    def cost(self) -> int:
        """What it takes, in pixels of a sample."""
        left, top, right, bottom = self.edges
        return _A_STRIP + (right - left) * (bottom - top) * (self.samples + _ITS_MEAN)

    def joined(self, other: "Strip") -> "Strip":
        """One that does for both."""
        one, two = self.edges, other.edges
        low, high = np.minimum(one[:2], two[:2]).tolist(), np.maximum(one[2:], two[2:]).tolist()
        return Strip((*low, *high), max(self.samples, other.samples))


def strips_of(boxes: np.ndarray, needed: np.ndarray, buffer: PixelBuffer) -> list[Strip]:
    """The strips of a buffer, apart from each other, in which what moves is seen.

    boxes: the edges of items in each sample, (samples, items, 4); needed: of each item, (items,)
    """
    around = np.concatenate([boxes[..., :2].min(axis=0), boxes[..., 2:].max(axis=0)], axis=-1)
    moving = around[needed > 1]
    low, high = (buffer.left, buffer.top), (buffer.right, buffer.bottom)
    moving = np.concatenate([np.maximum(moving[:, :2], low), np.minimum(moving[:, 2:], high)], 1)
    is_seen = (moving[:, :2] < moving[:, 2:]).all(axis=1)
    moving, counts = moving[is_seen], needed[needed > 1][is_seen]
    if not len(moving):
        return []
    size = moving[:, 2:].max(axis=0) - moving[:, :2].min(axis=0)
    axis = int(size[1] > size[0])
    return _joined(_cells(moving, counts, axis, high[axis]))


def _cells(boxes: np.ndarray, counts: np.ndarray, axis: int, end: int) -> Iterator[Strip]:
    """Narrow strips across an axis (0: from left to right), where there is one of boxes (n, 4)."""
    first = int(boxes[:, axis].min())
    for start in range(first, int(boxes[:, axis + 2].max()), _CELL):
        stop = min(start + _CELL, end)
        met = (boxes[:, axis] < stop) & (boxes[:, axis + 2] > start)
        if met.any():
            low, high = boxes[met, :2].min(axis=0), boxes[met, 2:].max(axis=0)
            low[axis], high[axis] = max(low[axis], start), min(high[axis], stop)
            yield Strip((*low.tolist(), *high.tolist()), int(counts[met].max()))


def _joined(strips: Iterable[Strip]) -> list[Strip]:
    """Strips in order, of which those are one with the next that are drawn sooner so."""
    made: list[Strip] = []
    for strip in strips:
        made.append(strip)
        while len(made) > 1:
            both = made[-2].joined(made[-1])
            if both.cost > made[-2].cost + made[-1].cost:
                break
            made[-2:] = [both]
    return made
