"""Timing two things against each other on a machine that others use too."""

import statistics
import time
from collections.abc import Callable


def milliseconds(action: Callable[[], object]) -> float:
    """How long one call takes."""
    started = time.perf_counter()
    action()
    return (time.perf_counter() - started) * 1000


def interleaved(rounds: int, *actions: Callable[[], object]) -> list[float]:
    """Median milliseconds of each action, called in turn so that all meet the same weather."""
    times: list[list[float]] = [[] for _ in actions]
    for action in actions:
        action()
    for _ in range(rounds):
        for taken, action in zip(times, actions, strict=True):
            taken.append(milliseconds(action))
    return [statistics.median(taken) for taken in times]
