"""Characters: what a reader calls one, the extended grapheme clusters of UAX 29."""

from functools import lru_cache

from uniseg.graphemecluster import grapheme_clusters


@lru_cache(maxsize=1024)
def characters_of(text: str) -> tuple[str, ...]:
    """The extended grapheme clusters of `text`, white space and line ends included."""
    return tuple(grapheme_clusters(text)) if text else ()


def place_in(text: str | None, part: str) -> tuple[int, int] | None:
    """Where a part of a title first stands, in characters: from, to; None if it is not there."""
    characters, wanted = characters_of(text or ""), characters_of(part)
    for first in range(len(characters) - len(wanted) + 1):
        if wanted and characters[first : first + len(wanted)] == wanted:
            return first, first + len(wanted)
    return None
