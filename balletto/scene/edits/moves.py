"""Edits of a title's moves."""

from typing import Any

from pydantic import Field

from ..changes import Change, get
from ..orders import field_of_order
from ..value_names import selector_name
from .base import Document, Edit, edit
from .paths import find, free_id, layer_pointer, name_of, owner_of, pointer_to


@edit("add-move")
class AddMove(Edit):
    """Adds a move after those that a title has; its id is given by the title.

    `title` is what else the move needs of the title ({"hold_center": true}).
    """

    layer: str
    move: dict[str, Any]
    title: dict[str, Any] = {}

    def changes(self, document: Document) -> list[Change]:
        pointer = layer_pointer(document, self.layer)
        title = get(document, pointer)
        move = {**self.move, "id": free_id(title.get("moves", []), "m")}
        needed = [Change("put", (*pointer, name), value) for name, value in self.title.items()]
        if "moves" not in title:
            return [*needed, Change("put", (*pointer, "moves"), [move])]
        return [*needed, Change("insert", (*pointer, "moves", len(title["moves"])), move)]

    def label(self, document: Document) -> str:
        title = name_of(get(document, layer_pointer(document, self.layer)))
        return f"Move “{self.move.get('name', 'Move')}” added to {title}"


@edit("remove-move")
class RemoveMove(Edit):
    """Takes a move away."""

    layer: str
    move: str

    def changes(self, document: Document) -> list[Change]:
        return [Change("remove", pointer_to(document, f"{self.layer}.moves.{self.move}"))]

    def label(self, document: Document) -> str:
        move = get(document, pointer_to(document, f"{self.layer}.moves.{self.move}"))
        return f"Move {name_of(move)} removed"


@edit("add-selector")
class AddSelector(Edit):
    """Adds a selector after those that the reach of a move has."""

    layer: str
    move: str
    selector: dict[str, Any]

    def changes(self, document: Document) -> list[Change]:
        pointer = (*pointer_to(document, f"{self.layer}.moves.{self.move}"), "reach")
        reach = find(document, pointer)
        return [Change("put", pointer, [*(reach or []), self.selector])]

    def label(self, document: Document) -> str:
        owner = owner_of(document, f"{self.layer}.moves.{self.move}")
        kind = selector_name(str(self.selector.get("kind", "selector")))
        return f"{kind.capitalize()} added to {owner}"


@edit("remove-selector")
class RemoveSelector(Edit):
    """Takes a selector out of the reach of a move; the last one takes the reach along."""

    layer: str
    move: str
    index: int = Field(ge=0)

    def changes(self, document: Document) -> list[Change]:
        pointer = (*pointer_to(document, f"{self.layer}.moves.{self.move}"), "reach")
        reach = get(document, pointer)
        get(reach, (self.index,))
        left = [selector for index, selector in enumerate(reach) if index != self.index]
        return [Change("put", pointer, left) if left else Change("remove", pointer)]

    def label(self, document: Document) -> str:
        move = pointer_to(document, f"{self.layer}.moves.{self.move}")
        kind = get(document, (*move, "reach", self.index, "kind"))
        owner = owner_of(document, f"{self.layer}.moves.{self.move}")
        return f"{selector_name(str(kind)).capitalize()} taken away from {owner}"


@edit("set-order")
class SetOrder(Edit):
    """Sets the order of a stagger or selector, with what the new order needs.

    From a point begins at the middle of the picture; by hand at reading order for two units.
    """

    path: str
    value: str

    def changes(self, document: Document) -> list[Change]:
        pointer = pointer_to(document, self.path)
        kept = {
            name: value
            for name, value in get(document, pointer).items()
            if name not in ("point", "ranks")
        }
        ordered = {**kept, "order": self.value, **field_of_order(self.value, document["size"])}
        return [Change("put", pointer, ordered)]

    def label(self, document: Document) -> str:
        return f"Order of {owner_of(document, self.path)}: {self.value.replace('-', ' ')}"
