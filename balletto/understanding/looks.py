"""Looks, places and the like as people say them: each way of speaking is a piece of our wording,
and all of them in a row are a sentence of ours."""

import re

from .tokens import Signs
from .ways import FoundWay, longest_at, noise

# What is said together, in the order in which it is tried: the tables of each.
DOMAINS = (
    ("windows",), ("effects",), ("places",), ("copies",), ("scenes",), ("styles", "letters"),
)  # fmt: skip
_NOTHING = ("note", "")


def sentences_of(signs: Signs, title: frozenset[str]) -> list[str]:
    """The sentences of ours that a text may mean, by domain, the usual one first."""
    told = (_sentence_of(signs, title, tables) for tables in DOMAINS)
    return [sentence for sentence in told if sentence]


def _sentence_of(signs: Signs, title: frozenset[str], tables: tuple[str, ...]) -> str:
    """What is said in words of some tables; empty if anything else is said."""
    ways = in_words_of(signs, title, tables) or []
    used = (token.sign for way in ways for token in signs.tokens[way.first : way.end])
    if not any(map(_is_word, used)):
        return ""
    pieces = [piece for way in ways for piece in way.means if piece not in _NOTHING]
    return ", ".join(dict.fromkeys(_needed(pieces)))


def _needed(pieces: list[str]) -> list[str]:
    """Pieces without those that are only likely ("?") where another begins with their word."""
    sure = {piece.split()[0] for piece in pieces if not piece.endswith("?")}
    kept = (p for p in pieces if not (p.endswith("?") and p.split()[0] in sure))
    return [piece.removesuffix("?") for piece in kept]


def in_words_of(
    signs: Signs, title: frozenset[str], tables: tuple[str, ...]
) -> list[FoundWay] | None:
    """The ways of some tables that make up a text; None if anything else is said in it."""
    found, at = [], 0
    while at < len(signs.tokens):
        if way := longest_at(signs, at, tables, title):
            found.append(way)
            at = way.end
        elif signs.tokens[at].sign in noise():
            at += 1
        else:
            return None
    return found


def _is_word(sign: str) -> bool:
    return bool(re.match(r"[a-z]|C\d", sign))
