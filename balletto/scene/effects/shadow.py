"""A shadow of what is drawn; balletto.picture.composing.effect_values makes it."""

from typing import ClassVar, Literal

from ..model import Color, Opacity, PicturePixels
from ..values import measures
from ..values.tracks import Changing
from ..values.wording import Said, Wording
from .base import SOFTEST, Effect, Softness


class Shadow(Effect):
    """A shadow of each letter, which falls on those drawn before it, and of a shape as a whole.
    It is as opaque as what casts it, times `opacity`."""

    rank: ClassVar = 50
    limits: ClassVar = {"softness": (0, SOFTEST), "opacity": (0, 1)}
    works_on: ClassVar = "drawing"
    wording: ClassVar = Wording(
        "Shadow",
        "Each casts a shadow {x} and {y}, {softness} soft, {color}, {opacity} opaque.",
        {
            "x": Said("Shadow to the side", measures.LEFT_RIGHT, 0),
            "y": Said("Shadow above or below", measures.ABOVE_BELOW, 10),
            "softness": Said("Softness of the shadow", measures.BLUR, 8),
            "color": Said("Colour of the shadow", is_color=True),
            "opacity": Said("Opacity of the shadow", measures.OPACITY, 0.6),
        },
    )

    kind: Literal["shadow"]
    x: Changing[PicturePixels] = 0
    y: Changing[PicturePixels] = 10
    softness: Changing[Softness] = 8
    color: Changing[Color] = "#000000"
    opacity: Changing[Opacity] = 0.6
