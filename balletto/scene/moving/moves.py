"""Moves: how the units of a title, or layers as a whole, leave rest. The data only;
balletto.motion computes it."""

from functools import cached_property
from typing import TYPE_CHECKING, Annotated, Any, Literal

from pydantic import Field, create_model, model_validator
from pydantic_core import PydanticCustomError

from ..eases import Ease
from ..letters.style import RunStyle
from ..model import (
    LOCAL,
    MAX_NAME,
    MAX_TEXT,
    AxisTag,
    AxisValue,
    Counts,
    Duration,
    Frames,
    Identifier,
    Model,
    Name,
    Number,
    TextIndex,
    needs,
)
from ..orders import Ordered
from ..pose import PROPERTIES, PropertyName
from ..selectors import AnySelector
from ..shapes import AnyShape
from ..values.tracks import Changing, Track

Unit = Literal["character", "word", "line", "title", "copy", "row", "column"]
Share = Annotated[float, Number("a share of the box", Counts.PART, ge=-1000, le=1000)]
Pivot = Annotated[tuple[Share, Share], Field(strict=False), needs("two shares of the box [x, y]")]


Letters = Annotated[
    tuple[TextIndex, TextIndex], Field(strict=False), needs("two places [from, to]")
]


Side = Literal["left", "right", "above", "below"]


class _AnyPose(Model):
    """The away values of a move; what is left out stays at rest.

    `displace` bends outlines by px more than the layer's displacement does, in its bumps and at its
    pace, or those that are usual; `shadow` is how much is left of the shadow of the layer. `off`
    adds what takes the whole title just out of the picture on a side, or each unit by itself;
    `gather` is how far of the way units are to the middle of the word or line that the pivot is of,
    or else of the title: at 1 all stand at one point.

    Of the length of an outline there is seen what lies between the shares `drawn_from` and `drawn`;
    `filled` is how opaque the fill is, apart from the outline; `hatched` the share of the strokes
    of a hatching that are drawn.
    """

    axes: dict[AxisTag, Changing[AxisValue]] = {}
    off: Side | None = None
    off_of: Literal["unit"] | None = None

    @cached_property
    def given(self) -> dict[str, Any]:
        """The properties that the pose says, by name; a font axis is "axes.wght"."""
        names = sorted(self.model_fields_set - {"axes", "off", "off_of"})
        axes = {f"axes.{tag}": self.axes[tag] for tag in sorted(self.axes)}
        return {name: getattr(self, name) for name in names} | axes


if TYPE_CHECKING:

    class Pose(_AnyPose):
        """With the properties that there are (`balletto/scene/pose`) as fields."""

        def __getattr__(self, name: str) -> Any: ...

else:
    _FIELDS = {name: (Changing[each.type], None) for name, each in PROPERTIES.items()}
    Pose = create_model("Pose", __base__=_AnyPose, __doc__=_AnyPose.__doc__, **_FIELDS)


class Becoming(Model):
    """Another text that a title becomes, set as the title is but for what its `style` says."""

    text: Annotated[str, Field(min_length=1, max_length=MAX_TEXT), needs("a text of 1 to 10,000")]
    style: RunStyle = RunStyle()


class BecomingShape(Model):
    """Another shape that a shape becomes."""

    shape: AnyShape


class Follow(Model):
    """A springy lag: the weight is followed by a damped oscillator of so many swings a second.

    `damping` is the ratio to the critical one: below 1 it swings, above 1 it creeps.
    """

    frequency: Annotated[float, Number("a frequency in hertz", Counts.FREQUENCY, gt=0, le=100)]
    damping: Annotated[float, Number("a damping", Counts.FACTOR, ge=0.01, le=10)] = 0.5


class Distribution(Ordered):
    """An order, and the delay from one to the next in it, or from first to last."""

    gap: Duration | None = None
    span: Duration | None = None
    curve: Ease = "linear"

    @model_validator(mode="after")
    def _one_measure(self) -> "Distribution":
        if self.gap is not None and self.span is not None:
            raise PydanticCustomError("needs", "either gap or span is needed, not both")
        return self


class Groups(Distribution):
    """The words or lines in turn, while the units within each have their own order."""

    by: Literal["word", "line"]


class Stagger(Distribution):
    """The order of the units; or `times`, the delay of each, the last repeated."""

    times: Annotated[tuple[Duration, ...], Field(min_length=1, max_length=10_000)] | None = None
    groups: Groups | None = None

    @model_validator(mode="after")
    def _has_one_meaning(self) -> "Stagger":
        said = self.model_fields_set
        if "times" in said and said - {"times"}:
            raise PydanticCustomError("needs", "times say all delays and stand alone")
        return self


MarkerName = Annotated[
    str, Field(min_length=1, max_length=MAX_NAME), needs("the name of a marker of the scene")
]
Amount = Annotated[float, Number("an amount", Counts.FACTOR, ge=-1000, le=1000)]


class Move(Model):
    """One movement of all units of a kind: pose, amount over local time, stagger, reach. Copies,
    and their rows and columns, there are where the title has a formation.

    With `until_turn` hidden, a unit is not seen before its own time begins. `pivot` is the point
    that units turn and grow about, in shares of the box of `pivot_of`: [0, 0] is the left top,
    [0.5, 1] the middle of the bottom. With `spaces`, white space takes part as characters do.

    `eases` are those of single properties: for these the amount goes from key to key by them, but
    where it holds.

    `among` are ranges of the text, counted as those of runs are: only the letters in them take
    part, and the units are those parts of characters, words, lines or the title that lie within.

    A move with a `marker` starts at it or, where `start` is said, goes along with it in time.

    With `becomes` the outlines turn, as far as the weight of their unit is, into those of another
    text, letter by letter in order; where several moves have one, those of one after another.
    """

    id: Identifier
    name: Name = ""
    on: bool = True
    unit: Unit = "character"
    start: Frames = 0
    marker: MarkerName | None = None
    pose: Annotated[Pose, LOCAL] = Pose()
    eases: dict[PropertyName, Ease] = {}
    amount: Annotated[Changing[Amount], LOCAL] = 1
    stagger: Stagger | None = None
    until_turn: Literal["hidden"] | None = None
    reach: tuple[AnySelector, ...] = Field((), max_length=16)
    follow: Follow | None = None
    spaces: bool = False
    among: Annotated[tuple[Letters, ...], Field(max_length=100)] | None = None
    pivot: Pivot = (0.5, 0.5)
    pivot_of: Literal["unit", "word", "line", "title"] = "unit"
    becomes: Becoming | None = None

    def amount_of(self, name: str) -> Any:
        """The course of the amount for a property of the pose."""
        return self._eased.get(name, self.amount)

    @cached_property
    def _eased(self) -> dict[str, Track[Any]]:
        """The amount with the ease of each property that has one of its own."""
        if not isinstance(self.amount, Track):
            return {}
        return {name: self.amount.with_ease(ease) for name, ease in self.eases.items()}


class LayerMove(Move):
    """A move of a layer that is no title: the layer as a whole is its unit, or its copies if it has
    a formation, of a grid also rows and columns of them."""

    unit: Literal["layer", "copy", "row", "column"] = "layer"  # type: ignore[assignment]
    becomes: BecomingShape | None = None  # type: ignore[assignment]


class GroupMove(Move):
    """A move of a group: of it as a whole, of what lies in it directly, member by member, or of its
    copies."""

    unit: Literal["layer", "member", "copy", "row", "column"] = "layer"  # type: ignore[assignment]
    becomes: BecomingShape | None = None  # type: ignore[assignment]
