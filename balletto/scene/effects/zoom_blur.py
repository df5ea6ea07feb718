"""A smear away from a point."""

import math
from typing import Annotated, ClassVar, Literal

import cv2

from ...raster.pixel_buffer import PixelBuffer, Scale
from ...raster.smearing import scaled, shifted, smeared, steps_for
from ..model import Counts, Number, Percent
from ..values import measures
from ..values.tracks import Changing
from ..values.wording import Said, Wording
from .base import AMOUNT, Effect, Values

_FARTHEST = 400
Spread = Annotated[float, Number("a number of percent", Counts.PART, ge=0, le=_FARTHEST)]


class ZoomBlur(Effect):
    """A smear away from a point: up to `amount` percent of the distance from it. The point is
    in percent of the picture."""

    rank: ClassVar = 30
    limits: ClassVar = {"amount": (0, _FARTHEST)}
    nothing_at: ClassVar = "amount"
    is_unbounded: ClassVar = True
    wording: ClassVar = Wording(
        "Zoom blur",
        "Smeared by {amount} away from {x} across, {y} down of the picture.",
        {
            "amount": Said("Amount of the smear", AMOUNT, 20),
            "x": Said("Point across", measures.PERCENT, 50),
            "y": Said("Point down", measures.PERCENT, 50),
        },
    )

    kind: Literal["zoom-blur"]
    amount: Changing[Spread] = 20
    x: Changing[Percent] = 50
    y: Changing[Percent] = 50

    @classmethod
    def in_px(cls, values: Values, size: tuple[int, int]) -> Values:
        x, y = (values[axis] / 100 * side for axis, side in zip("xy", size, strict=True))
        return {**values, "x": x, "y": y}

    @classmethod
    def apply(cls, buffer: PixelBuffer, values: Values, scale: Scale) -> PixelBuffer:
        center = (values["x"] * scale.across - buffer.left, values["y"] * scale.down - buffer.top)
        height, width = buffer.pixels.shape[:2]
        corners = [(x - center[0], y - center[1]) for x in (0, width) for y in (0, height)]
        most = values["amount"] / 100
        steps = steps_for(most * max(math.hypot(*corner) for corner in corners))
        if not steps:
            return buffer
        # Outward as far as it goes, but not beyond the picture.
        left, right = (max(0, math.ceil(most * way)) for way in (center[0], width - center[0]))
        up, down = (max(0, math.ceil(most * way)) for way in (center[1], height - center[1]))
        left, right = min(left, max(buffer.left, 0)), min(right, max(scale.width - buffer.right, 0))
        up, down = min(up, max(buffer.top, 0)), min(down, max(scale.height - buffer.bottom, 0))
        wider = cv2.copyMakeBorder(buffer.pixels, up, down, left, right, cv2.BORDER_CONSTANT)
        grown = PixelBuffer(wider, buffer.left - left, buffer.top - up)
        about = (center[0] + left, center[1] + up)
        rate = (1 + most) ** (1 / 2**steps)
        return smeared(grown, shifted(0, 0), lambda copies: scaled(rate**copies, *about), steps)
