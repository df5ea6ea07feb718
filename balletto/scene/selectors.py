"""Selectors: how strongly each unit takes part. The data only; balletto.motion.reach computes it.

A new kind is a model here with its line in SELECTOR_KINDS, and a function in balletto.motion.reach.
"""

from typing import Annotated, ClassVar, Literal

from pydantic import AfterValidator, Field
from pydantic_core import PydanticCustomError

from .eases import Ease
from .model import (
    Counts,
    Degrees,
    Factor,
    Model,
    Number,
    Percent,
    PictureDistance,
    Seed,
    Share,
    kind_of,
    one_of,
    shown,
)
from .orders import Ordered, PicturePoint
from .tracks import Changing

Softness = Annotated[float, Number("a softness", Counts.PART, ge=0, le=1_000_000)]
Period = Annotated[float, Number("a number of frames", Counts.DURATION, gt=0, le=1_000_000)]


class Selector(Model):
    """What all kinds have: `strength` scales the value, then `combine` joins it to those before."""

    strength: Changing[Percent] = 100
    combine: Literal["multiply", "add", "subtract", "min", "max", "difference"] = "multiply"


class Sweep(Selector, Ordered):
    """A band over the title: from low+travel to high+travel, softened at either side."""

    kind: Literal["sweep"]
    low: Changing[Percent] = 0
    high: Changing[Percent] = 100
    travel: Changing[Percent] = 0
    soft_low: Changing[Softness] = 0
    soft_high: Changing[Softness] = 0
    measure: Literal["percent", "units"] = "percent"
    edge: Ease = "linear"


class Scatter(Selector):
    """A chance for each unit and property, from -1 to 1, or from 0 if it is one-sided."""

    kind: Literal["scatter"]
    seed: Seed = 0
    one_sided: bool = False


class Wave(Selector, Ordered):
    """A shape that repeats along the title and in time; `loop` fits it to the scene's length."""

    kind: Literal["wave"]
    shape: Literal["sine", "triangle", "saw", "pulse"] = "sine"
    cycles: Changing[Factor] = 1
    period: Changing[Period] = 30
    phase: Changing[Factor] = 0
    low: Changing[Factor] = -1
    high: Changing[Factor] = 1
    soft: Changing[Annotated[float, Number("a softness", Counts.PART, ge=0, le=1)]] = 0
    loop: bool = False


_PACE = Field(json_schema_extra={"pattern": r"^[0-9.]+/s$"})


def _known_pace(text: str) -> str:
    """Ticks a second as "9/s"."""
    try:
        if not text.endswith("/s") or not 0 < float(text.removesuffix("/s")) <= 1000:
            raise ValueError
    except ValueError:
        raise PydanticCustomError(
            "needs",
            'a number of times a second as "9/s" is needed, got {got}',
            {"got": shown(text)},
        ) from None
    return text


Pace = Annotated[str, _PACE, AfterValidator(_known_pace)]


class Jitter(Selector):
    """A new chance for each unit and property every `hold` frames, or so many times a second."""

    replaced: ClassVar = {"hold": "every"}

    kind: Literal["jitter"]
    hold: Changing[Period] = 3
    every: Pace | None = None
    seed: Seed = 0
    smooth: bool = False
    together: Changing[Share] = 0


class _Spot(Selector):
    """What all spots have: by the place of a unit's rest centre in the picture."""

    kind: Literal["spot"]
    edge: Ease = "linear"
    invert: bool = False
    floor: Changing[Share] = 0


class SlopeSpot(_Spot):
    """0 at `from`, 1 at `to`, even between them."""

    shape: Literal["slope"]
    start: Changing[PicturePoint] = Field(alias="from")
    end: Changing[PicturePoint] = Field(alias="to")


class RoundSpot(_Spot):
    """1 within `inner` of `center`, 0 beyond `outer`."""

    shape: Literal["round"]
    center: Changing[PicturePoint]
    inner: Changing[PictureDistance] = 0
    outer: Changing[PictureDistance] = 400


class BandSpot(_Spot):
    """1 on the line through `center` at `angle`, 0 half a `width` away from it."""

    shape: Literal["band"]
    center: Changing[PicturePoint]
    angle: Changing[Degrees] = 0
    width: Changing[PictureDistance] = 400


SPOT_SHAPES = {"slope": SlopeSpot, "round": RoundSpot, "band": BandSpot}


def _shape_of(data: object) -> str:
    shape = data.get("shape") if isinstance(data, dict) else getattr(data, "shape", None)
    return str(shape)


Spot = one_of(_shape_of, f"a spot of one of the shapes {', '.join(SPOT_SHAPES)}", **SPOT_SHAPES)
SELECTOR_KINDS = {"sweep": Sweep, "scatter": Scatter, "wave": Wave, "jitter": Jitter, "spot": Spot}
AnySelector = one_of(
    kind_of, f"a selector of one of the kinds {', '.join(SELECTOR_KINDS)}", **SELECTOR_KINDS
)
