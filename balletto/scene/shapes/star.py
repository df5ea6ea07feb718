"""A star."""

from typing import ClassVar, Literal

import numpy as np

from ..forms import primitives
from ..forms.outlines import PathCommands
from ..model import Distance
from ..values import measures
from ..values.tracks import Changing, value_at
from ..values.wording import Said, Wording
from .base import CORNERS, Corners, Shape


class Star(Shape):
    """With corners in turn on two circles, the first at the top of the outer one."""

    rank: ClassVar = 60
    wording: ClassVar = Wording(
        "star",
        "with {corners}, {outer} out and {inner} in",
        {
            "corners": CORNERS,
            "outer": Said("Outer radius", measures.LENGTH_PX, 150),
            "inner": Said("Inner radius", measures.LENGTH_PX, 70),
        },
    )

    kind: Literal["star"]
    corners: Corners = 5
    outer: Changing[Distance] = 150
    inner: Changing[Distance] = 70

    def outline(self, at: np.ndarray) -> PathCommands:
        outer, inner = float(value_at(self.outer, at)), float(value_at(self.inner, at))
        return primitives.star(self.corners, outer, inner)
