"""Edits of a title's text and of the style of single letters in it. Runs count characters."""

from collections.abc import Iterator, Sequence
from difflib import SequenceMatcher
from itertools import groupby
from typing import Any

from pydantic import Field

from ..changes import Change, get
from ..letters.characters import characters_of
from ..model import MAX_TEXT
from .base import Document, Edit, edit
from .paths import layer_pointer, name_of

Styles = list[dict[str, Any]]
# Of words typed anew at once, old by new: beyond it they are taken as one stretch, not compared.
MOST_PAIRS = 100_000


@edit("set-text")
class SetText(Edit):
    """Gives a title new words.

    Words that stay keep their style wherever they go; a word in the place of another takes its
    style; other new letters take that of the letter before them.
    """

    layer: str
    text: str

    def changes(self, document: Document) -> list[Change]:
        pointer = layer_pointer(document, self.layer)
        title = get(document, pointer)
        changes = [Change("put", (*pointer, "text"), self.text)]
        if title.get("runs"):
            styles = self._styles(title["runs"], characters_of(title["text"]))
            changes.append(Change("put", (*pointer, "runs"), gather(styles)))
        for index, move in enumerate(title.get("moves", [])):
            if move.get("among"):
                here = (*pointer, "moves", index, "among")
                changes.append(Change("put", here, self._ranges(move["among"], title["text"])))
        return changes

    def _ranges(self, ranges: list[list[int]], old: str) -> list[list[int]]:
        """Ranges of letters, kept over retyping as styles are."""
        runs = [{"from": first, "to": end, "style": {"in": True}} for first, end in ranges]
        kept = gather(self._styles(runs, characters_of(old)))
        return [[run["from"], run["to"]] for run in kept]

    def _styles(self, runs: list[dict[str, Any]], old: tuple[str, ...]) -> Styles:
        new = characters_of(self.text)
        styles = spread(runs, len(old))
        kept: list[dict[str, Any]] = [{} for _ in new]
        for old_from, old_to, new_from, new_to in _word_pairs(old, new):
            before = kept[new_from - 1] if new_from else {}
            part = styles[old_from:old_to]
            kept[new_from:new_to] = _retyped(
                old[old_from:old_to], new[new_from:new_to], part, part[0] if part else before
            )
        return kept

    def label(self, document: Document) -> str:
        text = " ".join(self.text.split())
        return f"Text: “{text if len(text) <= 40 else text[:39] + '…'}”"


def _word_pairs(old: tuple[str, ...], new: tuple[str, ...]) -> Iterator[tuple[Any, ...]]:
    """Stretches (from, to, from, to) of two texts that go together: words that are in both, and
    between them one word for another, as far as there are as many."""
    old_words, new_words = _words(old), _words(new)
    texts = [[text for text, _, _ in words] for words in (old_words, new_words)]
    for a, b, c, d in _alike(*texts):
        if b - a == d - c:
            for one, other in zip(old_words[a:b], new_words[c:d], strict=True):
                yield *one[1:], *other[1:]
        else:
            yield *_span(old_words, a, b, len(old)), *_span(new_words, c, d, len(new))


def _alike(old: list[str], new: list[str]) -> Iterator[tuple[int, int, int, int]]:
    """Stretches (from, to, from, to) of two lists of words that go together."""
    before = _same_length(old, new)
    after = _same_length(old[before:][::-1], new[before:][::-1])
    end, new_end = len(old) - after, len(new) - after
    yield 0, before, 0, before
    if (end - before) * (new_end - before) > MOST_PAIRS:
        yield before, end, before, new_end
    else:
        matcher = SequenceMatcher(None, old[before:end], new[before:new_end], autojunk=False)
        for _, a, b, c, d in matcher.get_opcodes():
            yield before + a, before + b, before + c, before + d
    yield end, len(old), new_end, len(new)


def _words(text: tuple[str, ...]) -> list[tuple[str, int, int]]:
    """Words, and the white space between them, with where they begin and end."""
    words, start = [], 0
    for _, group in groupby(text, key=str.isspace):
        letters = list(group)
        words.append(("".join(letters), start, start + len(letters)))
        start += len(letters)
    return words


def _span(words: list[tuple[str, int, int]], first: int, end: int, length: int) -> tuple[int, int]:
    start = words[first][1] if first < len(words) else length
    return start, words[end - 1][2] if end > first else start


def _retyped(old: tuple[str, ...], new: tuple[str, ...], styles: Styles, first: Any) -> Styles:
    """Styles of a stretch that was typed anew: letters at its start and end that stay keep theirs,
    those between take that of the letter before them."""
    before = _same_length(old, new)
    after = _same_length(old[before:][::-1], new[before:][::-1])
    inherited = styles[before - 1] if before else first
    added = [inherited] * (len(new) - before - after)
    return [*styles[:before], *added, *styles[len(old) - after :]]


def _same_length(one: Sequence[str], other: Sequence[str]) -> int:
    """How many characters or words two texts begin with in common."""
    pairs = enumerate(zip(one, other, strict=False))
    return next((n for n, (a, b) in pairs if a != b), min(len(one), len(other)))


@edit("style-letters")
class StyleLetters(Edit):
    """Sets one property of the style ("fill", "size", "axes.wght") for the characters first..end.

    No value takes it away, so that the letters follow the title again.
    """

    layer: str
    first: int = Field(ge=0, le=MAX_TEXT)
    end: int = Field(ge=1, le=MAX_TEXT)
    property: str
    value: Any = None

    def changes(self, document: Document) -> list[Change]:
        pointer = layer_pointer(document, self.layer)
        runs = get(document, pointer).get("runs", [])
        length = max([self.end, *(run["to"] for run in runs)])
        styles = spread(runs, length)
        head = self.property.split(".")[0]
        whole = get(document, pointer).get("style", {})
        for at in range(self.first, self.end):
            if head == "fill" != self.property:  # a part of a gradient, which may be the title's
                styles[at] = {"fill": whole.get("fill"), **styles[at]}
            styles[at] = _with(styles[at], self.property, self.value)
        return [Change("put", (*pointer, "runs"), gather(styles))]

    def label(self, document: Document) -> str:
        name = name_of(get(document, layer_pointer(document, self.layer)))
        what = self.property.split(".")[-1].capitalize()
        return f"{what} of {self.end - self.first} letters of {name}"


def spread(runs: list[dict[str, Any]], length: int) -> Styles:
    """The own style of each of `length` characters; later runs count over earlier ones."""
    styles: Styles = [{} for _ in range(length)]
    for run in runs:
        for at in range(run["from"], min(run["to"], length)):
            styles[at] = _merged(styles[at], run["style"])
    return styles


def gather(styles: Styles) -> list[dict[str, Any]]:
    """Styles of characters as the fewest runs; where a style is empty there is no run."""
    runs: list[dict[str, Any]] = []
    for at, style in enumerate(styles):
        if runs and runs[-1]["to"] == at and runs[-1]["style"] == style:
            runs[-1]["to"] = at + 1
        elif style:
            runs.append({"from": at, "to": at + 1, "style": style})
    return runs


def _merged(style: dict[str, Any], own: dict[str, Any]) -> dict[str, Any]:
    merged = {**style, **own}
    for name in ("axes", "features"):
        if name in style or name in own:
            merged[name] = {**style.get(name, {}), **own.get(name, {})}
    return merged


def _with(style: Any, name: str, value: Any) -> Any:
    """A style, or a part of one, with one property set ("fill.colors.0") or taken away."""
    head, _, rest = name.partition(".")
    if isinstance(style, list):
        at = int(head)
        return [
            *style[:at],
            _with(style[at], rest, value) if rest else value,
            *style[at + 1 :],
        ]
    if rest:
        value = _with(style.get(head, {}), rest, value) or None
    left = {key: old for key, old in style.items() if key != head}
    return left if value is None else {**left, head: value}
