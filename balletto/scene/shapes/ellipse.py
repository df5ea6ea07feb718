"""An ellipse."""

from typing import ClassVar, Literal

import numpy as np

from ..forms import primitives
from ..forms.outlines import PathCommands
from ..model import Size2
from ..values.tracks import Changing, value_at
from ..values.wording import Wording
from .base import SIZE, Shape


class Ellipse(Shape):
    """In a box of a size about the origin."""

    rank: ClassVar = 30
    wording: ClassVar = Wording("ellipse", "of {size}", {"size": SIZE})

    kind: Literal["ellipse"]
    size: Changing[Size2] = (300, 300)

    def outline(self, at: np.ndarray) -> PathCommands:
        return primitives.ellipse(*value_at(self.size, at).tolist())
