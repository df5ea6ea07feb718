"""A part of an ellipse."""

from typing import ClassVar, Literal

import numpy as np

from ..forms import primitives
from ..forms.outlines import PathCommands
from ..model import Degrees, Size2
from ..values import measures
from ..values.tracks import Changing, value_at
from ..values.wording import Said, Wording
from .base import SIZE, Shape


class Arc(Shape):
    """A part of an ellipse: from an angle on (0 is to the right, on clockwise), over `sweep`."""

    rank: ClassVar = 40
    is_line: ClassVar = True
    wording: ClassVar = Wording(
        "arc",
        "of {size}, from {angle} on over {sweep}",
        {
            "size": SIZE,
            "angle": Said("Where it starts", measures.DEGREES, -90),
            "sweep": Said("How far it goes", measures.DEGREES, 270),
        },
    )

    kind: Literal["arc"]
    size: Changing[Size2] = (300, 300)
    angle: Changing[Degrees] = -90
    sweep: Changing[Degrees] = 270

    def outline(self, at: np.ndarray) -> PathCommands:
        width, height = value_at(self.size, at).tolist()
        angle, sweep = float(value_at(self.angle, at)), float(value_at(self.sweep, at))
        return primitives.arc(width, height, angle, sweep)
