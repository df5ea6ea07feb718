"""What all shapes have: lines and forms that a shape layer draws, about the origin of the layer."""

from typing import Annotated, Any, ClassVar

import numpy as np

from ..forms.outlines import PathCommands
from ..kinds import Kind
from ..model import Counts, Number
from ..values import measures
from ..values.measures import Measure
from ..values.wording import Said, Wording

Corners = Annotated[int, Number("a number of corners", Counts.COUNT, ge=3, le=200)]
CORNERS = Said("Corners", Measure(" corners", drag=0.05, low=3, high=200, one=" corner"))
SIZE = Said("Size", is_pair=True)
RADIUS = measures.LENGTH_PX


class Shape(Kind):
    """What all kinds have.

    is_line: whether it is drawn by its line as a rule, not filled
    needed: what it cannot be without, for one that is new
    """

    wording: ClassVar[Wording]
    is_line: ClassVar[bool] = False
    needed: ClassVar[dict[str, Any]] = {}

    def outline(self, at: np.ndarray) -> PathCommands:
        """Its outline at a frame, an array of no dimensions."""
        raise NotImplementedError
