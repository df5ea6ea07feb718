"""Tracks: values that change over time, and `value_at`, which asks any value for its course.

A value stands either plainly (a number, a vector) or as a track of keys. Both are asked the same
way and for all times at once.
"""

from functools import cached_property
from typing import Any, Generic, TypeVar

import numpy as np
from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from .eases import Ease, ease_function
from .model import Frames, Model, one_of

V = TypeVar("V")


class Key(Model, Generic[V]):
    """A value at a time; `ease` belongs to the stretch that leaves this key."""

    at: Frames
    value: V
    ease: Ease = "linear"


class Track(Model, Generic[V]):
    """Keys in order of time; before the first and after the last the value is held."""

    keys: tuple[Key[V], ...] = Field(min_length=1)

    @model_validator(mode="after")
    def _sorted(self) -> "Track[V]":
        for earlier, later in zip(self.keys, self.keys[1:], strict=False):
            if later.at <= earlier.at:
                raise PydanticCustomError(
                    "needs",
                    "keys in order of time are needed, no two at one time; "
                    "{later} comes after {earlier}",
                    {"later": f"{later.at:g}", "earlier": f"{earlier.at:g}"},
                )
        return self

    @cached_property
    def _arrays(self) -> tuple[np.ndarray, np.ndarray]:
        at = np.array([key.at for key in self.keys], dtype=float)
        return at, np.array([key.value for key in self.keys], dtype=float)

    def at_times(self, times: np.ndarray) -> np.ndarray:
        """Values at `times` (any shape, frames): that shape, plus one axis for a vector."""
        times = np.asarray(times, dtype=float)
        at, values = self._arrays
        if len(at) == 1:
            return np.broadcast_to(values[0], times.shape + values.shape[1:]).copy()
        stretch = np.clip(np.searchsorted(at, times, side="right") - 1, 0, len(at) - 2)
        s = np.clip((times - at[stretch]) / (at[stretch + 1] - at[stretch]), 0.0, 1.0)
        eased = self._eased(stretch, s)
        eased = np.where(times >= at[-1], 1.0, eased)
        if values.ndim > 1:
            eased = eased[..., None]
        return mix(values[stretch], values[stretch + 1], eased)

    def _eased(self, stretch: np.ndarray, s: np.ndarray) -> np.ndarray:
        eases = [key.ease for key in self.keys[:-1]]
        if all(ease == eases[0] for ease in eases):
            return ease_function(eases[0])(s)
        eased = np.empty_like(s)
        for index, ease in enumerate(eases):
            here = stretch == index
            eased[here] = ease_function(ease)(s[here])
        return eased


def mix(start: np.ndarray, end: np.ndarray, share: np.ndarray) -> np.ndarray:
    """From `start` (share 0) to `end` (share 1); both ends exact, equal ends never wobble."""
    return np.where(start == end, start, start * (1 - share) + end * share)


def is_track(value: Any) -> bool:
    """Whether plain data or a model is a track of keys."""
    return isinstance(value, Track) or (isinstance(value, dict) and "keys" in value)


def _value_kind(data: Any) -> str:
    return "track" if isinstance(data, (dict, Track)) else "plain"


def changing(plain: Any) -> Any:
    """The type of a value that stands plainly or as a track of such values."""
    return one_of(_value_kind, "a value or keys", plain=plain, track=Track[plain])


def value_at(value: Any, times: np.ndarray) -> np.ndarray:
    """The course of a plain value or a track over `times`, shaped as Track.at_times does."""
    if isinstance(value, Track):
        return value.at_times(times)
    shape = np.shape(times)
    return np.full(shape + np.shape(value), value, dtype=float)
