"""Edits of scenes within a scene: used as a layer, and brought up to date with their source."""

from typing import Any

from ...changes import Change
from ...errors import SceneError
from ..base import Document, Edit, edit
from ..paths import free_id


@edit("use-scene")
class UseScene(Edit):
    """Adds a layer, in front of all others, that shows another scene: `document`, which came from
    `source`. A scene that is used already is not kept twice."""

    source: str
    document: dict[str, Any]
    layer: dict[str, Any]

    def changes(self, document: Document) -> list[Change]:
        used = document.get("scenes", [])
        known = next((each["id"] for each in used if each.get("source") == self.source), None)
        identifier = known or free_id(used, "scene")
        changes = _renewed(document, self.source, self.document)
        if known is None:
            entry = {"id": identifier, "source": self.source, "scene": self.document}
            changes = [Change("put", ("scenes",), [*used, entry])]
        layers = document.get("layers", [])
        layer = {**self.layer, "id": free_id(layers, "n"), "kind": "scene", "scene": identifier}
        return [*changes, Change("put", ("layers",), [*layers, layer])]

    def label(self, document: Document) -> str:
        return f"Scene “{self.document.get('name') or 'Untitled'}” used"


@edit("renew-scene")
class RenewScene(Edit):
    """Brings a scene that is used up to date: `document` is what its `source` is now."""

    passes_locks = True

    source: str
    document: dict[str, Any]

    def changes(self, document: Document) -> list[Change]:
        changes = _renewed(document, self.source, self.document)
        if not changes:
            raise SceneError.at("source", "no scene of that source is used here")
        return changes

    def label(self, document: Document) -> str:
        return f"Scene “{self.document.get('name') or 'Untitled'}” as it is now"


def _renewed(document: Document, source: str, new: dict[str, Any]) -> list[Change]:
    return [
        Change("put", ("scenes", index, "scene"), new)
        for index, each in enumerate(document.get("scenes", []))
        if each.get("source") == source
    ]


def sources_of(document: Document) -> dict[str, str]:
    """The sources that a document shows, those within scenes within it too: with their names, and
    by way of which they came."""
    found: dict[str, str] = {}
    shown = {layer.get("scene") for layer in document.get("layers", [])}
    for used in document.get("scenes", []):
        if used["id"] not in shown:
            continue
        name = used["scene"].get("name") or "Untitled"
        if used.get("source"):
            found[used["source"]] = name
        for source, way in sources_of(used["scene"]).items():
            found.setdefault(source, f"{name}” which uses “{way}")
    return found
