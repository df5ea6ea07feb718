"""Boxes: how far what is drawn reaches in the picture."""

from collections.abc import Sequence

import numpy as np

from ..pixels.bitmaps import Box

_BEHIND = 1e-6  # what is no farther from the camera than that is not before it


def boxes_of(extents: np.ndarray, matrices: np.ndarray, seen: np.ndarray) -> list[Box]:
    """The box at each of some times around boxes `extents` (n, 4) or (times, n, 4) that are `seen`
    (times, n) through `matrices` (times, n, 3, 3); from inf to -inf if nothing is.

    A corner at or behind the camera reaches who knows where: the box is then without end.
    """
    left, top, right, bottom = np.moveaxis(extents, -1, 0)
    corners = ((left, top), (right, top), (right, bottom), (left, bottom))
    x, y, w = (
        np.stack(
            [
                matrices[..., row, 0] * across
                + matrices[..., row, 1] * down
                + matrices[..., row, 2]
                for across, down in corners
            ],
            axis=1,
        )
        for row in (0, 1, 2)
    )
    is_far = w <= _BEHIND
    safe = np.where(is_far, 1.0, w)
    sides = []
    for values in (x / safe, y / safe):
        low = np.where(is_far, -np.inf, values).min(axis=1)
        high = np.where(is_far, np.inf, values).max(axis=1)
        sides.append(np.where(seen, low, np.inf).min(axis=1, initial=np.inf))
        sides.append(np.where(seen, high, -np.inf).max(axis=1, initial=-np.inf))
    lefts, rights, tops, bottoms = (side.tolist() for side in sides)
    return list(zip(lefts, tops, rights, bottoms, strict=True))


def box_through(box: Box, matrix: Sequence[float]) -> Box:
    """The same for one box that is seen, through nine numbers of a matrix."""
    a, b, x, c, d, y, e, f, g = matrix
    corners = [(across, down) for across in box[::2] for down in box[1::2]]
    depths = [e * across + f * down + g for across, down in corners]
    if min(depths) <= _BEHIND:
        return -np.inf, -np.inf, np.inf, np.inf
    places = list(zip(corners, depths, strict=True))
    lefts = [(a * across + b * down + x) / depth for (across, down), depth in places]
    tops = [(c * across + d * down + y) / depth for (across, down), depth in places]
    return min(lefts), min(tops), max(lefts), max(tops)


def around(boxes: list[Box]) -> Box:
    """The box around boxes; one with nothing in it if there are none."""
    lefts, tops, rights, bottoms = zip(*boxes, (np.inf, np.inf, -np.inf, -np.inf), strict=True)
    return min(lefts), min(tops), max(rights), max(bottoms)


def common(one: Box, other: Box) -> Box:
    """What lies in both of two boxes; if nothing does, one with nothing in it."""
    left, top = max(one[0], other[0]), max(one[1], other[1])
    right, bottom = min(one[2], other[2]), min(one[3], other[3])
    return (left, top, right, bottom) if left < right and top < bottom else around([])


def widened(box: Box, more: float) -> Box:
    """A box with so many more px on every side."""
    return box[0] - more, box[1] - more, box[2] + more, box[3] + more
