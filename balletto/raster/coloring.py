"""Colours of pixels, put through matrices."""

from functools import partial

import cv2
import numpy as np

from .pixel_buffer import PixelBuffer


def mixed(buffer: PixelBuffer, linear: np.ndarray, plus: np.ndarray | float = 0.0) -> PixelBuffer:
    """Red, green and blue (not premultiplied) through a matrix (3, 3), and `plus` added to them."""
    return buffer.changed(partial(mixed_pixels, linear=linear, plus=plus))


def mixed_pixels(
    pixels: np.ndarray, linear: np.ndarray, plus: np.ndarray | float = 0.0
) -> np.ndarray:
    """The same of pixels (height, width, 4), BGRA premultiplied, as new ones."""
    # Of premultiplied pixels what is added is so much of their alpha, which makes it linear.
    matrix = np.eye(4)
    matrix[:3, :3], matrix[:3, 3] = linear[::-1, ::-1], np.broadcast_to(plus, 3)[::-1]
    mixed: np.ndarray = cv2.transform(pixels, matrix.astype(np.float32))
    colors = matrix[:3]
    if colors.clip(0).sum(axis=1).max() > 1:
        # Colours end at white, which is where the alpha is.
        cv2.min(mixed, cv2.merge((mixed[..., 3],) * 4), dst=mixed)
    return mixed


def mixed_colors(srgb: np.ndarray, linear: np.ndarray) -> np.ndarray:
    """Colours (n, 3) of bytes, each through a matrix of its own, (n, 3, 3)."""
    mixed = (linear @ srgb[..., None].astype(float))[..., 0]
    return np.round(np.clip(mixed, 0, 255)).astype(np.uint8)


def rgb(color: str) -> np.ndarray:
    """Red, green and blue of "#RRGGBB", 0..1."""
    return np.array([int(color[at : at + 2], 16) for at in (1, 3, 5)]) / 255


def colored(buffer: PixelBuffer, color: str) -> PixelBuffer:
    """All of a buffer in one colour, as opaque as it was."""
    return mixed(buffer, np.zeros((3, 3)), rgb(color))


def in_one_color(alpha: np.ndarray, color: str) -> np.ndarray:
    """Pixels (height, width, 4) of one colour, as opaque as `alpha` (height, width) says."""
    parts = {part: cv2.convertScaleAbs(alpha, alpha=part) for part in {*rgb(color).tolist()} - {1}}
    parts[1.0] = alpha
    red, green, blue = (parts[part] for part in rgb(color).tolist())
    return cv2.merge((blue, green, red, alpha))


def added(light: PixelBuffer, buffer: PixelBuffer) -> PixelBuffer:
    """Light, which is used up, with a buffer added to it where it is."""
    made = PixelBuffer(light.pixels, light.left, light.top)
    inner = made.part(buffer.left, buffer.top, buffer.right, buffer.bottom)
    if inner.size:
        inner[:] = cv2.add(inner, buffer.part(made.left, made.top, made.right, made.bottom))
    return made
