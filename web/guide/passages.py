"""The guide, passage by passage, and what of it answers a question."""

import re
from collections import Counter
from dataclasses import dataclass
from functools import cache
from math import log
from pathlib import Path

from django.conf import settings
from django.utils.text import slugify
from markdown_it import MarkdownIt
from markdown_it.token import Token

# Words that say nothing of what is asked.
_PLAIN_WORDS = """
how do i the a an it is to of in on for my me can could you what where why which does did are there
and or with that this its be make get go was ago way any not one all want need some like have has
put so but if were from
"""
_PLAIN = frozenset(_PLAIN_WORDS.split())
# What people call what the guide calls otherwise: each word is looked for as the others, too.
_SAME = (
    "loop repeat forever endless again",
    "easing ease eased curve smooth smoother snappier",
    "export save download render output movie",
    "transparent transparency alpha",
    "font typeface fonts",
    "music song audio sound track",
    "photo image picture jpg png still",
    "delay delayed stagger staggered offset gap",
    "undo back",
    "version older history before",
    "cursor caret typewriter",
    "speed slower faster fast slow duration long length",
    "path way bend curve",
    "exit leave leaves disappear out",
    "square vertical portrait size format",
    "shortcut shortcuts key keys keyboard",
    "keyframe keyframes key animate",
    "colour color coloured",
    "background ground backdrop behind",
    "edge mask masked clip reveal",
    "copy duplicate clone",
    "beat beats rhythm",
    "gone lost vanished seen missing",
)


@dataclass(frozen=True)
class GuidePassage:
    """A part of the guide: under which heading it stands (`section`, and its `anchor`), what it
    says, and a sentence to try, if there is one; `asked`: the question that it answers."""

    section: str
    anchor: str
    text: str
    example: str = ""
    asked: str = ""


@cache
def parsed() -> list[Token]:
    """The guide, as its markdown reads."""
    text = Path(settings.ROOT, "docs", "guide.md").read_text(encoding="utf-8")
    return MarkdownIt("commonmark").enable("table").parse(text)


@cache
def passages() -> tuple[GuidePassage, ...]:
    """All of the guide but its table of contents."""
    found, section, heading = list[GuidePassage](), "", ""
    row: list[Token] | None = None
    for token in parsed():
        if token.type == "heading_open":
            heading = token.tag
        elif token.type == "tr_open":
            row = []
        elif token.type == "tr_close":
            found += _of_row(section, row or [])
            row = None
        elif token.type == "inline":
            if heading:
                section, heading = (token.content if heading == "h2" else section), ""
            elif row is not None:
                row.append(token)
            elif section:
                found.append(GuidePassage(section, slugify(section), plain(token), _example(token)))
    return tuple(found)


def _of_row(section: str, row: list[Token]) -> list[GuidePassage]:
    """A row of a table; of the last section a question with its answer."""
    if len(row) < 2:
        return []
    if section == "Questions" and len(row) == 3:
        asked, answer, say = row
        return [GuidePassage(section, slugify(section), plain(answer), _example(say), plain(asked))]
    text = ": ".join(plain(cell) for cell in row if cell.content)
    return [GuidePassage(section, slugify(section), text, _example(row[0]))]


def plain(token: Token) -> str:
    """The words of a passage."""
    return "".join(
        " " if child.type == "softbreak" else child.content for child in token.children or ()
    )


def _example(token: Token) -> str:
    codes = (child.content for child in token.children or () if child.type == "code_inline")
    return next(codes, "")


@cache
def _alike() -> dict[str, frozenset[str]]:
    same: dict[str, set[str]] = {}
    for line in _SAME:
        for word in line.split():
            same.setdefault(word, set()).update(line.split())
    return {word: frozenset(words) for word, words in same.items()}


def _words(text: str) -> set[str]:
    words = re.findall(r"[^\W\d_]+", text.lower())
    return {word.removesuffix("s") if len(word) > 4 else word for word in words} - _PLAIN


@cache
def _weights() -> tuple[list[set[str]], Counter[str]]:
    """The words of each passage, and in how many passages each word is."""
    of_each = [_words(f"{each.asked} {each.text} {each.section}") for each in passages()]
    return of_each, Counter(word for words in of_each for word in words)


def found_for(text: str, most: int = 8) -> list[GuidePassage]:
    """The passages that a question or some words are about, the likeliest first."""
    of_each, counts = _weights()
    asked = _words(text)
    scored = []
    for passage, words in zip(passages(), of_each, strict=True):
        score = sum(_score(word, words, counts, len(of_each)) for word in asked)
        if score:
            in_question = _words(passage.asked) if passage.asked else set()
            score += sum(2.0 for word in asked if _has(word, in_question))
            scored.append((score, passage))
    scored.sort(key=lambda each: -each[0])
    near = [passage for score, passage in scored if score >= scored[0][0] * _NEAR]
    return near[:most]


_NEAR = 0.4  # of the score of the likeliest


def _has(word: str, words: set[str]) -> bool:
    return word in words or bool(_stems(word) & words)


def _stems(word: str) -> set[str]:
    return {each.removesuffix("s") if len(each) > 4 else each for each in _alike().get(word, ())}


def _score(word: str, words: set[str], counts: Counter[str], total: int) -> float:
    """How much a word speaks for a passage: the more, the fewer passages have it."""
    if word in words:
        return 1 + log(total / counts[word])
    return 0.8 if _stems(word) & words else 0.0
