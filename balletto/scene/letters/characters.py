"""Characters: what a reader calls one, the extended grapheme clusters of UAX 29."""

from collections.abc import Sequence
from functools import lru_cache

from uniseg.graphemecluster import grapheme_clusters


@lru_cache(maxsize=1024)
def characters_of(text: str) -> tuple[str, ...]:
    """The extended grapheme clusters of `text`, white space and line ends included."""
    return tuple(grapheme_clusters(text)) if text else ()


def place_in(text: str | None, part: str) -> tuple[int, int] | None:
    """Where a part of a title first stands, in characters: from, to; None if it is not there. As it
    is written, or else in small letters or capitals."""
    characters, wanted = characters_of(text or ""), characters_of(part)
    found = _first_of(characters, wanted)
    if found is None:
        found = _first_of(_folded(characters), _folded(wanted))
    return None if found is None or not wanted else (found, found + len(wanted))


def _folded(characters: Sequence[str]) -> list[str]:
    return [each.casefold() for each in characters]


def _first_of(characters: Sequence[str], wanted: Sequence[str]) -> int | None:
    ends = range(len(characters) - len(wanted) + 1)
    return next((at for at in ends if characters[at : at + len(wanted)] == wanted), None)
