"""Edits that were meant for an earlier state of a document.

Effects, masks, selectors, markers and keyframes are named by their places in lists. A page that is
a little behind names them by the places that they had; what it means is found among what is there
now.
"""

from difflib import SequenceMatcher
from typing import Any

from ..errors import SceneError
from .base import Document
from .paths import find, pointer_to

Items = list[dict[str, Any]]

# Edits that say the place of an item, and the path of the list that it is in.
_PLACED = {
    "remove-effect": "{layer}.effects",
    "move-effect": "{layer}.effects",
    "remove-mask": "{layer}.masks",
    "remove-selector": "{layer}.moves.{move}.reach",
    "change-marker": "scene.markers",
    "remove-marker": "scene.markers",
}


def as_meant(edit: dict[str, Any], then: Document, now: Document) -> dict[str, Any]:
    """An edit that was said of `then`, as it is said of `now`.

    SceneError if what it is about is not there any more.
    """
    found = dict(edit)
    if isinstance(edit.get("path"), str):
        found["path"] = _path_now(edit["path"], then, now)
    if isinstance(edit.get("edits"), list):
        found["edits"] = [
            as_meant(each, then, now) if isinstance(each, dict) else each for each in edit["edits"]
        ]
    template, index = _PLACED.get(str(edit.get("name"))), edit.get("index")
    if template is None or not isinstance(index, int):
        return found
    path = template.format(layer=edit.get("layer"), move=edit.get("move"))
    found["index"] = _index_now(_items(then, path), _items(now, path), index, path)
    if isinstance(edit.get("to"), int):
        found["to"] = max(0, edit["to"] + found["index"] - index)
    return found


def _path_now(path: str, then: Document, now: Document) -> str:
    before: list[str] = []  # the way as it was said
    after: list[str] = []  # and as it is now
    for part in path.split("."):
        place = part
        if part.isdigit() and before:
            items = _items(then, ".".join(before)), _items(now, ".".join(after))
            place = str(_index_now(*items, int(part), path))
        before.append(part)
        after.append(place)
    return ".".join(after)


def _items(document: Document, path: str) -> Items:
    """The items of a list; none if there is no list of items at the path."""
    try:
        found = find(document, pointer_to(document, path))
    except (SceneError, TypeError):
        return []
    is_list = isinstance(found, list) and all(isinstance(each, dict) for each in found)
    return found if is_list else []


def _index_now(then: Items, now: Items, index: int, path: str) -> int:
    """Where an item of a list is now that was at `index`: the same item, or else, where it was
    changed itself, the one in its place among those of its kind."""
    if index >= len(then):
        return index
    item = then[index]
    if len(then) == len(now) and not _are_the_same(then, now):
        return index  # changed, but neither added nor taken away nor put in another order
    same = [place for place, each in enumerate(now) if each == item]
    if same:
        return min(same, key=lambda place: abs(place - index))
    kinds = SequenceMatcher(None, [_kind(each) for each in then], [_kind(each) for each in now])
    for start, to, size in kinds.get_matching_blocks():
        if start <= index < start + size:
            return to + index - start
    raise SceneError.at(path, "this is not there any more")


def _are_the_same(then: Items, now: Items) -> bool:
    """Whether two lists have the same items, in whatever order."""
    return all(each in now for each in then) and all(each in then for each in now)


def _kind(item: dict[str, Any]) -> str:
    return str(item.get("kind", item.get("at")))
