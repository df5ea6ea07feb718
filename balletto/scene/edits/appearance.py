"""Edits of what a layer wears: its effects and its masks."""

from typing import Any, ClassVar

from pydantic import Field

from ..changes import Change, get
from .base import Document, Edit, edit
from .paths import find, layer_pointer, name_of


class _Added(Edit):
    """Adds an item after those of a list of a layer."""

    field: ClassVar[str]
    layer: str

    def _changes(self, document: Document, item: dict[str, Any]) -> list[Change]:
        pointer = (*layer_pointer(document, self.layer), self.field)
        return [Change("put", pointer, [*(find(document, pointer) or []), item])]

    def _label(self, document: Document, what: str) -> str:
        name = name_of(get(document, layer_pointer(document, self.layer)))
        return f"{what} added to {name}"


class _Removed(Edit):
    """Takes an item out of a list of a layer; the last one takes the list along."""

    field: ClassVar[str]
    layer: str
    index: int = Field(ge=0)

    def changes(self, document: Document) -> list[Change]:
        pointer = (*layer_pointer(document, self.layer), self.field)
        items = get(document, pointer)
        get(items, (self.index,))
        left = [item for index, item in enumerate(items) if index != self.index]
        return [Change("put", pointer, left) if left else Change("remove", pointer)]

    def label(self, document: Document) -> str:
        layer = get(document, layer_pointer(document, self.layer))
        return f"{said(layer[self.field][self.index])} removed from {name_of(layer)}"


def said(item: dict[str, Any]) -> str:
    """The kind of an effect or mask as the start of a sentence: "Zoom blur"."""
    return str(item.get("kind", "")).replace("-", " ").capitalize()


@edit("add-effect")
class AddEffect(_Added):
    """Adds an effect, done after those that a layer has."""

    field: ClassVar = "effects"
    effect: dict[str, Any]

    def changes(self, document: Document) -> list[Change]:
        return self._changes(document, self.effect)

    def label(self, document: Document) -> str:
        return self._label(document, said(self.effect))


@edit("remove-effect")
class RemoveEffect(_Removed):
    """Takes an effect away."""

    field: ClassVar = "effects"


@edit("move-effect")
class MoveEffect(Edit):
    """Puts an effect at another place: 0 is done first."""

    layer: str
    index: int = Field(ge=0)
    to: int = Field(ge=0)

    def changes(self, document: Document) -> list[Change]:
        pointer = (*layer_pointer(document, self.layer), "effects")
        effects = list(get(document, pointer))
        moved = effects.pop(self.index)
        effects.insert(self.to, moved)
        return [Change("put", pointer, effects)]

    def label(self, document: Document) -> str:
        layer = get(document, layer_pointer(document, self.layer))
        when = "earlier" if self.to < self.index else "later"
        return f"{said(layer['effects'][self.index])} of {name_of(layer)} {when}"


@edit("add-mask")
class AddMask(_Added):
    """Adds a mask after those that a layer has."""

    field: ClassVar = "masks"
    mask: dict[str, Any]

    def changes(self, document: Document) -> list[Change]:
        return self._changes(document, self.mask)

    def label(self, document: Document) -> str:
        return self._label(document, f"{said(self.mask)} mask")


@edit("remove-mask")
class RemoveMask(_Removed):
    """Takes a mask away."""

    field: ClassVar = "masks"
