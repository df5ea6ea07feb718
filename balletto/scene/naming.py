"""What the plain data of a scene names by certain keys: files, fonts; in scenes within it too."""

from collections.abc import Collection, Iterator, Mapping
from typing import Any

FONTS = ("font",)  # the key by which fonts are named; those of files are in `media`


def named(part: Any, keys: Collection[str]) -> Iterator[tuple[tuple[str | int, ...], str]]:
    """The names under these keys: where each stands, as a pointer, and which it is."""
    items: Any = ()
    if isinstance(part, dict):
        items = part.items()
        yield from (
            ((key,), value) for key, value in items if key in keys and isinstance(value, str)
        )
    elif isinstance(part, list):
        items = enumerate(part)
    for key, value in items:
        for place, name in named(value, keys):
            yield (key, *place), name


def renamed(part: Any, names: Mapping[str, str], keys: Collection[str]) -> Any:
    """The same data with others in place of some names under these keys."""
    if isinstance(part, list):
        return [renamed(item, names, keys) for item in part]
    if not isinstance(part, dict):
        return part
    return {
        key: names.get(value, value) if key in keys and isinstance(value, str)
        else renamed(value, names, keys)
        for key, value in part.items()
    }  # fmt: skip
