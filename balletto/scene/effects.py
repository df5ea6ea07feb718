"""Effects: what becomes of the picture of a layer once it is drawn. The data only;
balletto.picture.effects does it. They come one after another, in the order of the list.

A new kind is a model here with its line in EFFECT_KINDS, and a file in balletto.picture.effects.
Lengths are in px of the scene's picture, amounts in percent.
"""

from typing import TYPE_CHECKING, Annotated, ClassVar, Literal

from .model import (
    Color,
    Counts,
    Degrees,
    Distance,
    Model,
    Number,
    Opacity,
    Percent,
    PicturePixels,
    Seed,
    Share,
    kind_of,
    one_of,
)
from .selectors import Pace
from .tracks import Changing

Amount = Annotated[float, Number("a number of percent", Counts.PART, ge=0, le=1000)]
# Lengths of what is done to pixels, and so takes memory, are kept to some pictures' width.
SOFTEST, LONGEST, WIDEST, FARTHEST = 500, 4000, 200, 400
Softness = Annotated[float, Number("a number of pixels", Counts.PICTURE_LENGTH, ge=0, le=SOFTEST)]
Smear = Annotated[float, Number("a number of pixels", Counts.PICTURE_LENGTH, ge=0, le=LONGEST)]
LineWidth = Annotated[float, Number("a number of pixels", Counts.PICTURE_LENGTH, ge=0, le=WIDEST)]
LetterLineWidth = Annotated[float, Number("a number of pixels", Counts.LENGTH, ge=0, le=WIDEST)]
Spread = Annotated[float, Number("a number of percent", Counts.PART, ge=0, le=FARTHEST)]
Shrinking = Annotated[float, Number("a factor", Counts.FACTOR, ge=0, le=2)]
Bump = Annotated[float, Number("a size in pixels", Counts.LENGTH, gt=0, le=10_000)]
ShutterAngle = Annotated[float, Number("a number of degrees", Counts.ANGLE, ge=0, le=360)]
_ANY_AMOUNT = (0, 1000)


class Effect(Model):
    """What all kinds have. `limits` holds the values that keys and ties may not leave, even where
    they overshoot."""

    limits: ClassVar[dict[str, tuple[float, float]]] = {}

    if TYPE_CHECKING:
        kind: str

    on: bool = True


class Blur(Effect):
    """A Gaussian blur: `x` and `y` are its deviations across and down."""

    limits: ClassVar = {"x": (0, SOFTEST), "y": (0, SOFTEST)}

    kind: Literal["blur"]
    x: Changing[Softness] = 12
    y: Changing[Softness] = 12


class DirectionalBlur(Effect):
    """A smear of `length` along `angle`, even on both sides."""

    limits: ClassVar = {"length": (0, LONGEST)}

    kind: Literal["directional-blur"]
    length: Changing[Smear] = 60
    angle: Changing[Degrees] = 0


class ZoomBlur(Effect):
    """A smear away from a point: up to `amount` percent of the distance from it. The point is
    in percent of the picture."""

    limits: ClassVar = {"amount": (0, FARTHEST)}

    kind: Literal["zoom-blur"]
    amount: Changing[Spread] = 20
    x: Changing[Percent] = 50
    y: Changing[Percent] = 50


class Glow(Effect):
    """Light around what is drawn: blurred by `radius` and added; of its own colours, or of one."""

    limits: ClassVar = {"radius": (0, SOFTEST), "strength": _ANY_AMOUNT}

    kind: Literal["glow"]
    radius: Changing[Softness] = 24
    strength: Changing[Amount] = 100
    color: Changing[Color] | None = None


class Shadow(Effect):
    """A shadow of each letter, which falls on those drawn before it, and of a shape as a whole.
    It is as opaque as what casts it, times `opacity`."""

    limits: ClassVar = {"softness": (0, SOFTEST), "opacity": (0, 1)}

    kind: Literal["shadow"]
    x: Changing[PicturePixels] = 0
    y: Changing[PicturePixels] = 10
    softness: Changing[Softness] = 8
    color: Changing[Color] = "#000000"
    opacity: Changing[Opacity] = 0.6


class Tint(Effect):
    """All colours toward one, which dark parts take darker: `amount` percent of the way."""

    limits: ClassVar = {"amount": (0, 100)}

    kind: Literal["tint"]
    color: Changing[Color] = "#F2B705"
    amount: Changing[Share] = 100


class Hue(Effect):
    """Colours turned round the circle of hues by `turn`, and made fuller or greyer."""

    limits: ClassVar = {"saturation": _ANY_AMOUNT}

    kind: Literal["hue"]
    turn: Changing[Degrees] = 0
    saturation: Changing[Amount] = 100


class Light(Effect):
    """Brighter or darker, and more or less contrast about the middle grey."""

    limits: ClassVar = {"brightness": _ANY_AMOUNT, "contrast": _ANY_AMOUNT}

    kind: Literal["light"]
    brightness: Changing[Amount] = 100
    contrast: Changing[Amount] = 100


class Outline(Effect):
    """A line of `width` around all of the layer together, beneath it."""

    limits: ClassVar = {"width": (0, WIDEST)}

    kind: Literal["outline"]
    width: Changing[LineWidth] = 6
    color: Changing[Color] = "#FFFFFF"


class Trail(Effect):
    """Copies of the layer as it was `gap`, 2 `gap`, ... frames ago, behind it: each `fade` times
    as opaque and `shrink` times as large as the one before."""

    limits: ClassVar = {"fade": (0, 1), "shrink": (0, 2), "outline": (0, WIDEST)}

    kind: Literal["trail"]
    copies: Annotated[int, Number("a number of copies", Counts.COUNT, ge=1, le=200)] = 12
    gap: Annotated[float, Number("a number of frames", Counts.DURATION, ge=0.01, le=1000)] = 1
    fade: Changing[Opacity] = 0.85
    shrink: Changing[Shrinking] = 1
    outline: Changing[LetterLineWidth] = 0


class Displace(Effect):
    """Outlines pushed about as in stop motion: by up to `amount`, in bumps of `size`, anew at
    each tick."""

    kind: Literal["displace"]
    size: Changing[Bump] = 40
    amount: Changing[Distance] = 6
    every: Pace = "9/s"
    seed: Seed = 0


EFFECT_KINDS: dict[str, type[Effect]] = {
    "blur": Blur,
    "directional-blur": DirectionalBlur,
    "zoom-blur": ZoomBlur,
    "glow": Glow,
    "shadow": Shadow,
    "tint": Tint,
    "hue": Hue,
    "light": Light,
    "outline": Outline,
    "trail": Trail,
    "displace": Displace,
}
AnyEffect = one_of(
    kind_of, f"an effect of one of the kinds {', '.join(EFFECT_KINDS)}", **EFFECT_KINDS
)


class MotionBlur(Model):
    """The blur of motion that a shutter gives: open for `angle` of 360 degrees of a frame, about
    `phase` degrees after its time, in `samples` pictures (model, section 9). A layer's own shutter
    that is not `on` stays closed, whatever that of the scene is."""

    on: bool = True
    angle: Changing[ShutterAngle] = 180
    phase: Degrees = 0
    samples: Annotated[int, Number("a number of samples", Counts.COUNT, ge=2, le=64)] = 16
