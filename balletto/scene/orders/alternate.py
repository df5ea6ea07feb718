"""Every other unit, then those between."""

import numpy as np

from .base import Ordering, in_turn, order


@order("alternate", "every other first", 50)
def alternate(units: Ordering) -> np.ndarray:
    return in_turn(np.concatenate([units.index[::2], units.index[1::2]]).astype(int))
