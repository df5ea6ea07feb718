"""Copies in a straight row."""

from typing import Annotated, ClassVar, Literal

import numpy as np

from ..model import Counts, Number
from ..moving.grips import Grip
from ..values import measures
from ..values.points import Point
from ..values.tracks import Changing, value_at
from ..values.wording import Said, Wording
from .base import COPIES, Count, Formation

Anchor = Annotated[float, Number("a share", Counts.PART, ge=0, le=1)]


class LineFormation(Formation):
    """A row with a step from one copy to the next; the copy at the share `anchor` of the row stands
    at the origin."""

    rank: ClassVar = 10
    wording: ClassVar = Wording(
        "row",
        "{count} in a row, each {step} from the one before, {anchor} of them before its place",
        {
            "count": Said("Copies", COPIES, 5),
            "step": Said("Step", is_pair=True),
            "anchor": Said("Copies before its place", measures.PERCENT_OF_ONE, 0.5),
        },
    )

    kind: Literal["line"]
    count: Count = 5
    step: Changing[Point] = (100, 0)
    anchor: Changing[Anchor] = 0.5

    @property
    def number(self) -> int:
        return self.count

    def places(self, times: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        step, anchor = value_at(self.step, times), value_at(self.anchor, times)
        away = np.arange(self.count) - np.reshape(anchor, (-1, 1)) * (self.count - 1)
        places = away[..., None] * np.reshape(step, (-1, 1, 2))
        shape = (len(times), self.count)
        return np.broadcast_to(places, (*shape, 2)), np.zeros(shape)

    def grips(self, time: np.ndarray) -> list[Grip]:
        if self.count < 2:
            return []
        places = self.places(time)[0][0].tolist()
        return [Grip("step", "offset", tuple(places[-1]), tuple(places[-2]))]
