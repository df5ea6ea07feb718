"""Jitter: a new chance for each unit and property at each tick, as in stop motion."""

import numpy as np

from ...scene.selectors import Jitter
from ...scene.tracks import value_at
from ..hash_random import hash_random
from ..units import Units
from .wave import SHORTEST

# The unit whose chance is the one that all share.
COMMON = 2**20


def jitter(selector: Jitter, units: Units, times: np.ndarray, property_number: int) -> np.ndarray:
    """Weights (times, units) in [-1, 1)."""
    hold = np.maximum(value_at(selector.hold, times), SHORTEST)
    if selector.every is not None:
        hold = float(units.rate) / float(selector.every.removesuffix("/s"))
    # A hair before a tick counts as on it, so that whole frames fall on whole ticks.
    ticks = times / hold + 1e-9
    tick = np.floor(ticks)

    def drawn(tick: np.ndarray) -> np.ndarray:
        """The chance of each unit at a tick, mixed toward the common one."""
        index = tick.astype(np.int64) + 1
        own = 2 * hash_random(selector.seed, np.arange(len(units)), property_number, index) - 1
        common = 2 * hash_random(selector.seed, np.array(COMMON), property_number, index) - 1
        together = value_at(selector.together, times) / 100
        return own * (1 - together) + common * together

    if not selector.smooth:
        return drawn(tick)
    between = ticks - tick
    share = between * between * (3 - 2 * between)
    return drawn(tick) * (1 - share) + drawn(tick + 1) * share
