"""Edits of the list of layers."""

from typing import Any

from pydantic import Field

from ..changes import Change, get
from .base import Document, Edit, edit
from .paths import free_id, layer_pointer, name_of


@edit("add-layer")
class AddLayer(Edit):
    """Adds a layer in front of all others; its id is given by the scene."""

    layer: dict[str, Any]

    def changes(self, document: Document) -> list[Change]:
        layers = document.get("layers", [])
        layer = {**self.layer, "id": free_id(layers, str(self.layer.get("kind", "l"))[:1])}
        if "layers" not in document:
            return [Change("put", ("layers",), [layer])]
        return [Change("insert", ("layers", len(layers)), layer)]

    def label(self, document: Document) -> str:
        return f"{str(self.layer.get('kind', 'layer')).capitalize()} added"


@edit("remove-layer")
class RemoveLayer(Edit):
    """Takes a layer away."""

    layer: str

    def changes(self, document: Document) -> list[Change]:
        return [Change("remove", layer_pointer(document, self.layer))]

    def label(self, document: Document) -> str:
        return f"{name_of(get(document, layer_pointer(document, self.layer)))} removed"


@edit("duplicate-layer")
class DuplicateLayer(Edit):
    """Puts a copy of a layer in front of it."""

    layer: str

    def changes(self, document: Document) -> list[Change]:
        layers, index = document["layers"], layer_pointer(document, self.layer)[1]
        original = layers[index]
        name = {"name": f"{original['name']} copy"} if original.get("name") else {}
        copy = {**original, **name, "id": free_id(layers, original["kind"][:1])}
        return [Change("insert", ("layers", index + 1), copy)]

    def label(self, document: Document) -> str:
        return f"{name_of(get(document, layer_pointer(document, self.layer)))} duplicated"


@edit("move-layer")
class MoveLayer(Edit):
    """Puts a layer at another place: 0 is at the back."""

    layer: str
    to: int = Field(ge=0)

    def changes(self, document: Document) -> list[Change]:
        pointer = layer_pointer(document, self.layer)
        to = min(self.to, len(document["layers"]) - 1)
        layer = get(document, pointer)
        return [Change("remove", pointer), Change("insert", ("layers", to), layer)]

    def label(self, document: Document) -> str:
        was = layer_pointer(document, self.layer)[1]
        way = "forward" if self.to > was else "back"
        return f"{name_of(get(document, layer_pointer(document, self.layer)))} moved {way}"


@edit("shift-layer")
class ShiftLayer(Edit):
    """Moves a layer in time, with all that moves it: its span, the starts of its moves, and the
    keys that count in frames of the scene."""

    layer: str
    by: float = Field(ge=-1_000_000, le=1_000_000)

    def changes(self, document: Document) -> list[Change]:
        pointer = layer_pointer(document, self.layer)
        layer = get(document, pointer)
        moves = [
            {
                **move,
                "start": _shifted(move.get("start", 0), self.by),
                **({"reach": self._later(move["reach"])} if "reach" in move else {}),
            }
            for move in layer.get("moves", [])
        ]
        changed = {**layer, "span": [_shifted(frame, self.by) for frame in layer["span"]]}
        changed |= {"moves": moves} if "moves" in layer else {}
        changed |= {"transform": self._later(layer["transform"])} if "transform" in layer else {}
        return [Change("put", pointer, changed)]

    def _later(self, data: Any) -> Any:
        """Plain data with the keys of its tracks shifted."""
        if isinstance(data, list):
            return [self._later(item) for item in data]
        if not isinstance(data, dict):
            return data
        return {
            name: _shifted(value, self.by) if name == "at" else self._later(value)
            for name, value in data.items()
        }

    def label(self, document: Document) -> str:
        name = name_of(get(document, layer_pointer(document, self.layer)))
        return f"{name} {abs(self.by):g} frames {'later' if self.by > 0 else 'earlier'}"


def _shifted(frame: float, by: float) -> float:
    moved = round(frame + by, 6)
    return int(moved) if moved == int(moved) else moved
