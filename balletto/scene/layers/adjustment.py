"""Effects as a layer."""

from typing import ClassVar, Literal

from .base import Layer


class Adjustment(Layer):
    """Its effects on all that lies below it, in its group or in the scene."""

    rank: ClassVar = 70
    title: ClassVar = "Adjustment"
    draws_itself: ClassVar = False
    has_place: ClassVar = False
    works_below: ClassVar = True

    kind: Literal["adjustment"]
