"""Moves: how the units of a title leave rest. The data only; balletto.motion computes it."""

from typing import Any, Literal

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
    Percent,
    Pixels,
    Seed,
    kind_of,
    number,
    one_of,
)
from .tracks import changing

Unit = Literal["character", "word", "line", "title"]
Order = Literal[
    "forward",
    "backward",
    "center-out",
    "ends-in",
    "alternate",
    "shuffle",
    "across",
    "down",
    "by-hand",
]


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


class Stagger(Model):
    """The order of the units and the delay from one to the next, or from first to last."""

    order: Order = "forward"
    gap: Frames | None = None
    span: Frames | None = None
    curve: Ease = "linear"
    seed: Seed = 0
    ranks: tuple[number("a rank", ge=-10_000, le=10_000), ...] | None = Field(None, min_length=1)

    @model_validator(mode="after")
    def _agrees(self) -> "Stagger":
        if self.gap is not None and self.span is not None:
            raise PydanticCustomError("needs", "either gap or span is needed, not both")
        if (self.order == "by-hand") != (self.ranks is not None):
            raise PydanticCustomError("needs", "ranks go with the order by-hand, and only with it")
        return self


class Sweep(Model):
    """A band over the title: from low+travel to high+travel, softened at either side."""

    kind: Literal["sweep"]
    low: changing(Percent) = 0
    high: changing(Percent) = 100
    travel: changing(Percent) = 0
    soft_low: changing(number("a softness", ge=0, le=1_000_000)) = 0
    soft_high: changing(number("a softness", ge=0, le=1_000_000)) = 0
    order: Order = "forward"
    ranks: tuple[number("a rank", ge=-10_000, le=10_000), ...] | None = Field(None, min_length=1)
    seed: Seed = 0
    measure: Literal["percent", "units"] = "percent"
    edge: Ease = "linear"
    strength: changing(Percent) = 100
    combine: Literal["multiply", "add", "subtract", "min", "max", "difference"] = "multiply"

    @model_validator(mode="after")
    def _agrees(self) -> "Sweep":
        if (self.order == "by-hand") != (self.ranks is not None):
            raise PydanticCustomError("needs", "ranks go with the order by-hand, and only with it")
        return self


SELECTOR_KINDS: dict[str, type[Model]] = {"sweep": Sweep}
Selector = one_of(
    kind_of, f"a selector of one of the kinds {', '.join(SELECTOR_KINDS)}", **SELECTOR_KINDS
)


class Move(Model):
    """One movement of all units of a kind: pose, amount over local time, stagger, reach."""

    id: Identifier
    name: Name = ""
    on: bool = True
    unit: Unit = "character"
    start: Frames = 0
    pose: Pose = Pose()
    amount: changing(number("an amount", ge=-1000, le=1000)) = 1
    stagger: Stagger | None = None
    reach: tuple[Selector, ...] = Field((), max_length=16)
