"""A rectangle."""

from typing import ClassVar, Literal

import numpy as np

from ..forms import primitives
from ..forms.outlines import PathCommands
from ..model import Distance, Size2
from ..values import measures
from ..values.tracks import Changing, value_at
from ..values.wording import Said, Wording
from .base import SIZE, Shape


class Rectangle(Shape):
    """Of a size, about the origin, with corners of a radius."""

    rank: ClassVar = 20
    wording: ClassVar = Wording(
        "rectangle",
        "of {size}, corners of {corner}",
        {"size": SIZE, "corner": Said("Corners", measures.LENGTH_PX, 0)},
    )

    kind: Literal["rectangle"]
    size: Changing[Size2] = (600, 200)
    corner: Changing[Distance] = 0

    def outline(self, at: np.ndarray) -> PathCommands:
        width, height = value_at(self.size, at).tolist()
        return primitives.rectangle(width, height, float(value_at(self.corner, at)))
