"""Where ways of speaking stand in a text, and what they mean there, with its values."""

import operator
import re
from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache

from .tokens import Signs, Token
from .ways import Way, noise, table

_MOST_LETTERS_OF_A_KEY = 40  # no way begins with a longer word
_SUMS: dict[str, Callable[[float, float], float]] = {
    "*": operator.mul, "+": operator.add, "/": lambda number, by: number / (by or 1),
    "-": lambda number, _: -number,
}  # fmt: skip
_UNITS = {"p": " px", "a": "°", "s": " %", "l": " %", "g": "°", "m": " ‰"}


@dataclass(frozen=True)
class FoundWay:
    """A way that was found in a row: from which token to which, what it means with its values."""

    first: int
    end: int
    means: tuple[str, ...]


@lru_cache(maxsize=4096)
def _beginning_with(tables: tuple[str, ...], sign: str) -> tuple[Way, ...]:
    """The ways of some tables that may begin with a sign, in the order of the tables."""
    ways = (way for name in tables for way in table(name))
    return tuple(way for way in ways if way.may_begin_with(sign))


def longest_at(
    row: Signs, at: int, tables: tuple[str, ...], title: frozenset[str]
) -> FoundWay | None:
    """The longest way of some tables that begins at a token; of several alike the first."""
    best: FoundWay | None = None
    sign = row.tokens[at].sign
    key = re.sub(r"\d+$", "0", sign) if sign[0].isupper() else sign[:_MOST_LETTERS_OF_A_KEY]
    for way in _beginning_with(tables, key):
        match = way.pattern.match(row.signs, row.starts[at])
        if match is None or match.end() == match.start():
            continue
        words = match.groupdict().get("w")
        if words is not None and not _is_of(words, title, row.tokens[at:]):
            continue
        end = at + match.group().count(" ")
        if best is None or end > best.end:
            best = FoundWay(at, end, tuple(_filled(each, match, row) for each in way.means))
    return best


def _is_of(words: str, title: frozenset[str], tokens: tuple[Token, ...]) -> bool:
    """Whether words are those of a title; "the" is meant as one only if it is told with a capital
    within a sentence."""
    said = set(words.split())
    typed = (token.text for token in tokens[1:] if token.sign in said)
    return said <= title and (not said <= noise() or any(text[0].isupper() for text in typed))


_SLOT = re.compile(r"\{([a-z]\d?)([^}]*)\}")  # "{t?}" may be without a value


def _filled(means: str, match: re.Match[str], row: Signs) -> str:
    """What is meant, with the values that stand in the row; empty if none of the values that it
    needs does."""
    signs = match.groupdict()

    def value(slot: re.Match[str]) -> str:
        name, change = slot[1], slot[2]
        sign = signs.get(name)
        if sign is None:
            return ""
        if name[0] == "o":
            return f"“{sign}”"
        if name[0] in "wyi":
            typed = _as_typed(sign, row)
            # What is named here is called so with a capital, as what is named by itself is.
            return typed[:1].upper() + typed[1:] if name[0] == "y" else f"“{typed}”"
        by = change[1:].removesuffix("!")
        if by in signs:
            change = change.replace(by, str(token_of(signs[by], row).value), 1)
        return told(token_of(sign, row), name[0], change.removeprefix("?"))

    slots = _SLOT.findall(means)
    if slots and not any(signs.get(name) or change == "?" for name, change in slots):
        return ""
    return " ".join(_SLOT.sub(value, means).split())


def _as_typed(words: str, row: Signs) -> str:
    first = words.split()
    signs = [token.sign for token in row.tokens]
    at = next(n for n in range(len(signs)) if signs[n : n + len(first)] == first)
    return " ".join(token.text for token in row.tokens[at : at + len(first)])


def token_of(sign: str, row: Signs) -> Token:
    """The token of a sign that stands for a value."""
    return next(token for token in row.tokens if token.sign == sign)


def told(token: Token, kind: str, change: str = "") -> str:
    """A value in our wording, as it is needed: `change` is a sum with it ("*2", "+100", "-")."""
    if kind in "cqed":
        return token.text.replace(" by ", " columns by ") if change == "!" else token.text
    number, is_bare = token.value, change.endswith("!")
    change = change.removesuffix("!")
    if kind == "m" and token.sign[0] in "SP":
        number *= 10  # a share of the size, in thousandths
    for sign, by in re.findall(r"([-+*/])(-?[\d.]*)", change):
        number = _SUMS[sign](number, float(by or 0))
    text = f"{round(number, 4):g}".replace("-", "−")
    if kind in "tk":
        return f"{text} s" if token.unit == "s" else text
    return text if is_bare else text + _UNITS.get(kind, "")
