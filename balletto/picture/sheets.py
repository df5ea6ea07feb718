"""Sheets: what is drawn together and then blended with what lies behind, and how that is done.

A frame is a list of sheets, from the back to the front, that says all there is to draw: two frames
with equal sheets look the same.
"""

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property
from typing import NamedTuple

from .canvas import Box, Canvas, Cut, Letter, Step
from .effects import margin_of

Letters = list[Letter]


class Drawn(NamedTuple):
    """What a layer draws itself at some times, and what gives the box around all of that."""

    samples: list[Letters]
    find_box: Callable[[], Box | None]


class DrawnMatte(NamedTuple):
    """A sheet that says what another lets through."""

    sheet: "Sheet"
    by: str
    invert: bool


@dataclass(frozen=True)
class Sheet:
    """Letters and other sheets, drawn together.

    samples: of the letters, whose mean is drawn; as a rule one
    members: sheets drawn on top of them, from the back to the front
    steps: effects, one after another; of an adjustment they are done to all that lies below
    find_box: gives the box of the picture outside which nothing is drawn before the effects, or
        None if that is not known; asked only where it matters, since it takes a while
    """

    samples: tuple[Letters, ...] = ([],)
    members: tuple["Sheet", ...] = ()
    blend: str = "normal"
    opacity: float = 1.0
    steps: tuple[Step, ...] = ()
    cuts: tuple[Cut, ...] = ()
    matte: DrawnMatte | None = None
    adjusts: bool = False
    find_box: Callable[[], Box | None] = field(default=lambda: None, compare=False)

    @cached_property
    def box(self) -> Box | None:
        """What `find_box` gives."""
        return self.find_box()

    @property
    def is_plain(self) -> bool:
        """Whether its letters can be drawn straight onto what lies behind."""
        dressed = self.steps or self.cuts or self.matte or self.members or self.opacity < 1
        return not dressed and len(self.samples) == 1

    @property
    def margin(self) -> float:
        """How far its effects reach, in px of the picture."""
        return sum(margin_of(step.kind, dict(step.values)) for step in self.steps)

    @property
    def rows(self) -> tuple[float, float] | None:
        """The highest and the lowest row that is drawn on; None if that is not known."""
        if self.adjusts or self.box is None or any(s.kind == "zoom-blur" for s in self.steps):
            return None
        return self.box[1] - self.margin, self.box[3] + self.margin


def lay(canvas: Canvas, sheet: Sheet) -> None:
    """Draws a sheet on what there is."""
    if sheet.adjusts:
        canvas.adjust(sheet.steps, sheet.cuts, sheet.opacity)
    elif sheet.is_plain:
        canvas.draw(sheet.samples[0], sheet.blend)
    else:
        _fill(canvas, sheet)
        canvas.close(sheet.blend, sheet.opacity)


def _fill(canvas: Canvas, sheet: Sheet) -> None:
    """Opens a sheet and draws all that is on it."""
    canvas.open(sheet.box, sheet.margin)
    if len(sheet.samples) > 1:
        canvas.average(sheet.samples)
    else:
        canvas.draw(sheet.samples[0])
    for member in sheet.members:
        lay(canvas, member)
    if sheet.steps:
        canvas.apply(sheet.steps)
    if sheet.cuts:
        canvas.cut(sheet.cuts)
    if sheet.matte:
        _fill(canvas, sheet.matte.sheet)
        canvas.close_as_matte(sheet.matte.by, sheet.matte.invert)
