"""Layers: what a scene is made of, from titles to groups. Every kind is a model with its line in
LAYER_KINDS; how it is drawn is told in balletto.picture.
"""

from typing import Annotated, ClassVar, Literal, get_args

from pydantic import Field, field_validator, model_validator
from pydantic_core import PydanticCustomError

from .effects import AnyEffect
from .kinds import Kind
from .masks import AnyMask
from .matte import Matte
from .media import After, FileName, Played, Seconds
from .model import (
    MAX_TEXT,
    Decibels,
    Degrees,
    Factor,
    Frames,
    Identifier,
    InnerFrames,
    Model,
    Name,
    Opacity,
    Pixels,
    TextIndex,
    kind_of,
    needs,
    one_of,
)
from .motion_blur import MotionBlur
from .motion_path import ChangingPosition
from .moves import Move
from .shapes import AnyShape
from .stroke import Stroke
from .style import Fill, RunStyle, Style
from .tracks import Changing
from .windows import Window


class Run(Model):
    """A style for the characters `from` to `to` (not included), counted with white space."""

    first: TextIndex = Field(alias="from")
    end: TextIndex = Field(alias="to")
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


class Layer(Kind):
    """What all layers have. `span` is the first frame it shows and the frame where it has gone; a
    layer that is not `on` is not drawn, and where some are `solo`, only these are. A `locked` one
    is not to be changed. `blend` is how it is mixed with what lies behind it.

    A layer of a `group` stands, turns and shows with it. Its picture is cut by its masks and its
    matte after all its effects but `shadow`, `trail` and `displace`, which are drawn with it.
    """

    title: ClassVar[str]  # what the kind is called
    draws_itself: ClassVar[bool] = True  # or is only what others are drawn by
    has_outlines: ClassVar[bool] = False  # which can be bent and displaced

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

    @field_validator("id")
    @classmethod
    def _not_reserved(cls, value: str) -> str:
        if value == "scene":
            raise PydanticCustomError("needs", '"scene" is the scene itself: another id is needed')
        return value

    @property
    def words(self) -> str:
        """What it is called where it has no name; empty if that is only its kind."""
        return ""

    @property
    def nameless(self) -> str:
        """What it is called where it has no words either."""
        return self.title


class Title(Layer):
    """A layer of text.

    With `hold_center`, each line is shifted so that what can be seen of it stays centred. Letters
    are drawn in `draw_order`: as they are read, the first in front, or the nearer in front. With a
    `window` they are seen within that alone.
    """

    title: ClassVar = "Title"
    has_outlines: ClassVar = True

    kind: Literal["title"]
    text: Annotated[str, Field(max_length=MAX_TEXT), needs("a text of at most 10,000 letters")]
    style: Style = Style()
    runs: tuple[Run, ...] = ()
    hold_center: bool = False
    draw_order: Literal["reading", "reverse", "depth"] = "reading"
    window: Window | None = None
    moves: tuple[Move, ...] = Field((), max_length=100)

    @property
    def words(self) -> str:
        """The text on one line."""
        return " ".join(self.text.split())

    @property
    def nameless(self) -> str:
        return "Empty title"


class ShapeLayer(Layer):
    """A layer of one shape, about the layer's origin."""

    title: ClassVar = "Shape"
    has_outlines: ClassVar = True

    kind: Literal["shape"]
    shape: AnyShape
    fill: Fill = "none"
    stroke: Stroke | None = Stroke()


class PictureLayer(Layer):
    """A layer of a still picture from a file (PNG, JPEG, WebP, SVG), its middle at the layer's
    origin, a pixel of it as large as one of the scene."""

    title: ClassVar = "Picture"

    kind: Literal["picture"]
    file: FileName

    @property
    def words(self) -> str:
        """The name of its file."""
        return self.file


class VideoLayer(Played, Layer):
    """A layer of a video from a file, which begins at the first frame of its span."""

    title: ClassVar = "Video"

    kind: Literal["video"]

    @property
    def words(self) -> str:
        """The name of its file."""
        return self.file


class NestedLayer(Layer):
    """A layer of a whole scene, one of those that this scene has in `scenes`. At the first frame of
    its span the other is at its frame `shift`."""

    title: ClassVar = "Scene"

    kind: Literal["scene"]
    scene: Identifier
    shift: InnerFrames = 0
    after: After = "hold"


class SoundLayer(Layer):
    """A layer that is heard, from a file (WAV, FLAC, MP3, OGG): louder by `gain` decibels, fading
    in at its beginning and out at its end."""

    title: ClassVar = "Sound"
    draws_itself: ClassVar = False

    kind: Literal["sound"]
    file: FileName
    start: Seconds = 0
    gain: Changing[Decibels] = 0
    fade_in: Seconds = 0
    fade_out: Seconds = 0

    @property
    def words(self) -> str:
        """The name of its file."""
        return self.file


class Group(Layer):
    """Layers that move as one: those whose `group` it is. They are drawn together, in its place,
    then made as opaque as it is, and blended."""

    title: ClassVar = "Group"
    draws_itself: ClassVar = False

    kind: Literal["group"]


class Adjustment(Layer):
    """Its effects on all that lies below it, in its group or in the scene."""

    title: ClassVar = "Adjustment"
    draws_itself: ClassVar = False

    kind: Literal["adjustment"]


LAYER_KINDS: dict[str, type[Layer]] = {
    "title": Title,
    "shape": ShapeLayer,
    "picture": PictureLayer,
    "video": VideoLayer,
    "scene": NestedLayer,
    "sound": SoundLayer,
    "group": Group,
    "adjustment": Adjustment,
}
AnyLayer = one_of(kind_of, f"a layer of one of the kinds {', '.join(LAYER_KINDS)}", **LAYER_KINDS)
