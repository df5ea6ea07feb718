"""Edits of the list of layers."""

from typing import Any

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
