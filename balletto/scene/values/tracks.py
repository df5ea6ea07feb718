"""Tracks: values that change over time, and `value_at`, which asks any value for its course.

A value stands plainly (a number, a vector, a colour), as a track of keys, or tied to another. All
are asked the same way and for all times at once.
"""

from functools import cached_property
from itertools import pairwise
from typing import TYPE_CHECKING, Annotated, Any, Generic, Literal, TypeAlias, TypeVar

import numpy as np
from pydantic import Field, PrivateAttr, model_validator
from pydantic_core import PydanticCustomError

from ..eases import TrackEase, ease_function
from ..model import (
    Counts,
    Duration,
    Factor,
    Frames,
    Model,
    Name,
    Number,
    name_of_type,
    one_of,
)
from .colors import oklab

V = TypeVar("V")
BLOCK = 16  # frames that are worked out together
Beyond = Literal["hold", "cycle", "mirror", "continue"]


class _OfValues(Model):
    """What has a type of values: its name in the schema says which."""

    @classmethod
    def model_parametrized_name(cls, params: tuple[Any, ...]) -> str:
        return cls.__name__ + "".join(name_of_type(kind) for kind in params)


class Key(_OfValues, Generic[V]):
    """A value at a time; `ease` belongs to the stretch that leaves this key."""

    at: Frames
    value: V
    ease: TrackEase = "linear"

    def with_ease(self, ease: Any) -> "Key[V]":
        """The key with another ease behind it."""
        return self.model_copy(update={"ease": ease})


class Track(_OfValues, Generic[V]):
    """Keys in order of time, and what happens before the first and after the last of them.

    hold: the value stays; cycle: the keys again; mirror: there and back; continue: straight on.
    """

    keys: tuple[Key[V], ...] = Field(min_length=1)
    before: Beyond = "hold"
    after: Beyond = "hold"

    @model_validator(mode="after")
    def _sorted(self) -> "Track[V]":
        for earlier, later in pairwise(self.keys):
            if later.at <= earlier.at:
                raise PydanticCustomError(
                    "needs",
                    "keys in order of time are needed, no two at one time; "
                    "{later} comes after {earlier}",
                    {"later": f"{later.at:g}", "earlier": f"{earlier.at:g}"},
                )
        return self

    def with_ease(self, ease: Any) -> "Track[V]":
        """The track with another ease from key to key, but where it holds."""
        keys = [key if key.ease == "hold" else key.with_ease(ease) for key in self.keys]
        # Made anew, not copied: a copy would take the worked out curve along.
        return Track(keys=tuple(keys), before=self.before, after=self.after)

    @cached_property
    def _curve(self) -> "Curve":
        return Curve(
            np.array([key.at for key in self.keys], dtype=float),
            np.array([_as_numbers(key.value) for key in self.keys], dtype=float),
            [key.ease for key in self.keys[:-1]],
        )

    @cached_property
    def _newest(self) -> "_Newest":
        # No private attribute: tracks that say the same are equal, whatever was asked of them.
        return _Newest()

    def at_times(self, times: np.ndarray) -> np.ndarray:
        """Values at `times` (any shape, frames): that shape, plus one axis for a vector."""
        times = np.asarray(times, dtype=float)
        if times.size == 1 and (time := times.item()).is_integer():
            value = self._at_frame(time)
            return value.reshape(times.shape + value.shape)
        return self._worked_out(times)

    def _at_frame(self, frame: float) -> np.ndarray:
        """The value at a whole frame. It is worked out with those of the frames around it, which
        takes hardly longer, since these are as a rule asked for next."""
        first = frame - frame % BLOCK
        known = self._newest.block  # once: another thread may put another in its place meanwhile
        if known is None or known[0] != first:
            known = self._newest.block = first, self._worked_out(first + np.arange(BLOCK))
        value: np.ndarray = known[1][int(frame - first)].copy()
        return value

    def _worked_out(self, times: np.ndarray) -> np.ndarray:
        curve = self._curve
        if len(self.keys) == 1:
            return np.broadcast_to(curve.values[0], times.shape + curve.values.shape[1:]).copy()
        if self.before == self.after == "hold":
            return curve.within(times)
        first, last = curve.at[0], curve.at[-1]
        values = curve.within(self._folded(times, first, last))
        for mode, side, end in (
            (self.before, times < first, first),
            (self.after, times > last, last),
        ):
            if mode == "continue" and side.any():
                away = (times[side] - end).reshape(-1, *[1] * (values.ndim - times.ndim))
                values[side] = curve.within(end) + away * curve.slope(end)
        return values

    def _folded(self, times: np.ndarray, first: float, last: float) -> np.ndarray:
        """Times brought between the first and the last key, as the modes say."""
        folded = times.copy()
        for mode, side in ((self.before, times < first), (self.after, times > last)):
            turn = (times[side] - first) / (last - first)
            if mode == "cycle":
                folded[side] = first + (turn - np.floor(turn)) * (last - first)
            elif mode == "mirror":
                folded[side] = first + (1 - np.abs(turn % 2 - 1)) * (last - first)
        return folded


class _Newest:
    """The values of a track at the frames that were asked for last, and the first of these."""

    block: tuple[float, np.ndarray] | None = None


class Curve:
    """The course through keys at `at` (k,) with `values` (k,) or (k, d) and `eases` (k - 1)."""

    def __init__(self, at: np.ndarray, values: np.ndarray, eases: list[Any]):
        self.at, self.values, self.eases = at, values, eases
        self._known_tangents: dict[str, np.ndarray] = {}  # by the eases that need them
        kinds = dict.fromkeys(eases)
        self._kinds = [(kind, np.array([ease == kind for ease in eases])) for kind in kinds]

    def within(self, times: np.ndarray) -> np.ndarray:
        """Values at times; held before the first and after the last key."""
        at, values = self.at, self.values
        times = np.asarray(times)
        moving = np.flatnonzero((times >= at[0]) & (times < at[-1]))
        if times.ndim and len(moving) == times.size:
            return self._between(times)
        # Most units stand still most of the time: only those on their way are worked out.
        late = (times >= at[-1]).reshape(times.shape + (1,) * (values.ndim - 1))
        held = np.where(late, values[-1], values[0])
        held.reshape(-1, *values.shape[1:])[moving] = self._between(times.reshape(-1)[moving])
        return held

    def _between(self, times: np.ndarray) -> np.ndarray:
        """Values at times from the first key on and before the last."""
        at, values = self.at, self.values
        stretch = np.searchsorted(at, times, side="right") - 1
        s = (times - at[stretch]) / (at[stretch + 1] - at[stretch])
        if len(self._kinds) == 1:
            return self.course(self._kinds[0][0], stretch, s)
        course = np.empty(np.shape(times) + values.shape[1:])
        for ease, here in self._kinds:
            chosen = here[stretch]
            course[chosen] = self.course(ease, stretch[chosen], s[chosen])
        return course

    def course(self, ease: Any, stretch: np.ndarray, s: np.ndarray) -> np.ndarray:
        """Values on the stretches of those numbers, which have this ease, at s = 0..1."""
        if ease in TANGENTS:
            return self._hermite(self._tangents(ease), stretch, s)
        eased = ease_function(ease)(s)
        if self.values.ndim > 1:
            eased = eased[..., None]
        return mix(self.values[stretch], self.values[stretch + 1], eased)

    def slope(self, end: float) -> np.ndarray:
        """How fast the value changes at an end of the track, seen from within."""
        is_last = end == self.at[-1]
        stretch = self.at[-1] - self.at[-2] if is_last else self.at[1] - self.at[0]
        step = stretch * (-1e-6 if is_last else 1e-6)
        return (self.within(np.array(end + step)) - self.within(np.array(end))) / step

    def _tangents(self, ease: str) -> np.ndarray:
        if ease not in self._known_tangents:
            self._known_tangents[ease] = TANGENTS[ease](self.at, self.values)
        return self._known_tangents[ease]

    def _hermite(self, tangents: np.ndarray, stretch: np.ndarray, s: np.ndarray) -> np.ndarray:
        """The cubic with the given values and tangents at both ends of each stretch."""
        span = self.at[stretch + 1] - self.at[stretch]
        if self.values.ndim > 1:
            s, span = s[..., None], span[..., None]
        start, end = self.values[stretch], self.values[stretch + 1]
        there = s * s * (3 - 2 * s)
        leaving = s * (1 - s) ** 2 * span * tangents[stretch]
        coming = s * s * (s - 1) * span * tangents[stretch + 1]
        return mix(start, end, there) + leaving + coming


def _auto_tangents(at: np.ndarray, values: np.ndarray) -> np.ndarray:
    """Tangents that never pass a key (Fritsch and Carlson 1980): the mean of the neighbouring
    slopes, 0 where they turn, limited on each piece to the circle of radius 3."""
    span = np.diff(at).reshape(-1, *[1] * (values.ndim - 1))
    slopes = np.diff(values, axis=0) / span
    tangents = np.concatenate([slopes[:1], (slopes[:-1] + slopes[1:]) / 2, slopes[-1:]])
    tangents[1:-1][slopes[:-1] * slopes[1:] <= 0] = 0
    for piece, slope in enumerate(slopes):
        both = tangents[piece : piece + 2]
        with np.errstate(over="ignore"):  # a slope next to nothing: the radius is then infinite
            radius = np.hypot(*np.divide(both, slope, out=np.zeros_like(both), where=slope != 0))
        both *= np.where(slope == 0, 0.0, 3 / np.maximum(radius, 3))
    return tangents


def _flow_tangents(at: np.ndarray, values: np.ndarray) -> np.ndarray:
    """The slope from the key before to the key after; at the ends that of the end stretch."""
    shape = (-1, *[1] * (values.ndim - 1))
    slopes = np.diff(values, axis=0) / np.diff(at).reshape(shape)
    inner = (values[2:] - values[:-2]) / (at[2:] - at[:-2]).reshape(shape)
    return np.concatenate([slopes[:1], inner, slopes[-1:]])


# Eases that look at more than their own stretch.
TANGENTS = {"auto": _auto_tangents, "flow": _flow_tangents}


def mix(start: np.ndarray, end: np.ndarray, share: np.ndarray) -> np.ndarray:
    """From `start` (share 0) to `end` (share 1); both ends exact, equal ends never wobble."""
    return np.where(start == end, start, start * (1 - share) + end * share)


Plus = Annotated[float, Number("a number of pixels", Counts.OWN, ge=-1_000_000, le=1_000_000)]


class Tie(Model):
    """What a value follows: gain * (the value at the path `to`, `delay` frames before) + plus.

    The course is taken over as it stands: a value in the local time of a move follows another at
    the same local time. `gain` and `plus` do nothing to a colour.
    """

    to: Name
    gain: Factor = 1
    plus: Plus = 0
    delay: Duration = 0


class Tied(_OfValues, Generic[V]):
    """A value that follows another. What `to` names is found by `balletto.scene.values.ties` when a
    scene is read, and kept here."""

    tie: Tie
    _source: Any = PrivateAttr(None)
    _part: int | None = PrivateAttr(None)
    _owner: str = PrivateAttr("")
    _layer: Any = PrivateAttr(None)

    def bind(self, source: Any, part: int | None, owner: str, layer: Any) -> None:
        """Says what is followed, a value or one part of a vector, whose it is, of which layer."""
        self._source, self._part, self._owner, self._layer = source, part, owner, layer

    @property
    def layer(self) -> Any:
        """The layer whose value is followed; None for one of the scene."""
        return self._layer

    @property
    def source(self) -> Any:
        """The value that is followed."""
        return self._source

    @property
    def part(self) -> int | None:
        """Which part of a vector is followed; None if it is the whole value."""
        return self._part

    @property
    def owner(self) -> str:
        """The name of the move or layer whose value is followed."""
        return self._owner

    def at_times(self, times: np.ndarray) -> np.ndarray:
        """Values at `times`, shaped as Track.at_times does."""
        times = np.asarray(times, dtype=float)
        course = value_at(self._source, times - self.tie.delay)
        course = course if self._part is None else course[..., self._part]
        return course if self.is_color else self.tie.gain * course + self.tie.plus

    @property
    def is_color(self) -> bool:
        """Whether what is followed is a colour."""
        return is_color(self._source)


def is_color(value: Any) -> bool:
    """Whether a value, plain or of keys or tied, is a colour."""
    if isinstance(value, Tied):
        return value.is_color
    return isinstance(value.keys[0].value if isinstance(value, Track) else value, str)


def _as_numbers(value: Any) -> Any:
    return oklab(value) if isinstance(value, str) else value


def is_track(value: Any) -> bool:
    """Whether plain data or a model is a track of keys."""
    return isinstance(value, Track) or (isinstance(value, dict) and "keys" in value)


def changes_over_time(value: Any) -> bool:
    """Whether a value of a scene is anything but plain."""
    return isinstance(value, Track | Tied)


CHANGES = "changes"  # marks the types of values that may change over time


def _value_kind(data: Any) -> str:
    if isinstance(data, Tied) or (isinstance(data, dict) and "tie" in data):
        return "tie"
    return "track" if isinstance(data, (dict, Track)) else "plain"


def changing(plain: Any, track: Any = None) -> Any:
    """The type of a value that stands plainly, as a track of such values, or tied to another."""
    kinds = {"plain": plain, "track": track or Track[plain], "tie": Tied[plain]}
    return Annotated[one_of(_value_kind, "a value, keys or a tie", **kinds), CHANGES]


if TYPE_CHECKING:
    Changing: TypeAlias = V | Track[V] | Tied[V]
else:

    class Changing:
        """`Changing[Pixels]`: the type that `changing` makes."""

        def __class_getitem__(cls, plain: Any) -> Any:
            return changing(plain)


def value_at(value: Any, times: np.ndarray) -> np.ndarray:
    """The course of a value over `times`, shaped as Track.at_times does; colours are in OKLab."""
    if isinstance(value, Track | Tied):
        return value.at_times(times)
    plain = np.asarray(_as_numbers(value), dtype=float)
    shape = np.shape(times)
    return np.broadcast_to(plain, shape + plain.shape) if shape else plain
