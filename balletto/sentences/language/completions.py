"""Completions: what may come next at the end of a text, the most used first."""

import re
from collections.abc import Iterator
from functools import singledispatch
from typing import Any, NamedTuple

from ..layers.part_reader import PartReader
from ..moves.clauses import CLAUSES, RARE, nouns
from ..moves.reader import MoveReader
from ..moves.selectors import COMBINE, selector_patterns
from ..reader import Attempt, Context, attempts
from .letters import quoted
from .terms import EaseOf, Element, NameOf, OrderOf
from .tokens import SayingError

MOST = 12
MOST_LETTERS = 1500  # of a text that is completed: a longer one is read alone
# Below this rank clauses say who goes where; once that is told they are less likely.
_TOLD = 10
_WORD_STARTS = re.compile(r"(?<![^\s,;])\S")
_ARTICLE = re.compile(r"^(?:an?|the) ")  # that need not be typed
_MOST_WORDS = 5  # of the phrase that is being typed


class Completion(NamedTuple):
    """What may stand from `start` of the text on, to its end; `group` is what it is about: "who",
    "where", "by", "when", "ease", "order", "more", or the kind of part."""

    text: str
    group: str
    start: int


def complete(text: str, context: Context | None = None) -> list[Completion]:
    """What may come next in a text, or may be what its last words begin."""
    context = context or Context()
    if len(text) > MOST_LETTERS:
        return []
    found: dict[str, Completion] = {}
    are_begun = False
    for start in _starts(text):
        typed = text[start:].lower()
        for words, group in _next(text[:start], context):
            low = words.lower()
            begins = low.startswith(typed) or _ARTICLE.sub("", low).startswith(typed)
            if begins and low != typed and (not are_begun or words.startswith("“")):
                found.setdefault(low, Completion(words, group, start))
        if found and not typed.endswith(" "):
            break  # the most words that begin something: what less of them would begin is not meant
        are_begun = bool(found)  # behind whole words names are meant as well, and nothing else
    return list(found.values())[:MOST]


def _starts(text: str) -> list[int]:
    """Where a phrase that is being typed may begin, the longest first; the end at last, if a word
    may begin there."""
    starts = [found.start() for found in _WORD_STARTS.finditer(text)][-_MOST_WORDS:]
    if not text or text[-1] in " ,;(":
        starts.append(len(text))
    return starts


def _next(before: str, context: Context) -> list[tuple[str, str]]:
    """What may follow a text, each with its group; nothing if the text is not understood."""
    try:
        tried = [attempt.run() for attempt in attempts(before, context)]
    except SayingError:
        return []
    found: list[tuple[int, str, str]] = []
    for attempt in tried:
        found += _after(attempt, context)
    return [(words, group) for _, words, group in sorted(found, key=lambda each: each[0])]


def _after(attempt: Attempt, context: Context) -> Iterator[tuple[int, str, str]]:
    """What may follow what an attempt has read: rank, words, group."""
    reading = attempt.reading
    end = len(reading.atoms)
    for needed in reading.expected.get(end, ()):
        told = needed.element.told()
        if isinstance(needed.element, NameOf) and needed.element.name == "layer":
            told = [quoted(name) for name in context.shapes] or told
        for rank, words in enumerate(told):
            place = 90 + rank if needed.is_rare else rank
            yield place, words, _group_of(needed.element, attempt.what)
    if reading.atom() is None:
        yield from _open(attempt.reader, attempt.what)


def _group_of(element: Element, usual: str) -> str:
    if isinstance(element, EaseOf):
        return "ease"
    return "order" if isinstance(element, OrderOf) else usual


@singledispatch
def _open(reader: Any, what: str) -> Iterator[tuple[int, str, str]]:
    """What was not said yet: of a style, a place, a scene or a layer."""
    often = [pattern for pattern in reader.open_parts() if not pattern.is_rare]
    for rank, pattern in enumerate(often):
        for words in pattern.likely():
            yield 30 + rank, words, what


@_open.register
def _of_move(reader: MoveReader, what: str) -> Iterator[tuple[int, str, str]]:
    """Clauses that were not said yet, and selectors."""
    selectors = reader.draft.selectors
    if selectors:
        for rank, pattern in enumerate(selectors[-1].open_parts()):
            for words in pattern.likely():
                yield 5 + rank, words, "by"
    for clause in CLAUSES:
        if clause.rank >= RARE or (clause.name and clause.name in reader.said):
            continue
        first = clause.pattern.elements[0]
        begun = bool(reader.draft.pose) and clause.rank < _TOLD
        rank = clause.rank * 2 + (80 if begun else 0)
        for place, words in enumerate(clause.pattern.likely()):
            yield rank + place, words, _group_of(first, clause.group)
    for patterns in selector_patterns(nouns()):
        joined = f"{COMBINE.told()[0]} " if selectors else "by "
        yield 60, joined + " ".join(e.told()[0] for e in patterns.heads[0].elements), "by"


@_open.register
def _of_part(reader: PartReader, what: str) -> Iterator[tuple[int, str, str]]:
    """What was not said of a part yet; of one that is not known yet, what it begins with."""
    patterns = reader.open_parts() if reader.is_known else list(reader.kind.heads)
    if reader.reading.atoms and not reader.is_known:
        return
    for rank, pattern in enumerate(patterns):
        for words in pattern.likely():
            yield rank * 2 + (40 if not reader.is_known else 0), words, what
