"""Straight pieces."""

from typing import Annotated, ClassVar

import numpy as np
from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from ..values.wording import Said
from .base import PROGRESS, VALUE, EaseFunction, EaseKind, Progress, Value


class Points(EaseKind):
    """CSS linear(): straight pieces through the points [s, value], s rising from 0 to 1."""

    rank: ClassVar = 50
    key: ClassVar = "points"
    title: ClassVar = "straight pieces"
    start: ClassVar = {"points": [[0, 0], [0.5, 0.8], [1, 1]]}
    is_drawn: ClassVar = True
    words: ClassVar = "({points})"
    values: ClassVar = {
        "points": Said("Points", each=(Said("Place", PROGRESS), Said("Value", VALUE)))
    }

    points: Annotated[tuple[tuple[Progress, Value], ...], Field(min_length=2, max_length=1000)]

    @model_validator(mode="after")
    def _rises(self) -> "Points":
        places = [point[0] for point in self.points]
        if places[0] != 0 or places[-1] != 1 or places != sorted(places):
            raise PydanticCustomError("needs", "points in order, from s = 0 to s = 1, are needed")
        return self

    def function(self) -> EaseFunction:
        places, values = np.array(self.points, dtype=float).T
        return lambda s: np.interp(s, places, values)
