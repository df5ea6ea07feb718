"""A shape that repeats along the title and in time."""

from collections.abc import Callable
from typing import Annotated, Any, ClassVar, Literal

import numpy as np

from ..model import Counts, Factor, Number
from ..orders import Ordered, ranks_of
from ..pose import Asked
from ..values import measures
from ..values.measures import Measure
from ..values.tracks import Changing, value_at
from ..values.wording import Said
from .base import PERIOD, SHORTEST, Period, SelectedUnits, Selector, values_of

Softness = Annotated[float, Number("a softness", Counts.PART, ge=0, le=1)]


def _fraction(turns: np.ndarray) -> np.ndarray:
    return turns - np.floor(turns)


def _pulse(turns: np.ndarray, soft: np.ndarray) -> np.ndarray:
    """1 in the first half of each turn, -1 in the second; softened where `soft` is above 0."""
    width = np.maximum(soft, 0.001)
    rounded = np.tanh(np.sin(2 * np.pi * turns) / width) / np.tanh(1 / width)
    return np.where(soft > 0, rounded, np.where(_fraction(turns) < 0.5, 1.0, -1.0))


# Each from -1 to 1, as functions of turns and, for the pulse, softness.
_SHAPES: dict[str, Callable[[np.ndarray, np.ndarray], np.ndarray]] = {
    "sine": lambda turns, _: np.sin(2 * np.pi * turns),
    "triangle": lambda turns, _: 4 * np.abs(_fraction(turns - 0.25) - 0.5) - 1,
    "saw": lambda turns, _: 2 * _fraction(turns) - 1,
    "pulse": _pulse,
}
_EITHER_WAY = measures.PERCENT_OF_ONE_EITHER_WAY


class Wave(Selector, Ordered):
    """A shape that repeats along the title and in time; `loop` fits it to the scene's length."""

    rank: ClassVar = 30
    title: ClassVar = "wave"
    also: ClassVar = ("wave", "waves", "waving", "in waves")
    values: ClassVar = values_of(
        "wave",
        shape=Said("Shape", options=tuple((name, name) for name in _SHAPES)),
        low=Said("Low", _EITHER_WAY, -1),
        high=Said("High", _EITHER_WAY, 1),
        cycles=Said("Crests", Measure(" ×", drag=0.02, step=0.25), 1),
        order=Said("Order", is_order=True),
        period=Said("Period", PERIOD, 30),
        loop=Said("Loop", options=((False, "running on"), (True, "looping without a seam"))),
        soft=Said("Softness", measures.PERCENT_OF_ONE, 0),
        phase=Said("Phase", Measure("", drag=0.01, step=0.05), 0),
    )

    kind: Literal["wave"]
    shape: Literal["sine", "triangle", "saw", "pulse"] = "sine"
    cycles: Changing[Factor] = 1
    period: Changing[Period] = 30
    phase: Changing[Factor] = 0
    low: Changing[Factor] = -1
    high: Changing[Factor] = 1
    soft: Changing[Softness] = 0
    loop: bool = False

    @property
    def words(self) -> str:
        return (
            "a {shape} wave from {low} to {high}, {cycles} along the title {order}, "
            "every {period}, {loop}"
        )

    @property
    def less_used(self) -> str:
        soft = "softened {soft}, " if self.shape == "pulse" else ""
        return f"strength {{strength}}, {soft}shifted by {{phase}} turns"

    @classmethod
    def starts(cls, size: tuple[int, int]) -> list[tuple[str, dict[str, Any]]]:
        return [("a wave", {"kind": "wave", "period": 30})]

    def weights(self, units: SelectedUnits, times: np.ndarray, asked: Asked) -> np.ndarray:
        """Weights (times, units) from `low` to `high`."""

        def at(name: str) -> np.ndarray:
            return value_at(getattr(self, name), times)

        period = np.maximum(at("period"), SHORTEST)
        if self.loop:
            # A whole number of periods in the scene: its last frame leads into its first.
            period = units.length / np.maximum(np.round(units.length / period), 1)
        along = (ranks_of(self, units) + 0.5) / max(len(units), 1)
        turns = at("cycles") * along - times / period + at("phase")
        low, high = at("low"), at("high")
        return low + (high - low) * (1 + _SHAPES[self.shape](turns, at("soft"))) / 2
