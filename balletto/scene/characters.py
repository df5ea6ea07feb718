"""Characters: what a reader calls one, the extended grapheme clusters of UAX 29."""

from functools import lru_cache

from uniseg.graphemecluster import grapheme_clusters


@lru_cache(maxsize=1024)
def characters_of(text: str) -> tuple[str, ...]:
    """The extended grapheme clusters of `text`, white space and line ends included."""
    return tuple(grapheme_clusters(text)) if text else ()
