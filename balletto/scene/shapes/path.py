"""Any path."""

from typing import ClassVar, Literal

import numpy as np

from ..forms.outlines import Drawing, PathCommands, commands_of
from ..values.wording import Wording
from .base import Shape


class Path(Shape):
    """Any path, as the path data of SVG."""

    rank: ClassVar = 70
    needed: ClassVar = {"path": "M-150 40C-90 -90 90 90 150 -40"}
    wording: ClassVar = Wording("path", "of its own")

    kind: Literal["path"]
    path: Drawing

    def outline(self, at: np.ndarray) -> PathCommands:
        return commands_of(self.path)
