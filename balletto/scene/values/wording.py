"""Wordings: how a part of a scene reads, as a template with its values, without any interface."""

from dataclasses import dataclass, field
from typing import Any

from .measures import Measure


@dataclass(frozen=True)
class Said:
    """How a value stands in a sentence: a number by its measure, a colour, one of `options`, a
    point, a pair of lengths with words `between`, an order, an ease, or some of the properties of
    a pose.

    label: its full name; rest: what a double click sets
    after: words behind it; parts: of several numbers, how each is said
    each: of a list of points, how the two numbers of each are said
    is_name: whether it is none of its options but a name, in quotes
    """

    label: str
    measure: Measure | None = None
    rest: float | None = None
    options: tuple[tuple[Any, str], ...] = ()
    is_color: bool = False
    is_point: bool = False
    is_pair: bool = False
    between: str = "by"
    pair: tuple[str, str] = ("width", "height")
    is_order: bool = False
    is_ease: bool = False
    of_properties: bool = False
    is_name: bool = False
    after: str = ""
    parts: tuple["Said", ...] = ()
    each: tuple["Said", ...] = ()

    @property
    def name(self) -> str:
        """What the value is called within a sentence: "width of the line"."""
        return self.label[:1].lower() + self.label[1:]


@dataclass(frozen=True)
class Wording:
    """A template with the names of values, as the file calls them, in braces, and how each is said.

    title: what the part is called where its kinds are listed
    """

    title: str
    words: str = ""
    values: dict[str, Said] = field(default_factory=dict)
