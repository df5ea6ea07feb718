"""Smears: the mean of many copies along a line, or away from a point.

2**k copies take k steps: each adds to what there is the same, shifted twice as far as the step
before did. In numbers of 16 bits, since each step rounds: they have
room for the sums of four steps, then for means.
"""

import math
from collections.abc import Callable

import cv2
import numpy as np

from .pixel_buffer import PixelBuffer
from .warping import warp

_MOST_STEPS = 9  # 512 copies
_FINER = 16  # times, that 255 of 8 bits go into 16, with room for four sums
_MOST = 2**16 - 1
# A map of points (x, y) of the buffer, counted from its corner, to others: two rows of three.
Way = np.ndarray


def steps_for(pixels: float) -> int:
    """So many that copies are at most a pixel apart."""
    return min(_MOST_STEPS, math.ceil(math.log2(pixels))) if pixels > 1 else 0


def shifted(x: float, y: float) -> Way:
    """By so many pixels."""
    return np.array([[1.0, 0.0, x], [0.0, 1.0, y]])


def scaled(factor: float, x: float, y: float) -> Way:
    """Larger by a factor, away from a point."""
    return np.array([[factor, 0.0, x * (1 - factor)], [0.0, factor, y * (1 - factor)]])


def smeared(
    buffer: PixelBuffer, start: Way, further: Callable[[int], Way], steps: int
) -> PixelBuffer:
    """The mean of 2**steps copies, the nth of which is `further(n)` away from `start`."""
    total, white = np.multiply(buffer.pixels, _FINER, dtype=np.uint16), 255 * _FINER
    moved = np.empty_like(total)
    if not np.array_equal(start, shifted(0, 0)):
        _move(total, start, moved)
        total, moved = moved, total
    for step in range(steps):
        _move(total, further(2**step), moved)
        if 2 * white <= _MOST:
            cv2.add(total, moved, dst=total)
            white *= 2
        else:
            cv2.addWeighted(total, 0.5, moved, 0.5, 0, dst=total)
    return buffer.like(cv2.convertScaleAbs(total, alpha=255 / white))


def _move(pixels: np.ndarray, way: Way, made: np.ndarray) -> None:
    """Moves pixels, with nothing beyond their edges."""
    way = way.copy()
    # OpenCV counts from the middle of the first pixel.
    way[:, 2] += way[:, :2] @ (0.5, 0.5) - 0.5
    warp(pixels, way, made)
