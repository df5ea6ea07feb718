"""Glow: light around what is drawn."""

from typing import Any

import numpy as np

from ..pane import Pane, Scale
from .blur import blurred
from .colors import colored


def glow(pane: Pane, values: dict[str, Any], scale: Scale) -> Pane:
    """The pane with itself added once more, softened by `radius`, `strength` percent of it."""
    source = colored(pane, values["color"]) if values["color"] else pane
    soft = blurred(source, values["radius"], values["radius"], scale)
    lit = soft.pixels * np.float32(values["strength"] / 100)
    rows = slice(pane.top - soft.top, pane.bottom - soft.top)
    columns = slice(pane.left - soft.left, pane.right - soft.left)
    lit[rows, columns] += pane.pixels
    return soft.like(np.minimum(lit + 0.5, 255))
