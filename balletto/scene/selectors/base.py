"""What all selectors have: how strongly each unit takes part in a move."""

from dataclasses import replace
from fractions import Fraction
from typing import Annotated, Any, ClassVar, Literal, Protocol

import numpy as np

from ..kinds import Kind
from ..model import Counts, Number, Percent
from ..pose import Asked, OneSided, PropertyNames
from ..values import measures
from ..values.measures import Measure
from ..values.tracks import Changing
from ..values.wording import Said, Wording

# An ease that overshoots, or a tie, may bring a period to 0 and below, where it has no meaning.
SHORTEST = 1e-3  # frames
Period = Annotated[float, Number("a number of frames", Counts.DURATION, gt=0, le=1_000_000)]
SHARE = Measure(" %", drag=0.5, low=0, high=100)
PERIOD = Measure(" frames", drag=0.125, low=0.1, one=" frame")
COMBINES = (
    ("multiply", "times"),
    ("add", "plus"),
    ("subtract", "less"),
    ("min", "but no more than"),
    ("max", "but no less than"),
    ("difference", "apart from"),
)


class SelectedUnits(Protocol):
    """Units as selectors see them."""

    def __len__(self) -> int: ...

    @property
    def centers(self) -> np.ndarray:
        """Their rest centres (n, 2) in the space of the title."""

    @property
    def length(self) -> int:
        """The frames of the scene."""

    @property
    def rate(self) -> Fraction:
        """Its frames a second."""

    def in_picture(self, times: np.ndarray) -> np.ndarray:
        """The rest centres in the picture at `times`, (t, 1) or (t, n): (t, n, 2)."""

    def loudness(
        self, sound: str | None, band: str, times: np.ndarray, smooth: np.ndarray
    ) -> np.ndarray:
        """How loud a sound is at times, each the mean over `smooth` frames, in 0..1."""


class Selector(Kind):
    """What all kinds have: `strength` scales the value, then `combine` joins it to those before.

    title: what it is called; also: other words for it, as they are typed
    values: how all that it says is said
    by_property: whether it gives each property a chance of its own
    says_when: whether it brings units there and back by itself, so that a move needs no length
    """

    title: ClassVar[str]
    also: ClassVar[tuple[str, ...]] = ()
    values: ClassVar[dict[str, Said]]
    by_property: ClassVar[bool] = False
    says_when: ClassVar[bool] = False

    strength: Changing[Percent] = 100
    combine: Literal["multiply", "add", "subtract", "min", "max", "difference"] = "multiply"

    def weights(self, units: SelectedUnits, times: np.ndarray, asked: Asked) -> np.ndarray:
        """How strongly each unit takes part, (times, units).

        times: (t, 1), or (t, units) where each unit is asked at times of its own
        asked: the property that it is asked for, for chances
        """
        raise NotImplementedError

    @property
    def words(self) -> str:
        """How it reads within the sentence of its move, with its values in braces."""
        raise NotImplementedError

    @property
    def less_used(self) -> str:
        """What is used less of it, in the same way."""
        return "strength {strength}"

    @property
    def said(self) -> dict[str, Said]:
        """How its values are said as it is."""
        return self.values

    def wording(self, words: str) -> Wording:
        """Words of it with its values."""
        return Wording(self.title, words, self.said)

    @classmethod
    def starts(cls, size: tuple[int, int]) -> list[tuple[str, dict[str, Any]]]:
        """Those to begin with in a picture of a size, each with what the button for it says."""
        raise NotImplementedError

    @property
    def other_ways(self) -> list[tuple[str, str, Any]]:
        """Other ways to say the same: each as what the button says, a field, and its value; None
        clears it."""
        return []


class Chance(Selector):
    """What selectors by chance have. `only` some properties take part by it, the others whole;
    `one_sided` ones go one way only: all, or those that are named."""

    by_property: ClassVar = True

    only: PropertyNames | None = None
    one_sided: OneSided = False

    @property
    def less_used(self) -> str:
        return "strength {strength}, for {only}"

    def drawn(self, units: SelectedUnits, times: np.ndarray, asked: Asked) -> np.ndarray:
        """Chances in [0, 1), (times, units) or (1, units)."""
        raise NotImplementedError

    def weights(self, units: SelectedUnits, times: np.ndarray, asked: Asked) -> np.ndarray:
        """Weights (times, units) in [-1, 1), or in [0, 1) if one-sided."""
        if self.only is not None and asked.name not in self.only:
            return np.ones((len(times), len(units)))
        drawn = self.drawn(units, times, asked)
        value = drawn if self.is_one_sided(asked.name) else 2 * drawn - 1
        return np.broadcast_to(value, (len(times), len(units)))

    def is_one_sided(self, name: str) -> bool:
        """Whether a property goes one way only."""
        return self.one_sided if isinstance(self.one_sided, bool) else name in self.one_sided


# How its lists of properties are said: as these, or as the properties themselves.
CHANCE_VALUES = {
    "only": Said("Only for", options=((None, "all that it changes"),), of_properties=True),
    "one_sided": Said(
        "Ways", options=((False, "either way"), (True, "one way only")), of_properties=True
    ),
}


def values_of(title: str, **values: Said) -> dict[str, Said]:
    """How the values of a selector of that title are said, whose labels are completed by it:
    "Start" becomes "Start of the sweep"."""
    shared = {"strength": Said("Strength", measures.PERCENT, 100)}
    named = {
        name.rstrip("_"): replace(said, label=f"{said.label} of the {title}")
        for name, said in {**values, **shared}.items()
    }
    return {**named, "combine": Said("Joined by", options=COMBINES)}
