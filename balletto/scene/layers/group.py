"""Groups of layers."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ..moving.moves import GroupMove
from .base import Layer


class Group(Layer):
    """Layers that move as one: those whose `group` it is. They are drawn together, in its place,
    then made as opaque as it is, and blended."""

    rank: ClassVar = 60
    title: ClassVar = "Group"
    draws_itself: ClassVar = False
    has_members: ClassVar = True

    kind: Literal["group"]
    moves: Annotated[tuple[GroupMove, ...], Field(max_length=100)] = ()
