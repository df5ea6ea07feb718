"""Eases: how the stretch between two keys is travelled.

An ease is a name ("soft-landing") or a small object ({"bezier": [x1, y1, x2, y2]}). `ease_function`
turns either into a function of s, an array of any shape with values in 0..1. A kind is a module of
this folder, with its model, its words and its function.
"""

from functools import lru_cache
from typing import Annotated, Any

import numpy as np
from pydantic import AfterValidator, Field
from pydantic_core import PydanticCustomError

from ..kinds import kinds_in
from ..model import one_of, shown
from .base import EaseFunction, EaseKind
from .bezier import bezier_ease

EASE_KINDS = kinds_in(__name__, __path__, EaseKind)
# The control points of W3C CSS Easing's cubic-bezier(), named by how they feel.
NAMED_BEZIERS: dict[str, tuple[float, float, float, float]] = {
    "soft-start": (0.32, 0, 0.67, 0),
    "soft-landing": (0.33, 1, 0.68, 1),
    "soft-both": (0.65, 0, 0.35, 1),
    "quick-landing": (0.16, 1, 0.3, 1),
    "overshoot": (0.34, 1.56, 0.64, 1),
    "wind-up": (0.36, 0, 0.66, -0.56),
}


def _linear(s: np.ndarray) -> np.ndarray:
    return np.asarray(s, dtype=float)


def _hold(s: np.ndarray) -> np.ndarray:
    return np.zeros_like(np.asarray(s, dtype=float))


EASE_NAMES: tuple[str, ...] = ("linear", "hold", *NAMED_BEZIERS)
# These look at the keys beside the stretch too, so they stand between keys alone: see tracks.py.
TRACK_EASE_NAMES: tuple[str, ...] = (*EASE_NAMES, "auto", "flow")


def _one_of_names(names: tuple[str, ...]) -> Any:
    def known(name: str) -> str:
        if name not in names:
            raise PydanticCustomError(
                "needs",
                "an ease is needed, one of {names} or an object such as {example}; got {got}",
                {
                    "names": ", ".join(names),
                    "example": '{"bezier": [0.3, 0, 0.7, 1]}',
                    "got": shown(name),
                },
            )
        return name

    listed = Field(json_schema_extra={"enum": list(names)})
    return Annotated[str, listed, AfterValidator(known)]


def _ease_kind(data: Any) -> str:
    if isinstance(data, str):
        return "name"
    if isinstance(data, EaseKind):
        return data.key
    return next((key for key in EASE_KINDS if isinstance(data, dict) and key in data), "")


_WHAT = 'an ease (a name such as "soft-landing", or {"bezier": [x1, y1, x2, y2]})'
Ease = one_of(_ease_kind, _WHAT, name=_one_of_names(EASE_NAMES), **EASE_KINDS)
TrackEase = one_of(_ease_kind, _WHAT, name=_one_of_names(TRACK_EASE_NAMES), **EASE_KINDS)


@lru_cache(maxsize=512)
def ease_function(ease: Any) -> EaseFunction:
    """The function of an ease; takes and gives arrays of one shape, s within 0..1."""
    if ease == "linear":
        return _linear
    if ease == "hold":
        return _hold
    if isinstance(ease, str):
        return bezier_ease(*NAMED_BEZIERS[ease])
    return ease.function()
