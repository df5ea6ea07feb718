"""A chance for each unit."""

from typing import Any, ClassVar, Literal

import numpy as np

from .. import measures
from ..hash_random import hash_random
from ..model import Seed
from ..wording import Said
from .base import SelectedUnits, Selector, values_of


class Scatter(Selector):
    """A chance for each unit and property, from -1 to 1, or from 0 if it is one-sided."""

    rank: ClassVar = 20
    title: ClassVar = "chance"
    by_property: ClassVar = True
    values: ClassVar = values_of(
        "chance",
        seed=Said("Seed", measures.WHOLE),
        one_sided=Said("Ways", options=((False, "either way"), (True, "one way only"))),
    )

    kind: Literal["scatter"]
    seed: Seed = 0
    one_sided: bool = False

    @property
    def words(self) -> str:
        return "chance {seed}, {one_sided}"

    @classmethod
    def starts(cls, size: tuple[int, int]) -> list[tuple[str, dict[str, Any]]]:
        return [("chance", {"kind": "scatter", "seed": 1})]

    def weights(self, units: SelectedUnits, times: np.ndarray, property_number: int) -> np.ndarray:
        """Weights (times, units) in [-1, 1), or in [0, 1) if one-sided; the same at all times.

        A unit's chance depends on its place alone, so that more units change nobody else's.
        """
        drawn = hash_random(self.seed, np.arange(len(units)), property_number, 0)
        value = drawn if self.one_sided else 2 * drawn - 1
        return np.broadcast_to(value, (len(times), len(units)))
