"""Fits: how a scene fills pictures of other shapes, as 9:16 or 1:1.

whole: all of it is seen, with more of the background around. filled: it is cut off at two sides.
placed: its shorter side keeps its length, and layers have places of their own.
"""

import math
from typing import Annotated, Any, Literal, NamedTuple, get_args

from pydantic import AfterValidator, Field
from pydantic_core import PydanticCustomError

from .model import Counts, Identifier, Model, Number, shown
from .values.points import PictureShift

SMALLEST, LARGEST = 1, 100
_ALIKE = 0.01  # of a ratio: shapes that near to each other are one


def ratio_of(shape: str) -> float:
    """Width by height of a shape as "9:16"; ValueError if it is none."""
    across, _, down = shape.partition(":")
    sides = int(across), int(down)
    if not all(SMALLEST <= side <= LARGEST for side in sides):
        raise ValueError(shape)
    return sides[0] / sides[1]


def _known_shape(text: str) -> str:
    try:
        ratio_of(text)
    except ValueError:
        told = 'a shape as "9:16" or "1:1" is needed, got {got}'
        raise PydanticCustomError("needs", told, {"got": shown(text)}) from None
    return text


_SHAPE = Field(json_schema_extra={"pattern": r"^[0-9]+:[0-9]+$"})
FitKind = Literal["whole", "filled", "placed"]
FIT_KINDS: tuple[str, ...] = get_args(FitKind)


class FitPlace(Model):
    """Where a layer stands in a shape: moved by px of the scene, and larger or smaller."""

    layer: Identifier
    shift: PictureShift = (0, 0)
    scale: Annotated[float, Number("a factor", Counts.FACTOR, gt=0, le=100)] = 1


class Fit(Model):
    """How the scene fills pictures of a shape; `places` of layers count where it is `placed`."""

    shape: Annotated[str, _SHAPE, AfterValidator(_known_shape)]
    by: FitKind = "whole"
    places: tuple[FitPlace, ...] = Field((), max_length=1000)


class View(NamedTuple):
    """Where a scene is seen from in another shape: its origin in px, places by layer, and the scene
    as it is by itself, by which letters are chosen."""

    origin: tuple[float, float] = (0.0, 0.0)
    places: dict[str, FitPlace] = {}
    unfitted: Any = None


def fit_of(scene: Any, size: tuple[int, int]) -> Fit | None:
    """How a scene says that it fills pictures of that shape; None if it does not say."""
    ratio = size[0] / size[1]
    for fit in scene.fits:
        if math.isclose(ratio_of(fit.shape), ratio, rel_tol=_ALIKE):
            return fit
    return None


def fitted(scene: Any, size: tuple[int, int], by: str | None = None) -> Any:
    """The scene as it fills pictures of the shape of `size`: its own size is what is seen of it.

    by: one of FIT_KINDS; None: as the scene says for that shape, or else whole
    """
    width, height = scene.size
    if math.isclose(size[0] / size[1], width / height, rel_tol=_ALIKE):
        return scene
    fit = fit_of(scene, size)
    by = by or (fit.by if fit else "whole")
    scale = _scale(by, (width, height), size)
    seen = tuple(max(1, round(side / scale)) for side in size)
    origin = tuple((new - old) / 2 for new, old in zip(seen, scene.size, strict=True))
    places = {place.layer: place for place in fit.places} if fit and by == "placed" else {}
    made = scene.model_copy(update={"size": seen})
    made.see_from(View(origin, places, scene))
    return made


def _scale(by: str, own: tuple[int, int], size: tuple[int, int]) -> float:
    """How many px of the picture one of the scene becomes."""
    if by == "placed":
        return min(size) / min(own)
    return (max if by == "filled" else min)(new / old for new, old in zip(size, own, strict=True))
