"""Copies of what was drawn before; balletto.picture draws them."""

from typing import Annotated, ClassVar, Literal

from ..model import Counts, Number, Opacity
from ..values import measures
from ..values.measures import Measure
from ..values.tracks import Changing
from ..values.wording import Said, Wording
from .base import WIDEST, Effect

Shrinking = Annotated[float, Number("a factor", Counts.FACTOR, ge=0, le=2)]
LineWidth = Annotated[float, Number("a number of pixels", Counts.LENGTH, ge=0, le=WIDEST)]
_GAP = Measure(" frames", drag=0.02, step=0.25, low=0.01, one=" frame")
_COPIES = Measure(" copies", drag=0.1, low=1, high=200, one=" copy")


class Trail(Effect):
    """Copies of the layer as it was `gap`, 2 `gap`, ... frames ago, behind it: each `fade` times
    as opaque and `shrink` times as large as the one before."""

    rank: ClassVar = 100
    limits: ClassVar = {"fade": (0, 1), "shrink": (0, 2), "outline": (0, WIDEST)}
    works_on: ClassVar = "drawing"
    wording: ClassVar = Wording(
        "Trail",
        "Trails {copies}, one every {gap}, each {fade} as opaque and {shrink} as large as the one "
        "before, as outlines of {outline}.",
        {
            "copies": Said("Copies of the trail", _COPIES),
            "gap": Said("Frames between copies", _GAP),
            "fade": Said("Fade from copy to copy", measures.OPACITY, 0.85),
            "shrink": Said("Size from copy to copy", measures.PERCENT_OF_ONE, 1),
            "outline": Said("Width of outlines, 0 for whole letters", measures.LENGTH_PX, 0),
        },
    )

    kind: Literal["trail"]
    copies: Annotated[int, Number("a number of copies", Counts.COUNT, ge=1, le=200)] = 12
    gap: Annotated[float, Number("a number of frames", Counts.DURATION, ge=0.01, le=1000)] = 1
    fade: Changing[Opacity] = 0.85
    shrink: Changing[Shrinking] = 1
    outline: Changing[LineWidth] = 0
