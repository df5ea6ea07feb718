"""The three smallest changes of a document, and their inverses.

A document here is plain JSON data that is never changed in place: each change gives a new document
that shares all it did not touch. Every edit comes down to a list of these.

put      a value at a key of an object or a place of a list (the place must be there)
insert   an item before a place of a list
remove   a key of an object or an item of a list
"""

from typing import Any, NamedTuple

Pointer = tuple[str | int, ...]


class Change(NamedTuple):
    """One change: `verb` is put, insert or remove; `pointer` leads to the place."""

    verb: str
    pointer: Pointer
    value: Any = None


def get(document: Any, pointer: Pointer) -> Any:
    """The value at a pointer; KeyError or IndexError if there is none."""
    for part in pointer:
        document = document[part]
    return document


def apply_changes(document: Any, changes: list[Change]) -> tuple[Any, list[Change]]:
    """The document after all changes in turn, and the changes that lead back."""
    inverse: list[Change] = []
    for change in changes:
        document, back = _apply(document, change)
        inverse.insert(0, back)
    return document, inverse


def _apply(document: Any, change: Change) -> tuple[Any, Change]:
    *way, last = change.pointer
    parent = get(document, tuple(way))
    changed: Any = dict(parent) if isinstance(parent, dict) else list(parent)
    if change.verb == "insert":
        changed.insert(last, change.value)
        back = Change("remove", change.pointer)
    elif change.verb == "remove":
        old = changed.pop(last)
        back = Change("put" if isinstance(changed, dict) else "insert", change.pointer, old)
    elif isinstance(changed, dict) and last not in changed:
        changed[last] = change.value
        back = Change("remove", change.pointer)
    else:
        back = Change("put", change.pointer, changed[last])
        changed[last] = change.value
    return _replaced(document, tuple(way), changed), back


def _replaced(document: Any, pointer: Pointer, value: Any) -> Any:
    if not pointer:
        return value
    first, *rest = pointer
    copy: Any = dict(document) if isinstance(document, dict) else list(document)
    copy[first] = _replaced(document[first], tuple(rest), value)
    return copy
