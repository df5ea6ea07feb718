"""Strokes instead of a fill; balletto.picture.letterforms.hatching draws them."""

from dataclasses import replace
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ..model import Color, Counts, Degrees, Distance, Number, Opacity, Seed
from ..values import measures
from ..values.measures import Measure
from ..values.pace import Pace
from ..values.tracks import Changing
from ..values.wording import Said, Wording
from .base import Effect

Spacing = Annotated[float, Number("a number of pixels", Counts.LENGTH, ge=1, le=10_000)]
Bump = Annotated[float, Number("a number of pixels", Counts.LENGTH, ge=1, le=10_000)]
_KINDS = (("parallel", "parallel"), ("zigzag", "zigzag"), ("crossed", "crossed"))
_PACES = tuple((f"{times}/s", f"{times} times a second") for times in (4, 6, 8, 9, 12, 15, 24))
# What is said only where it is so.
_COLORED, _ANEW = ", {color}", ", anew {every}"


class Hatch(Effect):
    """Strokes of `width` every `spacing` px instead of the fill, within the outlines, in their own
    colour or in `color`.

    `parallel` strokes, one line to and fro (`zigzag`), or `crossed` ones, at an `angle` to the
    horizontal; they swing by up to `wobble` px in bumps of `wobble_size`, and go `overshoot` px
    past the edge. They are others `every` so often. Of their whole length, in the order in which
    they are drawn, there is seen what lies `from` one share `to` another.
    """

    rank: ClassVar = 105
    works_on: ClassVar = "outlines"
    limits: ClassVar = {
        "spacing": (1, 10_000), "width": (0, 10_000), "wobble": (0, 10_000),
        "wobble_size": (1, 10_000), "overshoot": (0, 10_000), "first": (0, 1), "last": (0, 1),
    }  # fmt: skip
    wording: ClassVar = Wording(
        "Hatching",
        "Hatched, strokes of {width} every {spacing} at {angle}, {style}"
        f"{_COLORED}, wobbling by {{wobble}} in bumps of {{wobble_size}}, {{overshoot}} past the "
        "edge, drawn from {from} to {to}"
        f"{_ANEW}, chance {{seed}}.",
        {
            "style": Said("Kind of the strokes", options=_KINDS),
            "width": Said("Width of the strokes", measures.LENGTH_PX, 4),
            "spacing": Said("Spacing of the strokes", Measure(" px", drag=0.25, low=1), 10),
            "angle": Said("Angle of the strokes", measures.DEGREES, -45),
            "color": Said("Colour of the strokes", is_color=True),
            "wobble": Said("Wobble of the strokes", measures.BLUR, 1.5),
            "wobble_size": Said("Size of the wobble", Measure(" px", drag=1, low=1), 40),
            "overshoot": Said("Overshoot of the strokes", measures.BLUR, 0),
            "from": Said("Start of the strokes", measures.OPACITY, 0),
            "to": Said("End of the strokes", measures.OPACITY, 1),
            "every": Said("How often", options=_PACES),
            "seed": Said("Chance of the strokes", measures.WHOLE),
        },
    )

    kind: Literal["hatch"]
    style: Literal["parallel", "zigzag", "crossed"] = "parallel"
    width: Changing[Distance] = 4
    spacing: Changing[Spacing] = 10
    angle: Changing[Degrees] = -45
    color: Changing[Color] | None = None
    wobble: Changing[Distance] = 1.5
    wobble_size: Changing[Bump] = 40
    overshoot: Changing[Distance] = 0
    first: Changing[Opacity] = Field(0, alias="from")
    last: Changing[Opacity] = Field(1, alias="to")
    every: Pace | None = None
    seed: Seed = 0

    @property
    def said(self) -> Wording:
        words = self.wording.words
        if self.color is None:
            words = words.replace(_COLORED, "")
        if self.every is None:
            words = words.replace(_ANEW, "")
        return replace(self.wording, words=words)
