"""Pixels through a map: turned, scaled, moved."""

import cv2
import numpy as np

_COLUMN = 128  # px
_SLANT = 1 / 64  # px down for each across


def warp(
    pixels: np.ndarray, way: np.ndarray, made: np.ndarray, beyond: int = cv2.BORDER_CONSTANT
) -> None:
    """Fills `made` (height, width, channels) with pixels through a map of points of these to points
    of that, two rows of three; both count from the middle of their first pixel. `beyond`: what lies
    beyond the edges, nothing as a rule, as OpenCV names it.

    What is turned goes column by column: a long slanted row is read from so many pages of memory
    that finding these takes as long again.
    """
    height, width = made.shape[:2]
    step = _COLUMN if abs(way[1, 0]) > _SLANT * abs(way[1, 1]) else width
    for left in range(0, width, step):
        column = made[:, left : left + step]
        cv2.warpAffine(
            pixels,
            way - ((0, 0, left), (0, 0, 0)),
            (column.shape[1], height),
            dst=column,
            flags=cv2.INTER_LINEAR,
            borderMode=beyond,
        )
