"""Scatter: each unit takes part by a chance of its own, another for each property."""

import numpy as np

from ...scene.selectors import Scatter
from ..hash_random import hash_random
from ..units import Units


def scatter(selector: Scatter, units: Units, times: np.ndarray, property_number: int) -> np.ndarray:
    """Weights (times, units) in [-1, 1), or in [0, 1) if one-sided; the same at all times.

    A unit's chance depends on its place alone, so that more units change nobody else's.
    """
    drawn = hash_random(selector.seed, np.arange(len(units)), property_number, 0)
    value = drawn if selector.one_sided else 2 * drawn - 1
    return np.broadcast_to(value, (len(times), len(units)))
