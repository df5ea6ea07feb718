"""A Gaussian blur, by OpenCV, whose time hardly depends on how far it reaches.

What is soft needs few pixels: a wide blur is done on a copy that was halved as often as the blur
leaves no finer detail, and stays that small (`CoarseBuffer`) until its pixels are asked for.
"""

import math

import cv2
import numpy as np

from .coarse_buffer import CoarseBuffer
from .pixel_buffer import PixelBuffer, Scale

# A copy is halved while the blur's deviation stays larger than this, in its pixels: what
# stretching it between them adds is less than 2 % at the sharpest edge that is left then.
_LEAST_DEVIATION = 2.2
_MOST_HALVED = 7  # times


def blurred(buffer: PixelBuffer, x: float, y: float, scale: Scale) -> PixelBuffer:
    """A buffer softened by deviations in px of the scene, grown by three times those as far as the
    edges of the scale; sums stay."""
    across, down = x * scale.across, y * scale.down
    if across <= 0 and down <= 0:
        return buffer
    halved = halvings(across), halvings(down)
    by = 1 << halved[0], 1 << halved[1]
    small = halved_pixels(buffer.pixels, *halved)
    beside, beyond = math.ceil(3 * across / by[0]), math.ceil(3 * down / by[1])
    room = _room(buffer, scale, by)
    left, right, up, low = map(min, room, (beside, beside, beyond, beyond))
    small = cv2.copyMakeBorder(small, up, low, left, right, cv2.BORDER_CONSTANT)
    soft = softened(small, left_to_do(across, by[0]), left_to_do(down, by[1]))
    return CoarseBuffer(soft, buffer.left - left * by[0], buffer.top - up * by[1], *by)


def softened(pixels: np.ndarray, across: float, down: float) -> np.ndarray:
    """Pixels (height, width) or (height, width, channels) through a Gaussian of these deviations in
    pixels; beyond the edges there is nothing."""
    sides = tuple(2 * math.ceil(3 * deviation) + 1 for deviation in (across, down))
    # A deviation of nothing is taken as one to be guessed from the side.
    return cv2.GaussianBlur(
        pixels, sides, max(across, 1e-6), sigmaY=max(down, 1e-6), borderType=cv2.BORDER_CONSTANT
    )


def halved_pixels(
    pixels: np.ndarray, across: int, down: int, beyond: int = cv2.BORDER_CONSTANT
) -> np.ndarray:
    """Pixels halved so many times in width and in height; the last ones are filled up with
    nothing, or what else OpenCV takes to be `beyond` the edges."""
    height, width = pixels.shape[:2]
    low, right = -height % (1 << down), -width % (1 << across)
    if low or right:
        pixels = cv2.copyMakeBorder(pixels, 0, low, 0, right, beyond)
    for step in range(max(across, down)):
        # Halving both ways at once is what OpenCV is quickest in.
        width, height = pixels.shape[1] >> (step < across), pixels.shape[0] >> (step < down)
        pixels = cv2.resize(pixels, (width, height), interpolation=cv2.INTER_AREA)
    return pixels


def halvings(deviation: float) -> int:
    """How often pixels may be halved that are softened by a deviation."""
    if deviation <= _LEAST_DEVIATION:
        return 0
    return min(_MOST_HALVED, int(math.log2(deviation / _LEAST_DEVIATION)))


def left_to_do(deviation: float, size: int) -> float:
    """The deviation, in pixels of `size`, that is left to do where making these and stretching
    them blurs as well: by boxes of variance (size² - 1) / 12, then by a triangle of size² / 6."""
    if size == 1:
        return deviation
    done = (size * size - 1) / 12 + size * size / 6
    return math.sqrt(deviation * deviation - done) / size


def _room(buffer: PixelBuffer, scale: Scale, by: tuple[int, int]) -> tuple[int, int, int, int]:
    """How many pixels of that size fit between a buffer and the edges: left, right, up, down."""
    left, top, right, bottom = scale.edges
    return (
        max(0, math.ceil((buffer.left - left) / by[0])),
        max(0, math.ceil((right - buffer.right) / by[0])),
        max(0, math.ceil((buffer.top - top) / by[1])),
        max(0, math.ceil((bottom - buffer.bottom) / by[1])),
    )
