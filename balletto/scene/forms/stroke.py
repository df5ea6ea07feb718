"""Strokes: the line along the edge of a shape. The data only;
balletto/picture/layers/shape.py draws it."""

from dataclasses import replace
from typing import Annotated, Literal

from pydantic import Field

from ..model import Color, Counts, Distance, Model, Number, Percent, Pixels
from ..values import measures
from ..values.tracks import Changing
from ..values.wording import Said, Wording

DashLength = Annotated[float, Number("a length in pixels", Counts.LENGTH, gt=0, le=10_000)]
Dashes = Annotated[
    tuple[DashLength, ...],
    Field(min_length=2, max_length=16),
]


class Stroke(Model):
    """The line along the edge of a shape: its width, dashes (on, off, ... in px), ends, joins.

    `dash_shift` moves the dashes along. Seen is what lies `from` so many `to` so many percent of
    its length, moved on by `travel`: keyed, the line draws itself on and off. That is of all
    contours, one after another, or with `each` of every one by itself.
    """

    width: Changing[Distance] = 6
    color: Changing[Color] = "#FFFFFF"
    dashes: Dashes | None = None
    dash_shift: Changing[Pixels] = 0
    ends: Literal["flat", "round", "square"] = "round"
    joins: Literal["sharp", "round", "cut"] = "round"
    first: Changing[Percent] = Field(0, alias="from")
    last: Changing[Percent] = Field(100, alias="to")
    travel: Changing[Percent] = 0
    each: bool = False

    @property
    def said(self) -> Wording:
        """How it reads as it is."""
        unsaid = []
        if not self.dashes or len(self.dashes) != 2:
            unsaid.append(_DASHED)
        if not self.each:
            unsaid.append(_EACH)
        words = STROKE.words
        for clause in unsaid:
            words = words.replace(clause, "")
        return replace(STROKE, words=words)


_ENDS = (("flat", "flat ends"), ("round", "round ends"), ("square", "square ends"))
_JOINS = (("sharp", "sharp corners"), ("round", "round corners"), ("cut", "cut corners"))
_ORDERS = ((False, "one contour after another"), (True, "all contours at once"))
_DASHED, _EACH = ", in dashes of {dashes}, shifted by {dash_shift}", ", {each}"
STROKE = Wording(
    "line",
    f"A line of {{width}}, {{color}}, {{ends}} and {{joins}}{_DASHED}, drawn from {{from}} "
    f"to {{to}}, moved on by {{travel}}{_EACH}.",
    {
        "dashes": Said(
            "Dashes of the line", is_pair=True, between="and gaps of", pair=("dash", "gap")
        ),
        "dash_shift": Said("Shift of the dashes", measures.PIXELS, 0),
        "each": Said("Order of the contours", options=_ORDERS),
        "width": Said("Width of the line", measures.LENGTH_PX, 6),
        "color": Said("Colour of the line", is_color=True),
        "ends": Said("Ends of the line", options=_ENDS),
        "joins": Said("Corners of the line", options=_JOINS),
        "from": Said("Start of the line", measures.PERCENT, 0),
        "to": Said("End of the line", measures.PERCENT, 100),
        "travel": Said("Travel of the line", measures.PERCENT, 0),
    },
)
