"""A spring."""

import math
from typing import Annotated, ClassVar

import numpy as np

from ..model import Counts, Number
from ..values.measures import Measure
from ..values.wording import Said
from .base import EaseFunction, EaseKind

_DAMPING = Measure("", drag=0.005, step=0.05, low=0.05, high=1, before="damping")


class Spring(EaseKind):
    """A damped spring let go at 0, settled to 1/1000 at s = 1; `spring` is its damping ratio."""

    rank: ClassVar = 10
    key: ClassVar = "spring"
    title: ClassVar = "spring"
    start: ClassVar = {"spring": 0.4}
    words: ClassVar = "{spring}"
    values: ClassVar = {"spring": Said("Damping", _DAMPING)}

    spring: Annotated[float, Number("a damping ratio", Counts.FACTOR, gt=0, le=1)]

    def function(self) -> EaseFunction:
        damping = self.spring
        frequency = math.log(1000) / damping

        def ease(s: np.ndarray) -> np.ndarray:
            s = np.asarray(s, dtype=float)
            if damping == 1:
                left = np.exp(-frequency * s) * (1 + frequency * s)
            else:
                swing = frequency * math.sqrt(1 - damping**2)
                lag = damping * frequency / swing
                turns = np.cos(swing * s) + lag * np.sin(swing * s)
                left = np.exp(-damping * frequency * s) * turns
            return np.where(s >= 1, 1.0, np.where(s <= 0, 0.0, 1 - left))

        return ease
