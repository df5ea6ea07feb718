"""Edits of the scene as a whole."""

from collections.abc import Iterator
from typing import Any

from pydantic import Field

from ..changes import Change, apply_changes
from ..errors import SceneError
from .base import Document, Edit, edit, parse_edit
from .paths import frames_said


@edit("set-length")
class SetLength(Edit):
    """Sets the length in frames; layers that lasted to the end still do."""

    passes_locks = True

    length: int

    def changes(self, document: Document) -> list[Change]:
        old = document["length"]
        spans = [
            Change("put", ("layers", index, "span", 1), self.length)
            for index, layer in enumerate(document.get("layers", []))
            if layer["span"][1] == old and layer["span"][0] < self.length
        ]
        return [Change("put", ("length",), self.length), *spans]

    def label(self, document: Document) -> str:
        return f"Length: {document['length']} to {frames_said(self.length)}"


@edit("replace-scene")
class ReplaceScene(Edit):
    """Puts another scene in place of all there is, as when a file is uploaded."""

    passes_locks = True

    document: dict[str, Any]
    file: str = "a file"

    def changes(self, document: Document) -> list[Change]:
        gone = [Change("remove", (key,)) for key in document if key not in self.document]
        return gone + [Change("put", (key,), value) for key, value in self.document.items()]

    def label(self, document: Document) -> str:
        return f"Scene taken from {self.file}"


MOST_EDITS, MOST_LAYERS = 1000, 1000


@edit("several")
class Several(Edit):
    """Edits one after another, as one step of the history that `said` tells."""

    edits: list[dict[str, Any]] = Field(min_length=1, max_length=MOST_EDITS)
    said: str = Field(min_length=1, max_length=200)

    def changes(self, document: Document) -> list[Change]:
        changes: list[Change] = []
        for data in self._one_by_one(self.edits):
            more = parse_edit(data).changes(document)
            document, _ = apply_changes(document, more)
            changes += more
            if len(document.get("layers", ())) > MOST_LAYERS:
                told = f"a scene has at most {MOST_LAYERS:,} layers, these edits would make more"
                raise SceneError.at("edits", told)
        return changes

    def _one_by_one(self, edits: list[Any]) -> Iterator[Any]:
        """The edits, those within others too; SceneError if they are too many."""
        waiting, count = [list(reversed(edits))], 0
        while waiting:
            if not waiting[-1]:
                waiting.pop()
                continue
            data = waiting[-1].pop()
            count += 1
            if count > MOST_EDITS:
                told = f"at most {MOST_EDITS:,} edits can be made at once"
                raise SceneError.at("edits", told)
            if isinstance(data, dict) and data.get("name") == "several":
                inner = Several.model_validate(
                    {key: value for key, value in data.items() if key != "name"}, strict=False
                )
                waiting.append(list(reversed(inner.edits)))
            else:
                yield data

    def label(self, document: Document) -> str:
        return self.said


@edit("changes")
class Changes(Edit):
    """Bare changes: what an inverse is made of."""

    passes_locks = True

    changes_: list[tuple[str, list[str | int], Any]] = Field(alias="changes")

    def changes(self, document: Document) -> list[Change]:
        if any(verb not in ("put", "insert", "remove") for verb, _, _ in self.changes_):
            raise SceneError.at("changes", "a change is put, insert or remove")
        return [Change(verb, tuple(pointer), value) for verb, pointer, value in self.changes_]

    def label(self, document: Document) -> str:
        return "Back"
