"""Patterns: the templates of sentences turned round, from what is said to the values that it means.

A template such as "soft {soft_low} behind" becomes the pattern of the word "soft", a value, and the
word "behind". Reading a clause is finding the pattern that fits the atoms that come next.
"""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import Any

from ...scene.values.measures import FRAME, LENGTH_PX, PLAIN
from ...scene.values.quantity_reader import QuantityError
from ...scene.values.wording import Said
from .lexicon import spelt
from .terms import (
    COLORS,
    ColorOf,
    EaseOf,
    Element,
    Literal,
    NameOf,
    NamesOf,
    NumberOf,
    Option,
    OrderOf,
    PairOf,
    Reading,
    ReadValues,
    SidesOf,
    TimeOf,
)

# Words that stand alone, so that what is before and after them may be left out.
MARKS = ("from", "to", "by", "at", "over", "every", "within")


def _taken(element: Element, reading: Reading, into: ReadValues) -> bool:
    """Whether an element is there; why not, if a value does not fit, is noted."""
    reading.refused = ""
    try:
        return element.take(reading, into)
    except QuantityError as refused:
        reading.refuse(str(refused))
        return False


@dataclass(frozen=True)
class Pattern:
    """Elements in a row. `sets` are values that it means besides those that are said in it; one
    that is rarely meant is not offered."""

    elements: tuple[Element, ...]
    sets: tuple[tuple[str, Any], ...] = ()
    is_rare: bool = False

    def match(self, reading: Reading) -> ReadValues | None:
        """The values, and reading goes on behind; or None, and it stays."""
        start, values = reading.at, dict(self.sets)
        for number, element in enumerate(self.elements):
            if not _taken(element, reading, values):
                if number and reading.at > start:
                    reading.expect(element, self.is_rare)
                reading.at = start
                return None
        return values

    def names(self) -> set[str]:
        """The values that it says."""
        return {
            getattr(element, "name", "order")
            for element in self.elements
            if not isinstance(element, Literal)
        } | {name for name, _ in self.sets}

    def likely(self) -> list[str]:
        """What can be typed for it, the likeliest first: each choice, if it is one alone; or words
        with a likely value for each."""
        if len(self.elements) == 1:
            return self.elements[0].told()
        texts = [element.told()[:1] for element in self.elements]
        return [" ".join(words[0] for words in texts if words)]

    def phrases(self) -> Iterator[str]:
        """All words that it is known by."""
        for element in self.elements:
            if isinstance(element, Literal):
                yield element.words
            elif isinstance(element, ColorOf):
                yield from COLORS
            elif isinstance(element, PairOf):
                yield from filter(None, element.words)
            elif isinstance(element, Option | NamesOf):
                yield from element.told()
            elif isinstance(element, SidesOf):
                for part in element.how.parts:
                    yield part.after
                    yield part.after.split()[-1]
                yield element.how.after


@dataclass
class PatternReader:
    """Reads patterns in any order, each value once.

    places: where in the text each was said
    """

    reading: Reading
    values: ReadValues = field(default_factory=dict)
    places: dict[str, tuple[int, int]] = field(default_factory=dict)

    @property
    def patterns(self) -> Sequence[Pattern]:
        """All that may be said, the longest first."""
        raise NotImplementedError

    def open_parts(self) -> list[Pattern]:
        """What may still be said."""
        return [each for each in self.patterns if not each.names() & set(self.values)]

    def step(self) -> bool:
        """Reads what comes next; False if it is not understood."""
        start = self.reading.at
        for pattern in self.open_parts():
            values = pattern.match(self.reading)
            if values is not None:
                atoms = self.reading.atoms[start : self.reading.at]
                self.places |= dict.fromkeys(values, (atoms[0].start, atoms[-1].end))
                self.keep(pattern, values)
                return True
        return False

    def keep(self, pattern: Pattern, values: ReadValues) -> None:
        """Takes what was read."""
        self.values |= values


def row(*parts: str | Element) -> Pattern:
    """Words and elements in a row."""
    return Pattern(tuple(Literal(part) if isinstance(part, str) else part for part in parts))


# Templates


def elements_of(template: str, values: dict[str, Element]) -> list[Element]:
    """The elements of a template, words that stand alone by themselves."""
    made: list[Element] = []
    for index, text in enumerate(re.split(r"\{(\w+)\}", template)):
        if index % 2:
            made.append(values[text])
        else:
            made += literals_of(text)
    return made


def literals_of(text: str) -> list[Element]:
    """Words as literals: marks stand alone, commas part."""
    made: list[Element] = []
    for piece in re.split(r"[,;:.]", text):
        words: list[str] = []
        for word in piece.split():
            if word.lower() in MARKS and spelt(piece) != spelt(word):
                made += _literal(words)
                made.append(Literal(word))
                words = []
            else:
                words.append(word)
        made += _literal(words)
    return made


def _literal(words: list[str]) -> list[Element]:
    text = " ".join(words)
    return [Literal(text)] if spelt(text) else []


def element_for(name: str, how: Said, nouns: tuple[tuple[str, str], ...] = ()) -> Element:
    """What reads a value that is said so."""
    if how.is_order:
        return OrderOf()
    if how.is_ease:
        return EaseOf(name)
    if how.is_color:
        return ColorOf(name)
    if how.is_point:
        return PairOf(name)
    if how.is_pair:
        return PairOf(name, (how.between, ""), LENGTH_PX)
    if how.parts and how.after:
        return SidesOf(name, how)
    if how.measure is FRAME:
        return TimeOf(name)
    if how.is_name:
        return NameOf(name, how.options)
    if how.options:
        return Option(name, how.options)
    return NumberOf(name, how.measure or PLAIN, example=how.rest)


def parts_of(template: str, values: dict[str, Element]) -> list[Pattern]:
    """The clauses of a template, each a pattern of its own: it is cut at its commas, and where
    another value follows an "and"."""
    patterns = []
    for piece in re.split(r"[,;]| and (?=[^,;]*\{)", template.rstrip(".")):
        elements = elements_of(piece, values)
        if elements:
            patterns.append(Pattern(tuple(elements)))
    return patterns
