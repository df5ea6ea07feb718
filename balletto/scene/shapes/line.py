"""A line."""

from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from ..forms.outlines import PathCommands
from ..values.points import Point
from ..values.tracks import Changing, value_at
from ..values.wording import Said, Wording
from .base import Shape


class Line(Shape):
    """From one point to another."""

    rank: ClassVar = 10
    is_line: ClassVar = True
    wording: ClassVar = Wording(
        "line",
        "from {from} to {to}",
        {"from": Said("Start", is_point=True), "to": Said("End", is_point=True)},
    )

    kind: Literal["line"]
    start: Changing[Point] = Field((-300, 0), alias="from")
    end: Changing[Point] = Field((300, 0), alias="to")

    def outline(self, at: np.ndarray) -> PathCommands:
        start, end = value_at(self.start, at), value_at(self.end, at)
        return ("move", tuple(start.tolist())), ("line", tuple(end.tolist()))
