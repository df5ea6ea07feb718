"""A new chance for each unit at each tick, as in stop motion."""

from typing import Any, ClassVar, Literal

import numpy as np

from .. import measures
from ..hash_random import hash_random
from ..model import Seed, Share
from ..pace import Pace, times_a_second
from ..tracks import Changing, value_at
from ..wording import Said
from .base import PERIOD, SHARE, SHORTEST, Period, SelectedUnits, Selector, values_of

# The unit whose chance is the one that all share.
COMMON = 2**20
_PACES = tuple((f"{times}/s", f"{times} times a second") for times in (4, 6, 8, 9, 12, 15))


class Jitter(Selector):
    """A new chance for each unit and property every `hold` frames, or so many times a second."""

    replaced: ClassVar = {"hold": "every"}
    rank: ClassVar = 40
    title: ClassVar = "shake"
    by_property: ClassVar = True
    values: ClassVar = {
        **values_of(
            "shake",
            hold=Said("Period", PERIOD, 3),
            together=Said("Togetherness", SHARE, 0),
        ),
        "every": Said("Shakes a second", options=_PACES),
        "smooth": Said("From shake to shake", options=((False, "hard"), (True, "smoothly"))),
        "seed": Said("Seed of the shakes", measures.WHOLE),
    }

    kind: Literal["jitter"]
    hold: Changing[Period] = 3
    every: Pace | None = None
    seed: Seed = 0
    smooth: bool = False
    together: Changing[Share] = 0

    @property
    def words(self) -> str:
        pace = "every {hold}" if self.every is None else "{every}"
        return f"a new shake {pace}, {{smooth}}, {{together}} together, chance {{seed}}"

    @classmethod
    def starts(cls, size: tuple[int, int]) -> list[tuple[str, dict[str, Any]]]:
        return [("a shake", {"kind": "jitter", "every": "9/s"})]

    @property
    def other_ways(self) -> list[tuple[str, str, Any]]:
        if self.every is None:
            return [("shake so often a second", "every", "9/s")]
        return [("shake every few frames", "every", None)]

    def weights(self, units: SelectedUnits, times: np.ndarray, property_number: int) -> np.ndarray:
        """Weights (times, units) in [-1, 1)."""
        hold = np.maximum(value_at(self.hold, times), SHORTEST)
        if self.every is not None:
            hold = float(units.rate) / times_a_second(self.every)
        # A hair before a tick counts as on it, so that whole frames fall on whole ticks.
        ticks = times / hold + 1e-9
        tick = np.floor(ticks)

        def drawn(tick: np.ndarray) -> np.ndarray:
            """The chance of each unit at a tick, mixed toward the common one."""
            index = tick.astype(np.int64) + 1
            own = 2 * hash_random(self.seed, np.arange(len(units)), property_number, index) - 1
            common = 2 * hash_random(self.seed, np.array(COMMON), property_number, index) - 1
            together = value_at(self.together, times) / 100
            return own * (1 - together) + common * together

        if not self.smooth:
            return drawn(tick)
        between = ticks - tick
        share = between * between * (3 - 2 * between)
        return drawn(tick) * (1 - share) + drawn(tick + 1) * share
