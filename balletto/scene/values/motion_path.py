"""Motion paths: tracks of positions whose keys may carry handles that bend the way between them.

The way from key to key is the cubic Bezier through them; what the ease gives is a fraction of its
length, so that the speed along the way is the ease's alone.
"""

from functools import cached_property
from itertools import pairwise
from typing import TYPE_CHECKING, Annotated, Any, TypeAlias

import numpy as np
from pydantic import Field

from ..model import Pixels, needs
from .bezier_path import BezierPath
from .tracks import Curve, Key, Tied, Track, changing

Vector3 = Annotated[
    tuple[Pixels, Pixels, Pixels],
    Field(strict=False),  # behind a wrapping check JSON lists arrive as Python lists
    needs("three numbers of pixels [x, y, z]"),
]
Handle = Annotated[
    tuple[Pixels, Pixels], Field(strict=False), needs("two numbers of pixels [x, y]")
]


class PathKey(Key[Vector3]):
    """A position at a time; `in` and `out` say, from the position, how the way comes and goes."""

    coming: Handle | None = Field(None, alias="in")
    going: Handle | None = Field(None, alias="out")


class PathTrack(Track[Vector3]):
    """Positions over time."""

    keys: tuple[PathKey, ...] = Field(min_length=1)

    @property
    def is_bent(self) -> bool:
        return any(key.coming or key.going for key in self.keys)

    @cached_property
    def _curve(self) -> Curve:
        if not self.is_bent:
            return super()._curve
        return _BentCurve(self.keys)


if TYPE_CHECKING:
    ChangingPosition: TypeAlias = Vector3 | PathTrack | Tied[Vector3]
else:
    ChangingPosition = changing(Vector3, track=PathTrack)


class _BentCurve(Curve):
    """A course along bent stretches."""

    def __init__(self, keys: tuple[PathKey, ...]):
        positions = np.array([key.value for key in keys], dtype=float)
        super().__init__(
            np.array([key.at for key in keys], dtype=float),
            positions,
            [key.ease for key in keys[:-1]],
        )
        self._bends = {
            number: _Bend(key, following)
            for number, (key, following) in enumerate(pairwise(keys))
            if key.going or following.coming
        }
        lengths = np.linalg.norm(np.diff(positions, axis=0), axis=1)
        for number, bend in self._bends.items():
            lengths[number] = bend.length
        self._lengths = lengths
        # How far along the whole way each key lies: what `auto` and `flow` smooth.
        self._along = Curve(self.at, np.concatenate([[0.0], np.cumsum(lengths)]), self.eases)

    def course(self, ease: Any, stretch: np.ndarray, s: np.ndarray) -> np.ndarray:
        course = super().course(ease, stretch, s)
        for number, bend in self._bends.items():
            here = stretch == number
            if here.any():
                course[here] = bend.at(self._fraction(ease, number, s[here]))
        return course

    def _fraction(self, ease: Any, number: int, s: np.ndarray) -> np.ndarray:
        """The fraction of the length of a stretch that is travelled at s."""
        along = self._along.course(ease, np.full(s.shape, number), s)
        travelled = along - self._along.values[number]
        length = self._lengths[number]
        return travelled / length if length > 0 else np.zeros(s.shape)


class _Bend:
    """A cubic Bezier in space, asked by the fraction of its length."""

    def __init__(self, start: PathKey, end: PathKey):
        going, coming = start.going or (0.0, 0.0), end.coming or (0.0, 0.0)
        first, last = np.array(start.value, dtype=float), np.array(end.value, dtype=float)
        leaving, arriving = np.array([*going, 0.0]), np.array([*coming, 0.0])
        self._path = BezierPath(np.array([[first, first + leaving, last + arriving, last]]))
        self.length = self._path.length

    def at(self, fraction: np.ndarray) -> np.ndarray:
        """Positions (..., 3) at fractions of the length; straight on past either end."""
        return self._path.at(fraction * self.length)
