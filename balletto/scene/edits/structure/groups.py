"""Edits of groups: layers put together, and taken apart again."""

from typing import Any

from pydantic import Field

from ...changes import Change, get
from ...errors import SceneError
from ...layers import LAYER_KINDS
from ..base import Document, Edit, edit
from ..paths import free_id, layer_pointer, name_of
from .links import loosened, with_links


@edit("group-layers")
class GroupLayers(Edit):
    """Puts layers, which are in one group or in none, into a new group, in front of the front one.

    The group turns and grows about `pivot`, px of the picture or of the group around it.
    """

    layers: list[str] = Field(min_length=1)
    pivot: tuple[float, float] = (0, 0)

    def changes(self, document: Document) -> list[Change]:
        indices = sorted(layer_pointer(document, layer)[1] for layer in self.layers)
        chosen = [document["layers"][index] for index in indices]
        around = {layer.get("group") for layer in chosen}
        if len(around) > 1:
            told = "layers of different groups cannot be put into one: choose those of one group"
            raise SceneError.at("layers", told)
        group: dict[str, Any] = {
            "id": free_id(document["layers"], "g"),
            "kind": "group",
            "name": "Group",
            "span": [min(x["span"][0] for x in chosen), max(x["span"][1] for x in chosen)],
            "transform": {"pivot": list(self.pivot)},
        }
        if around != {None}:
            group["group"] = around.pop()
        inside = [Change("put", ("layers", index, "group"), group["id"]) for index in indices]
        return [*inside, Change("insert", ("layers", indices[-1] + 1), group)]

    def label(self, document: Document) -> str:
        count = len(self.layers)
        return f"{count} layer{'s' * (count != 1)} grouped"


def _moved_out(layer: dict[str, Any], group: dict[str, Any]) -> dict[str, Any]:
    """A layer that is in a group no more, but in the one around it if there is one."""
    if layer.get("group") != group["id"]:
        return layer
    left = {name: value for name, value in layer.items() if name != "group"}
    return {**left, "group": group["group"]} if "group" in group else left


@edit("ungroup-layers")
class UngroupLayers(Edit):
    """Takes a group away and leaves what is in it, in the group around it if there is one."""

    layer: str

    def changes(self, document: Document) -> list[Change]:
        pointer = layer_pointer(document, self.layer)
        group = get(document, pointer)
        if not LAYER_KINDS[group["kind"]].has_members:
            raise SceneError.at(self.layer, f"{name_of(group)} is no group")
        kept = [layer["id"] for layer in document["layers"] if layer["id"] != self.layer]
        left = [
            with_links(_moved_out(layer, group), {self.layer: None})
            for layer in loosened(document, kept, from_layers=[self.layer])["layers"]
            if layer["id"] != self.layer
        ]
        return [Change("put", ("layers",), left)]

    def label(self, document: Document) -> str:
        return f"{name_of(get(document, layer_pointer(document, self.layer)))} ungrouped"
