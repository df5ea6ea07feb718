"""Edits of markers: named moments of the scene."""

from typing import Any

from pydantic import Field

from ..changes import Change
from ..errors import SceneError
from ..model import Frames, Name
from .base import Document, Edit, edit


def _markers(document: Document) -> list[dict[str, Any]]:
    return document.get("markers", [])


@edit("add-marker")
class AddMarker(Edit):
    """Sets a marker at the frame `at`."""

    at: Frames
    marker: Name = ""

    def changes(self, document: Document) -> list[Change]:
        new = {"at": self.at, "name": self.marker or f"Marker {len(_markers(document)) + 1}"}
        markers = sorted([*_markers(document), new], key=lambda marker: marker["at"])
        return [Change("put", ("markers",), markers)]

    def label(self, document: Document) -> str:
        return f"Marker set at frame {self.at:g}"


class _OneMarker(Edit):
    index: int = Field(ge=0)

    def marker(self, document: Document) -> dict[str, Any]:
        markers = _markers(document)
        if self.index >= len(markers):
            raise SceneError.at("index", "this marker is not there any more")
        return markers[self.index]


@edit("change-marker")
class ChangeMarker(_OneMarker):
    """Gives a marker another name or another time."""

    marker_name: Name | None = None
    at: Frames | None = None

    def changes(self, document: Document) -> list[Change]:
        said = {"at": self.at, "name": self.marker_name}
        changed = self.marker(document) | {k: v for k, v in said.items() if v is not None}
        others = [m for index, m in enumerate(_markers(document)) if index != self.index]
        markers = sorted([*others, changed], key=lambda marker: marker["at"])
        return [Change("put", ("markers",), markers)]

    def label(self, document: Document) -> str:
        name = self.marker(document)["name"]
        if self.at is not None:
            return f"Marker “{name}” moved to frame {self.at:g}"
        return f"Marker “{name}” named “{self.marker_name}”"


@edit("remove-marker")
class RemoveMarker(_OneMarker):
    """Takes a marker away."""

    def changes(self, document: Document) -> list[Change]:
        self.marker(document)
        return [Change("remove", ("markers", self.index))]

    def label(self, document: Document) -> str:
        return f"Marker “{self.marker(document)['name']}” removed"
