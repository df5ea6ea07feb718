"""Another size of the picture, with all that stands in it fitted."""

import math
from functools import partial
from typing import Any, ClassVar, Literal

from ..changes import Change
from ..effects import EFFECT_KINDS
from ..fits import Place
from ..masks import MASK_KINDS, SOFTEST_MASK
from ..model import Model
from ..outlines import scaled_drawing
from ..selectors import SPOT_SHAPES
from .base import Document, Edit, edit
from .paths import frames

Data = dict[str, Any]
Fit = Literal["whole", "filled", "stay"]


@edit("set-size")
class SetSize(Edit):
    """Gives the picture another size.

    fit: what becomes of what is in it. whole: it is scaled so that all is seen; filled: so that
    nothing is empty, cut off at two sides; stay: it stays as large, about the middle.
    """

    size: tuple[int, int]
    fit: Fit = "whole"

    passes_locks: ClassVar[bool] = True

    def changes(self, document: Document) -> list[Change]:
        old = document["size"]
        ratios = [new / was for new, was in zip(self.size, old, strict=True)]
        scale = {"whole": min(ratios), "filled": max(ratios), "stay": 1.0}[self.fit]
        fitted = _Fitted(scale, [side / 2 for side in old], [side / 2 for side in self.size])
        changes = [Change("put", ("size",), list(self.size))]
        distance = document.get("camera", {}).get("distance", 2000)
        changes.append(Change("put", ("camera",), {"distance": frames(distance * scale)}))
        layers = [fitted.layer(layer) for layer in document.get("layers", [])]
        changes.append(Change("put", ("layers",), layers))
        if any(fit.get("places") for fit in document.get("fits", [])):
            fits = [fitted.fit(fit) if fit.get("places") else fit for fit in document["fits"]]
            changes.append(Change("put", ("fits",), fits))
        return changes

    def label(self, document: Document) -> str:
        return f"Size of the picture: {self.size[0]} × {self.size[1]}"


# The numbers of each kind of effect that are px of the picture; displaced outlines and those of a
# trail are in px of their layer, which is scaled.
_EFFECT_LENGTHS: dict[str, tuple[str, ...]] = {
    "blur": ("x", "y"),
    "directional-blur": ("length",),
    "glow": ("radius",),
    "shadow": ("x", "y", "softness"),
    "outline": ("width",),
}
_MASK_LENGTHS = ("expand", "corner", "size")
_SPOT_LENGTHS = ("inner", "outer", "width")
_POINTS = ("center", "from", "to", "point")


class _Fitted:
    """What stands in a picture, scaled about its middle into another."""

    def __init__(self, scale: float, middle: list[float], new: list[float]):
        self._scale, self._middle, self._new = scale, middle, new

    def layer(self, layer: Data) -> Data:
        """A layer; what is in a group goes along with it, and keeps its place there."""
        changed = dict(layer)
        is_placed = layer["kind"] not in ("sound", "adjustment")
        if is_placed and layer.get("group") is None:
            changed["transform"] = self._transform(layer.get("transform", {}))
        if layer.get("effects"):
            changed["effects"] = [self._effect(effect) for effect in layer["effects"]]
        if layer.get("masks"):
            changed["masks"] = [
                self._mask(mask, mask.get("fixed") or not is_placed) for mask in layer["masks"]
            ]
        if layer.get("moves"):
            changed["moves"] = [self._move(move) for move in layer["moves"]]
        return changed

    def fit(self, fit: Data) -> Data:
        """How the scene fills another shape, whose places are px of the scene."""
        return {**fit, "places": [self._lengths(each, ("shift",), Place) for each in fit["places"]]}

    def _transform(self, transform: Data) -> Data:
        place = transform.get("position", [0, 0, 0])
        scale = transform.get("scale", [1, 1])
        return {
            **transform,
            "position": _each(place, self._position, self._handle),
            "scale": _each(scale, lambda sides: [frames(side * self._scale) for side in sides]),
        }

    def _effect(self, effect: Data) -> Data:
        model = EFFECT_KINDS[effect["kind"]]
        most = {name: high for name, (_, high) in model.limits.items()}
        return self._lengths(effect, _EFFECT_LENGTHS.get(effect["kind"], ()), model, most)

    def _move(self, move: Data) -> Data:
        changed = dict(move)
        if "reach" in move:
            changed["reach"] = [self._selector(each) for each in move["reach"]]
        if move.get("stagger"):
            changed["stagger"] = self._staggered(move["stagger"])
        return changed

    def _staggered(self, stagger: Data) -> Data:
        """A stagger or its groups, whose order may begin at a point of the picture."""
        changed = self._points(stagger)
        if stagger.get("groups"):
            changed["groups"] = self._staggered(stagger["groups"])
        return changed

    def _selector(self, selector: Data) -> Data:
        if selector["kind"] == "spot":
            model = SPOT_SHAPES[selector["shape"]]
            known = tuple(name for name in _SPOT_LENGTHS if name in model.model_fields)
            selector = self._lengths(selector, known, model)
        return self._points(selector)

    def _mask(self, mask: Data, is_in_picture: bool) -> Data:
        """A mask; its feather is in px of the picture even where it moves with its layer."""
        model = MASK_KINDS[mask["kind"]]
        changed = self._lengths(mask, ("feather",), model, {"feather": SOFTEST_MASK})
        if not is_in_picture:
            return changed
        known = tuple(name for name in _MASK_LENGTHS if name in model.model_fields)
        changed = self._points(self._lengths(changed, known, model))
        if "path" in mask:
            changed["path"] = scaled_drawing(mask["path"], self._scale)
        return changed

    def _lengths(
        self,
        part: Data,
        names: tuple[str, ...],
        model: type[Model],
        most: dict[str, float] | None = None,
    ) -> Data:
        """A part whose lengths are scaled, also those that were left out, as `model` has them."""

        def scaled(value: Any, high: float) -> Any:
            if isinstance(value, list):
                return [frames(side * self._scale) for side in value]
            return frames(min(value * self._scale, high))

        changed = dict(part)
        for name in names:
            usual = model.model_fields[name].default
            value = part.get(name, list(usual) if isinstance(usual, tuple) else usual)
            if name in part or (value and self._scale != 1):
                high = (most or {}).get(name, math.inf)
                changed[name] = _each(value, partial(scaled, high=high))
        return changed

    def _points(self, part: Data) -> Data:
        known = [name for name in _POINTS if isinstance(part.get(name), list | dict)]
        return {**part, **{name: _each(part[name], self._point) for name in known}}

    def _point(self, point: list[float]) -> list[float]:
        both = zip(point, self._middle, self._new, strict=True)
        return [frames((value - old) * self._scale + new) for value, old, new in both]

    def _position(self, position: list[float]) -> list[float]:
        return [*self._point(position[:2]), frames(position[2] * self._scale)]

    def _handle(self, handle: list[float]) -> list[float]:
        return [frames(side * self._scale) for side in handle]


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
