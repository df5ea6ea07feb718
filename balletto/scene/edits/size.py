"""Another size of the picture, with all that stands in it fitted."""

from typing import Any, ClassVar, Literal

from ..changes import Change
from ..fits import Fit
from ..forms.outlines import scaled_drawing
from ..layers import LAYER_KINDS
from ..masks import AnyMask
from ..model import Counts
from ..rewriting import Mark, Rewriter, Where, kind_of_field
from ..starts import as_it_would_come
from .base import Document, Edit, edit
from .paths import frames

Data = dict[str, Any]
FillingChoice = Literal["whole", "filled", "stay"]


@edit("set-size")
class SetSize(Edit):
    """Gives the picture another size.

    fit: what becomes of what is in it. whole: it is scaled so that all is seen; filled: so that
    nothing is empty, cut off at two sides; stay: it stays as large, about the middle. Where the
    whole is seen, a title that is as it came, but for its words, is as it would come there.
    """

    size: tuple[int, int]
    fit: FillingChoice = "whole"

    passes_locks: ClassVar[bool] = True

    def changes(self, document: Document) -> list[Change]:
        old = document["size"]
        ratios = [new / was for new, was in zip(self.size, old, strict=True)]
        scale = {"whole": min(ratios), "filled": max(ratios), "stay": 1.0}[self.fit]
        fitted = _Fitted(scale, [side / 2 for side in old], [side / 2 for side in self.size])
        changes = [Change("put", ("size",), list(self.size))]
        distance = document.get("camera", {}).get("distance", 2000)
        changes.append(Change("put", ("camera",), {"distance": frames(distance * scale)}))
        new = {**document, "size": list(self.size)}
        layers = [
            (self.fit == "whole" and as_it_would_come(layer, document, new)) or fitted.layer(layer)
            for layer in document.get("layers", [])
        ]
        changes.append(Change("put", ("layers",), layers))
        if any(fit.get("places") for fit in document.get("fits", [])):
            fits = [fitted.fit(fit) if fit.get("places") else fit for fit in document["fits"]]
            changes.append(Change("put", ("fits",), fits))
        return changes

    def label(self, document: Document) -> str:
        return f"Size of the picture: {self.size[0]} × {self.size[1]}"


class _Resized(Rewriter):
    """Lengths and points of the picture, where this is scaled about its middle into another. What
    is in px of a layer goes along with the layer, which is scaled.

    all_of_picture: whether lengths and points that could be of a layer are of the picture too
    """

    def __init__(self, fitted: "_Fitted", all_of_picture: bool = False):
        self._fitted = fitted
        self._lengths = [Counts.PICTURE_LENGTH] + [Counts.LENGTH] * all_of_picture
        self._points = [Counts.PICTURE_POINT] + [Counts.POINT] * all_of_picture

    def number(self, value: Any, mark: Mark, where: Where) -> Any:
        if mark.counts in self._points:
            return self._fitted.point(value)
        if mark.counts not in self._lengths:
            return value
        most = getattr(mark, "le", None)
        scaled = self._fitted.length(value)
        return scaled if most is None else min(scaled, most)


class _Fitted:
    """What stands in a picture, scaled about its middle into another."""

    def __init__(self, scale: float, middle: list[float], new: list[float]):
        self._scale, self._middle, self._new = scale, middle, new
        self._resized, self._all_resized = _Resized(self), _Resized(self, all_of_picture=True)

    def layer(self, layer: Data) -> Data:
        """A layer; what is in a group goes along with it, and keeps its place there."""
        changed = dict(layer)
        is_placed = LAYER_KINDS[layer["kind"]].has_place
        if is_placed and layer.get("group") is None:
            changed["transform"] = self._transform(layer.get("transform", {}))
        if layer.get("masks"):
            changed["masks"] = [
                self._mask(mask, mask.get("fixed") or not is_placed) for mask in layer["masks"]
            ]
        fields = LAYER_KINDS[layer["kind"]].model_fields
        for name in ("effects", "moves"):
            if layer.get(name):
                kind = kind_of_field(fields[name])
                changed[name] = self._resized.rewritten(kind, layer[name])
        return changed

    def fit(self, fit: Data) -> Data:
        """How the scene fills another shape, whose places are px of the scene."""
        return self._resized.part(Fit, fit)

    def length(self, length: float) -> float:
        return frames(length * self._scale)

    def point(self, point: list[float]) -> list[float]:
        both = zip(point, self._middle, self._new, strict=True)
        return [frames((value - old) * self._scale + new) for value, old, new in both]

    def _mask(self, mask: Data, is_in_picture: bool) -> Data:
        """A mask; its feather is in px of the picture even where it moves with its layer."""
        resized = self._all_resized if is_in_picture else self._resized
        changed = resized.rewritten(AnyMask, mask)
        if is_in_picture and "path" in mask:
            changed["path"] = scaled_drawing(mask["path"], self._scale)
        return changed

    def _transform(self, transform: Data) -> Data:
        position = transform.get("position", [0, 0, 0])
        scale = transform.get("scale", [1, 1])
        return {
            **transform,
            "position": _each(position, self._position, self._each_length),
            "scale": _each(scale, self._each_length),
        }

    def _position(self, position: list[float]) -> list[float]:
        return [*self.point(position[:2]), self.length(position[2])]

    def _each_length(self, lengths: list[float]) -> list[float]:
        return [self.length(length) for length in lengths]


def _each(value: Any, change: Any, handle: Any = None) -> Any:
    """A plain value changed, or each key of a keyed one; what follows another is left."""
    if isinstance(value, dict) and "keys" in value:
        keys = [
            {
                **key,
                "value": change(key["value"]),
                **{side: handle(key[side]) for side in ("in", "out") if handle and key.get(side)},
            }
            for key in value["keys"]
        ]
        return {**value, "keys": keys}
    return value if isinstance(value, dict) else change(value)
