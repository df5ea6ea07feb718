"""Style: how the letters of a title are set and dressed."""

from typing import TYPE_CHECKING, Annotated, Any, Literal, TypeAlias

from pydantic import Field

from ..model import (
    AxisTag,
    AxisValue,
    Color,
    Counts,
    Degrees,
    Model,
    Name,
    Number,
    Thousandths,
    kind_of,
    needs,
    one_of,
)

Axes = dict[AxisTag, AxisValue]
Language = Annotated[
    str,
    Field(pattern=r"^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8}){0,4}$"),
    needs('a language as "tr" or "zh-Hant" (BCP 47)'),
]
# Whether features of the font are on, by their tags, as "smcp" (features.py).
Features = Annotated[dict[AxisTag, bool], Field(max_length=50)]
FontSize = Annotated[float, Number("a size in pixels", Counts.LENGTH, gt=0, le=10_000)]
Width = Annotated[float, Number("a width in pixels", Counts.LENGTH, ge=0, le=10_000)]
Wrap = Annotated[float, Number("a width in pixels", Counts.LENGTH, gt=0, le=100_000)]


class _Gradient(Model):
    """Colours at even steps, mixed in OKLab, over the box of each `over` at rest."""

    colors: Annotated[tuple[Color, ...], Field(min_length=2, max_length=16)]
    over: Literal["title", "line", "word", "character"] = "title"


class LinearGradient(_Gradient):
    """Along a line through the box: angle 0 from left to right, 90 from top to bottom."""

    kind: Literal["linear"]
    angle: Degrees = 90


class RoundGradient(_Gradient):
    """From the middle of the box to its corners."""

    kind: Literal["round"]


GRADIENT_KINDS = {"linear": LinearGradient, "round": RoundGradient}
AnyGradient = one_of(kind_of, "a gradient of the kind linear or round", **GRADIENT_KINDS)


def _fill_kind(data: Any) -> str:
    if isinstance(data, str):
        return "none" if data == "none" else "color"
    return str(data.get("kind") if isinstance(data, dict) else getattr(data, "kind", None))


# "none" leaves the inside of the letters open: with an outline, they are outline only.
if TYPE_CHECKING:
    Fill: TypeAlias = str | LinearGradient | RoundGradient
else:
    Fill = one_of(
        _fill_kind,
        'a colour as "#RRGGBB", a gradient of the kind linear or round, or "none"',
        none=Literal["none"],
        color=Color,
        **GRADIENT_KINDS,
    )


class Style(Model):
    """How a title is set: size in px, tracking in thousandths of it, leading as a factor of it.

    `outline` is the width in px of a line that runs along the edge of the letters, half of it
    inside; `wrap` the width in px at which lines are broken. With `widest` px it is set as small as
    it takes to be no wider, but not below `least_size`, in at most `most_lines` lines. `language`
    is that of the text, for which a font may have letters of its own.
    """

    font: Name = "Anybody"
    axes: Axes = {}
    features: Features = {}
    language: Language | None = None
    size: FontSize = 120
    tracking: Thousandths = 0
    leading: Annotated[float, Number("a leading", Counts.FACTOR, ge=0, le=100)] = 1.1
    fill: Fill = "#FFFFFF"
    outline: Width = 0
    outline_color: Color = "#000000"
    align: Literal["left", "center", "right"] = "center"
    wrap: Wrap | None = None
    widest: Wrap | None = None
    least_size: FontSize | None = None
    most_lines: Annotated[int, Number("a number of lines", Counts.COUNT, ge=1, le=100)] | None = (
        None
    )


class RunStyle(Model):
    """What a run of characters has of its own; the rest is the title's."""

    font: Name | None = None
    axes: Axes = {}
    features: Features = {}
    language: Language | None = None
    size: FontSize | None = None
    tracking: Thousandths | None = None
    fill: Fill | None = None
    outline: Width | None = None
    outline_color: Color | None = None
