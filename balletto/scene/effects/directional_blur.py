"""A smear along a line."""

import math
from typing import Annotated, ClassVar, Literal

from ...raster.pixel_buffer import PixelBuffer, Scale
from ...raster.smearing import shifted, smeared, steps_for
from ..model import Counts, Degrees, Number
from ..values import measures
from ..values.tracks import Changing
from ..values.wording import Said, Wording
from .base import LONGEST, Effect, Values

Smear = Annotated[float, Number("a number of pixels", Counts.PICTURE_LENGTH, ge=0, le=LONGEST)]


class DirectionalBlur(Effect):
    """A smear of `length` along `angle`, even on both sides."""

    rank: ClassVar = 20
    limits: ClassVar = {"length": (0, LONGEST)}
    nothing_at: ClassVar = "length"
    wording: ClassVar = Wording(
        "Directional blur",
        "Smeared over {length} along {angle}.",
        {
            "length": Said("Length of the smear", measures.LENGTH_PX, 60),
            "angle": Said("Direction of the smear", measures.DEGREES, 0),
        },
    )

    kind: Literal["directional-blur"]
    length: Changing[Smear] = 60
    angle: Changing[Degrees] = 0

    @classmethod
    def apply(cls, buffer: PixelBuffer, values: Values, scale: Scale) -> PixelBuffer:
        angle = math.radians(values["angle"])
        x, y = (
            values["length"] * scale.across * math.cos(angle),
            values["length"] * scale.down * math.sin(angle),
        )
        steps = steps_for(math.hypot(x, y))
        if not steps:
            return buffer
        grown = buffer.grown(math.ceil(abs(x) / 2) + 1, math.ceil(abs(y) / 2) + 1)
        count = 2**steps

        # The copies stand at even steps about the place of the original.
        start = shifted(-x * (count - 1) / count / 2, -y * (count - 1) / count / 2)
        return smeared(
            grown, start, lambda copies: shifted(x * copies / count, y * copies / count), steps
        )

    @classmethod
    def margin(cls, values: Values) -> float:
        return values["length"] / 2
