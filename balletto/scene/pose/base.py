"""What all properties of a pose have: all that is known of one stands in one place."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np

from ..model import Color
from ..values.measures import Measure
from .joins import SUM, TINT, ColorTint, Join

# From the values of a property at some times to matrices (..., 3, 3) on red, green and blue.
MixingOf = Callable[[np.ndarray], np.ndarray]
HOME, AWAY = "home", "away"  # where a verb leads


@dataclass(frozen=True)
class Verb:
    """Verbs that name a property: where they lead, and the value where none is said.

    sign: by which a number without a direction goes
    """

    words: tuple[str, ...]
    leads: str
    usual: float
    sign: int = 1


@dataclass(frozen=True)
class PoseProperty:
    """A property of a pose.

    name: in files; type: of its value there; label: in full; words: how it is said, "{}" is the
        value; noun: where several are named, if that is not its label
    measure: of numbers; colours have none
    start: the away value that a new one starts with
    chance: the number with which it draws its chances; no two may be alike, and 20 to 29 are axes'
    rank: where it stands among all; likely: among those that are offered first, from 0
    low, high: what moves make of it together is kept within these
    stands_for: the properties that are computed in its place
    is_way: whether it leads somewhere, so that its values need a direction
    turns_about_pivot, is_of_letters: whether it turns or stretches about a pivot; whether it means
        nothing for a layer as a whole
    preset_part: what it is called as a part of a preset
    mixes: how it changes colours
    """

    name: str
    type: Any
    label: str
    words: str
    measure: Measure | None
    start: Any
    chance: int
    rank: int
    join: Join = SUM
    noun: str = ""
    likely: int | None = None
    low: float | None = None
    high: float | None = None
    stands_for: tuple[str, ...] = ()
    is_way: bool = False
    turns_about_pivot: bool = False
    is_of_letters: bool = False
    preset_part: str = ""
    verbs: tuple[Verb, ...] = ()
    mixes: MixingOf | None = None

    @property
    def is_color(self) -> bool:
        return self.measure is None

    @property
    def rest(self) -> float | None:
        """The value that changes nothing; a colour has none."""
        return None if isinstance(self.join.rest, ColorTint) else float(self.join.rest)

    @property
    def parts(self) -> tuple[str, ...]:
        """The properties that are computed."""
        return self.stands_for or (self.name,)

    def limited(self, values: Any) -> Any:
        """What moves make of it together, kept within its limits."""
        if self.low is None and self.high is None:
            return values
        return np.clip(values, self.low, self.high)


# By their names; a module of this folder puts its own here.
FOUND: dict[str, PoseProperty] = {}


def pose_property(name: str, type: Any, words: str, **more: Any) -> PoseProperty:
    """Registers a property of that name; `more` is all else that `PoseProperty` has."""
    label = more.pop("label")
    FOUND[name] = found = PoseProperty(name, type, label, words, **more)
    return found


def pose_color(name: str, words: str, **more: Any) -> PoseProperty:
    """Registers a property that is a colour."""
    return pose_property(name, Color, words, measure=None, join=TINT, **more)


def verbs_of(found: Iterable[PoseProperty]) -> Iterator[tuple[str, PoseProperty, Verb]]:
    """All verbs that name a property: the words, what they name, and how."""
    for each in found:
        for verb in each.verbs:
            for words in verb.words:
                yield words, each, verb
