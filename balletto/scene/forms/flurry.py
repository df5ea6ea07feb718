"""Flurries: many small things that are thrown. The data only; balletto.motion.spaces.flurries says
where they are, balletto/picture/layers/flurry.py draws them."""

import math
from typing import TYPE_CHECKING, Annotated, Any, ClassVar, Literal, TypeAlias

import numpy as np
from pydantic import Field, field_validator

from ..eases import Ease
from ..kinds import Kind
from ..letters.style import Fill, Style
from ..media import FileName
from ..model import (
    Color,
    Counts,
    Degrees,
    Distance,
    Duration,
    Factor,
    Frames,
    Identifier,
    Model,
    Number,
    Seed,
    kind_of,
    needs,
    one_of,
)
from ..moving.grips import Grip
from ..shapes import AnyShape
from ..values import measures
from ..values.measures import Measure
from ..values.tracks import Changing, Track, value_at
from ..values.wording import Said, Wording
from .stroke import Stroke

MOST_PIECES = 5000
Count = Annotated[int, Number("a number of pieces", Counts.COUNT, ge=1, le=MOST_PIECES)]
Life = Annotated[float, Number("a number of frames", Counts.DURATION, gt=0, le=1_000_000)]
Share = Annotated[float, Number("a share", Counts.FACTOR, ge=0, le=100)]
Speed = Annotated[float, Number("px a second", Counts.LENGTH, ge=-1e6, le=1e6)]
Drag = Annotated[float, Number("a drag", Counts.FACTOR, ge=0, le=1000)]
Percent = Annotated[float, Number("a number of percent of a life", Counts.PART, ge=0, le=100)]


class LifeKey(Model):
    """What a value is at a percent of a life; `ease` is how it goes from there to the next."""

    at: Percent
    value: Factor
    ease: Ease = "linear"


class LifeCourse(Model):
    """A value that changes over the life of a piece."""

    keys: Annotated[tuple[LifeKey, ...], Field(min_length=1, max_length=100)]

    @field_validator("keys")
    @classmethod
    def _in_order(cls, keys: tuple[LifeKey, ...]) -> tuple[LifeKey, ...]:
        return tuple(sorted(keys, key=lambda key: key.at))

    def at_shares(self, shares: Any) -> Any:
        """Its values at shares of a life, an array of any shape."""
        keys = [key.model_dump(exclude_unset=True) for key in self.keys]
        return value_at(Track[Factor].model_validate({"keys": keys}, strict=False), shares * 100.0)


if TYPE_CHECKING:
    OverLife: TypeAlias = float | LifeCourse
else:
    OverLife = one_of(
        lambda data: "course" if isinstance(data, dict | LifeCourse) else "plain",
        "a number, or keys over the percents of a life",
        plain=Factor,
        course=LifeCourse,
    )
FADING: dict[str, Any] = {"keys": [{"at": 0, "value": 1}, {"at": 80, "value": 1},
                                   {"at": 100, "value": 0}]}  # fmt: skip


# Where pieces are born


class Place(Kind):
    """Where pieces are born, about the origin of the layer."""

    wording: ClassVar[Wording]

    def grips(self, time: np.ndarray) -> list[Grip]:
        """What hands can take hold of at a time (1,)."""
        return []


class PointPlace(Place):
    """All at one point."""

    wording: ClassVar = Wording("point", "from one point")

    kind: Literal["point"]


class LinePlace(Place):
    """Along a line through the origin: at `angle` 0 it lies level."""

    rank: ClassVar = 1
    wording: ClassVar = Wording(
        "line",
        "from a line of {length} at {angle}",
        {
            "length": Said("Length of the line", measures.LENGTH_PX, 600),
            "angle": Said("Angle of the line", measures.DEGREES, 0),
        },
    )

    kind: Literal["line"]
    length: Changing[Distance] = 600
    angle: Changing[Degrees] = 0

    def grips(self, time: np.ndarray) -> list[Grip]:
        length, angle = (float(value_at(value, time)[0]) for value in (self.length, self.angle))
        turn = math.radians(angle)
        end = (length / 2 * math.cos(turn), length / 2 * math.sin(turn))
        other = (-end[0], -end[1])
        return [
            Grip("place.length", "distance", end, factor=2),
            Grip("place.angle", "angle", other, minus=-90, value=angle),
        ]


class BoxPlace(Place):
    """Anywhere in a box."""

    rank: ClassVar = 2
    wording: ClassVar = Wording(
        "box",
        "from a box {width} wide and {height} high",
        {
            "width": Said("Width of the box", measures.LENGTH_PX, 600),
            "height": Said("Height of the box", measures.LENGTH_PX, 300),
        },
    )

    kind: Literal["box"]
    width: Changing[Distance] = 600
    height: Changing[Distance] = 300

    def grips(self, time: np.ndarray) -> list[Grip]:
        width, height = (float(value_at(value, time)[0]) for value in (self.width, self.height))
        return [
            Grip("place.width", "across", (width / 2, 0.0), factor=2),
            Grip("place.height", "down", (0.0, height / 2), factor=2),
        ]


class RingPlace(Place):
    """On a ring."""

    rank: ClassVar = 3
    wording: ClassVar = Wording(
        "ring",
        "from a ring of {radius}",
        {"radius": Said("Radius of the ring", measures.LENGTH_PX, 200)},
    )

    kind: Literal["ring"]
    radius: Changing[Distance] = 200

    def grips(self, time: np.ndarray) -> list[Grip]:
        return [Grip("place.radius", "distance", (float(value_at(self.radius, time)[0]), 0.0))]


PLACE_KINDS: dict[str, type[Place]] = {
    "point": PointPlace, "line": LinePlace, "box": BoxPlace, "ring": RingPlace,
}  # fmt: skip
if TYPE_CHECKING:
    AnyPlace: TypeAlias = PointPlace | LinePlace | BoxPlace | RingPlace
else:
    AnyPlace = one_of(
        kind_of, f"a place of one of the kinds {', '.join(PLACE_KINDS)}", **PLACE_KINDS
    )


class Births(Model):
    """When pieces are born: `from` a frame on, all at once or `over` so many frames, spread along
    a `curve`."""

    first: Frames = Field(0, alias="from")
    over: Duration = 0
    curve: Ease = "linear"


# What is thrown


class ShapeSource(Model):
    """A shape."""

    shape: AnyShape
    fill: Fill = "#FFFFFF"
    stroke: Stroke | None = None


class PictureSource(Model):
    """A picture from a file, as large as it is."""

    file: FileName


class TextSource(Model):
    """The letters of a text, each by itself about its middle."""

    text: Annotated[str, Field(min_length=1, max_length=500), needs("a text of 1 to 500 letters")]
    style: Style = Style()


class LayerSource(Model):
    """What another layer of the scene draws, shown or not, about its origin."""

    layer: Identifier


def _source_kind(data: Any) -> str:
    names = data if isinstance(data, dict) else type(data).model_fields
    return next((name for name in ("shape", "file", "text", "layer") if name in names), "")


if TYPE_CHECKING:
    Source: TypeAlias = ShapeSource | PictureSource | TextSource | LayerSource
else:
    Source = one_of(
        _source_kind,
        "a shape, a file, a text or a layer",
        shape=ShapeSource,
        file=PictureSource,
        text=TextSource,
        layer=LayerSource,
    )


class Flurry(Model):
    """`count` pieces that are thrown from a place and fly on their own.

    direction, spread: degrees, 0 is up, clockwise; speed, in px a second
    gravity, wind: px a second squared, down and to the right; drag: a second, how fast they slow
    spin: degrees a second; what ends on _chance: how far a piece may be from that, as a share of it
    size, opacity: over a life; colors: of which each piece has one, in place of its own fill
    """

    count: Count = 40
    seed: Seed = 0
    births: Births = Births()
    loop: bool = False
    life: Life = 60
    life_chance: Share = 0
    place: AnyPlace = PointPlace(kind="point")
    direction: Changing[Degrees] = 0
    spread: Changing[Degrees] = 0
    speed: Changing[Speed] = 0
    speed_chance: Share = 0
    gravity: Changing[Speed] = 0
    wind: Changing[Speed] = 0
    drag: Changing[Drag] = 0
    any_turn: bool = False
    spin: Changing[Degrees] = 0
    spin_chance: Share = 0
    facing: Literal["still", "flight"] = "still"
    size: OverLife = 1
    size_chance: Share = 0
    opacity: OverLife = LifeCourse.model_validate(FADING, strict=False)
    source: Annotated[tuple[Source, ...], Field(min_length=1, max_length=100)]
    colors: Annotated[tuple[Color, ...], Field(max_length=100)] = ()

    def reach_at(self, time: np.ndarray) -> float:
        """How far from the origin hands take hold of what is thrown at a time (1,): as far as
        pieces come in REACHED seconds without drag."""
        return max(_LEAST_REACH, abs(float(value_at(self.speed, time)[0])) * REACHED)

    def grips(self, time: np.ndarray) -> list[Grip]:
        """What hands can take hold of at a time (1,): direction, spread and speed on the fan that
        pieces are thrown into, and the place that they are born at."""
        direction, spread, speed = (
            float(value_at(value, time)[0]) for value in (self.direction, self.spread, self.speed)
        )
        reach = self.reach_at(time)

        def on_fan(angle: float) -> tuple[float, float]:
            return reach * math.sin(math.radians(angle)), -reach * math.cos(math.radians(angle))

        half = min(abs(spread), 360.0) / 2
        grips = [
            Grip("direction", "angle", on_fan(direction), value=direction),
            Grip("spread", "angle", on_fan(direction + half), minus=direction, value=half,
                 factor=2, least=0),
            *self.place.grips(time),
        ]  # fmt: skip
        if speed >= 0 and reach > _LEAST_REACH:
            at = on_fan(direction - half / 2 if half else direction - _BESIDE)
            grips.append(Grip("speed", "distance", at, factor=1 / REACHED))
        return grips


REACHED, _LEAST_REACH = 0.25, 60.0  # seconds, px
_BESIDE = 12.0  # degrees from the direction, where there is no spread

PIECES = Measure("", drag=0.1, low=1, high=MOST_PIECES)
A_SECOND = Measure(" px a second", drag=2)
DEGREES_A_SECOND = Measure("° a second", drag=1)
_SHARE = measures.PERCENT_OF_ONE


def _over_life(*keys: tuple[float, float], ease: str = "linear") -> dict[str, Any]:
    """Keys of percents and values, the first eased."""
    made: list[dict[str, Any]] = [{"at": at, "value": value} for at, value in keys]
    if ease != "linear":
        made[0]["ease"] = ease
    return {"keys": made}


FADING_IN = _over_life((0, 0), (20, 1), (80, 1), (100, 0))
GROWING = _over_life((0, 0), (100, 1), ease="soft-landing")
SHRINKING = _over_life((0, 1), (100, 0))
POPPING = _over_life((0, 0), (15, 1), (70, 1), (100, 0), ease="soft-landing")
_SIZES = (
    (1, "as large as they are"), (GROWING, "growing"), (SHRINKING, "shrinking"),
    (POPPING, "growing and shrinking"),
)  # fmt: skip
_OPACITIES = (
    (FADING, "fading at the end"), (FADING_IN, "fading in and out"), (1, "as opaque as they are"),
)  # fmt: skip
_TURNS = ((False, "upright"), (True, "turned any way"))
_LOOPS = ((False, "once"), (True, "again and again without a seam"))
_FACINGS = (("still", "facing anywhere"), ("flight", "facing where they fly"))
COUNT = Said("Number of pieces", PIECES, 40)
FLURRY = Wording(
    "flurry",
    "thrown towards {direction}, spread over {spread}, at {speed}, falling by {gravity}, living "
    "{life}, {size}, {opacity}, {loop}",
    {
        "direction": Said("Direction", measures.DEGREES, 0),
        "spread": Said("Spread", measures.DEGREES, 60),
        "speed": Said("Speed", A_SECOND, 500),
        "gravity": Said("Gravity", A_SECOND, 0),
        "life": Said("Life", measures.LENGTH, 60),
        "size": Said("Size over a life", options=_SIZES),
        "opacity": Said("Opacity over a life", options=_OPACITIES),
        "loop": Said("Loop", options=_LOOPS),
    },
)
# What is said after that, as far as it is not as usual.
FLIGHT = Wording(
    "flight",
    "{speed_chance} faster or slower, in a wind of {wind}, slowed by {drag}, {any_turn}, spinning "
    "by {spin}, {spin_chance} more or less, {facing}, {life_chance} longer or shorter, "
    "{size_chance} larger or smaller, chance {seed} of the flurry",
    {
        "speed_chance": Said("Chance of speeds", _SHARE, 0),
        "wind": Said("Wind", A_SECOND, 0),
        "drag": Said("Drag", measures.PERCENT_OF_ONE, 0),
        "any_turn": Said("First turn", options=_TURNS),
        "spin": Said("Spin", DEGREES_A_SECOND, 0),
        "spin_chance": Said("Chance of spins", _SHARE, 0),
        "facing": Said("Facing", options=_FACINGS),
        "life_chance": Said("Chance of lives", _SHARE, 0),
        "size_chance": Said("Chance of sizes", _SHARE, 0),
        "seed": Said("Chance of the flurry", measures.WHOLE, 0),
    },
)
BIRTHS = Wording(
    "births",
    "born from {from}, over {over} with {curve}",
    {
        "from": Said("Births from", measures.FRAME, 0),
        "over": Said("Births over", measures.FRAMES, 0),
        "curve": Said("Births along", is_ease=True),
    },
)
