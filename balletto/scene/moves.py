"""Moves: how the units of a title leave rest. The data only; balletto.motion computes it."""

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from .eases import Ease
from .model import (
    Degrees,
    Factor,
    Frames,
    Identifier,
    Model,
    Name,
    Opacity,
    Pixels,
    number,
)
from .orders import Ordered
from .selectors import AnySelector
from .tracks import changing

Unit = Literal["character", "word", "line", "title"]


class Pose(Model):
    """The away values of a move; what is left out stays at rest."""

    x: changing(Pixels) = None
    y: changing(Pixels) = None
    z: changing(Pixels) = None
    rotation: changing(Degrees) = None
    rotation_x: changing(Degrees) = None
    rotation_y: changing(Degrees) = None
    scale: changing(Factor) = None
    scale_x: changing(Factor) = None
    scale_y: changing(Factor) = None
    opacity: changing(Opacity) = None

    @property
    def given(self) -> dict[str, Any]:
        """The properties that the pose says, by name."""
        return {name: getattr(self, name) for name in sorted(self.model_fields_set)}


class Distribution(Ordered):
    """An order, and the delay from one to the next in it, or from first to last."""

    gap: Frames | None = None
    span: Frames | None = None
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

    times: Annotated[tuple[Frames, ...], Field(min_length=1, max_length=10_000)] | None = None
    groups: Groups | None = None

    @model_validator(mode="after")
    def _has_one_meaning(self) -> "Stagger":
        said = self.model_fields_set
        if "times" in said and said - {"times"}:
            raise PydanticCustomError("needs", "times say all delays and stand alone")
        return self


class Move(Model):
    """One movement of all units of a kind: pose, amount over local time, stagger, reach.

    With `until_turn` hidden, a unit is not seen before its own time begins.
    """

    id: Identifier
    name: Name = ""
    on: bool = True
    unit: Unit = "character"
    start: Frames = 0
    pose: Pose = Pose()
    amount: changing(number("an amount", ge=-1000, le=1000)) = 1
    stagger: Stagger | None = None
    until_turn: Literal["hidden"] | None = None
    reach: tuple[AnySelector, ...] = Field((), max_length=16)
