"""The names of the properties of a pose, by which eases and chances are told for some of them."""

from typing import Annotated, Literal, NamedTuple, get_args

from pydantic import Field, StringConstraints

from .model import needs, one_of

Property = Literal[
    "x", "y", "z", "rotation", "rotation_x", "rotation_y", "scale", "scale_x", "scale_y",
    "opacity", "skew", "tracking", "blur", "outline", "displace", "shadow", "gather", "fill",
    "outline_color", "drawn", "drawn_from", "filled", "hatched",
]  # fmt: skip
PROPERTIES: tuple[str, ...] = get_args(Property)
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
