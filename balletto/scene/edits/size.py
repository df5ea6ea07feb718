"""Another size of the picture, with all that stands in it fitted."""

from typing import Any, ClassVar, Literal

from ..changes import Change
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
        return [*changes, Change("put", ("layers",), layers)]

    def label(self, document: Document) -> str:
        return f"Size of the picture: {self.size[0]} × {self.size[1]}"


class _Fitted:
    """What stands in a picture, scaled about its middle into another."""

    def __init__(self, scale: float, middle: list[float], new: list[float]):
        self._scale, self._middle, self._new = scale, middle, new

    def layer(self, layer: Data) -> Data:
        """A layer; what is in a group goes along with it, and keeps its place there."""
        changed = dict(layer)
        if layer.get("group") is None and layer["kind"] not in ("sound", "adjustment"):
            changed["transform"] = self._transform(layer.get("transform", {}))
        if layer.get("effects"):
            changed["effects"] = [self._lengths(each, _EFFECT_LENGTHS) for each in layer["effects"]]
        if layer.get("masks"):
            changed["masks"] = [
                self._mask(mask) if mask.get("fixed") else mask for mask in layer["masks"]
            ]
        if layer.get("moves"):
            changed["moves"] = [self._move(move) for move in layer["moves"]]
        return changed

    def _transform(self, transform: Data) -> Data:
        place = transform.get("position", [0, 0, 0])
        scale = transform.get("scale", [1, 1])
        return {
            **transform,
            "position": _each(place, self._position, self._handle),
            "scale": _each(scale, lambda sides: [frames(side * self._scale) for side in sides]),
        }

    def _move(self, move: Data) -> Data:
        changed = dict(move)
        if "reach" in move:
            changed["reach"] = [self._selector(each) for each in move["reach"]]
        for name in ("stagger",):
            if "point" in move.get(name, {}):
                changed[name] = {**move[name], "point": self._point(move[name]["point"])}
        return changed

    def _selector(self, selector: Data) -> Data:
        if selector["kind"] != "spot":
            return selector
        lengths = self._lengths(selector, ("inner", "outer", "width"))
        return self._points(lengths, ("center", "from", "to"))

    def _mask(self, mask: Data) -> Data:
        lengths = self._lengths(mask, ("feather", "expand", "corner", "size"))
        return self._points(lengths, ("center",))

    def _lengths(self, part: Data, names: tuple[str, ...]) -> Data:
        def scaled(value: Any) -> Any:
            if isinstance(value, list):
                return [frames(side * self._scale) for side in value]
            return frames(value * self._scale)

        known = [name for name in names if name in part]
        return {**part, **{name: _each(part[name], scaled) for name in known}}

    def _points(self, part: Data, names: tuple[str, ...]) -> Data:
        known = [name for name in names if name in part]
        return {**part, **{name: _each(part[name], self._point) for name in known}}

    def _point(self, point: list[float]) -> list[float]:
        both = zip(point, self._middle, self._new, strict=True)
        return [frames((value - old) * self._scale + new) for value, old, new in both]

    def _position(self, position: list[float]) -> list[float]:
        return [*self._point(position[:2]), frames(position[2] * self._scale)]

    def _handle(self, handle: list[float]) -> list[float]:
        return [frames(side * self._scale) for side in handle]


# What effects say in px.
_EFFECT_LENGTHS = ("length", "radius", "softness", "width", "outline", "size")


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
