"""The one spelling of a word: with endings taken off, British or American, small slips mended."""

from collections.abc import Iterator, Sequence
from functools import lru_cache

from rapidfuzz import process
from rapidfuzz.distance import OSA

from .values import NAMES_OF_PROPERTIES
from .ways import ALL_TABLES, noise, table, words_of

MOST_LETTERS_OF_A_WORD, FEWEST_LETTERS_MENDED, FEWEST_LETTERS_OF_A_STEM = 30, 4, 3
_ENDINGS = (
    ("ies", "y"), ("ing", ""), ("ing", "e"), ("ed", ""), ("ed", "e"), ("es", ""), ("s", ""),
    ("’s", ""), ("'s", ""), ("ly", ""), ("y", ""), ("n't", ""), ("", "s"), ("", "ly"),
)  # fmt: skip
_SPELLINGS = (("our", "or"), ("is", "iz"), ("ys", "yz"), ("tre", "ter"), ("ll", "l"), ("ey", "ay"))


@lru_cache(maxsize=1)
def vocabulary() -> frozenset[str]:
    """All words that some way of speaking is made of."""
    words = (word for name in ALL_TABLES for way in table(name) for word in words_of(way))
    names = (word for name in NAMES_OF_PROPERTIES for word in name.split())
    return frozenset(words) | noise() | frozenset(names)


def spelled(word: str, title: frozenset[str]) -> str:
    """The one spelling of a word: itself if it is known, or is one of the title; else as another
    that it is a form of, or that is near."""
    if word in vocabulary() or word in title or len(word) > MOST_LETTERS_OF_A_WORD:
        return word
    mended = near_spelling(word, tuple(sorted(title)))
    return mended if mended != word else _known_form(word)


@lru_cache(maxsize=4096)
def _known_form(word: str) -> str:
    known = vocabulary()
    form = next((form for form in _forms(word) if form in known), None)
    return form or near_spelling(word, _words())


def _forms(word: str) -> Iterator[str]:
    """What a word may be a form of: "sliding" of "slide", "dropping" of "drop"."""
    for one, other in _SPELLINGS:
        yield word.replace(one, other)
        yield word.replace(other, one)
    for ending, instead in _ENDINGS:
        stem = word.removesuffix(ending)
        if not word.endswith(ending) or len(stem) < FEWEST_LETTERS_OF_A_STEM:
            continue
        yield stem + instead
        if ending in ("ing", "ed", "er") and stem[-1] == stem[-2]:
            yield stem[:-1]


@lru_cache(maxsize=1)
def _words() -> tuple[str, ...]:
    return tuple(sorted(word for word in vocabulary() if word.isalpha()))


def near_spelling(word: str, words: Sequence[str]) -> str:
    """The word that is meant by one with a small slip; itself, if none is near."""
    if len(word) < FEWEST_LETTERS_MENDED:
        return _swapped(word, words) if len(word) == FEWEST_LETTERS_OF_A_STEM else word
    most = 2 if len(word) > 7 else 1
    found = process.extractOne(word, words, scorer=OSA.distance, score_cutoff=most)
    return found[0] if found else word


def _swapped(word: str, words: Sequence[str]) -> str:
    """The short word whose letters were typed in another order: "teh"."""
    return next((each for each in words if sorted(each) == sorted(word)), word)
