"""What moves make of the look of a form: how opaque and soft it is, its colours, its shadow."""

from dataclasses import dataclass
from typing import Any

import numpy as np

from ...motion.properties import Tint
from ..appearance import tinted, tinted_gradients
from ..canvas import Gradient, Line

_NUMBERS = ("opacity", "blur", "shadow", "outline", "drawn", "drawn_from", "filled", "hatched")
_SHARES = ("drawn", "drawn_from", "filled", "hatched")
_TINTS = ("fill", "outline_color")
# What moves make of a form besides its place and how opaque it is.
LOOKS = (*_NUMBERS[1:], *_TINTS)


@dataclass(frozen=True)
class Look:
    """At a time: `blur` is a deviation in px, `outline` px that a line is wider by, the tints those
    of the fill and of the line; `drawn_from` and `drawn` are shares of the line, `filled` is how
    opaque the fill is, `hatched` the share of a hatching that is drawn."""

    opacity: float = 1.0
    blur: float = 0.0
    shadow: float = 1.0
    outline: float = 0.0
    drawn: float = 1.0
    drawn_from: float = 0.0
    filled: float = 1.0
    hatched: float = 1.0
    fill: Tint | None = None
    outline_color: Tint | None = None

    @classmethod
    def of(cls, values: dict[str, Any], row: int = 0) -> "Look":
        """From the values of moves at some times, of which `row` is the number of one; what is
        below nothing is nothing."""
        if not values:
            return _PLAIN
        found: dict[str, Any] = {
            name: float(_row(values[name], row)) for name in _NUMBERS if name in values
        }
        found |= {
            name: max(value, 0.0) for name, value in found.items() if name in ("blur", "shadow")
        }
        found |= {
            name: min(max(value, 0.0), 1.0) for name, value in found.items() if name in _SHARES
        }
        found |= {name: _of_one(values[name], row) for name in _TINTS if name in values}
        return cls(**found)

    def tinted(self, fill: Any) -> Any:
        """What fills a form under the tint; photos stay."""
        if self.fill is None or fill is None:
            return fill
        if isinstance(fill, str):
            return tinted(fill, self.fill)[0]
        return tinted_gradients(fill, self.fill)[0] if isinstance(fill, Gradient) else fill

    def lined(self, line: Line | None) -> Line | None:
        """The line of a form, wider and under its tint."""
        if line is None:
            return None
        tint = self.outline_color
        color = line.color if tint is None else tinted(line.color, tint)[0]
        dressed = line._replace(width=max(line.width + self.outline, 0.0), color=color)
        if (self.drawn_from, self.drawn) == (0.0, 1.0):
            return dressed
        return dressed.within(self.drawn_from, self.drawn)


_PLAIN = Look()


def _row(values: Any, row: int) -> Any:
    """The value at one of some times; one for all times is that at each."""
    values = np.asarray(values)
    return values[min(row, len(values) - 1)]


def _of_one(tint: Tint, row: int) -> Tint:
    """A tint of one unit at one time, as those of many times."""
    keep, add = np.asarray(tint.keep), np.asarray(tint.add).reshape(-1, 3)
    return Tint(_row(keep.reshape(-1), row).reshape(1), _row(add, row).reshape(1, 3))
