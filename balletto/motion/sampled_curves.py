"""The courses of keyed values over a scene: where their keys stand, and what comes between."""

from collections.abc import Iterator
from typing import Any, NamedTuple

import numpy as np
from pydantic import BaseModel

from ..scene.document import Scene
from ..scene.layers import Layer
from ..scene.values.tracks import Track, value_at

SAMPLES = 400  # over the whole scene, besides those at the keys
_BESIDE = 1e-6  # frames from a key at which a jump is caught
_STEP = 1e-3  # frames over which a speed is taken


class KeyedValue(NamedTuple):
    """A value with keyframes: its path, the move that it belongs to (or None), the frame of the
    scene that its times count from, and its track."""

    path: str
    move: str | None
    start: float
    track: Track[Any]


def keyed_values(layer: Layer, of_moves: bool = True) -> list[KeyedValue]:
    """The values of a layer that have keyframes: its own, then those of its moves in turn."""
    rows = [
        KeyedValue(path, None, 0, track)
        for name in type(layer).model_fields
        if name != "moves"
        for path, track in _tracks(getattr(layer, name), f"{layer.id}.{name}")
    ]
    for move in getattr(layer, "moves", ()) if of_moves else ():
        base = f"{layer.id}.moves.{move.id}"
        for path, track in _tracks(move, base):
            # What a pose and an amount say counts from the start of the move.
            is_local = path.startswith((f"{base}.pose.", f"{base}.amount"))
            rows.append(KeyedValue(path, move.id, move.start if is_local else 0, track))
    return rows


def _tracks(part: Any, path: str) -> Iterator[tuple[str, Track[Any]]]:
    if isinstance(part, Track):
        yield path, part
    elif isinstance(part, BaseModel):
        for name, field in type(part).model_fields.items():
            yield from _tracks(getattr(part, name), f"{path}.{field.alias or name}")
    elif isinstance(part, dict):
        for name, item in part.items():
            yield from _tracks(item, f"{path}.{name}")
    elif isinstance(part, tuple) and part and isinstance(part[0], BaseModel):
        for index, item in enumerate(part):
            yield from _tracks(item, f"{path}.{index}")


class SampledCourse(NamedTuple):
    """A course sampled: `times` (n,) in frames of the scene, and for each of the value's numbers
    (parts) `values` (parts, n) and `speeds` (parts, n), in units a frame."""

    times: np.ndarray
    values: np.ndarray
    speeds: np.ndarray


def sampled(scene: Scene, keyed: KeyedValue) -> SampledCourse:
    """The course of a keyed value over the whole scene, with both sides of each key.

    Colours are in OKLab. A speed is the change over the thousandth of a frame ahead; a jump in that
    has none.
    """
    at = np.array([key.at for key in keyed.track.keys]) + keyed.start
    even = np.linspace(0, scene.length, SAMPLES + 1)
    times = np.unique(np.concatenate([even, at, at - _BESIDE]))
    times = times[(times >= 0) & (times <= scene.length)]
    values = _parts(keyed.track, times - keyed.start)
    ahead = [_parts(keyed.track, times - keyed.start + _STEP * n / 3) for n in range(4)]
    # Of three parts of the step, two are beside a jump.
    speeds = np.median(np.diff(ahead, axis=0), axis=0) / (_STEP / 3)
    return SampledCourse(times, values, speeds)


def _parts(track: Track[Any], times: np.ndarray) -> np.ndarray:
    return value_at(track, times).reshape(len(times), -1).T
