"""Edits of markers: named moments of the scene."""

import re
from collections.abc import Mapping
from types import MappingProxyType
from typing import Annotated, Any

from pydantic import Field

from ...changes import Change
from ...errors import SceneError
from ...model import Frames, Name
from ..base import Document, Edit, edit
from ..paths import frames, move_start, without_marker


def _markers(document: Document) -> list[dict[str, Any]]:
    # A file need not say a name; all that there is goes by it.
    return [{"name": "", **each} for each in document.get("markers", [])]


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
        counts = marker["at"] == _times(_markers(document))[marker["name"]]
        renamed = {marker["name"]: changed["name"]} if counts else {}
        return _put(document, [*others, changed], renamed)

    def label(self, document: Document) -> str:
        name = self.marker(document)["name"]
        if self.at is not None:
            return f"Marker “{name}” moved to frame {self.at:g}"
        return f"Marker “{name}” named “{self.marker_name}”"


@edit("remove-marker")
class RemoveMarker(_OneMarker):
    """Takes a marker away; the moves that start at it stay where they are."""

    def changes(self, document: Document) -> list[Change]:
        self.marker(document)
        others = [m for index, m in enumerate(_markers(document)) if index != self.index]
        return _put(document, others, stay=True)

    def label(self, document: Document) -> str:
        return f"Marker “{self.marker(document)['name']}” removed"


def _times(markers: list[dict[str, Any]]) -> dict[str, float]:
    """The frames of markers by their names: of several of one name the first in time counts."""
    times: dict[str, float] = {}
    for marker in markers:
        times[marker["name"]] = min(marker["at"], times.get(marker["name"], marker["at"]))
    return times


def _put(
    document: Document,
    markers: list[dict[str, Any]],
    renamed: Mapping[str, str] = MappingProxyType({}),
    stay: bool = False,
) -> list[Change]:
    """Sets all markers. Moves that start at one go along with it in time, under its new name; or
    `stay` where they start, as do those whose marker is gone."""
    before, after = _times(_markers(document)), _times(markers)

    def along(move: dict[str, Any]) -> dict[str, Any]:
        then = before[move["marker"]]
        name = renamed.get(move["marker"], move["marker"])
        if not name or name not in after:
            return without_marker(document, move)
        moved = {**move, "marker": name}
        if stay and after[name] != then:
            return {**moved, "start": move_start(document, move)}
        if "start" in move:
            moved["start"] = frames(move["start"] + after[name] - then)
        return moved

    moves = [
        Change("put", ("layers", index, "moves", number), along(move))
        for index, layer in enumerate(document.get("layers", []))
        for number, move in enumerate(layer.get("moves", []))
        if move.get("marker") in before
    ]
    return [Change("put", ("markers",), sorted(markers, key=lambda each: each["at"])), *moves]


@edit("set-beats")
class SetBeats(Edit):
    """Sets markers at `times`, frames of the scene, called “Beat 1” and so on, in place of those
    that were set so before. Moves that start at one of them start at that number again, or stay."""

    times: Annotated[tuple[Frames, ...], Field(strict=False, min_length=1, max_length=1000)]

    def changes(self, document: Document) -> list[Change]:
        kept = [each for each in _markers(document) if not _BEAT.fullmatch(each["name"])]
        new = [{"at": at, "name": f"Beat {n + 1}"} for n, at in enumerate(sorted(self.times))]
        return _put(document, [*kept, *new])

    def label(self, document: Document) -> str:
        return f"Markers set at {len(self.times)} beats"


_BEAT = re.compile(r"Beat \d+")
