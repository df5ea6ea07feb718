"""Edits of markers: named moments of the scene."""

import re
from collections.abc import Callable
from functools import partial
from typing import Annotated, Any

from pydantic import Field

from ..changes import Change
from ..errors import SceneError
from ..model import Frames, Name
from .base import Document, Edit, edit
from .paths import frames, without_marker


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
        """The marker; SceneError if it is not there."""
        markers = _markers(document)
        if self.index >= len(markers):
            raise SceneError.at("index", "this marker is not there any more")
        return markers[self.index]


@edit("change-marker")
class ChangeMarker(_OneMarker):
    """Gives a marker another name or another time; the moves that start at it go along."""

    marker_name: Name | None = None
    at: Frames | None = None

    def changes(self, document: Document) -> list[Change]:
        said = {"at": self.at, "name": self.marker_name}
        marker = self.marker(document)
        changed = marker | {k: v for k, v in said.items() if v is not None}
        others = [m for index, m in enumerate(_markers(document)) if index != self.index]
        markers = sorted([*others, changed], key=lambda marker: marker["at"])
        by = changed["at"] - marker["at"]

        def going_along(move: dict[str, Any]) -> dict[str, Any]:
            start = {"start": frames(move["start"] + by)} if "start" in move and by else {}
            return {**move, **start, "marker": changed["name"]}

        moves = _moves_at(document, marker, going_along) if changed["name"] else []
        return [Change("put", ("markers",), markers), *moves]

    def label(self, document: Document) -> str:
        name = self.marker(document)["name"]
        if self.at is not None:
            return f"Marker “{name}” moved to frame {self.at:g}"
        return f"Marker “{name}” named “{self.marker_name}”"


@edit("remove-marker")
class RemoveMarker(_OneMarker):
    """Takes a marker away; the moves that start at it stay where they are."""

    def changes(self, document: Document) -> list[Change]:
        marker = self.marker(document)
        moves = _moves_at(document, marker, partial(without_marker, document))
        return [Change("remove", ("markers", self.index)), *moves]

    def label(self, document: Document) -> str:
        return f"Marker “{self.marker(document)['name']}” removed"


def _moves_at(
    document: Document,
    marker: dict[str, Any],
    rewritten: Callable[[dict[str, Any]], dict[str, Any]],
) -> list[Change]:
    """The changes of the moves that start at a marker: not if there is another of its name."""
    if [each["name"] for each in _markers(document)].count(marker["name"]) > 1:
        return []
    return [
        Change("put", ("layers", index, "moves", number), rewritten(move))
        for index, layer in enumerate(document.get("layers", []))
        for number, move in enumerate(layer.get("moves", []))
        if move.get("marker") == marker["name"]
    ]


@edit("set-beats")
class SetBeats(Edit):
    """Sets markers at `times`, frames of the scene, called “Beat 1” and so on, in place of those
    that were set so before. Moves that start at one of them start at that number again, or stay."""

    times: Annotated[tuple[Frames, ...], Field(strict=False, min_length=1, max_length=1000)]

    def changes(self, document: Document) -> list[Change]:
        kept = [each for each in _markers(document) if not _BEAT.fullmatch(each["name"])]
        new = [{"at": at, "name": f"Beat {n + 1}"} for n, at in enumerate(sorted(self.times))]
        names = {marker["name"] for marker in (*kept, *new)}
        moves = []
        for marker in _markers(document):
            if marker["name"] not in names:
                moves += _moves_at(document, marker, partial(without_marker, document))
        markers = sorted([*kept, *new], key=lambda marker: marker["at"])
        return [Change("put", ("markers",), markers), *moves]

    def label(self, document: Document) -> str:
        return f"Markers set at {len(self.times)} beats"


_BEAT = re.compile(r"Beat \d+")
