"""Gathering: units on their way to one point, whatever their widths."""

import numpy as np

from ...lettering.layout import Layout
from ...scene.moving.moves import Move
from ..units import Units


def ways_together(units: Units, layout: Layout, move: Move) -> np.ndarray:
    """From the rest centre of each unit to the middle of the word or line that the pivot of the
    move is of, or else of the title: (units, 2)."""
    group = units.find_group(move.pivot_of) if move.pivot_of in ("word", "line") else None
    if group is not None:
        return group.centers[group.member] - units.centers
    middle = layout.centers["title"]
    return middle[:1] - units.centers if len(middle) else np.zeros_like(units.centers)
