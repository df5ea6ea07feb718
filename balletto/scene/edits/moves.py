"""Edits of a title's moves."""

from typing import Any

from pydantic import Field

from ..changes import Change, get
from ..errors import SceneError
from ..orders import field_of_order
from ..pose import rest_of_property
from ..values.tracks import is_track
from ..values.value_names import selector_name
from .base import Document, Edit, edit
from .paths import find, frames, free_id, layer_pointer, move_start, name_of, owner_of, pointer_to
from .times.keyframes import backwards, turned_round


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


@edit("duplicate-move")
class DuplicateMove(Edit):
    """Adds a copy of a move right after it."""

    layer: str
    move: str

    def changes(self, document: Document) -> list[Change]:
        pointer = pointer_to(document, f"{self.layer}.moves.{self.move}")
        moves = get(document, pointer[:-1])
        copy = {**moves[pointer[-1]], "id": free_id(moves, "m")}
        return [Change("insert", (*pointer[:-1], int(pointer[-1]) + 1), copy)]

    def label(self, document: Document) -> str:
        move = get(document, pointer_to(document, f"{self.layer}.moves.{self.move}"))
        return f"Move {name_of(move)} duplicated"


@edit("order-move")
class OrderMove(Edit):
    """Puts a move at another place among those of its title: moves add up in their order, and turn
    about their pivots one in another."""

    layer: str
    move: str
    to: int = Field(ge=0)

    def changes(self, document: Document) -> list[Change]:
        pointer = pointer_to(document, f"{self.layer}.moves.{self.move}")
        moves = list(get(document, pointer[:-1]))
        moves.insert(min(self.to, len(moves) - 1), moves.pop(int(pointer[-1])))
        return [Change("put", pointer[:-1], moves)]

    def label(self, document: Document) -> str:
        pointer = pointer_to(document, f"{self.layer}.moves.{self.move}")
        way = "earlier" if self.to < int(pointer[-1]) else "later"
        return f"Move {name_of(get(document, pointer))} put {way}"


@edit("turn-move-round")
class TurnMoveRound(Edit):
    """Makes of a move that comes home one that goes away, or the other way: its amount and the
    courses of its pose, or its selectors where these stay, run backwards, and it stands at the
    other end of its layer. `spread`: frames by which its last unit starts after the first.
    """

    layer: str
    move: str
    spread: float = Field(0, ge=0, le=1_000_000)

    def changes(self, document: Document) -> list[Change]:
        pointer = pointer_to(document, f"{self.layer}.moves.{self.move}")
        move = get(document, pointer)
        amount, pose = move.get("amount"), move.get("pose", {})
        axes = pose.get("axes", {})
        courses = [e for e in (amount, *pose.values(), *axes.values()) if is_track(e)]
        if not courses:
            return [Change("put", pointer, _with_selectors_backwards(move))]
        times = [key["at"] for course in courses for key in course["keys"]]
        total = min(times) + max(times)
        turned = {**move, "pose": _all_backwards(pose, total)}
        if axes:
            turned["pose"]["axes"] = _all_backwards(axes, total)
        if is_track(amount):
            turned["amount"] = backwards(amount, total)
        if "eases" in move:
            turned["eases"] = {name: turned_round(ease) for name, ease in move["eases"].items()}
        first, end = get(document, layer_pointer(document, self.layer))["span"]
        lasts = max(times) + self.spread
        turned["start"] = max(first, frames(end - lasts)) if _comes_home(move) else first
        turned.pop("until_turn", None)  # what goes away is seen before it does
        return [Change("put", pointer, turned)]

    def label(self, document: Document) -> str:
        move = get(document, pointer_to(document, f"{self.layer}.moves.{self.move}"))
        return f"Move {name_of(move)} turned round"


def _comes_home(move: dict[str, Any]) -> bool:
    """Whether a move is farther away at its start than at its end."""
    if is_track(move.get("amount")):
        keys = move["amount"]["keys"]
        return bool(abs(keys[0]["value"]) >= abs(keys[-1]["value"]))
    named = {**move["pose"].get("axes", {}), **move["pose"]}
    name, course = next((name, each) for name, each in named.items() if is_track(each))
    rest = rest_of_property(name) or 0.0
    values = [course["keys"][end]["value"] for end in (0, -1)]
    if isinstance(values[0], str):
        return True
    return bool(abs(values[0] - rest) >= abs(values[1] - rest))


def _all_backwards(values: dict[str, Any], total: float | None = None) -> dict[str, Any]:
    """Values of which those with keys run backwards."""
    return {
        name: backwards(value, total) if is_track(value) else value
        for name, value in values.items()
    }


def _with_selectors_backwards(move: dict[str, Any]) -> dict[str, Any]:
    """A move whose selectors run backwards; SceneError if nothing of it changes over time."""
    turned = {**move, "reach": [_all_backwards(selector) for selector in move.get("reach", [])]}
    if turned["reach"] == move.get("reach", []):
        told = "nothing of this move changes over time, so it cannot be turned round"
        raise SceneError.at(name_of(move), told)
    return turned


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


@edit("start-at-marker")
class StartAtMarker(Edit):
    """Has a move start at a marker by its name; without one, at the frame that it starts at now."""

    path: str
    value: str | None

    def changes(self, document: Document) -> list[Change]:
        pointer = pointer_to(document, self.path)
        move = get(document, pointer)
        left = {name: value for name, value in move.items() if name not in ("start", "marker")}
        at_frame: dict[str, Any] = {"start": move_start(document, move)}
        begins = at_frame if self.value is None else {"marker": self.value}
        return [Change("put", pointer, {**left, **begins})]

    def label(self, document: Document) -> str:
        where = "at no marker" if self.value is None else f"at marker “{self.value}”"
        return f"{name_of(get(document, pointer_to(document, self.path)))} starts {where}"
