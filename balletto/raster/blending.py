"""Blending buffers of which little is not empty: stars, lights, arcs.

Whatever the mode, what is empty leaves what lies behind as it is, but Skia works out all pixels of
a mode other than the usual. So those that are there are gathered, blended and put back.
"""

import numpy as np
import skia

from .pixel_buffer import AS_IT_IS, PixelBuffer, image_of

_FEW = 1 / 8  # of all pixels: gathering more takes as long as blending all
_MANY = 2**14  # pixels of a buffer: of less it is not worth looking
_ROW = 1024  # pixels that are gathered lie in rows of so many


def blend_few(above: PixelBuffer, below: PixelBuffer, paint: skia.Paint) -> bool:
    """Blends the pixels of a buffer that are not empty with those of one below, as a paint says;
    False, and nothing, if these are not few."""
    left, top = max(above.left, below.left), max(above.top, below.top)
    right, bottom = min(above.right, below.right), min(above.bottom, below.bottom)
    if (right - left) * (bottom - top) < _MANY or left >= right:
        return False
    numbers = _numbers(above.part(left, top, right, bottom))
    is_there = numbers != 0
    count = np.count_nonzero(is_there)
    if count > _FEW * numbers.size:
        return False
    rows, columns = np.divmod(np.flatnonzero(is_there), right - left)
    behind = _numbers(below.part(left, top, right, bottom))
    gathered = [np.zeros((-(-count // _ROW), _ROW, 4), dtype=np.uint8) for _ in range(2)]
    for some, whole in zip(gathered, (behind, numbers), strict=True):
        some.view(np.uint32).reshape(-1)[:count] = whole[rows, columns]
    if count:
        PixelBuffer(gathered[0]).canvas.drawImage(image_of(gathered[1]), 0, 0, AS_IT_IS, paint)
    behind[rows, columns] = gathered[0].view(np.uint32).reshape(-1)[:count]
    return True


def _numbers(pixels: np.ndarray) -> np.ndarray:
    """Pixels (height, width, 4) as a number each, the same memory."""
    return pixels.view(np.uint32)[..., 0]
