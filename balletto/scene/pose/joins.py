"""How a property of a pose joins: what several moves make of it together, and what rest is."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np


class ColorTint(NamedTuple):
    """What moves do to a colour c of a style, in OKLab: keep * c + add; numbers or arrays."""

    keep: Any
    add: Any

    def after(self, outer: "ColorTint") -> "ColorTint":
        """This tint on top of another."""
        keep = self.keep if np.isscalar(self.keep) else self.keep[..., None]
        return ColorTint(outer.keep * self.keep, outer.add * keep + self.add)


@dataclass(frozen=True)
class Join:
    """How values of a property are put together; all of them are arrays (times, units) or plain.

    rest: what changes nothing
    add: one move's part to what the moves before it gave: (combined, weight, away)
    both: what an outer and an inner kind of unit give, words and their characters
    of_units: the columns of some units, (times, those)
    """

    rest: Any
    add: Callable[[Any, np.ndarray, np.ndarray], Any]
    both: Callable[[Any, Any], Any]
    of_units: Callable[[Any, np.ndarray], Any]


def _columns(values: np.ndarray, units: np.ndarray) -> np.ndarray:
    return values[:, units]


def _summed(combined: Any, weight: np.ndarray, away: np.ndarray) -> Any:
    return combined + weight * away


def _multiplied(combined: Any, weight: np.ndarray, away: np.ndarray) -> Any:
    return combined * (1 + weight * (away - 1))


def _tinted(combined: ColorTint, weight: np.ndarray, away: np.ndarray) -> ColorTint:
    share = np.clip(weight, 0.0, 1.0)
    return ColorTint(1 - share, share[..., None] * away).after(combined)


SUM = Join(0.0, _summed, lambda outer, inner: outer + inner, _columns)
PRODUCT = Join(1.0, _multiplied, lambda outer, inner: outer * inner, _columns)
TINT = Join(
    ColorTint(1.0, 0.0),
    _tinted,
    lambda outer, inner: inner.after(outer),
    lambda tint, units: ColorTint(tint.keep[:, units], tint.add[:, units]),
)
