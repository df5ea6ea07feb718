"""Edits of the scene as a whole."""

from typing import Any

from pydantic import Field

from ..changes import Change
from ..errors import SceneError
from .base import Document, Edit, edit


@edit("set-length")
class SetLength(Edit):
    """Sets the length in frames; layers that lasted to the end still do."""

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
        return f"Length: {document['length']} to {self.length} frames"


@edit("replace-scene")
class ReplaceScene(Edit):
    """Puts another scene in place of all there is, as when a file is uploaded."""

    document: dict[str, Any]
    file: str = "a file"

    def changes(self, document: Document) -> list[Change]:
        gone = [Change("remove", (key,)) for key in document if key not in self.document]
        return gone + [Change("put", (key,), value) for key, value in self.document.items()]

    def label(self, document: Document) -> str:
        return f"Scene taken from {self.file}"


@edit("changes")
class Changes(Edit):
    """Bare changes: what an inverse is made of."""

    changes_: list[tuple[str, list[str | int], Any]] = Field(alias="changes")

    def changes(self, document: Document) -> list[Change]:
        if any(verb not in ("put", "insert", "remove") for verb, _, _ in self.changes_):
            raise SceneError.at("changes", "a change is put, insert or remove")
        return [Change(verb, tuple(pointer), value) for verb, pointer, value in self.changes_]

    def label(self, document: Document) -> str:
        return "Back"
