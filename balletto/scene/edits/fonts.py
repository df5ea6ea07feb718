"""Fonts: one in place of another, wherever that is named."""

from collections.abc import Iterator
from typing import Any

from ..changes import Change
from ..errors import SceneError
from ..model import Name
from .base import Document, Edit, edit

_PARTS = ("layers", "scenes")  # of a document, where styles are


@edit("replace-font")
class ReplaceFont(Edit):
    """Sets everything that is set in a font in another, in scenes within the scene too."""

    font: Name
    value: Name

    def changes(self, document: Document) -> list[Change]:
        found = [
            Change("put", (part, *place), self.value)
            for part in _PARTS
            for place in _named(document.get(part, []), self.font)
        ]
        if not found:
            raise SceneError.at("font", f"nothing is set in “{self.font}”")
        return found

    def label(self, document: Document) -> str:
        return f"“{self.value}” in place of “{self.font}”"


def _named(part: Any, font: str) -> Iterator[tuple[str | int, ...]]:
    """Where a part of a document names a font."""
    if isinstance(part, list):
        for index, item in enumerate(part):
            for place in _named(item, font):
                yield index, *place
    elif isinstance(part, dict):
        for key, value in part.items():
            if key == "font" and value == font:
                yield (key,)
            for place in _named(value, font):
                yield key, *place
