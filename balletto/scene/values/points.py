"""Points: pairs of numbers, in the space of a layer or in the picture."""

from typing import Annotated

from pydantic import Field

from ..model import Counting, Counts, PicturePixels, Pixels, needs

_PAIR = "two numbers of pixels [x, y]"
Point = Annotated[tuple[Pixels, Pixels], Counting(Counts.POINT), Field(strict=False), needs(_PAIR)]
PicturePoint = Annotated[
    tuple[PicturePixels, PicturePixels],
    Counting(Counts.PICTURE_POINT),
    Field(strict=False),
    needs(_PAIR),
]
PictureShift = Annotated[tuple[PicturePixels, PicturePixels], Field(strict=False), needs(_PAIR)]
