"""What all formations have: how many copies, what the last one has, chance, and delays.
balletto.motion.spaces.formations works them out."""

from typing import Annotated, ClassVar

import numpy as np
from pydantic_core import PydanticCustomError

from ..kinds import Kind
from ..model import Counts, Degrees, Factor, Model, Number, Opacity, Pixels, Seed
from ..moving.grips import Grip
from ..moving.moves import Stagger
from ..values import measures
from ..values.measures import Measure
from ..values.tracks import Changing
from ..values.wording import Said, Wording

MOST_COPIES = 1000
Count = Annotated[int, Number("a number of copies", Counts.COUNT, ge=1, le=MOST_COPIES)]
COPIES = Measure(" copies", drag=0.05, low=1, high=MOST_COPIES, one=" copy")


class LastCopy(Model):
    """What the last copy has; those between have a share of it, the first has none."""

    scale: Changing[Factor] = 1
    turn: Changing[Degrees] = 0
    opacity: Changing[Opacity] = 1


class CopyChance(Model):
    """How far copies may be from where they would be, either way: px, degrees, and a factor of
    their size."""

    x: Changing[Pixels] = 0
    y: Changing[Pixels] = 0
    turn: Changing[Degrees] = 0
    scale: Changing[Factor] = 0
    seed: Seed = 0


def needs_few(count: int) -> None:
    """An error if there are more copies than may be."""
    if count > MOST_COPIES:
        raise PydanticCustomError(
            "needs",
            "at most {most} copies are needed, got {got}",
            {"most": MOST_COPIES, "got": count},
        )


class Formation(Kind):
    """What all kinds have: `last` is reached evenly, `delay` is how much later each copy shows what
    the layer does."""

    wording: ClassVar[Wording]

    last: LastCopy = LastCopy()
    chance: CopyChance = CopyChance()
    delay: Stagger | None = None

    @property
    def number(self) -> int:
        """How many copies there are, those that are cut away too."""
        raise NotImplementedError

    def places(self, times: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        """Where the copies stand about the origin of the layer, (times, n, 2) in px, and how they
        are turned, (times, n) in degrees."""
        raise NotImplementedError

    def grips(self, time: np.ndarray) -> list[Grip]:
        """What hands can take hold of at a time (1,): nothing, if it is not told."""
        return []

    def seen(self, times: np.ndarray) -> np.ndarray:
        """Which copies there are, (times, n)."""
        return np.ones((len(times), self.number), dtype=bool)


# What is said after where the copies stand, as far as it is not as usual.
LAST = Wording(
    "last copy",
    "the last {scale} as large, the last turned {turn}, the last {opacity} opaque",
    {
        "scale": Said("Size of the last copy", measures.PERCENT_OF_ONE_EITHER_WAY, 1),
        "turn": Said("Turn of the last copy", measures.DEGREES, 0),
        "opacity": Said("Opacity of the last copy", measures.OPACITY, 1),
    },
)
CHANCE = Wording(
    "chance of copies",
    "by chance {x} aside, by chance {y} up or down, by chance turned {turn}, "
    "by chance {scale} larger or smaller, chance {seed} of the copies",
    {
        "x": Said("Chance across", measures.PIXELS, 0),
        "y": Said("Chance down", measures.PIXELS, 0),
        "turn": Said("Chance of turns", measures.DEGREES, 0),
        "scale": Said("Chance of sizes", measures.PERCENT_OF_ONE_EITHER_WAY, 0),
        "seed": Said("Chance of the copies", measures.WHOLE, 0),
    },
)
