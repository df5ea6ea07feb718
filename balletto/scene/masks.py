"""Masks and mattes: where a layer is seen. The data only; balletto.picture.masks draws them.

A new kind of mask is a model here with its line in MASK_KINDS, and a function there.
"""

from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import Field

from .model import Counts, Degrees, Distance, Identifier, Model, Number, Opacity, kind_of, one_of
from .orders import Point
from .outlines import Drawing
from .tracks import Changing

SOFTEST_MASK = 1000
Feather = Annotated[
    float, Number("a number of pixels", Counts.PICTURE_LENGTH, ge=0, le=SOFTEST_MASK)
]
Expansion = Annotated[float, Number("a number of pixels", Counts.LENGTH, ge=-2000, le=2000)]
Size2 = Annotated[tuple[Distance, Distance], Field(strict=False)]


class Mask(Model):
    """What all kinds have: a softened form about `center`, turned by `rotation`.

    In px of the layer's own space, with which it moves; `fixed` ones are in px of the picture. The
    first adds to nothing, or takes from everything, each next is joined to those before.
    """

    if TYPE_CHECKING:
        kind: str

    on: bool = True
    mode: Literal["add", "subtract", "intersect"] = "add"
    invert: bool = False
    fixed: bool = False
    center: Changing[Point] = (0, 0)
    rotation: Changing[Degrees] = 0
    feather: Changing[Feather] = 0
    expand: Changing[Expansion] = 0
    opacity: Changing[Opacity] = 1


class RectangleMask(Mask):
    """A rectangle with rounded corners."""

    kind: Literal["rectangle"]
    size: Changing[Size2] = (400, 200)
    corner: Changing[Distance] = 0


class EllipseMask(Mask):
    """An ellipse in a box of `size`."""

    kind: Literal["ellipse"]
    size: Changing[Size2] = (400, 400)


class PathMask(Mask):
    """Any closed path, as the path data of SVG."""

    kind: Literal["path"]
    path: Drawing


MASK_KINDS: dict[str, type[Mask]] = {
    "rectangle": RectangleMask,
    "ellipse": EllipseMask,
    "path": PathMask,
}
AnyMask = one_of(kind_of, f"a mask of one of the kinds {', '.join(MASK_KINDS)}", **MASK_KINDS)


class Matte(Model):
    """The layer `layer` says where this one is seen: by its opacity, or by how light it is. It is
    not drawn itself, unless `visible`."""

    layer: Identifier
    by: Literal["alpha", "luminance"] = "alpha"
    invert: bool = False
    visible: bool = False
