"""The ground for every part of the document: strict, frozen models and the values in them.

Numbers say in plain words what they are, so that a refusal reads "a number of frames is needed,
got "two"". Unions are told apart by one look at the data, so that a fault is reported once, for
the kind that was meant. Their tags stand in parentheses to keep them out of the reported path.
"""

import json
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from enum import Enum
from typing import Annotated, Any, ClassVar, Union, get_args, get_origin

import numpy as np
from annotated_types import GroupedMetadata
from pydantic import (
    BaseModel,
    ConfigDict,
    Discriminator,
    Field,
    StringConstraints,
    Tag,
    ValidationError,
    WrapValidator,
)
from pydantic_core import PydanticCustomError


class Model(BaseModel):
    """A part of the document: unknown keys and wrong types are refused; never changed in place."""

    # Fields that count for nothing where another one is said, with that one.
    replaced: ClassVar[dict[str, str]] = {}

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        strict=True,
        allow_inf_nan=False,
        populate_by_name=True,
    )


def shown(value: Any) -> str:
    """The value as JSON, shortened, for the end of a message."""
    text = json.dumps(value, ensure_ascii=False, default=str)
    return text if len(text) <= 60 else text[:57] + "..."


def needs(what: str, limits: str = "") -> WrapValidator:
    """Replaces what the inner check says by "<what> is needed, got <value>".

    `limits` ("at least 1") is added when the value is a number, which then must be out of them.
    """

    verb = "are" if what.startswith(("two ", "three ")) else "is"

    def check(value: Any, inner: Callable[[Any], Any]) -> Any:
        try:
            return inner(value)
        except ValidationError:
            is_number = isinstance(value, int | float) and not isinstance(value, bool)
            wanted = f"{what} {limits}" if limits and is_number else what
            raise PydanticCustomError(
                "needs",
                "{wanted} {verb} needed, got {got}",
                {"wanted": wanted, "verb": verb, "got": shown(value)},
            ) from None

    return WrapValidator(check)


class Counts(Enum):
    """What a number counts, by which is known what becomes of it where a scene is changed as a
    whole: shifted in time, put to another rate or into another picture."""

    MOMENT = "frames from the start of the scene, or, in a pose or an amount, of its move"
    DURATION = "frames"
    INNER_FRAMES = "frames of a scene that is shown in this one"
    SECONDS = "seconds of what is played"
    LENGTH = "px of the space in which a thing is drawn, as that of its layer"
    PICTURE_LENGTH = "px of the picture"
    POINT = "px across and down from the origin of the space in which a thing is drawn"
    PICTURE_POINT = "px across and down from the corner of the picture"
    DEPTH = "px towards the eye"
    ANGLE = "degrees"
    PART = "percent, thousandths or another part of something"
    FACTOR = "how many times"
    COUNT = "things, counted"
    INDEX = "the index of a letter, or a rank"
    OWN = "what the value counts that it is a part of"
    SEED = "no quantity: where chance begins"
    DECIBELS = "decibels"
    FREQUENCY = "times a second"
    AXIS = "units of an axis of a font"


_BESIDE = 0.001  # how far a clipped number stays from a limit that it may not reach


@dataclass(frozen=True)
class Number(GroupedMetadata):
    """What a finite number is: in words, what it counts, and its limits."""

    what: str
    counts: Counts
    ge: float | None = None
    gt: float | None = None
    le: float | None = None
    lt: float | None = None

    def __iter__(self) -> Iterator[object]:
        """What pydantic checks of it."""
        words = {"ge": "at least", "gt": "above", "le": "at most", "lt": "below"}
        limits = {name: value for name in words if (value := getattr(self, name)) is not None}
        said = " and ".join(f"{words[limit]} {value:,}" for limit, value in limits.items())
        yield Field(**limits)
        yield needs(self.what, said)

    def clipped(self, value: np.ndarray) -> np.ndarray:
        """Numbers brought within its limits."""
        low = self.ge if self.gt is None else self.gt + _BESIDE
        high = self.le if self.lt is None else self.lt - _BESIDE
        return value if low is None and high is None else np.clip(value, low, high)

    @property
    def name(self) -> str:
        """A name that no other number has, of plain letters, for the schema."""
        limits = [value for value in (self.ge, self.gt, self.le, self.lt) if value is not None]
        words = (*self.what.split()[1:], *self.counts.name.lower().split("_"))
        return "".join(word.capitalize() for word in words) + "To".join(f"{n:.0f}" for n in limits)


def name_of_type(kind: Any) -> str:
    """A name for the type of a value, of plain letters."""
    marks = getattr(kind, "__metadata__", ())
    if number := next((mark for mark in marks if isinstance(mark, Number)), None):
        return number.name
    if marks:
        counting = next((mark.counts.name for mark in marks if isinstance(mark, Counting)), "")
        return name_of_type(kind.__origin__) + counting.title().replace("_", "")
    if get_origin(kind) is tuple:
        return "And".join(name_of_type(part) for part in get_args(kind))
    return getattr(kind, "__name__", str(kind)).title()


# Marks what counts its frames from the start of a move.
LOCAL = "local"


@dataclass(frozen=True)
class Counting:
    """Marks several numbers together by what they count."""

    counts: Counts


def one_of(pick: Callable[[Any], str], what: str, **kinds: Any) -> Any:
    """A union of `kinds`; `pick` looks at the data and names the kind that is meant."""
    tagged = [Annotated[kind, Tag(f"({name})")] for name, kind in kinds.items()]
    return Annotated[
        Union[tuple(tagged)] if len(tagged) > 1 else tagged[0],  # noqa: UP007 - made at run time
        Discriminator(
            lambda data: f"({pick(data)})",
            custom_error_type="needs",
            custom_error_message=f"{what} is needed",
        ),
    ]


def kind_of(data: Any) -> str:
    """Names a part by its "kind", whether it is still plain data or already a model."""
    kind = data.get("kind") if isinstance(data, dict) else getattr(data, "kind", None)
    return str(kind)


MAX_NAME = 200
Name = Annotated[
    str, StringConstraints(max_length=MAX_NAME), needs(f"a text of at most {MAX_NAME} letters")
]
Identifier = Annotated[
    str,
    StringConstraints(pattern=r"^[A-Za-z][A-Za-z0-9_-]{0,39}$"),
    needs("an id (a letter, then letters, digits, - or _, 40 at most)"),
]
Color = Annotated[
    str,
    StringConstraints(pattern=r"^#[0-9A-Fa-f]{6}$"),
    needs('a colour as "#RRGGBB"'),
]
AxisTag = Annotated[str, Field(pattern=r"^[A-Za-z0-9]{4}$")]
_FAR = 1_000_000
AxisValue = Annotated[float, Number("a number", Counts.AXIS, ge=-10_000, le=10_000)]
Frames = Annotated[float, Number("a number of frames", Counts.MOMENT, ge=-_FAR, le=_FAR)]
Duration = Annotated[float, Number("a number of frames", Counts.DURATION, ge=-_FAR, le=_FAR)]
InnerFrames = Annotated[float, Number("a number of frames", Counts.INNER_FRAMES, ge=-_FAR, le=_FAR)]
Pixels = Annotated[float, Number("a number of pixels", Counts.LENGTH, ge=-_FAR, le=_FAR)]
Depth = Annotated[float, Number("a number of pixels", Counts.DEPTH, ge=-_FAR, le=_FAR)]
PicturePixels = Annotated[
    float, Number("a number of pixels", Counts.PICTURE_LENGTH, ge=-_FAR, le=_FAR)
]
Distance = Annotated[float, Number("a number of pixels", Counts.LENGTH, ge=0, le=_FAR)]
PictureDistance = Annotated[
    float, Number("a number of pixels", Counts.PICTURE_LENGTH, ge=0, le=_FAR)
]
Size2 = Annotated[tuple[Distance, Distance], Field(strict=False)]
Degrees = Annotated[float, Number("a number of degrees", Counts.ANGLE, ge=-_FAR, le=_FAR)]
Percent = Annotated[float, Number("a number of percent", Counts.PART, ge=-_FAR, le=_FAR)]
Share = Annotated[float, Number("a number of percent", Counts.PART, ge=0, le=100)]
Thousandths = Annotated[
    float, Number("a number of thousandths", Counts.PART, ge=-10_000, le=10_000)
]
Factor = Annotated[float, Number("a factor", Counts.FACTOR, ge=-10_000, le=10_000)]
Opacity = Annotated[float, Number("an opacity", Counts.PART, ge=0, le=1)]
MAX_TEXT = 10_000
TextIndex = Annotated[int, Number("a place in the text", Counts.INDEX, ge=0, le=MAX_TEXT)]
Decibels = Annotated[float, Number("a number of decibels", Counts.DECIBELS, ge=-100, le=40)]
Seed = Annotated[int, Number("a whole number", Counts.SEED, ge=0, le=2**32 - 1)]
