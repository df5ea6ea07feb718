"""Chance that is the same on every machine: a number in [0, 1) for (seed, unit, property, tick)."""

import numpy as np

_SEED, _UNIT = np.uint64(0x9E3779B97F4A7C15), np.uint64(0xBF58476D1CE4E5B9)
_PROPERTY, _TICK = np.uint64(0x94D049BB133111EB), np.uint64(0xD6E8FEB86659FD93)

# The `property` of draws that belong to no property.
SHUFFLE = 101


def hash_random(
    seed: int, unit: np.ndarray | int, property_number: int, tick: np.ndarray | int
) -> np.ndarray:
    """u(seed, unit, property, tick) in [0, 1), for whole numbers that broadcast together.

    The four are mixed by odd multipliers and put through the finaliser of splitmix64 (Steele, Lea
    and Flood 2014), all in wrapping 64-bit arithmetic; the top 53 bits make the double.
    """
    with np.errstate(over="ignore"):
        h: np.ndarray = (
            _wrapped(seed) * _SEED
            + _wrapped(unit) * _UNIT
            + _wrapped(property_number) * _PROPERTY
            + _wrapped(tick) * _TICK
        )
        h = (h ^ (h >> np.uint64(30))) * _UNIT
        h = (h ^ (h >> np.uint64(27))) * _PROPERTY
        h = h ^ (h >> np.uint64(31))
    return (h >> np.uint64(11)).astype(float) / 2.0**53


def _wrapped(value: int | np.ndarray) -> np.ndarray:
    return np.asarray(value, dtype=np.int64).astype(np.uint64)
