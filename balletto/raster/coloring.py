"""Colours of pixels, put through matrices."""

import numpy as np
import skia

from .pixel_buffer import PixelBuffer


def mixed(buffer: PixelBuffer, linear: np.ndarray, plus: np.ndarray | float = 0.0) -> PixelBuffer:
    """Red, green and blue (not premultiplied) through a matrix (3, 3), and `plus` added to them."""
    matrix = np.zeros((4, 5))
    matrix[:3, :3], matrix[:3, 4], matrix[3, 3] = linear, plus, 1
    return buffer.filtered(skia.ColorFilters.Matrix(matrix.reshape(-1).tolist()))


def rgb(color: str) -> np.ndarray:
    """Red, green and blue of "#RRGGBB", 0..1."""
    return np.array([int(color[at : at + 2], 16) for at in (1, 3, 5)]) / 255


def colored(buffer: PixelBuffer, color: str) -> PixelBuffer:
    """All of a buffer in one colour, as opaque as it was."""
    return mixed(buffer, np.zeros((3, 3)), rgb(color))
