"""Paths: how edits name a place in a scene, by the ids of layers and moves.

"t1.style.size", "t1.moves.m1.stagger.gap", "t1.moves.m1.reach.0.travel", "scene.background".
"""

from collections.abc import Mapping
from typing import Any

from ..changes import Pointer, get
from ..errors import SceneError
from ..kinds import Kind
from ..masks import MASK_KINDS
from ..shapes import SHAPE_KINDS
from ..values.keyable import start_path
from ..values.value_names import value_name
from .base import Document

_DIGITS = 6  # of a frame
# What lists and objects start from when an edit reaches into one that was left out.
_WHEN_LEFT_OUT: dict[str, Any] = {
    "position": [0, 0, 0],
    "rotation": [0, 0, 0],
    "scale": [1, 1],
    "pivot": [0.5, 0.5],
}


def when_left_out(document: Document, pointer: Pointer) -> Any:
    """What a list or object starts from that was left out: for a mask or shape its kind's own."""
    kind = (find(document, pointer[:-1]) or {}).get("kind") if len(pointer) > 2 else None
    models: tuple[tuple[str, Mapping[str, type[Kind]]], ...]
    models = (("masks", MASK_KINDS), ("shape", SHAPE_KINDS))
    for part, kinds in models:
        if part in pointer and isinstance(kind, str) and kind in kinds:
            fields = kinds[kind].model_fields.items()
            default = next(f.default for key, f in fields if pointer[-1] in (key, f.alias))
            return list(default)
    # A move's pivot is a share of a box, a layer's counts in px.
    if pointer[-2:] == ("transform", "pivot"):
        return [0, 0]
    return _WHEN_LEFT_OUT.get(str(pointer[-1]), {})


_DEEPEST, _LONGEST = 30, 200  # parts of a path, letters of one


def pointer_to(document: Document, path: str) -> Pointer:
    """The pointer for a path; SceneError if a layer or move that it names is not there."""
    head, *rest = path.split(".")
    if len(rest) > _DEEPEST or max(map(len, rest), default=0) > _LONGEST:
        raise SceneError.at(path[:100], "there is no value so deep in a scene")
    if head == "scene":
        return _with_numbers(rest)
    pointer: Pointer = ("layers", index_of(document["layers"], head, path, "layer"))
    if rest[:1] == ["moves"] and len(rest) > 1:
        moves = get(document, pointer).get("moves", [])
        pointer += ("moves", index_of(moves, rest[1], path, "move"))
        rest = rest[2:]
        if rest[:2] == ["eases", "axes"]:  # one name: that of the axis as a property
            rest = ["eases", ".".join(rest[1:3]), *rest[3:]]
    return pointer + _with_numbers(rest)


def _with_numbers(parts: list[str]) -> Pointer:
    """The parts of a path, indices of lists as numbers."""
    return tuple(int(part) if part.isdecimal() else part for part in parts)


def start_of(document: Document, path: str) -> float:
    """The frame of the scene from which the frames of a value count.

    What a move's pose and amount say counts from the start of the move; all else from frame 0.
    """
    start = start_path(path)
    if start is None:
        return 0
    return move_start(document, get(document, pointer_to(document, start.removesuffix(".start"))))


def move_start(document: Document, move: dict[str, Any]) -> float:
    """The frame of the scene at which a move starts: what it says, or that of its marker."""
    if "start" in move or "marker" not in move:
        return move.get("start", 0)
    markers = document.get("markers", [])
    named = [each["at"] for each in markers if each.get("name", "") == move["marker"]]
    return min(named, default=0)


def without_marker(document: Document, move: dict[str, Any]) -> dict[str, Any]:
    """A move that stays at the frame that it starts at."""
    left = {name: value for name, value in move.items() if name != "marker"}
    return {**left, "start": move_start(document, move)} if "marker" in move else move


def frames(number: float) -> float:
    """A number of frames without the dust of binary fractions, whole where it is."""
    rounded = round(number, _DIGITS)
    return int(rounded) if rounded == int(rounded) else rounded


def frames_said(number: float) -> str:
    """A number of frames in words: "1 frame", "2.5 frames"."""
    return f"{number:g} frame{'s' if number != 1 else ''}"


def layer_pointer(document: Document, layer: str) -> tuple[str, int]:
    """The pointer to a layer by its id."""
    return ("layers", index_of(document["layers"], layer, layer, "layer"))


def index_of(items: list[dict[str, Any]], identifier: str, path: str, what: str) -> int:
    """The index of the item of that id; SceneError if there is none."""
    for index, item in enumerate(items):
        if item["id"] == identifier:
            return index
    raise SceneError.at(path, f"there is no {what} {identifier!r} any more")


def free_id(items: list[dict[str, Any]], letter: str) -> str:
    """The first of letter + 1, letter + 2, ... that no item has."""
    taken = {item["id"] for item in items}
    number = 1
    while f"{letter}{number}" in taken:
        number += 1
    return f"{letter}{number}"


def find(document: Document, pointer: Pointer) -> Any:
    """The value at a pointer, or None where it, or something on the way, was left out."""
    try:
        return get(document, pointer)
    except (KeyError, IndexError):
        return None


def with_parents(document: Document, pointer: Pointer, value: Any) -> tuple[Pointer, Any]:
    """Where to put `value` and what to put, wrapped in the parents that were left out."""
    *way, last = pointer
    parent = find(document, tuple(way))
    if parent is not None or not way:
        return pointer, value
    start = when_left_out(document, tuple(way))
    holder: Any = list(start) if isinstance(start, list) else dict(start)
    holder[last] = value
    return with_parents(document, tuple(way), holder)


def title_of(document: Document, path: str) -> str:
    """What a path names, to begin a line with: "t1.moves.m1.stagger.gap" is "Gap"."""
    head, *way = path.split(".")
    layer: Document = next((each for each in document.get("layers", []) if each["id"] == head), {})
    if not way:
        return path
    return _capital(value_name(layer, path))


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def owner_of(document: Document, path: str) -> str:
    """Whose value a path names, as people see it: the move, the title, or the scene."""
    head, *rest = path.split(".")
    if head == "scene":
        return "the scene"
    layer = document["layers"][index_of(document["layers"], head, path, "layer")]
    if rest[:1] == ["moves"] and len(rest) > 1:
        moves = layer.get("moves", [])
        return name_of(moves[index_of(moves, rest[1], path, "move")])
    return name_of(layer)


def name_of(item: dict[str, Any]) -> str:
    """The name of a layer or move, or else its text or id, in quotes and on one line."""
    name = item.get("name") or " ".join(item.get("text", "").split()) or item["id"]
    return f"“{name if len(name) <= 40 else name[:39] + '…'}”"
