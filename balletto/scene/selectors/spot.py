"""A soft region of the picture; what stands in it takes part."""

from typing import TYPE_CHECKING, Any, ClassVar, Literal

import numpy as np
from pydantic import Field

from ..eases import Ease, ease_function
from ..model import Degrees, PictureDistance, Share, one_of
from ..pose import Asked
from ..values import measures
from ..values.measures import Measure
from ..values.points import PicturePoint
from ..values.tracks import Changing, value_at
from ..values.wording import Said
from .base import SHARE, SelectedUnits, Selector, values_of

_RADIUS = Measure(" px", drag=1, low=0)


class Spot(Selector):
    """What all spots have: by the place of a unit's rest centre in the picture.

    form: how its own form reads
    """

    rank: ClassVar = 50
    title: ClassVar = "spot"
    form: ClassVar[str]
    values: ClassVar = {
        **values_of(
            "spot",
            invert=Said("Side", options=((False, "inside"), (True, "outside"))),
            floor=Said("Floor", SHARE, 0),
            center=Said("Middle", is_point=True),
            inner=Said("Inner radius", _RADIUS, 0),
            outer=Said("Outer radius", _RADIUS, 400),
            angle=Said("Turn", measures.DEGREES, 0),
            width=Said("Width", _RADIUS, 400),
            from_=Said("Foot", is_point=True),
            to=Said("Top", is_point=True),
        ),
        "edge": Said("Edges", is_ease=True),
    }

    if TYPE_CHECKING:
        shape: str

    kind: Literal["spot"]
    edge: Ease = "linear"
    invert: bool = False
    floor: Changing[Share] = 0

    @property
    def words(self) -> str:
        return f"what stands {{invert}} {self.form}"

    @property
    def less_used(self) -> str:
        return "strength {strength}, edges {edge}, at least {floor}"

    @classmethod
    def type_in_scenes(cls) -> Any:
        shapes = ", ".join(SPOT_SHAPES)
        return one_of(_shape_of, f"a spot of one of the shapes {shapes}", **SPOT_SHAPES)

    @classmethod
    def starts(cls, size: tuple[int, int]) -> list[tuple[str, dict[str, Any]]]:
        middle = [size[0] / 2, size[1] / 2]
        forms: list[tuple[str, dict[str, Any]]] = [
            ("a spot", {"shape": "round", "center": middle, "inner": 80, "outer": 480}),
            ("a slope", {"shape": "slope", "from": [0, middle[1]], "to": middle}),
            ("a band", {"shape": "band", "center": middle, "angle": 60, "width": 600}),
        ]
        return [(label, {"kind": "spot", **form}) for label, form in forms]

    def weights(self, units: SelectedUnits, times: np.ndarray, asked: Asked) -> np.ndarray:
        value = ease_function(self.edge)(self.inside(units.in_picture(times), times))
        if self.invert:
            value = 1 - value
        floor = value_at(self.floor, times) / 100
        return floor + (1 - floor) * value

    def inside(self, places: np.ndarray, times: np.ndarray) -> np.ndarray:
        """How far within the spot places of the picture (times, units, 2) are, 0..1."""
        raise NotImplementedError


class SlopeSpot(Spot):
    """0 at `from`, 1 at `to`, even between them."""

    form: ClassVar = "a slope rising from {from} to {to}"

    shape: Literal["slope"]
    start: Changing[PicturePoint] = Field(alias="from")
    end: Changing[PicturePoint] = Field(alias="to")

    def inside(self, places: np.ndarray, times: np.ndarray) -> np.ndarray:
        start, end = value_at(self.start, times), value_at(self.end, times)
        axis = end - start
        length = (axis**2).sum(-1)
        along = ((places - start) * axis).sum(-1) / np.where(length > 0, length, 1.0)
        return np.where(length > 0, np.clip(along, 0.0, 1.0), 0.0)


class RoundSpot(Spot):
    """1 within `inner` of `center`, 0 beyond `outer`."""

    form: ClassVar = "a round spot at {center}, whole up to {inner} and gone beyond {outer}"

    shape: Literal["round"]
    center: Changing[PicturePoint]
    inner: Changing[PictureDistance] = 0
    outer: Changing[PictureDistance] = 400

    def inside(self, places: np.ndarray, times: np.ndarray) -> np.ndarray:
        distance = np.hypot(*np.moveaxis(places - value_at(self.center, times), -1, 0))
        return _falling(distance, value_at(self.inner, times), value_at(self.outer, times))


class BandSpot(Spot):
    """1 on the line through `center` at `angle`, 0 half a `width` away from it."""

    form: ClassVar = "a band through {center}, turned {angle} and {width} wide"

    shape: Literal["band"]
    center: Changing[PicturePoint]
    angle: Changing[Degrees] = 0
    width: Changing[PictureDistance] = 400

    def inside(self, places: np.ndarray, times: np.ndarray) -> np.ndarray:
        angle = np.radians(value_at(self.angle, times))
        x, y = np.moveaxis(places - value_at(self.center, times), -1, 0)
        distance = np.abs(y * np.cos(angle) - x * np.sin(angle))
        return _falling(distance, np.zeros_like(distance), value_at(self.width, times) / 2)


SPOT_SHAPES: dict[str, type[Spot]] = {"slope": SlopeSpot, "round": RoundSpot, "band": BandSpot}


def _shape_of(data: object) -> str:
    shape = data.get("shape") if isinstance(data, dict) else getattr(data, "shape", None)
    return str(shape)


def _falling(distance: np.ndarray, inner: np.ndarray, outer: np.ndarray) -> np.ndarray:
    """1 up to `inner`, straight down to 0 at `outer`; a hard edge where they meet."""
    width = np.where(outer > inner, outer - inner, 1.0)
    soft = np.clip((outer - distance) / width, 0.0, 1.0)
    return np.where(outer > inner, soft, np.where(distance <= inner, 1.0, 0.0))
