"""A regular polygon."""

from typing import ClassVar, Literal

import numpy as np

from ..forms import primitives
from ..forms.outlines import PathCommands
from ..model import Distance
from ..values import measures
from ..values.tracks import Changing, value_at
from ..values.wording import Said, Wording
from .base import CORNERS, Corners, Shape


class Polygon(Shape):
    """With corners at even steps on a circle, the first at the top."""

    rank: ClassVar = 50
    wording: ClassVar = Wording(
        "polygon",
        "with {corners}, {radius} out",
        {"corners": CORNERS, "radius": Said("Radius", measures.LENGTH_PX, 150)},
    )

    kind: Literal["polygon"]
    corners: Corners = 6
    radius: Changing[Distance] = 150

    def outline(self, at: np.ndarray) -> PathCommands:
        return primitives.regular(self.corners, float(value_at(self.radius, at)))
