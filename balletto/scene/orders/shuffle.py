"""By chance."""

import numpy as np

from ...hash_random import SHUFFLE, hash_random
from .base import Ordering, in_turn, order


@order("shuffle", "shuffled", 60, needs="seed")
def shuffle(units: Ordering) -> np.ndarray:
    drawn = hash_random(units.seed, np.arange(units.count), SHUFFLE, 0)
    return in_turn(np.argsort(drawn, kind="stable"))
