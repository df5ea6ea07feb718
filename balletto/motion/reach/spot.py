"""Spot: a soft region of the picture; what stands in it takes part."""

from collections.abc import Callable
from typing import Any

import numpy as np

from ...scene.eases import ease_function
from ...scene.selectors import BandSpot, RoundSpot, SlopeSpot
from ...scene.tracks import value_at
from ..units import Units


def spot(selector: Any, units: Units, times: np.ndarray, _: int) -> np.ndarray:
    """Weights (times, units) by the places of the rest centres in the picture."""
    inside = SHAPES[selector.shape](selector, units.in_picture(times), times)
    value = ease_function(selector.edge)(inside)
    if selector.invert:
        value = 1 - value
    floor = value_at(selector.floor, times) / 100
    return floor + (1 - floor) * value


def _point(value: Any, times: np.ndarray) -> np.ndarray:
    """A point of the selector, (times, 1 or units, 2)."""
    return value_at(value, times)


def _falling(distance: np.ndarray, inner: np.ndarray, outer: np.ndarray) -> np.ndarray:
    """1 up to `inner`, straight down to 0 at `outer`; a hard edge where they meet."""
    width = np.where(outer > inner, outer - inner, 1.0)
    soft = np.clip((outer - distance) / width, 0.0, 1.0)
    return np.where(outer > inner, soft, np.where(distance <= inner, 1.0, 0.0))


def _slope(selector: SlopeSpot, places: np.ndarray, times: np.ndarray) -> np.ndarray:
    start, end = _point(selector.start, times), _point(selector.end, times)
    axis = end - start
    length = (axis**2).sum(-1)
    along = ((places - start) * axis).sum(-1) / np.where(length > 0, length, 1.0)
    return np.where(length > 0, np.clip(along, 0.0, 1.0), 0.0)


def _round(selector: RoundSpot, places: np.ndarray, times: np.ndarray) -> np.ndarray:
    distance = np.hypot(*np.moveaxis(places - _point(selector.center, times), -1, 0))
    return _falling(distance, value_at(selector.inner, times), value_at(selector.outer, times))


def _band(selector: BandSpot, places: np.ndarray, times: np.ndarray) -> np.ndarray:
    angle = np.radians(value_at(selector.angle, times))
    x, y = np.moveaxis(places - _point(selector.center, times), -1, 0)
    distance = np.abs(y * np.cos(angle) - x * np.sin(angle))
    return _falling(distance, np.zeros_like(distance), value_at(selector.width, times) / 2)


SHAPES: dict[str, Callable[[Any, np.ndarray, np.ndarray], np.ndarray]] = {
    "slope": _slope,
    "round": _round,
    "band": _band,
}
