"""The newest results of what is asked for several times in a row."""

from collections.abc import Callable, Hashable
from typing import Any, TypeVar

T = TypeVar("T")
_Results = dict[Hashable, Any]


class Recent:
    """Keeps the results that were made last: for the newest few objects `most` each. Another object
    that is equal is another. Threads may share it: what is kept is replaced, not changed."""

    def __init__(self, most: int, objects: int = 3):
        self._most, self._objects = most, objects
        # By the identity of an object, which is its own as long as the object is kept with it.
        self._kept: dict[int, tuple[object, _Results]] = {}

    def of(self, whole: object, key: Hashable, make: Callable[[], T]) -> T:
        """The result for an object and a key, made now if it is not kept."""
        results = _of(self._kept, whole)
        if key in results:
            found: T = results[key]
            return found
        made = make()
        kept = self._kept  # once: another thread may put another in its place meanwhile
        newest = {**_last(_of(kept, whole), self._most - 1), key: made}
        others = {each: own for each, own in kept.items() if each != id(whole)}
        self._kept = {**_last(others, self._objects - 1), id(whole): (whole, newest)}
        return made


def _of(kept: dict[int, tuple[object, _Results]], whole: object) -> _Results:
    return kept.get(id(whole), (whole, {}))[1]


def _last(items: dict[Any, Any], count: int) -> dict[Any, Any]:
    """The items that were put in last."""
    return dict(list(items.items())[-count:]) if count else {}
