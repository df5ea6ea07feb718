"""Clicks as layers: heard whenever a move brings on a unit of a title."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ...stock import CLICKS
from ..media import FileName
from ..model import Counts, Decibels, Identifier, Number, Seed
from ..values import measures
from ..values.measures import Measure
from ..values.wording import Said, Wording
from .base import Layer

Spread = Annotated[float, Number("a number of decibels", Counts.DECIBELS, ge=0, le=60)]
Share = Annotated[float, Number("a share", Counts.PART, ge=0, le=0.9)]
_GAIN = Measure(" dB", drag=0.1, below="softer", above="louder")
_SPREAD = Measure(" dB", drag=0.1, low=0, high=60)
_PITCH = Measure(" %", scale=100, drag=0.002, step=0.01, low=0, high=0.9)


class ClicksLayer(Layer):
    """One click at the start and the delay of each unit that a move of a title has; those at the
    same moment once. White space that takes part clicks too, if `spaces` says so.

    `sound` is a click that ships, by its name; or what is heard is a `file`. It is louder by `gain`
    decibels, each by up to `gain_chance` louder or softer, and by up to `pitch_chance`, a share,
    higher or lower.
    """

    rank: ClassVar = 55
    title: ClassVar = "Clicks"
    is_heard: ClassVar = True
    draws_itself: ClassVar = False
    has_place: ClassVar = False

    kind: Literal["clicks"]
    of_title: Identifier = Field(alias="title")
    move: Identifier
    sound: Literal["key", "typewriter", "tick", "wood", "drop"] = "key"
    file: FileName | None = None
    gain: Decibels = 0
    gain_chance: Spread = 2
    pitch_chance: Share = 0.06
    seed: Seed = 0
    spaces: bool = True


CLICKING = Wording(
    "clicks",
    "A click of a {sound}, {gain}, {gain_chance} louder or softer by chance, {pitch_chance} "
    "higher or lower by chance, {spaces}, chance {seed}.",
    {
        "sound": Said("Sound of the clicks", options=tuple((name, name) for name in CLICKS)),
        "gain": Said("Gain of the clicks", _GAIN, 0),
        "gain_chance": Said("Chance of the gain", _SPREAD, 0),
        "pitch_chance": Said("Chance of the pitch", _PITCH, 0),
        "spaces": Said(
            "White space", options=((True, "white space too"), (False, "not at white space"))
        ),
        "seed": Said("Chance of the clicks", measures.WHOLE, 0),
    },
)
