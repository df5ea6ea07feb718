"""Ways of speaking: tables that pair them with our wording, and how they are found in a text.

    pop in ; pops in = home ; 0 % of its size ; overshoot

On the left, ways of speaking, parted by " ; ": words, (this|or that), [what may be left out], and
slots for values: <t> a time, <k> one with its unit, <p> a length, <a> an angle, <s> a share, <n> a
number, <x> times, <m> thousandths of the size, <c> a colour, <q> words within marks, <e> a curve,
<d> two sides, <h> so many a second, <w> a word of the title.
On the right what is meant: our wording, with {t} and so on for values, and what needs more than
words ("home", "@way up {p}"), which the readers of this folder know.
"""

import operator
import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import NamedTuple

from .tokens import Signs, Token

_SLOTS = {
    "t": r"[TN]s?\d+", "k": r"Ts?\d+", "p": r"[PN]s?\d+", "a": r"[AN]s?\d+",
    "s": r"[SN]s?\d+", "n": r"Ns?\d+",
    "x": r"X\d+", "m": r"[MNSP]s?\d+", "c": r"C\d+", "q": r"Q\d+", "e": r"E\d+",
    "v": r"[NPASTMX]s?\d+", "d": r"D\d+", "h": r"H\d+", "w": r"[a-z][\w’']*",
}  # fmt: skip
_SUMS: dict[str, Callable[[float, float], float]] = {
    "*": operator.mul, "+": operator.add, "/": operator.truediv,
    "-": lambda number, _: -number,
}  # fmt: skip
_UNITS = {"p": " px", "a": "°", "s": " %", "m": " ‰"}


class Way(NamedTuple):
    """One way of speaking: what finds it, and what it means."""

    pattern: re.Pattern[str]
    means: tuple[str, ...]
    words: str


@dataclass(frozen=True)
class FoundWay:
    """A way that was found in a row: from which token to which, what it means with its values."""

    first: int
    end: int
    means: tuple[str, ...]


@cache
def table(name: str) -> tuple[Way, ...]:
    """The ways of a table, as its file says them."""
    text = files(__package__).joinpath("tables").joinpath(f"{name}.txt").read_text(encoding="utf-8")
    return tuple(way for line in text.splitlines() for way in _ways(line))


def _ways(line: str) -> Iterator[Way]:
    line = line.partition("#!")[0].strip()
    if not line or line.startswith("#"):
        return
    left, _, right = line.partition(" = ")
    means = tuple(part.strip() for part in right.split(" ; ") if part.strip())
    for words in left.split(" ; "):
        yield Way(re.compile(_compiled(words.strip())), means, words)


def _compiled(words: str) -> str:
    """A way of speaking as a regular expression on the signs of a row, each with a space behind."""
    counts: dict[str, int] = {}

    def slot(match: re.Match[str]) -> str:
        name = match[1]
        counts[name] = counts.get(name, 0) + 1
        group = name if counts[name] == 1 else f"{name}{counts[name]}"
        return f"(?P<{group}>{_SLOTS[name]})"

    made = _row(words.replace("\\(", "«").replace("\\)", "»"))
    made = made.replace("«", re.escape("(")).replace("»", re.escape(")"))
    return re.sub(r"<(\w)>", slot, made)


def _item(item: str) -> str:
    """One word, a group of them, or what may be left out."""
    if left_out := re.fullmatch(r"\[(.*)\]\??", item):
        return f"(?:{'|'.join(_row(each) for each in _parts_of(left_out[1], '|'))})?"
    if group := re.fullmatch(r"\((.*)\)(\??)", item):
        return f"(?:{'|'.join(_row(each) for each in _parts_of(group[1], '|'))}){group[2]}"
    return f"{_ended(item)} "


def _row(words: str) -> str:
    return "".join(map(_item, _parts_of(words, " ")))


def _ended(word: str) -> str:
    """A word with endings that may be left out: "drop[s]", "wind[ -]up", "between[ them]"."""
    word = re.sub(r"\[ -\]\??", " (?:- )?", word)
    word = re.sub(r"\[([^\]]*)\]\??", lambda m: f"(?:{m[1].replace(':', ' :')})?", word)
    return re.sub(r"\((?!\?)", "(?:", word)


def _parts_of(text: str, mark: str) -> list[str]:
    """The parts of a text between marks, but for those within brackets."""
    parts, depth = [""], 0
    for letter in text:
        depth += (letter in "[(") - (letter in "])")
        if letter == mark and not depth:
            parts.append("")
        else:
            parts[-1] += letter
    return [part for part in parts if part]


_ENDINGS = re.compile(r"([a-z’']+)([(\[])([a-z|]+)[)\]](\??)([a-z]*)")


def words_of(way: Way) -> set[str]:
    """The words that a way of speaking is made of, with all their endings."""
    text = re.sub(r"<\w>", " ", way.words)
    found: set[str] = set()
    for start, bracket, endings, mark, rest in _ENDINGS.findall(text):
        found |= {f"{start}{ending}{rest}" for ending in endings.split("|")}
        if bracket == "[" or mark:
            found.add(start + rest)
    text = _ENDINGS.sub(" ", text)
    found |= {word[:-1] for word in re.findall(r"[a-z]+(?=\?)", text)}
    return found | set(re.findall(r"[a-z][\w’']*", text))


@cache
def _by_first_word(tables: tuple[str, ...]) -> dict[str, tuple[Way, ...]]:
    """The ways of some tables by the word that they begin with, in the order of the tables; those
    that begin otherwise are with all, and alone under ""."""
    ways = [way for name in tables for way in table(name)]
    firsts = [match[0] if (match := _FIRST.match(way.words)) else "" for way in ways]
    return {
        word: tuple(way for way, first in zip(ways, firsts, strict=True) if first in ("", word))
        for word in {*firsts, ""}
    }


_FIRST = re.compile(r"[a-z][\w’']*(?= |$)")


def longest_at(
    row: Signs, at: int, tables: tuple[str, ...], title: frozenset[str]
) -> FoundWay | None:
    """The longest way of some tables that begins at a token; of several alike the first."""
    best: FoundWay | None = None
    by_word = _by_first_word(tables)
    for way in by_word.get(row.tokens[at].sign, by_word[""]):
        match = way.pattern.match(row.signs, row.starts[at])
        if match is None or match.end() == match.start():
            continue
        words = match.groupdict().get("w")
        if words is not None and not set(words.split()) <= title:
            continue
        end = at + match.group().count(" ")
        if best is None or end > best.end:
            best = FoundWay(at, end, tuple(_filled(each, match, row) for each in way.means))
    return best


def _filled(means: str, match: re.Match[str], row: Signs) -> str:
    """What is meant, with the values that stand in the row."""

    def value(slot: re.Match[str]) -> str:
        name, change = slot[1], slot[2]
        sign = match.groupdict().get(name)
        if sign is None:
            return ""
        if name[0] == "w":
            return f"“{_as_typed(sign, row)}”"
        return told(token_of(sign, row), name[0], change)

    return " ".join(re.sub(r"\{(\w\d?)([^}]*)\}", value, means).split())


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
        return token.text
    number, is_bare = token.value, change.endswith("!")
    change = change.removesuffix("!")
    if kind == "m" and token.sign[0] in "SP":
        number *= 10  # a share of the size, in thousandths
    if change:
        number = _SUMS[change[0]](number, float(change[1:] or 0))
    text = f"{round(number, 4):g}".replace("-", "−")
    if kind in "tk":
        return f"{text} s" if token.unit == "s" else text
    return text if is_bare else text + _UNITS.get(kind, "")


@cache
def noise() -> frozenset[str]:
    """Words and signs without a meaning of their own."""
    text = files(__package__).joinpath("tables").joinpath("noise.txt").read_text(encoding="utf-8")
    lines = (line for line in text.splitlines() if not line.startswith("#"))
    return frozenset(word for line in lines for word in line.split())
