"""The scene: size, rate, length, background, camera and layers, as in a `.balletto.json` file."""

from fractions import Fraction
from functools import cached_property
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, Field, field_validator, model_validator
from pydantic_core import PydanticCustomError

from .model import (
    Color,
    Degrees,
    Factor,
    Frames,
    Identifier,
    Model,
    Name,
    Opacity,
    Pixels,
    kind_of,
    needs,
    number,
    one_of,
    shown,
)
from .motion_path import PathTrack, Vector3
from .moves import Move
from .style import RunStyle, Style
from .tracks import changing

FORMAT = "balletto-scene"
VERSION = 1
MAX_SIDE = 8192  # the widest picture that common H.264 decoders take
MAX_LENGTH = 4 * 60 * 60 * 60  # four hours at 60 frames a second
MAX_TEXT = 10_000


def rate_of(text: str) -> Fraction:
    """Frames a second of a rate as text, "30" or "30000/1001"; ValueError if it is neither."""
    rate = Fraction(text)
    if not 1 <= rate <= 240:
        raise ValueError(text)
    return rate


def _known_rate(text: str) -> str:
    try:
        rate_of(text)
    except (ValueError, ZeroDivisionError):
        raise PydanticCustomError(
            "needs",
            'a rate from 1 to 240 frames a second is needed, as "30" or "30000/1001", got {got}',
            {"got": shown(text)},
        ) from None
    return text


_RATE = Field(json_schema_extra={"pattern": r"^[0-9.]+(/[0-9]+)?$"})
Rate = Annotated[str, _RATE, AfterValidator(_known_rate)]
Side = number("a whole number of pixels", int, ge=16, le=MAX_SIDE)


class Run(Model):
    """A style for the characters `from` to `to` (not included), counted with white space."""

    first: number("a place in the text", int, ge=0, le=MAX_TEXT) = Field(alias="from")
    end: number("a place in the text", int, ge=0, le=MAX_TEXT) = Field(alias="to")
    style: RunStyle

    @model_validator(mode="after")
    def _forward(self) -> "Run":
        if self.end <= self.first:
            raise PydanticCustomError("needs", "a run must end after it begins")
        return self


# Behind a wrapping check JSON lists arrive as Python lists, which strictness would refuse.
LIST = Field(strict=False)
Angles = Annotated[tuple[Degrees, Degrees, Degrees], LIST, needs("three angles [x, y, z]")]
Scale2 = Annotated[tuple[Factor, Factor], LIST, needs("two factors [x, y]")]


Pivot = Annotated[tuple[Pixels, Pixels], LIST, needs("two numbers of pixels [x, y]")]


class Transform(Model):
    """Where a layer stands at rest: position in px, turns about x, y, z, scale, opacity.

    It turns and grows about `pivot`, in px of the layer's own space.
    """

    position: changing(Vector3, track=PathTrack) = (0, 0, 0)
    rotation: changing(Angles) = (0, 0, 0)
    scale: changing(Scale2) = (1, 1)
    opacity: changing(Opacity) = 1
    pivot: Pivot = (0, 0)


Span = Annotated[tuple[Frames, Frames], LIST, needs("the first and the end frame [in, out]")]


# The modes of the W3C's "Compositing and Blending".
BLENDS = (
    "normal", "multiply", "screen", "overlay", "darken", "lighten", "color-dodge", "color-burn",
    "hard-light", "soft-light", "difference", "exclusion", "hue", "saturation", "color",
    "luminosity",
)  # fmt: skip
Blend = Literal[BLENDS]


class Title(Model):
    """A layer of text. `span` is the first frame it shows and the frame where it has gone; a layer
    that is not `on` is not drawn, and where some are `solo`, only these are. A `locked` one is not
    to be changed. `blend` is how it is mixed with what lies behind it.

    With `hold_center`, each line is shifted so that what can be seen of it stays centred.
    """

    id: Identifier
    kind: Literal["title"]
    name: Name = ""
    on: bool = True
    solo: bool = False
    locked: bool = False
    blend: Blend = "normal"
    span: Span
    text: Annotated[str, Field(max_length=MAX_TEXT), needs("a text of at most 10,000 letters")]
    style: Style = Style()
    runs: tuple[Run, ...] = ()
    hold_center: bool = False
    transform: Transform = Transform()
    moves: tuple[Move, ...] = Field((), max_length=100)

    @field_validator("id")
    @classmethod
    def _not_reserved(cls, value: str) -> str:
        if value == "scene":
            raise PydanticCustomError("needs", '"scene" is the scene itself: another id is needed')
        return value


LAYER_KINDS: dict[str, type[Model]] = {"title": Title}
Layer = one_of(kind_of, f"a layer of one of the kinds {', '.join(LAYER_KINDS)}", **LAYER_KINDS)


class NoBackground(Model):
    """Transparent."""

    kind: Literal["none"]


class ColorBackground(Model):
    """One colour behind everything."""

    kind: Literal["color"]
    color: Color


BACKGROUND_KINDS: dict[str, type[Model]] = {"none": NoBackground, "color": ColorBackground}
Background = one_of(
    kind_of, f"a background of one of the kinds {', '.join(BACKGROUND_KINDS)}", **BACKGROUND_KINDS
)


class Marker(Model):
    """A moment with a name."""

    at: Frames
    name: Name = ""


class Camera(Model):
    """The eye before the picture's centre, `distance` px from the plane z = 0."""

    distance: number("a distance in pixels", gt=1, le=1_000_000) = 2000


class Scene(Model):
    """A whole scene; layers from the back to the front."""

    format: Literal["balletto-scene"]
    version: Literal[1]
    name: Name = ""
    size: Annotated[tuple[Side, Side], Field(description="width and height in px")]
    rate: Rate
    length: number("a whole number of frames", int, ge=1, le=MAX_LENGTH)
    background: Background = NoBackground(kind="none")
    camera: Camera = Camera()
    layers: tuple[Layer, ...] = Field((), max_length=1000)
    markers: tuple[Marker, ...] = Field((), max_length=1000)

    @cached_property
    def frames_a_second(self) -> Fraction:
        return rate_of(self.rate)

    @cached_property
    def shown(self) -> frozenset[str]:
        """The ids of the layers that are drawn while their time is."""
        solo = any(layer.solo for layer in self.layers)
        return frozenset(x.id for x in self.layers if x.on and (x.solo or not solo))

    def layer(self, layer_id: str) -> Any:
        """The layer of that id; KeyError, naming those there are, if there is none."""
        for layer in self.layers:
            if layer.id == layer_id:
                return layer
        known = ", ".join(layer.id for layer in self.layers) or "none"
        raise KeyError(f"there is no layer {layer_id!r}; the layers are: {known}")
