"""The named eases, each with its drawing: chosen by how they look."""

import json
from functools import cache
from typing import Any

import numpy as np

from balletto.scene.eases import EASE_KINDS
from balletto.scene.moving.ease_words import TRACK_EASES
from balletto.scene.values.tracks import Track, value_at

_WIDTH, _LOW, _HIGH = 36, 16, 4  # of a drawing: across, and where 0 and 1 are
_SAMPLES = 61
# What the eases that look at their neighbours are shown with: a rise, a rest, a rise.
_NEIGHBOURS = ((0, 0.0), (20, 0.85), (40, 0.7), (60, 1.0))


@cache
def ease_chips() -> list[dict[str, str]]:
    """For each ease but those that the handles make: its name, its value as JSON, and its drawing
    as an SVG path in 36 x 20."""
    return [
        {"name": name, "json": json.dumps(ease), "drawing": _drawing(ease)}
        for ease, name in TRACK_EASES
        if isinstance(ease, str) or not any(EASE_KINDS[key].is_drawn for key in ease)
    ]


def _drawing(ease: Any) -> str:
    shows = _NEIGHBOURS if ease in ("auto", "flow") else ((0, 0.0), (60, 1.0))
    keys = [{"at": at, "value": value, "ease": ease} for at, value in shows]
    track = Track[float].model_validate({"keys": keys}, strict=False)
    times = np.linspace(0, 60, _SAMPLES)
    values = value_at(track, times)
    points = [
        f"{time / 60 * _WIDTH:.4g} {_LOW + (_HIGH - _LOW) * value:.4g}"
        for time, value in zip(times.tolist(), values.tolist(), strict=True)
    ]
    return "M" + "L".join(points)
