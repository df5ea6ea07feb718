"""Measures: how a number of a scene is said and typed: its unit, its directions, its limits.

What stands in a file and what people see may differ: an opacity of 0.4 is "40 %", a `y` of -120 is
"120 px above". A measure says the one as the other; `quantities` reads what is typed.
"""

import json
import math
from dataclasses import asdict, dataclass
from decimal import ROUND_HALF_UP, Decimal
from functools import cached_property
from typing import Any


@dataclass(frozen=True)
class Measure:
    """How a number is said and handled.

    unit: what stands behind it, and one: behind 1, if that is another word; scale: what is shown
    for 1; drag: change a pixel of dragging gives; below, above: words instead of a sign ("left",
    "right"); low, high: limits; before: a word in front of it.
    """

    unit: str = ""
    scale: float = 1
    drag: float = 1
    step: float = 1
    below: str = ""
    above: str = ""
    low: float | None = None
    high: float | None = None
    before: str = ""
    one: str = ""

    @cached_property
    def told(self) -> dict[str, Any]:
        """All of it that is not as usual."""
        usual = Measure()
        return {
            name: value for name, value in asdict(self).items() if value != getattr(usual, name)
        }

    @cached_property
    def json(self) -> str:
        """The same as JSON, for the page's script."""
        return json.dumps(self.told)

    @classmethod
    def of(cls, told: Any) -> "Measure":
        """The measure of what `told` says of it; ValueError if that is none."""
        if not isinstance(told, dict) or not all(
            name in _KINDS and isinstance(value, _KINDS[name]) and not isinstance(value, bool)
            for name, value in told.items()
        ):
            raise ValueError("this is no measure")
        return cls(**told)

    def within(self, value: float) -> float:
        """The value kept within the limits: an ease that overshoots may lead beyond them."""
        low = -math.inf if self.low is None else self.low
        return min(max(value, low), math.inf if self.high is None else self.high)

    def say(self, value: float, digits: int = 2) -> str:
        """The number in words: "120 px below"."""
        shown = value * self.scale
        direction = (self.below if shown < 0 else self.above) if self.below else ""
        number = said_number(abs(shown) if self.below else shown, digits)
        unit = self.one if self.one and abs(shown) == 1 else self.unit
        return " ".join(part for part in (self.before, number + unit, direction) if part)


def said_number(number: float, digits: int = 2) -> str:
    """A number in full, rounded half up as the page's script does it: "−1234.5"."""
    step = Decimal(1).scaleb(-digits)
    rounded = f"{Decimal(number).quantize(step, ROUND_HALF_UP):f}"
    plain = rounded.rstrip("0").rstrip(".") if digits else rounded
    return "0" if plain == "-0" else plain.replace("-", "−")


_NUMBER = (int, float)
_KINDS: dict[str, Any] = {
    **dict.fromkeys(("unit", "below", "above", "before", "one"), str),
    **dict.fromkeys(("scale", "drag", "step", "low", "high"), _NUMBER),
}

PIXELS = Measure(" px", drag=1)
LENGTH_PX = Measure(" px", drag=1, low=0)
LEFT_RIGHT = Measure(" px", below="left", above="right")
ABOVE_BELOW = Measure(" px", below="above", above="below")
NEARER_DEEPER = Measure(" px", drag=4, below="nearer", above="deeper")
DEGREES = Measure("°", drag=0.5)
PERCENT_OF_ONE = Measure(" %", scale=100, drag=0.005, step=0.01, low=0)
PERCENT_OF_ONE_EITHER_WAY = Measure(" %", scale=100, drag=0.005, step=0.01)
OPACITY = Measure(" %", scale=100, drag=0.005, step=0.01, low=0, high=1)
PERCENT = Measure(" %", drag=0.5)
SOFTNESS = Measure(" %", drag=0.5, low=0)
UNITS = Measure("", drag=0.05)
FRAMES = Measure(" frames", drag=0.125, one=" frame")
FRAME = Measure("", drag=0.25, before="frame")
LENGTH = Measure(" frames", drag=0.125, low=0.01, one=" frame")
SECONDS = Measure(" s", drag=0.02, step=0.1, low=0)
WHOLE = Measure("", drag=0.1, low=0)
THOUSANDTHS = Measure(" ‰", drag=1, low=-10_000, high=10_000)
BLUR = Measure(" px", drag=0.1, low=0)
OUTLINE = Measure(" px", drag=0.1)
HERTZ = Measure(" Hz", drag=0.02, step=0.1, low=0.1, high=100)
PLAIN = Measure("", drag=0.01, step=0.1)
SIGNED = Measure("", drag=0.5)
