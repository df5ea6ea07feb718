"""Glow: light around what is drawn."""

from typing import Any

import numpy as np

from ..pixel_buffer import PixelBuffer, Scale
from .blur import blurred
from .colors import colored


def glow(buffer: PixelBuffer, values: dict[str, Any], scale: Scale) -> PixelBuffer:
    """The buffer with itself added once more, softened by `radius`, `strength` percent of it."""
    source = colored(buffer, values["color"]) if values["color"] else buffer
    soft = blurred(source, values["radius"], values["radius"], scale)
    lit = soft.pixels * np.float32(values["strength"] / 100)
    rows = slice(buffer.top - soft.top, buffer.bottom - soft.top)
    columns = slice(buffer.left - soft.left, buffer.right - soft.left)
    lit[rows, columns] += buffer.pixels
    return soft.like(np.minimum(lit + 0.5, 255))
