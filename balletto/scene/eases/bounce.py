"""A dropped ball."""

from typing import Annotated, ClassVar

import numpy as np

from ..model import Counts, Number
from ..values.measures import Measure
from ..values.wording import Said
from .base import EaseFunction, EaseKind

_REBOUNDS = Measure(" rebounds", drag=0.05, low=0, high=20, one=" rebound")


class Bounce(EaseKind):
    """A dropped ball: it falls for half a flight and rebounds `bounce` times, each flight half as
    long as the one before, in parabolas that touch 1."""

    rank: ClassVar = 20
    key: ClassVar = "bounce"
    title: ClassVar = "bounce"
    start: ClassVar = {"bounce": 3}
    words: ClassVar = "{bounce}"
    values: ClassVar = {"bounce": Said("Rebounds", _REBOUNDS)}

    bounce: Annotated[int, Number("a whole number of rebounds", Counts.COUNT, ge=0, le=20)]

    def function(self) -> EaseFunction:
        flights = np.array([0.5**count for count in range(self.bounce + 1)])
        # The fall is the second half of a first flight that began before 0.
        ends = np.cumsum(flights) - flights[0] / 2
        flights, ends = flights / ends[-1], ends / ends[-1]

        def ease(s: np.ndarray) -> np.ndarray:
            s = np.asarray(s, dtype=float)
            flight = np.minimum(np.searchsorted(ends, s, side="left"), len(ends) - 1)
            length = flights[flight]
            from_top = (s - (ends[flight] - length / 2)) / (length / 2)
            # Height falls with the square of the flight's length, as time in the air does.
            height = (length / flights[0]) ** 2 * (1 - from_top**2)
            return np.where(s >= 1, 1.0, 1 - height)

        return ease
