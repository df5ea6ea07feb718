"""A chance for each unit."""

from typing import Any, ClassVar, Literal

import numpy as np

from ...hash_random import hash_random
from ..model import Seed
from ..pose import Asked
from ..values import measures
from ..values.wording import Said
from .base import CHANCE_VALUES, Chance, SelectedUnits, values_of


class Scatter(Chance):
    """A chance for each unit and property, from -1 to 1, or from 0 if it is one-sided."""

    rank: ClassVar = 20
    title: ClassVar = "chance"
    also: ClassVar = ("scattered", "scatter", "randomly")
    values: ClassVar = values_of(
        "chance",
        seed=Said("Seed", measures.WHOLE),
        **CHANCE_VALUES,
    )

    kind: Literal["scatter"]
    seed: Seed = 0

    @property
    def words(self) -> str:
        return "chance {seed}, {one_sided}"

    @classmethod
    def starts(cls, size: tuple[int, int]) -> list[tuple[str, dict[str, Any]]]:
        return [("chance", {"kind": "scatter", "seed": 1})]

    def drawn(self, units: SelectedUnits, times: np.ndarray, asked: Asked) -> np.ndarray:
        """The same at all times. A unit's chance depends on its place alone, so that more units
        change nobody else's."""
        return hash_random(self.seed, np.arange(len(units)), asked.number, 0)[None]
