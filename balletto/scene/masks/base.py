"""What all masks have: where a layer is seen. balletto.picture.composing.masks draws them."""

from typing import Annotated, ClassVar, Literal

import numpy as np

from ..forms.outlines import PathCommands
from ..kinds import Kind
from ..model import Counts, Degrees, Number, Opacity
from ..values import measures
from ..values.points import Point
from ..values.tracks import Changing
from ..values.wording import Said, Wording

SOFTEST_MASK = 1000
Feather = Annotated[
    float, Number("a number of pixels", Counts.PICTURE_LENGTH, ge=0, le=SOFTEST_MASK)
]
Expansion = Annotated[float, Number("a number of pixels", Counts.LENGTH, ge=-2000, le=2000)]

_MODES = (("add", "added to"), ("subtract", "taken from"), ("intersect", "as far as also in"))
_SIDES = ((False, "inside"), (True, "outside"))
_PLACES = ((False, "moving with the layer"), (True, "standing in the picture"))
_WORDS = (
    "Seen {invert} {form} at {center}, turned {rotation}, {feather} soft, {expand} wider, "
    "{opacity} dense, {fixed}, {mode} those before."
)
_VALUES = {
    "invert": Said("Side of the mask", options=_SIDES),
    "center": Said("Middle of the mask", is_point=True),
    "rotation": Said("Turn of the mask", measures.DEGREES, 0),
    "feather": Said("Feather", measures.BLUR, 0),
    "expand": Said("Expansion", measures.PIXELS, 0),
    "opacity": Said("Density of the mask", measures.OPACITY, 1),
    "fixed": Said("What the mask moves with", options=_PLACES),
    "mode": Said("How it joins the masks before", options=_MODES),
}
SIZE = Said("Size of the mask", is_pair=True)


def mask_wording(title: str, form: str, **values: Said) -> Wording:
    """The words of a mask, of which those of its form are its own."""
    return Wording(title, _WORDS.replace("{form}", form), {**values, **_VALUES})


class Mask(Kind):
    """What all kinds have: a softened form about `center`, turned by `rotation`.

    In px of the layer's own space, with which it moves; `fixed` ones are in px of the picture. The
    first adds to nothing, or takes from everything, each next is joined to those before.
    """

    wording: ClassVar[Wording]

    on: bool = True
    mode: Literal["add", "subtract", "intersect"] = "add"
    invert: bool = False
    fixed: bool = False
    center: Changing[Point] = (0, 0)
    rotation: Changing[Degrees] = 0
    feather: Changing[Feather] = 0
    expand: Changing[Expansion] = 0
    opacity: Changing[Opacity] = 1

    def outline(self, at: np.ndarray) -> PathCommands:
        """Its form at a frame, an array of no dimensions, about the origin."""
        raise NotImplementedError
