"""The properties that moves change: their rest value and how several moves combine.

`scale` in a pose stands for scale_x and scale_y together; every font axis ("axes.wght") is a
property of its own.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np

Values = np.ndarray | float


class Tint(NamedTuple):
    """What moves do to a colour c of a style, in OKLab: keep * c + add; numbers or arrays."""

    keep: Any
    add: Any

    def after(self, outer: "Tint") -> "Tint":
        """This tint on top of another."""
        keep = self.keep if np.isscalar(self.keep) else self.keep[..., None]
        return Tint(outer.keep * self.keep, outer.add * keep + self.add)

    def of(self, units: np.ndarray) -> "Tint":
        """The tints of these units: those of single characters from those of their words."""
        return Tint(self.keep[:, units], self.add[:, units])


@dataclass(frozen=True)
class Property:
    """`join(combined, weight, away)` adds one move's part to what the moves before it gave."""

    rest: Any
    join: Callable[[Any, np.ndarray, np.ndarray], Any]


def _sum(combined: Values, weight: np.ndarray, away: np.ndarray) -> np.ndarray:
    return combined + weight * away


def _product(combined: Values, weight: np.ndarray, away: np.ndarray) -> np.ndarray:
    return combined * (1 + weight * (away - 1))


def _tinted(combined: Tint, weight: np.ndarray, away: np.ndarray) -> Tint:
    share = np.clip(weight, 0.0, 1.0)
    return Tint(1 - share, share[..., None] * away).after(combined)


_SUM, _PRODUCT = Property(0.0, _sum), Property(1.0, _product)
_TINT = Property(Tint(1.0, 0.0), _tinted)
PROPERTIES: dict[str, Property] = {
    **dict.fromkeys(("x", "y", "z", "rotation", "rotation_x", "rotation_y", "skew"), _SUM),
    **dict.fromkeys(("tracking", "blur", "outline", "displace"), _SUM),
    # The way out of the picture of letters along a path: it leads off the path, all others along.
    **dict.fromkeys(("off_x", "off_y"), _SUM),
    **dict.fromkeys(("scale_x", "scale_y", "opacity", "shadow"), _PRODUCT),
    **dict.fromkeys(("drawn", "filled", "hatched"), _PRODUCT),
    "drawn_from": _SUM,
    **dict.fromkeys(("fill", "outline_color"), _TINT),
}
# Those that turn and stretch about a pivot.
ABOUT_PIVOT = ("rotation", "rotation_x", "rotation_y", "skew", "scale_x", "scale_y")

# The number with which a property of a pose draws its chances. `scale` is one chance for both axes.
_CHANCE_NUMBERS: dict[str, int] = {
    "x": 0,
    "y": 1,
    "z": 2,
    "rotation": 3,
    "rotation_x": 4,
    "rotation_y": 5,
    "scale": 6,
    "scale_x": 6,
    "scale_y": 7,
    "skew": 8,
    "opacity": 9,
    "tracking": 10,
    "blur": 11,
    "outline": 12,
    "fill": 13,
    "outline_color": 14,
    "displace": 15,
    "shadow": 16,
    "gather": 17,
    # Axes count on from 20: more of them than ten no font has.
    "drawn": 30,
    "drawn_from": 31,
    "filled": 32,
    "hatched": 33,
}
_FIRST_AXIS = 20


def chance_number(name: str, pose: dict[str, Any]) -> int:
    """The number of a property in chances; axes count on, in the order of their tags."""
    if name.startswith("axes."):
        return _FIRST_AXIS + sorted(tag for tag in pose if tag.startswith("axes.")).index(name)
    return _CHANCE_NUMBERS[name]


def parts_of(pose_property: str) -> tuple[str, ...]:
    """The computed properties that a property of a pose stands for."""
    return ("scale_x", "scale_y") if pose_property == "scale" else (pose_property,)


def property_of(name: str) -> Property:
    """The property of that name."""
    return _SUM if name.startswith("axes.") else PROPERTIES[name]
