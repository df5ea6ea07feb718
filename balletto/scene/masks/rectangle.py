"""A rectangle as a mask."""

from typing import ClassVar, Literal

from ..model import Size2
from ..shapes.rectangle import Rectangle
from ..values import measures
from ..values.tracks import Changing
from ..values.wording import Said
from .base import SIZE, Mask, mask_wording


class RectangleMask(Rectangle, Mask):
    """A rectangle with rounded corners."""

    rank: ClassVar = 10
    wording: ClassVar = mask_wording(
        "Rectangle mask",
        "a rectangle of {size}, corners of {corner},",
        size=SIZE,
        corner=Said("Corners of the mask", measures.LENGTH_PX, 0),
    )

    kind: Literal["rectangle"]
    size: Changing[Size2] = (400, 200)
