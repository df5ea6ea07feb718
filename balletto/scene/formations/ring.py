"""Copies on a circle, an ellipse or a part of one."""

from typing import Annotated, ClassVar, Literal

import numpy as np
from pydantic import Field

from ..model import Degrees, Distance, Size2
from ..moving.grips import Grip
from ..values import measures
from ..values.tracks import Changing, value_at
from ..values.wording import Said, Wording
from .base import COPIES, Count, Formation

Sector = Annotated[tuple[Degrees, Degrees], Field(strict=False)]
_FACINGS = (("out", "facing out"), ("still", "all upright"))


class RingFormation(Formation):
    """Copies at a radius, or at [across, down] of an ellipse, from the angle `first` on (0 is up,
    clockwise) over `sweep` degrees; those that face out are turned with their place.

    cut: sectors [from, to] in degrees to which the ring is cut; all of it, if none is said
    """

    rank: ClassVar = 20
    wording: ClassVar = Wording(
        "ring",
        "{count} in a ring of {radius}, {facing}, from {first} on over {sweep}",
        {
            "count": Said("Copies", COPIES, 12),
            "radius": Said("Radius", measures.LENGTH_PX, 200),
            "facing": Said("How they face", options=_FACINGS),
            "first": Said("Where the first stands", measures.DEGREES, 0),
            "sweep": Said("How far the ring goes", measures.DEGREES, 360),
        },
    )

    kind: Literal["ring"]
    count: Count = 12
    radius: Changing[Distance] | Changing[Size2] = 200
    first: Changing[Degrees] = 0
    sweep: Changing[Degrees] = 360
    facing: Literal["out", "still"] = "out"
    cut: Annotated[tuple[Sector, ...], Field(max_length=100)] | None = None

    @property
    def number(self) -> int:
        return self.count

    def _angles(self, times: np.ndarray) -> np.ndarray:
        """Where the copies stand, (times, n) in degrees."""
        first, sweep = (
            np.reshape(value_at(value, times), (-1, 1)) for value in (self.first, self.sweep)
        )
        numbers = np.arange(self.count)
        open_share = numbers / max(self.count - 1, 1)
        share = np.where(np.abs(sweep) >= 360, numbers / self.count, open_share)
        return np.broadcast_to(first + sweep * share, (len(times), self.count))

    def _sides(self, times: np.ndarray) -> np.ndarray:
        """The radius across and down, (times or 1, 2)."""
        radius = np.asarray(value_at(self.radius, times), dtype=float)
        if _has_sides(self.radius):
            return radius.reshape(-1, 2)
        return np.repeat(radius.reshape(-1, 1), 2, axis=1)

    def places(self, times: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        angles = self._angles(times)
        sides = self._sides(times)
        turned = np.radians(angles)
        places = np.stack([sides[:, :1] * np.sin(turned), -sides[:, 1:] * np.cos(turned)], axis=-1)
        turns = angles if self.facing == "out" else np.zeros_like(angles)
        return np.broadcast_to(places, (*angles.shape, 2)), turns

    def seen(self, times: np.ndarray) -> np.ndarray:
        if self.cut is None:
            return super().seen(times)
        angles = self._angles(times)
        inside = np.zeros(angles.shape, dtype=bool)
        for low, high in self.cut:
            inside |= (angles - low) % 360 <= (high - low) % 360
        return inside

    def grips(self, time: np.ndarray) -> list[Grip]:
        """The radius, half way round; where the first copy stands; where the ring ends, if it is
        open."""
        first, sweep = (float(value_at(value, time)[0]) for value in (self.first, self.sweep))
        radius = self._sides(time)[0]

        def on_ring(angle: float) -> tuple[float, float]:
            x, y = radius * (np.sin(np.radians(angle)), -np.cos(np.radians(angle)))
            return float(x), float(y)

        found = [Grip("first", "angle", on_ring(first), value=first)]
        if not _has_sides(self.radius):
            found.insert(0, Grip("radius", "distance", on_ring(first + sweep / 2)))
        if abs(sweep) < 360:
            found.append(Grip("sweep", "angle", on_ring(first + sweep), minus=first, value=sweep))
        return found


def _has_sides(radius: object) -> bool:
    """Whether a radius, plain or keyed, is one across and one down."""
    keys = getattr(radius, "keys", None)
    value = keys[0].value if keys else radius
    return isinstance(value, tuple)
