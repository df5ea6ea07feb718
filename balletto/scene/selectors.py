"""Selectors: how strongly each unit takes part. The data only; balletto.motion.reach computes it.

A new kind is a model here with its line in SELECTOR_KINDS, and a function in balletto.motion.reach.
"""

from typing import Annotated, Literal

from pydantic import AfterValidator, Field
from pydantic_core import PydanticCustomError

from .eases import Ease
from .model import Factor, Model, Percent, Seed, kind_of, number, one_of, shown
from .orders import Ordered, Point
from .tracks import changing

Share = number("a number of percent", ge=0, le=100)
Softness = number("a softness", ge=0, le=1_000_000)
Period = number("a number of frames", gt=0, le=1_000_000)
Distance = number("a number of pixels", ge=0, le=1_000_000)


class Selector(Model):
    """What all kinds have: `strength` scales the value, then `combine` joins it to those before."""

    strength: changing(Percent) = 100
    combine: Literal["multiply", "add", "subtract", "min", "max", "difference"] = "multiply"


class Sweep(Selector, Ordered):
    """A band over the title: from low+travel to high+travel, softened at either side."""

    kind: Literal["sweep"]
    low: changing(Percent) = 0
    high: changing(Percent) = 100
    travel: changing(Percent) = 0
    soft_low: changing(Softness) = 0
    soft_high: changing(Softness) = 0
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
    cycles: changing(Factor) = 1
    period: changing(Period) = 30
    phase: changing(Factor) = 0
    low: changing(Factor) = -1
    high: changing(Factor) = 1
    soft: changing(number("a softness", ge=0, le=1)) = 0
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

    kind: Literal["jitter"]
    hold: changing(Period) = 3
    every: Pace | None = None
    seed: Seed = 0
    smooth: bool = False
    together: changing(Share) = 0


class _Spot(Selector):
    """What all spots have: by the place of a unit's rest centre in the picture."""

    kind: Literal["spot"]
    edge: Ease = "linear"
    invert: bool = False
    floor: changing(Share) = 0


_Vector = changing(Point)


class SlopeSpot(_Spot):
    """0 at `from`, 1 at `to`, even between them."""

    shape: Literal["slope"]
    start: _Vector = Field(alias="from")
    end: _Vector = Field(alias="to")


class RoundSpot(_Spot):
    """1 within `inner` of `center`, 0 beyond `outer`."""

    shape: Literal["round"]
    center: _Vector
    inner: changing(Distance) = 0
    outer: changing(Distance) = 400


class BandSpot(_Spot):
    """1 on the line through `center` at `angle`, 0 half a `width` away from it."""

    shape: Literal["band"]
    center: _Vector
    angle: changing(number("a number of degrees", ge=-1_000_000, le=1_000_000)) = 0
    width: changing(Distance) = 400


SPOT_SHAPES = {"slope": SlopeSpot, "round": RoundSpot, "band": BandSpot}


def _shape_of(data: object) -> str:
    shape = data.get("shape") if isinstance(data, dict) else getattr(data, "shape", None)
    return str(shape)


Spot = one_of(_shape_of, f"a spot of one of the shapes {', '.join(SPOT_SHAPES)}", **SPOT_SHAPES)
SELECTOR_KINDS = {"sweep": Sweep, "scatter": Scatter, "wave": Wave, "jitter": Jitter, "spot": Spot}
AnySelector = one_of(
    kind_of, f"a selector of one of the kinds {', '.join(SELECTOR_KINDS)}", **SELECTOR_KINDS
)
