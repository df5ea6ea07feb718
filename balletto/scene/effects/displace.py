"""Outlines pushed about; balletto.picture.letterforms.outlines does it."""

from typing import Annotated, ClassVar, Literal

from ..model import Counts, Distance, Number, Seed
from ..values import measures
from ..values.measures import Measure
from ..values.pace import Pace
from ..values.tracks import Changing
from ..values.wording import Said, Wording
from .base import Effect

Bump = Annotated[float, Number("a size in pixels", Counts.LENGTH, gt=0, le=10_000)]
_PACES = tuple((f"{times}/s", f"{times} times a second") for times in (4, 6, 8, 9, 12, 15, 24))


class Displace(Effect):
    """Outlines pushed about as in stop motion: by up to `amount`, in bumps of `size`, anew at
    each tick."""

    rank: ClassVar = 110
    works_on: ClassVar = "outlines"
    wording: ClassVar = Wording(
        "Displacement",
        "Outlines pushed by {amount} in bumps of {size}, anew {every}, chance {seed}.",
        {
            "amount": Said("Amount of the displacement", measures.BLUR, 6),
            "size": Said("Size of the bumps", Measure(" px", drag=1, low=1), 40),
            "every": Said("How often", options=_PACES),
            "seed": Said("Chance of the displacement", measures.WHOLE),
        },
    )

    kind: Literal["displace"]
    size: Changing[Bump] = 40
    amount: Changing[Distance] = 6
    every: Pace = "9/s"
    seed: Seed = 0
