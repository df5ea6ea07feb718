"""One value for every other unit, another for those between."""

from typing import Any, ClassVar, Literal

import numpy as np

from ..model import Factor
from ..pose import Asked
from ..values import measures
from ..values.tracks import Changing, value_at
from ..values.wording import Said
from .base import SelectedUnits, Selector, values_of


class Alternation(Selector):
    """The first unit, the third, the fifth by one value, those between by another: from above and
    from below in turn, or every other one alone."""

    rank: ClassVar = 25
    title: ClassVar = "alternation"
    also: ClassVar = ("alternating", "in alternation")
    values: ClassVar = values_of(
        "alternation",
        odd=Said("First, third ...", measures.PERCENT_OF_ONE_EITHER_WAY, 1),
        even=Said("Second, fourth ...", measures.PERCENT_OF_ONE_EITHER_WAY, -1),
    )

    kind: Literal["alternation"]
    odd: Changing[Factor] = 1
    even: Changing[Factor] = -1

    @property
    def words(self) -> str:
        return "alternately {odd} and {even}"

    @classmethod
    def starts(cls, size: tuple[int, int]) -> list[tuple[str, dict[str, Any]]]:
        return [("alternation", {"kind": "alternation"})]

    def weights(self, units: SelectedUnits, times: np.ndarray, asked: Asked) -> np.ndarray:
        """Weights (times, units): `odd` and `even` in turn, in reading order."""
        is_odd = np.arange(len(units)) % 2 == 0
        return np.where(is_odd, value_at(self.odd, times), value_at(self.even, times))
