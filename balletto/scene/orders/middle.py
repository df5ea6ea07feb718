"""By how far a unit is from the middle of the list."""

import numpy as np

from .base import Ordering, order


@order("center-out", "from the centre out", 30)
def center_out(units: Ordering) -> np.ndarray:
    distance = np.abs(units.index - (units.count - 1) / 2)
    return distance - distance.min(initial=np.inf)


@order("ends-in", "from the ends in", 40)
def ends_in(units: Ordering) -> np.ndarray:
    ranks = center_out(units)
    return ranks.max(initial=0) - ranks
