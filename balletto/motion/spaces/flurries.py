"""Flurries: where each of many pieces is at a time, alone from what the flurry says.

The flight is that of a point thrown with linear drag: the solution of v' = a - k v, along each axis
by itself.
"""

from functools import lru_cache
from typing import NamedTuple

import numpy as np

from ...hash_random import hash_random
from ...lettering.layout import Layout, lay_out
from ...scene.document import Scene
from ...scene.eases import ease_function
from ...scene.forms.flurry import BoxPlace, Flurry, LifeCourse, LinePlace, RingPlace, TextSource
from ...scene.layers.title import Title
from ...scene.letters.style import Style
from ...scene.values.tracks import value_at

# The numbers with which the properties of a piece draw their chances.
_DIRECTION, _SPEED, _LIFE, _PLACE, _PLACE_DOWN, _SPIN, _SIZE, _TURN, _SOURCE, _COLOR = range(30, 40)
_LEAST_DRAG = 1e-9  # a second: below it there is none


class FlurryPieces(NamedTuple):
    """The pieces of a flurry at some times, about the origin of its layer: (times, n).

    born: the frame that each is born at, (n,); x, y in px; rotation in degrees; size as a factor;
    opacity: 0 for those that are not alive; source, color: which look and colour each has, (n,),
    color is None where there are none
    """

    born: np.ndarray
    x: np.ndarray
    y: np.ndarray
    rotation: np.ndarray
    size: np.ndarray
    opacity: np.ndarray
    source: np.ndarray
    color: np.ndarray | None


def pieces_at(scene: Scene, flurry: Flurry, looks: int, times: np.ndarray) -> FlurryPieces:
    """The pieces at `times` (t,) in frames of the scene; `looks` is how many there are to choose
    from. What may change over time is for each piece as it was when it was born."""
    count, rate, length = flurry.count, float(scene.frames_a_second), float(scene.length)
    born = births_of(flurry)
    age = times[:, None] - born
    life = flurry.life * (1 + _either(flurry, _LIFE) * flurry.life_chance)
    if flurry.loop:
        age, life = age % length, np.minimum(life, length)
    with np.errstate(divide="ignore", invalid="ignore"):
        share = np.clip(np.nan_to_num(age / life), 0.0, 1.0)
    is_alive = (age >= 0) & (age < life)
    seconds = np.maximum(age, 0.0) / rate
    at = {name: value_at(getattr(flurry, name), born) for name in _AT_BIRTH}
    angle = np.radians(at["direction"] + _either(flurry, _DIRECTION) * at["spread"] / 2)
    speed = at["speed"] * (1 + _either(flurry, _SPEED) * flurry.speed_chance)
    drag = np.maximum(at["drag"], 0.0)
    x, along = _flown(speed * np.sin(angle), at["wind"], drag, seconds)
    y, down = _flown(-speed * np.cos(angle), at["gravity"], drag, seconds)
    start = _places(flurry, born)
    turn = np.where(flurry.any_turn, 360 * _share(flurry, _TURN), 0.0)
    turn = turn + at["spin"] * (1 + _either(flurry, _SPIN) * flurry.spin_chance) * seconds
    if flurry.facing == "flight":
        turn = turn + np.degrees(np.arctan2(along, -down))
    size = _over_life(flurry.size, share) * (1 + _either(flurry, _SIZE) * flurry.size_chance)
    opacity = np.where(is_alive, np.clip(_over_life(flurry.opacity, share), 0.0, 1.0), 0.0)
    source = np.minimum(np.floor(_share(flurry, _SOURCE) * looks), max(looks - 1, 0)).astype(int)
    colors = len(flurry.colors)
    color = np.floor(_share(flurry, _COLOR) * colors).astype(int) if colors else None
    shape = (len(times), count)

    def wide(values: np.ndarray) -> np.ndarray:
        return np.broadcast_to(values, shape)

    place = wide(start[:, 0] + x), wide(start[:, 1] + y)
    return FlurryPieces(born, *place, wide(turn), wide(size), wide(opacity), source, color)


def looks_of(scene: Scene, flurry: Flurry) -> int:
    """How many looks there are to choose from: each letter of a text is one, all else as well,
    also what is not there."""
    return sum(
        len(letters_of(scene, source.text, source.style).characters)
        if isinstance(source, TextSource)
        else 1
        for source in flurry.source
    )


def letters_of(scene: Scene, text: str, style: Style) -> Layout:
    """The letters of a text that is thrown."""
    return lay_out(scene, Title(id="flurry", kind="title", span=(0, 1), text=text, style=style))


_AT_BIRTH = ("direction", "spread", "speed", "gravity", "wind", "drag", "spin")


def births_of(flurry: Flurry) -> np.ndarray:
    """The frame that each piece is born at."""
    births, count = flurry.births, flurry.count
    shares = np.arange(count) / max(count - 1, 1)
    born: np.ndarray = births.first + births.over * ease_function(births.curve)(shares)
    return born


def _share(flurry: Flurry, number: int) -> np.ndarray:
    """A chance of each piece, from 0 up to 1."""
    return _chances(flurry.seed, flurry.count, number)


@lru_cache(maxsize=256)
def _chances(seed: int, count: int, number: int) -> np.ndarray:
    return hash_random(seed, np.arange(count), number, 0)


def _either(flurry: Flurry, number: int) -> np.ndarray:
    """The same from -1 up to 1."""
    return 2 * _share(flurry, number) - 1


def _places(flurry: Flurry, born: np.ndarray) -> np.ndarray:
    """Where pieces are born, (n, 2)."""
    place, count = flurry.place, flurry.count
    found = np.zeros((count, 2))
    if isinstance(place, LinePlace):
        along = _either(flurry, _PLACE) * value_at(place.length, born) / 2
        angle = np.radians(value_at(place.angle, born))
        found = np.stack([along * np.cos(angle), along * np.sin(angle)], axis=1)
    elif isinstance(place, BoxPlace):
        across = _either(flurry, _PLACE) * value_at(place.width, born) / 2
        down = _either(flurry, _PLACE_DOWN) * value_at(place.height, born) / 2
        found = np.stack([across, down], axis=1)
    elif isinstance(place, RingPlace):
        angle = 2 * np.pi * _share(flurry, _PLACE)
        out = value_at(place.radius, born)
        found = np.stack([out * np.sin(angle), -out * np.cos(angle)], axis=1)
    return found


def _flown(
    speed: np.ndarray, push: np.ndarray, drag: np.ndarray, seconds: np.ndarray
) -> tuple[np.ndarray, np.ndarray]:
    """How far pieces have come along an axis, and how fast they are there."""
    free = speed * seconds + push * seconds**2 / 2, speed + push * seconds
    is_slowed = drag > _LEAST_DRAG
    if not np.any(is_slowed):
        return free
    k = np.where(is_slowed, drag, 1.0)
    left = np.exp(-k * seconds)
    way = (speed - push / k) * (1 - left) / k + push * seconds / k
    now = (speed - push / k) * left + push / k
    return np.where(is_slowed, way, free[0]), np.where(is_slowed, now, free[1])


def _over_life(value: float | LifeCourse, share: np.ndarray) -> np.ndarray:
    if isinstance(value, LifeCourse):
        found: np.ndarray = value.at_shares(share)
        return found
    return np.full(share.shape, float(value))
