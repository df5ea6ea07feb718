"""Stairs."""

from typing import Annotated, ClassVar, Literal

import numpy as np
from pydantic import model_validator
from pydantic_core import PydanticCustomError

from ..model import Counts, Number
from ..values.measures import Measure
from ..values.wording import Said
from .base import EaseFunction, EaseKind

_JUMPS = (
    ("end", "after each"),
    ("start", "before each"),
    ("both", "before the first and after the last"),
    ("none", "between the ends"),
)


class Steps(EaseKind):
    """CSS steps(): `steps` stairs; `jump` says at which ends there is a jump."""

    rank: ClassVar = 30
    key: ClassVar = "steps"
    title: ClassVar = "steps"
    start: ClassVar = {"steps": 4}
    words: ClassVar = "{steps} and a jump {jump}"
    values: ClassVar = {
        "steps": Said("Steps", Measure(" steps", drag=0.05, low=1, high=1000, one=" step")),
        "jump": Said("Jumps", options=_JUMPS),
    }

    steps: Annotated[int, Number("a whole number of steps", Counts.COUNT, ge=1, le=1000)]
    jump: Literal["start", "end", "both", "none"] = "end"

    @model_validator(mode="after")
    def _has_a_stair(self) -> "Steps":
        if self.jump == "none" and self.steps < 2:
            raise PydanticCustomError("needs", "at least two steps are needed where none jumps")
        return self

    def function(self) -> EaseFunction:
        early = self.jump in ("start", "both")
        stairs = self.steps + {"both": 1, "none": -1}.get(self.jump, 0)

        def ease(s: np.ndarray) -> np.ndarray:
            # A hair before a stair counts as on it: 0.3 * 10 is 2.9999999999999996 in doubles.
            reached = np.floor(np.asarray(s, dtype=float) * self.steps + 1e-9) + early
            return np.clip(reached, 0, stairs) / stairs

        return ease
