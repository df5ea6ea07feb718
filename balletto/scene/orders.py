"""Orders: how the units of a title are ranked, for a stagger or for a selector."""

from typing import Annotated, Literal

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from .model import Counting, Counts, Model, Number, PicturePixels, Pixels, Seed, needs

Order = Literal[
    "forward",
    "backward",
    "center-out",
    "ends-in",
    "alternate",
    "shuffle",
    "across",
    "down",
    "from-point",
    "by-hand",
]
Rank = Annotated[float, Number("a rank", Counts.INDEX, ge=-10_000, le=10_000)]
Ranks = Annotated[
    tuple[Rank, ...],
    Field(min_length=1, max_length=10_000),
]
_PAIR = "two numbers of pixels [x, y]"
Point = Annotated[tuple[Pixels, Pixels], Counting(Counts.POINT), Field(strict=False), needs(_PAIR)]
PicturePoint = Annotated[
    tuple[PicturePixels, PicturePixels],
    Counting(Counts.PICTURE_POINT),
    Field(strict=False),
    needs(_PAIR),
]
PictureShift = Annotated[tuple[PicturePixels, PicturePixels], Field(strict=False), needs(_PAIR)]


class Ordered(Model):
    """Anything that ranks units. `seed` is for a shuffle, `point` lies in the picture."""

    order: Order = "forward"
    seed: Seed = 0
    point: PicturePoint | None = None
    ranks: Ranks | None = None

    @model_validator(mode="after")
    def _has_what_its_order_needs(self) -> "Ordered":
        if (self.order == "by-hand") != (self.ranks is not None):
            raise PydanticCustomError("needs", "ranks go with the order by-hand, and only with it")
        if (self.order == "from-point") != (self.point is not None):
            raise PydanticCustomError("needs", "a point goes with the order from-point alone")
        return self
