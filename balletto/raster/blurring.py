"""A Gaussian blur, by Pillow, whose time does not depend on how far it reaches."""

import numpy as np
from PIL import Image, ImageFilter

from .pixel_buffer import PixelBuffer, Scale

# A blur whose deviation is more than this many pixels is done on a smaller copy: finer detail
# than that it does not leave.
_FINE = 12.0
_MOST_SMALLER = 8


def blurred(buffer: PixelBuffer, x: float, y: float, scale: Scale) -> PixelBuffer:
    """A buffer softened by deviations in px of the scene, grown by three times those; sums stay."""
    across, down = x * scale.across, y * scale.down
    if across <= 0 and down <= 0:
        return buffer
    by = int(min(_MOST_SMALLER, max(1.0, min(across, down) // _FINE + 1)))
    beyond = (int(np.ceil(3 * across)), int(np.ceil(3 * down)))
    grown = _filled_up(buffer.grown(*beyond, scale.edges), by)
    height, width = grown.pixels.shape[:2]
    # Four plain channels: in a mode with alpha Pillow would multiply by it once more.
    image = Image.frombuffer("CMYK", (width, height), grown.pixels, "raw", "CMYK", 0, 1)
    if by > 1:
        image = image.reduce(by)
    image = image.filter(ImageFilter.GaussianBlur((across / by, down / by)))
    if by > 1:
        image = image.resize((width, height), Image.Resampling.BILINEAR)
    return grown.like(np.asarray(image))


def _filled_up(buffer: PixelBuffer, by: int) -> PixelBuffer:
    """A buffer with as many pixels at its right and bottom as make its sides multiples of `by`."""
    height, width = buffer.pixels.shape[:2]
    more = ((0, -height % by), (0, -width % by), (0, 0))
    return PixelBuffer(np.pad(buffer.pixels, more), buffer.left, buffer.top) if by > 1 else buffer
