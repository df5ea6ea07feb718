"""A new chance for each unit at each tick, as in stop motion."""

from typing import Any, ClassVar, Literal

import numpy as np

from ...hash_random import hash_random
from ..model import Seed, Share
from ..pose import Asked
from ..values import measures
from ..values.pace import Pace, times_a_second
from ..values.tracks import Changing, value_at
from ..values.wording import Said
from .base import CHANCE_VALUES, PERIOD, SHARE, SHORTEST, Chance, Period, SelectedUnits, values_of

# The unit whose chance is the one that all share.
COMMON = 2**20
_PACES = tuple((f"{times}/s", f"{times} times a second") for times in (4, 6, 8, 9, 12, 15))


class Jitter(Chance):
    """A new chance for each unit and property every `hold` frames, or so many times a second."""

    replaced: ClassVar = {"hold": "every"}
    rank: ClassVar = 40
    title: ClassVar = "shake"
    also: ClassVar = ("shaken", "shaking", "shakes", "jitter", "wobbling", "wobble")
    values: ClassVar = {
        **values_of(
            "shake",
            hold=Said("Period", PERIOD, 3),
            together=Said("Togetherness", SHARE, 0),
            **CHANCE_VALUES,
        ),
        "every": Said("Shakes a second", options=_PACES),
        "smooth": Said("From shake to shake", options=((False, "in jumps"), (True, "smoothly"))),
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
        return f"a shake {pace}, {{smooth}}, {{together}} alike, chance {{seed}}"

    @property
    def less_used(self) -> str:
        return "strength {strength}, for {only}, {one_sided}"

    @classmethod
    def starts(cls, size: tuple[int, int]) -> list[tuple[str, dict[str, Any]]]:
        return [("a shake", {"kind": "jitter", "every": "9/s"})]

    @property
    def other_ways(self) -> list[tuple[str, str, Any]]:
        if self.every is None:
            return [("shake so often a second", "every", "9/s")]
        return [("shake every few frames", "every", None)]

    def drawn(self, units: SelectedUnits, times: np.ndarray, asked: Asked) -> np.ndarray:
        hold = np.maximum(value_at(self.hold, times), SHORTEST)
        if self.every is not None:
            hold = float(units.rate) / times_a_second(self.every)
        # A hair before a tick counts as on it, so that whole frames fall on whole ticks.
        ticks = times / hold + 1e-9
        tick = np.floor(ticks)

        def at_tick(tick: np.ndarray) -> np.ndarray:
            """The chance of each unit at a tick, mixed toward the common one."""
            index = tick.astype(np.int64) + 1
            own = hash_random(self.seed, np.arange(len(units)), asked.number, index)
            common = hash_random(self.seed, np.array(COMMON), asked.number, index)
            together = value_at(self.together, times) / 100
            return own * (1 - together) + common * together

        if not self.smooth:
            return at_tick(tick)
        between = ticks - tick
        share = between * between * (3 - 2 * between)
        return at_tick(tick) * (1 - share) + at_tick(tick + 1) * share
