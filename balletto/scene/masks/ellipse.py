"""An ellipse as a mask."""

from typing import ClassVar, Literal

from ..model import Size2
from ..shapes.ellipse import Ellipse
from ..values.tracks import Changing
from .base import SIZE, Mask, mask_wording


class EllipseMask(Ellipse, Mask):
    """An ellipse in a box of `size`."""

    rank: ClassVar = 20
    wording: ClassVar = mask_wording("Ellipse mask", "an ellipse of {size}", size=SIZE)

    kind: Literal["ellipse"]
    size: Changing[Size2] = (400, 400)
