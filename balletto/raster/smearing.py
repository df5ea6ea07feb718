"""Smears: the mean of many copies along a line, or away from a point.

2**k copies take k steps: each adds to what there is the same, shifted twice as far as the step
before did. In numbers of 16 bits, since each step rounds.
"""

import math
from collections.abc import Callable

import cv2
import numpy as np

from .pixel_buffer import PixelBuffer

_MOST_STEPS = 9  # 512 copies
_FINER = 257  # 255 of 8 bits are 65535 of 16
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
    mean = _moved(np.multiply(buffer.pixels, _FINER, dtype=np.uint16), start)
    for step in range(steps):
        cv2.addWeighted(mean, 0.5, _moved(mean, further(2**step)), 0.5, 0, dst=mean)
    return buffer.like(cv2.convertScaleAbs(mean, alpha=1 / _FINER))


def _moved(pixels: np.ndarray, way: Way) -> np.ndarray:
    """Pixels moved, with nothing beyond their edges."""
    way = way.copy()
    # OpenCV counts from the middle of the first pixel.
    way[:, 2] += way[:, :2] @ (0.5, 0.5) - 0.5
    height, width = pixels.shape[:2]
    return cv2.warpAffine(pixels, way, (width, height), flags=cv2.INTER_LINEAR)
