"""Edits that spread layers or keyframes over a time along a curve."""

from typing import Any

import numpy as np
from pydantic import Field, TypeAdapter, ValidationError

from ...changes import Change, get
from ...eases import Ease, ease_function
from ...errors import SceneError
from ...model import Frames
from ..base import Document, Edit, edit
from ..paths import frames_said, layer_pointer, start_of
from ..structure.layers import shifted
from .keyframes import KeysEdit, retimed

_EASE: TypeAdapter[Any] = TypeAdapter(Ease)


def spread(
    count: int, span: float, curve: Any, descending: bool, whole: bool = False
) -> list[float]:
    """How many frames after the first each of `count` begins: even steps bent along a curve, at
    whole frames if these are wanted.

    SceneError if the curve is no ease.
    """
    try:
        ease = ease_function(_EASE.validate_python(curve, strict=False))
    except ValidationError as error:
        raise SceneError.at("curve", error.errors()[0]["msg"]) from None
    shares = np.arange(count) / max(1, count - 1)
    delays = span * ease(shares[::-1] if descending else shares)
    delays = np.floor(delays + 0.5) if whole else delays.round(3)
    return [float(delay) for delay in delays]


@edit("distribute-layers")
class DistributeLayers(Edit):
    """Lets layers begin one after another within `span` frames, with all that moves them.

    They go in the order in which they are named, or the other way round if `descending`; the
    earliest begin of all stays.
    """

    layers: tuple[str, ...] = Field(min_length=2)
    span: Frames
    curve: Any = "linear"
    descending: bool = False
    whole: bool = False

    def changes(self, document: Document) -> list[Change]:
        pointers = [layer_pointer(document, layer) for layer in self.layers]
        begins = [get(document, pointer)["span"][0] for pointer in pointers]
        delays = spread(len(pointers), self.span, self.curve, self.descending, self.whole)
        return [
            Change("put", pointer, shifted(get(document, pointer), min(begins) + delay - begin))
            for pointer, begin, delay in zip(pointers, begins, delays, strict=True)
        ]

    def label(self, document: Document) -> str:
        return f"{len(self.layers)} layers spread over {frames_said(self.span)}"


@edit("distribute-keys")
class DistributeKeys(KeysEdit):
    """Spreads keys over `span` frames, from the first of them on.

    The keys of one row are spread one by one. Of several rows, each moves as a whole: they begin
    one after another in the order in which they are named.
    """

    span: Frames
    curve: Any = "linear"
    descending: bool = False
    whole: bool = False

    def edited(
        self, document: Document, path: str, keys: list[Any], indices: list[int]
    ) -> list[Any]:
        begin = min(self.times(document)) - start_of(document, path)
        if len(self.keys) == 1:
            delays = spread(len(indices), self.span, self.curve, self.descending, self.whole)
            return retimed(keys, dict(zip(indices, [begin + d for d in delays], strict=True)))
        delays = spread(len(self.keys), self.span, self.curve, self.descending, self.whole)
        by = begin + delays[list(self.keys).index(path)] - keys[indices[0]]["at"]
        return retimed(keys, {index: keys[index]["at"] + by for index in indices})

    def label(self, document: Document) -> str:
        return f"{self.said(document)} spread over {frames_said(self.span)}"
