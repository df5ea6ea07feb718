"""Edits of a title's moves."""

from typing import Any

from ..changes import Change, get
from .base import Document, Edit, edit
from .paths import free_id, layer_pointer, name_of, pointer_to


@edit("add-move")
class AddMove(Edit):
    """Adds a move after those that a title has; its id is given by the title."""

    layer: str
    move: dict[str, Any]

    def changes(self, document: Document) -> list[Change]:
        pointer = layer_pointer(document, self.layer)
        title = get(document, pointer)
        move = {**self.move, "id": free_id(title.get("moves", []), "m")}
        if "moves" not in title:
            return [Change("put", (*pointer, "moves"), [move])]
        return [Change("insert", (*pointer, "moves", len(title["moves"])), move)]

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
