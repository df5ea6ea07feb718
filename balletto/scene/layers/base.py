"""What all layers have: where they stand, when they show, what becomes of their picture."""

from typing import Annotated, ClassVar, Literal, get_args

from pydantic import Field, field_validator
from pydantic_core import PydanticCustomError

from ..effects import AnyEffect
from ..formations import AnyFormation
from ..forms.matte import Matte
from ..kinds import Kind
from ..masks import AnyMask
from ..model import (
    Degrees,
    Factor,
    Frames,
    Identifier,
    Model,
    Name,
    Opacity,
    Pixels,
    needs,
)
from ..moving.motion_blur import MotionBlur
from ..moving.moves import LayerMove
from ..values.motion_path import ChangingPosition
from ..values.tracks import Changing

# Behind a wrapping check JSON lists arrive as Python lists, which strictness would refuse.
LIST = Field(strict=False)
Angles = Annotated[tuple[Degrees, Degrees, Degrees], LIST, needs("three angles [x, y, z]")]
Scale2 = Annotated[tuple[Factor, Factor], LIST, needs("two factors [x, y]")]
Pivot = Annotated[tuple[Pixels, Pixels], LIST, needs("two numbers of pixels [x, y]")]


class Transform(Model):
    """Where a layer stands at rest: position in px, turns about x, y, z, scale, opacity.

    It turns and grows about `pivot`, in px of the layer's own space.
    """

    position: ChangingPosition = (0, 0, 0)
    rotation: Changing[Angles] = (0, 0, 0)
    scale: Changing[Scale2] = (1, 1)
    opacity: Changing[Opacity] = 1
    pivot: Pivot = (0, 0)


Span = Annotated[tuple[Frames, Frames], LIST, needs("the first and the end frame [in, out]")]


# The modes of the W3C's "Compositing and Blending".
Blend = Literal[
    "normal", "multiply", "screen", "overlay", "darken", "lighten", "color-dodge", "color-burn",
    "hard-light", "soft-light", "difference", "exclusion", "hue", "saturation", "color",
    "luminosity",
]  # fmt: skip
BLENDS: tuple[str, ...] = get_args(Blend)


LayerMoves = Annotated[tuple[LayerMove, ...], Field(max_length=100)]


class Layer(Kind):
    """What all layers have. `span` is the first frame it shows and the frame where it has gone; a
    layer that is not `on` is not drawn, and where some are `solo`, only these are. A `locked` one
    is not to be changed. `blend` is how it is mixed with what lies behind it.

    A layer of a `group` stands, turns and shows with it. Its picture is cut by its masks and its
    matte after all its effects but `shadow`, `trail` and `displace`, which are drawn with it.
    """

    title: ClassVar[str]  # what the kind is called
    draws_itself: ClassVar[bool] = True  # or is only what others are drawn by
    is_heard: ClassVar[bool] = False  # and not seen
    has_outlines: ClassVar[bool] = False  # which can be bent and displaced
    has_place: ClassVar[bool] = True  # in the picture
    has_members: ClassVar[bool] = False  # layers that are drawn as one with it
    works_below: ClassVar[bool] = False  # on what lies below it, as it has no picture of its own

    id: Identifier
    name: Name = ""
    on: bool = True
    solo: bool = False
    locked: bool = False
    blend: Blend = "normal"
    span: Span
    group: Identifier | None = None
    transform: Transform = Transform()
    effects: tuple[AnyEffect, ...] = Field((), max_length=50)
    masks: tuple[AnyMask, ...] = Field((), max_length=50)
    matte: Matte | None = None
    motion_blur: MotionBlur | None = None
    formation: AnyFormation | None = None

    @field_validator("id")
    @classmethod
    def _not_reserved(cls, value: str) -> str:
        if value == "scene":
            raise PydanticCustomError("needs", '"scene" is the scene itself: another id is needed')
        return value

    @field_validator("formation")
    @classmethod
    def _stands_somewhere(cls, value: AnyFormation | None) -> AnyFormation | None:
        if value is not None and not cls.has_place:
            raise PydanticCustomError("needs", "copies are of what stands in the picture alone")
        return value

    @property
    def words(self) -> str:
        """What it is called where it has no name; empty if that is only its kind."""
        return ""

    @property
    def called(self) -> str:
        """What it is called: by its name, its words, or its kind."""
        return self.name or self.words or self.title

    @property
    def nameless(self) -> str:
        """What it is called where it has no words either."""
        return self.title
