"""What all effects have: what becomes of the picture of a layer once it is drawn. They come one
after another, in the order of the list.

Lengths are in px of the scene's picture, amounts in percent.
"""

from typing import Annotated, Any, ClassVar, Literal

import numpy as np

from ...raster.coloring import mixed
from ...raster.pixel_buffer import PixelBuffer, Scale
from ...raster.svg_filters import color_matrix
from ..kinds import Kind
from ..model import Counts, Number
from ..values.measures import Measure
from ..values.wording import Wording

Values = dict[str, Any]
# A matrix (3, 3) on red, green and blue, and what is added to all of them.
Mixing = tuple[np.ndarray, float]

Amount = Annotated[float, Number("a number of percent", Counts.PART, ge=0, le=1000)]
ANY_AMOUNT = (0, 1000)
AMOUNT = Measure(" %", drag=0.5, low=0)
# Lengths of what is done to pixels, and so takes memory, are kept to some pictures' width.
SOFTEST, LONGEST, WIDEST = 500, 4000, 200
Softness = Annotated[float, Number("a number of pixels", Counts.PICTURE_LENGTH, ge=0, le=SOFTEST)]


class Effect(Kind):
    """What all kinds have.

    limits: the values that keys and ties may not leave, even where they overshoot
    works_on: the picture of a layer; or, while it is drawn, what it draws, or its outlines
    nothing_at: the value at 0 of which it does nothing
    is_unbounded: whether it may reach anywhere in the picture
    """

    wording: ClassVar[Wording]
    limits: ClassVar[dict[str, tuple[float, float]]] = {}
    works_on: ClassVar[Literal["picture", "drawing", "outlines"]] = "picture"
    nothing_at: ClassVar[str] = ""
    is_unbounded: ClassVar[bool] = False

    on: bool = True

    @property
    def said(self) -> Wording:
        """How it reads as it is."""
        return self.wording

    @classmethod
    def in_px(cls, values: Values, size: tuple[int, int]) -> Values:
        """Its values with those in px that are shares of a picture of that size."""
        return values

    @classmethod
    def apply(cls, buffer: PixelBuffer, values: Values, scale: Scale) -> PixelBuffer:
        """The buffer with the effect on it. `values` are those of its fields at the time, lengths
        in px of the scene's picture, of which `scale` pixels in memory make one."""
        raise NotImplementedError

    @classmethod
    def margin(cls, values: Values) -> float:
        """How far it reaches beyond what it is given, in px of the picture: more than that is
        never needed from outside."""
        return 0.0

    @classmethod
    def svg_filter(cls, values: Values) -> str | None:
        """What it is in SVG's `filter`; None if that cannot say it."""
        return None


class ColorEffect(Effect):
    """An effect on colours, by a matrix."""

    @classmethod
    def mixing(cls, values: Values) -> Mixing:
        """How red, green and blue become of one another."""
        raise NotImplementedError

    @classmethod
    def apply(cls, buffer: PixelBuffer, values: Values, scale: Scale) -> PixelBuffer:
        return mixed(buffer, *cls.mixing(values))

    @classmethod
    def svg_filter(cls, values: Values) -> str:
        linear, plus = cls.mixing(values)
        return color_matrix([*([*row, 0, plus] for row in linear.tolist()), [0, 0, 0, 1, 0]])
