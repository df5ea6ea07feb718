"""Copies in columns and rows."""

from typing import ClassVar, Literal

import numpy as np
from pydantic import model_validator

from ..model import Factor
from ..moving.grips import Grip
from ..values import measures
from ..values.measures import Measure
from ..values.points import Point
from ..values.tracks import Changing, value_at
from ..values.wording import Said, Wording
from .base import Count, Formation, needs_few


class GridFormation(Formation):
    """Copies about the origin at a step across and down, row after row; every other row is moved
    aside by `shift` steps."""

    rank: ClassVar = 30
    wording: ClassVar = Wording(
        "grid",
        "copies in a grid of {columns} by {rows}, {step} apart, every other row {shift} aside",
        {
            "columns": Said("Columns", Measure(" columns", drag=0.05, low=1, one=" column"), 4),
            "rows": Said("Rows", Measure(" rows", drag=0.05, low=1, one=" row"), 3),
            "step": Said("Step", is_pair=True),
            "shift": Said("Shift of every other row", measures.PERCENT_OF_ONE_EITHER_WAY, 0),
        },
    )

    kind: Literal["grid"]
    columns: Count = 4
    rows: Count = 3
    step: Changing[Point] = (200, 200)
    shift: Changing[Factor] = 0

    @model_validator(mode="after")
    def _is_not_too_many(self) -> "GridFormation":
        needs_few(self.columns * self.rows)
        return self

    @property
    def number(self) -> int:
        return self.columns * self.rows

    def cells(self) -> tuple[np.ndarray, np.ndarray]:
        """The column and the row of each copy, (n,)."""
        numbers = np.arange(self.number)
        return numbers % self.columns, numbers // self.columns

    def places(self, times: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        column, row = self.cells()
        step = np.reshape(value_at(self.step, times), (-1, 1, 2))
        shift = np.reshape(value_at(self.shift, times), (-1, 1))
        across = column - (self.columns - 1) / 2 + shift * (row % 2)
        down = np.broadcast_to(row - (self.rows - 1) / 2, across.shape)
        places = np.stack([across, down], axis=-1) * step
        shape = (len(times), self.number)
        return np.broadcast_to(places, (*shape, 2)), np.zeros(shape)

    def grips(self, time: np.ndarray) -> list[Grip]:
        """The step, from the first copy to where the next column and row meet."""
        first = self.places(time)[0][0, 0]
        corner = first + np.reshape(value_at(self.step, time), (-1, 2))[0]
        return [Grip("step", "offset", tuple(corner.tolist()), tuple(first.tolist()))]
