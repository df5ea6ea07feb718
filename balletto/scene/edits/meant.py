"""Edits that were meant for an earlier state of a document.

Effects, masks, selectors, markers and keyframes are named by their indices in lists. A page that is
a little behind names them by the indices that they had; what it means is found among what is there
now.
"""

import json
from difflib import SequenceMatcher
from typing import Any

from ..errors import SceneError
from .base import Document
from .paths import find, pointer_to

Items = list[dict[str, Any]]
_DIGITS = 10  # of an index, less

# Edits that say the index of an item, and the path of the list that it is in.
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
    return _Places(then, now).of(edit)


class _Places:
    """Where the items of lists of an earlier document are now."""

    def __init__(self, then: Document, now: Document):
        self._then, self._now = then, now
        self._known: dict[tuple[str, str], dict[int, int | None]] = {}

    def of(self, edit: dict[str, Any]) -> dict[str, Any]:
        """An edit with the indices as they are now."""
        found = dict(edit)
        if isinstance(edit.get("path"), str):
            found["path"] = self._path(edit["path"])
        if isinstance(edit.get("edits"), list):
            found["edits"] = [
                self.of(each) if isinstance(each, dict) else each for each in edit["edits"]
            ]
        template, index = _PLACED.get(str(edit.get("name"))), edit.get("index")
        if template is not None and isinstance(index, int):
            path = template.format(layer=edit.get("layer"), move=edit.get("move"))
            found["index"] = self._index(path, path, index)
            if isinstance(edit.get("to"), int):
                found["to"] = max(0, edit["to"] + found["index"] - index)
        return found

    def _path(self, path: str) -> str:
        before: list[str] = []  # the way as it was said
        after: list[str] = []  # and as it is now
        for part in path.split("."):
            now = part
            if part.isdecimal() and len(part) < _DIGITS and before:
                now = str(self._index(".".join(before), ".".join(after), int(part)))
            before.append(part)
            after.append(now)
        return ".".join(after)

    def _index(self, before: str, after: str, index: int) -> int:
        """Where an item is now that was at `index` of a list, by the paths of the list."""
        if (before, after) not in self._known:
            lists = _items(self._then, before), _items(self._now, after)
            self._known[before, after] = _indices_now(*lists)
        now = self._known[before, after].get(index, index)
        if now is None:
            raise SceneError.at(before, "this is not there any more")
        return now


def _items(document: Document, path: str) -> Items:
    """The items of a list; none if there is no list of items at the path."""
    try:
        found = find(document, pointer_to(document, path))
    except (SceneError, TypeError):
        return []
    is_list = isinstance(found, list) and all(isinstance(each, dict) for each in found)
    return found if is_list else []


def _indices_now(then: Items, now: Items) -> dict[int, int | None]:
    """For each index in a list where its item is now: the same item, or else, where it was changed
    itself, the one in its place among those of its kind; None if there is none."""
    was, are = ([json.dumps(item, sort_keys=True) for item in items] for items in (then, now))
    if len(was) == len(are) and sorted(was) != sorted(are):
        return {}  # changed, but neither added nor taken away nor put in another order
    same: dict[str, list[int]] = {}
    for index, text in enumerate(are):
        same.setdefault(text, []).append(index)
    indices: dict[int, int | None] = _by_kinds(then, now)
    for index, text in enumerate(was):
        if text in same:
            indices[index] = min(same[text], key=lambda there: abs(there - index))
    return indices


def _by_kinds(then: Items, now: Items) -> dict[int, int | None]:
    """Where items are by their kinds alone, in the order of the list."""
    kinds = [[str(item.get("kind", item.get("at"))) for item in items] for items in (then, now)]
    indices: dict[int, int | None] = dict.fromkeys(range(len(then)))
    matcher = SequenceMatcher(None, kinds[0], kinds[1], autojunk=False)
    for start, to, size in matcher.get_matching_blocks():
        indices.update((start + step, to + step) for step in range(size))
    return indices
