"""As it came: what a part of a scene was when it was added, found in the scene's history."""

from typing import Any

from .models import Revision

Data = dict[str, Any]


def as_it_came(revision: Revision, path: str) -> Any:
    """The plain data of a part at the oldest of the states that led here and have it.

    `path` is of a title's style ("t1.style"), a move ("t1.moves.m1"), or an effect or mask
    ("t1.effects.0"). Those two have no ids: the second blur is the second blur of older states.
    """
    states = _ancestry(revision)
    name = _lasting_name(revision.document, path)
    low, high = 0, len(states) - 1  # the newest state has it; states before it came do not
    while low < high:
        middle = (low + high) // 2
        if _find(_document(revision, states[middle]), name) is None:
            low = middle + 1
        else:
            high = middle
    return _find(_document(revision, states[high]), name)


def part_of(document: Data, path: str) -> Any:
    """The plain data of a part as it is; LookupError if it is not there."""
    found = _find(document, _lasting_name(document, path))
    if found is None:
        raise LookupError(path)
    return found


def _ancestry(revision: Revision) -> list[int]:
    """The numbers of the states from the first one to that of a revision."""
    before = dict(revision.scene.revisions.values_list("number", "before"))
    states, number = [], revision.state
    while number is not None:
        states.append(number)
        number = before.get(number)
    return states[::-1]


def _document(revision: Revision, number: int) -> Data:
    if number == revision.state:
        return revision.document
    return revision.scene.revisions.get(number=number).document


def _lasting_name(document: Data, path: str) -> tuple[str, str, str, int]:
    """The layer, the kind of part, its id or kind, and its place among those of its kind."""
    layer, kind, which = (*path.split("."), "")[:3]
    if kind not in ("effects", "masks"):
        return layer, kind, which, 0
    parts = _layer(document, layer)[kind]
    own = parts[int(which)]["kind"]
    return layer, kind, own, [part["kind"] for part in parts[: int(which)]].count(own)


def _layer(document: Data, identifier: str) -> Data:
    return next((each for each in document.get("layers", []) if each["id"] == identifier), {})


def _find(document: Data, name: tuple[str, str, str, int]) -> Any:
    layer, kind, which, index = name
    part = _layer(document, layer).get(kind)
    if kind == "style" or part is None:
        return part
    by = "id" if kind == "moves" else "kind"
    return next(iter([each for each in part if each[by] == which][index:]), None)
