"""What hands take hold of in the picture."""

from typing import Literal, NamedTuple


class Grip(NamedTuple):
    """A value of a part of a layer, by a point of the layer's space.

    hand: how the value follows from where the hand is: "offset" from `origin`, "distance" from the
    origin of the layer, "across" or "down" as far either way, or "angle" about it (0 is up,
    clockwise), less `minus` degrees, of which `value` is the angle as it is; all but an offset
    times `factor`
    least: no less than that
    """

    name: str
    hand: Literal["offset", "distance", "across", "down", "angle"]
    at: tuple[float, float]
    origin: tuple[float, float] = (0.0, 0.0)
    minus: float = 0.0
    value: float = 0.0
    factor: float = 1.0
    least: float | None = None
