"""As a text is read, and back."""

import numpy as np

from .base import Ordering, order


@order("forward", "in reading order", 10)
def forward(units: Ordering) -> np.ndarray:
    return units.index


@order("backward", "from the end back", 20)
def backward(units: Ordering) -> np.ndarray:
    return units.index[::-1]
