"""Motion paths: tracks of positions whose keys may carry handles that bend the way between them.

The way from key to key is the cubic Bezier through them; what the ease gives is a fraction of its
length, so that the speed along the way is the ease's alone.
"""

from functools import cached_property
from itertools import pairwise
from typing import TYPE_CHECKING, Annotated, Any, TypeAlias

import numpy as np
from pydantic import Field

from .model import Pixels, needs
from .tracks import Curve, Key, Tied, Track, changing

Vector3 = Annotated[
    tuple[Pixels, Pixels, Pixels],
    Field(strict=False),  # behind a wrapping check JSON lists arrive as Python lists
    needs("three numbers of pixels [x, y, z]"),
]
Handle = Annotated[
    tuple[Pixels, Pixels], Field(strict=False), needs("two numbers of pixels [x, y]")
]

PIECES = 64  # of a stretch, whose lengths are tabled
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(8)


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
        points = np.array([first, first + leaving, last + arriving, last])
        to_powers = np.array([[1, 0, 0, 0], [-3, 3, 0, 0], [3, -6, 3, 0], [-1, 3, -3, 1]])
        self._powers = to_powers @ points
        self._ends = first, last
        self._edges = np.linspace(0.0, 1.0, PIECES + 1)
        pieces = self._length_between(self._edges[:-1], self._edges[1:])
        self._table = np.concatenate([[0.0], np.cumsum(pieces)])
        self.length = float(self._table[-1])

    def at(self, fraction: np.ndarray) -> np.ndarray:
        """Positions (..., 3) at fractions of the length; straight on past either end."""
        wanted = np.clip(fraction, 0.0, 1.0) * self.length
        position = self._position(self._parameter(wanted))
        position = np.where((fraction == 0)[..., None], self._ends[0], position)
        position = np.where((fraction == 1)[..., None], self._ends[1], position)
        beyond = (fraction - np.clip(fraction, 0.0, 1.0)) * self.length
        leaving = np.where((beyond < 0)[..., None], self._direction(0.0), self._direction(1.0))
        return position + np.abs(beyond)[..., None] * leaving

    def _parameter(self, wanted: np.ndarray) -> np.ndarray:
        """The Bezier's parameter at lengths from the start: the table, then Newton's steps."""
        piece = np.clip(np.searchsorted(self._table, wanted, side="right") - 1, 0, PIECES - 1)
        start, end = self._edges[piece], self._edges[piece + 1]
        left = wanted - self._table[piece]
        whole = self._table[piece + 1] - self._table[piece]
        parameter = start + (end - start) * np.where(whole > 0, left / np.maximum(whole, 1e-12), 0)
        for _ in range(5):
            speed = np.maximum(self._speed(parameter), 1e-9)
            parameter -= (self._length_between(start, parameter) - left) / speed
            parameter = np.clip(parameter, start, end)
        return parameter

    def _position(self, parameter: np.ndarray) -> np.ndarray:
        return parameter[..., None] ** np.arange(4) @ self._powers

    def _speed(self, parameter: np.ndarray) -> np.ndarray:
        slopes = np.arange(1, 4)[:, None] * self._powers[1:]
        return np.linalg.norm(parameter[..., None] ** np.arange(3) @ slopes, axis=-1)

    def _length_between(self, start: np.ndarray, end: np.ndarray) -> np.ndarray:
        """By Gauss's rule over each piece."""
        half = (end - start) / 2
        at = (start + end)[..., None] / 2 + half[..., None] * _NODES
        return (self._speed(at) * _WEIGHTS).sum(-1) * half

    def _direction(self, end: float) -> np.ndarray:
        """The way it leaves the curve; measured over a hair, as a handle may be of no length."""
        step = np.array([end, abs(end - 1e-4)])
        near, within = self._position(step)
        away = near - within
        length = np.linalg.norm(away)
        return away / length if length > 0 else away
