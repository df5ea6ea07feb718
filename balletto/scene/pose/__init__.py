"""Properties of a pose: what moves change. A property is a module of this folder, or a few that
belong together are; it says all there is to know of it: its words, its measure, its rest, how
several moves join."""

from collections.abc import Iterable
from typing import Annotated, Any, NamedTuple

from pydantic import Field, StringConstraints

from ..kinds import modules_in
from ..model import needs, one_of
from .base import FOUND, PoseProperty
from .joins import SUM, ColorTint, Join

__all__ = [
    "PROPERTIES",
    "Asked",
    "ColorTint",
    "Join",
    "OneSided",
    "PoseProperty",
    "PropertyName",
    "PropertyNames",
    "X",
    "both_of",
    "chance_number",
    "join_of",
    "limited",
    "parts_of",
    "rest_of_property",
]  # fmt: skip

modules_in(__name__, __path__)
# By name, in the order in which they are offered.
PROPERTIES: dict[str, PoseProperty] = dict(sorted(FOUND.items(), key=lambda item: item[1].rank))

_KNOWN = "|".join(PROPERTIES)
# One of these, or an axis of a font as "axes.wght".
PropertyName = Annotated[
    str,
    StringConstraints(pattern=rf"^(?:{_KNOWN}|axes\.[A-Za-z0-9]{{4}})$"),
    needs('the name of a property of a pose ("y", "opacity", "axes.wght")'),
]
PropertyNames = Annotated[tuple[PropertyName, ...], Field(min_length=1, max_length=40)]


# Of all properties, or of some.
OneSided = one_of(
    lambda data: "some" if isinstance(data, list | tuple) else "all",
    "true, false, or a list of properties",
    all=bool,
    some=PropertyNames,
)


class Asked(NamedTuple):
    """The property of a pose that weights are asked for: its name, and the number with which it
    draws its chances."""

    name: str
    number: int


# What is asked where it makes no difference.
X = Asked("x", 0)

# Axes count on from 20: more of them than ten no font has.
_FIRST_AXIS = 20


def chance_number(name: str, pose: Iterable[str]) -> int:
    """The number of a property in chances; axes count on, in the order of their tags, among the
    properties that a pose says."""
    if name.startswith("axes."):
        return _FIRST_AXIS + sorted(tag for tag in pose if tag.startswith("axes.")).index(name)
    return PROPERTIES[name].chance


def parts_of(name: str) -> tuple[str, ...]:
    """The computed properties that a property of a pose stands for."""
    return PROPERTIES[name].parts if name in PROPERTIES else (name,)


def join_of(name: str) -> Join:
    """How a computed property joins. Axes add up, and so do the ways out of the picture of letters
    along a path ("off_x", "off_y"), which no pose says."""
    return PROPERTIES[name].join if name in PROPERTIES else SUM


def both_of(name: str, outer: Any, inner: Any) -> Any:
    """What two kinds of units make of a property together; None is nothing."""
    return inner if outer is None else join_of(name).both(outer, inner)


def limited(name: str, values: Any) -> Any:
    """What moves make of a property together, kept within its limits."""
    return PROPERTIES[name].limited(values) if name in PROPERTIES else values


def rest_of_property(name: str) -> float | None:
    """What a property of a pose is at rest; None for a colour, which each title has its own of."""
    return PROPERTIES[name].rest if name in PROPERTIES else 0.0
