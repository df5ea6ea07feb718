"""Reading the parts of a layer that are said by a wording: effects, masks, windows, shutters."""

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from functools import cache
from itertools import zip_longest
from typing import Any

from ...scene.effects import EFFECT_KINDS
from ...scene.kinds import Kind
from ...scene.letters.along import ALONG, Along
from ...scene.letters.caret import CARET, Caret
from ...scene.letters.windows import WINDOW, Window
from ...scene.masks import MASK_KINDS
from ...scene.model import Model
from ...scene.moving.motion_blur import SHUTTER, MotionBlur
from ...scene.values.measures import LENGTH_PX, PERCENT
from ...scene.values.wording import Wording
from ..language.lexicon import Phrase
from ..language.rules import MARKS, Pattern, element_for, parts_of
from ..language.terms import (
    ColorOf,
    Element,
    Literal,
    NameOf,
    NumberOf,
    Option,
    Reading,
    ReadValues,
    SidesOf,
    StringOf,
)
from ..moves.wording import OFF


@dataclass(frozen=True)
class PartKind:
    """A kind of part: what it is in a scene ("effect", "mask"), its model, how it is known and what
    is said of it.

    heads: of which one has to be said
    unsaid: what the model needs besides, which the pages give; what is said of it by name, not as
    it stands in a scene
    """

    what: str
    model: type[Model]
    heads: tuple[Pattern, ...]
    parts: tuple[Pattern, ...]
    begins_with_value: bool = False
    start: tuple[tuple[str, Any], ...] = ()
    unsaid: tuple[tuple[str, Any], ...] = ()

    def phrases(self) -> Iterator[str]:
        """All words that it is known by."""
        for pattern in (*self.heads, *self.parts):
            yield from pattern.phrases()


def _first_words(pattern: Pattern) -> Phrase:
    """The words that a pattern begins with; none if that is a value."""
    first = pattern.elements[0]
    return first.phrase if isinstance(first, Literal) else ()


@dataclass
class PartReader:
    """Reads the atoms of a part of one kind."""

    reading: Reading
    kind: PartKind
    values: ReadValues = field(default_factory=dict)
    done: set[str] = field(default_factory=set)
    is_known: bool = False
    places: dict[str, tuple[int, int]] = field(default_factory=dict)

    def step(self) -> bool:
        """Reads what comes next; False if it is not understood."""
        start = self.reading.at
        for pattern in (*self.kind.parts, *self.kind.heads):
            names = pattern.names()
            if names & self.done or (not names and self.is_known):
                continue
            values = pattern.match(self.reading)
            if values is not None:
                atoms = self.reading.atoms[start : self.reading.at]
                self.places |= dict.fromkeys(pattern.names(), (atoms[0].start, atoms[-1].end))
                self.values |= values
                self.done |= names
                self.is_known = self.is_known or self._is_head(pattern)
                return True
        return False

    def _is_head(self, pattern: Pattern) -> bool:
        """Whether a pattern says what kind it is: by the words it begins with, or, where a kind
        begins with a value, by any."""
        heads = {_first_words(head) for head in self.kind.heads}
        return _first_words(pattern) in heads or self.kind.begins_with_value

    def open_parts(self) -> list[Pattern]:
        """What may still be said."""
        return [part for part in self.kind.parts if not part.names() & self.done]

    def data(self) -> dict[str, Any]:
        """The part as plain data."""
        data = {**dict(self.kind.start), **self.values}
        if self._is_both_ways(data):
            data["y"] = data["x"]
        if self.kind.model is Window and "soft" in data and "grow" not in data:
            data["grow"] = data["soft"]  # so that letters at rest are whole
        return data

    def _is_both_ways(self, data: dict[str, Any]) -> bool:
        """Whether one number was told for across and down: "blur 6 px"."""
        is_one = data.get("kind") in ("blur", "shadow") and "x" in data and "y" not in data
        named = {("across",), ("right",), ("left",)}
        return is_one and not any(atom.phrase in named for atom in self.reading.atoms)


@cache
def part_kinds() -> tuple[PartKind, ...]:
    """All kinds of parts, in the order in which they are tried."""
    kinds = [_kind("effect", name, model) for name, model in EFFECT_KINDS.items()]
    kinds += [_kind("mask", name, model) for name, model in MASK_KINDS.items()]
    kinds.append(kind_of_wording("motion_blur", MotionBlur, SHUTTER))
    kinds.append(_window())
    caret = kind_of_wording("caret", Caret, CARET)
    kinds.append(replace(caret, unsaid=(("move", "m1"),)))
    kinds.append(_along())
    return tuple(kinds)


_LEAD_ALONG = ("stands along", "along", "on", "follows", "set along")


def _along() -> PartKind:
    """A path, also as it is typed: "along “Orbit” at 25 %, upright"."""
    kind = kind_of_wording("along", Along, ALONG)
    named = NameOf("layer", ())
    heads = [
        *(Pattern((Literal(words), named)) for words in _LEAD_ALONG),
        Pattern((Literal("along it"),)),
    ]
    typed = [
        Pattern((Literal("at"), NumberOf("offset", PERCENT))),
        Pattern((NumberOf("offset", PERCENT), Literal("along it"))),
        Pattern((Literal("upright"),), (("upright", True),)),
        Pattern((Literal("the other way round"),), (("reverse", True),)),
    ]
    # A name by itself may be that of anything.
    parts = [part for part in kind.parts if not isinstance(part.elements[0], NameOf)]
    unsaid = (("layer", "s1"),)
    return replace(kind, heads=(*kind.heads, *heads), parts=(*typed, *parts), unsaid=unsaid)


def _kind(what: str, name: str, model: Any) -> PartKind:
    kind = kind_of_wording(what, model, model.wording)
    drawn: tuple[Pattern, ...] = ()
    if "path" in model.model_fields:
        drawn = (Pattern((Literal("drawn as"), StringOf("path"))),)
    return replace(kind, start=(("kind", name),), parts=(*kind.parts, *drawn))


def kind_of_wording(what: str, model: type[Model], wording: Wording) -> PartKind:
    """A kind with the patterns of a wording: its clauses, cut where more may be said; its title by
    itself, and with its first value."""
    values = {name: element_for(name, how) for name, how in wording.values.items()}
    whole = parts_of(wording.words, values)
    parts = [piece for pattern in whole for piece in (*_cut(pattern), *_led_in(pattern))]
    on: list[Pattern] = []
    if "on" in model.model_fields:
        on = [Pattern((Literal(OFF),), (("on", False),))]
    title = Literal(wording.title)
    named = Pattern((title,))
    head = _head_of(parts[0])
    heads = [head] if head.elements else []
    first = next((each for each in values.values() if isinstance(each, NumberOf)), None)
    short = [Pattern((title, first))] if first and issubclass(model, Kind) else []
    rest = Pattern(parts[0].elements[len(head.elements) :])
    is_told = len(rest.elements) > 1 or any(isinstance(each, ColorOf) for each in rest.elements)
    bare = [rest] if heads and rest.names() and is_told else []
    ordered = sorted([*parts, *bare, *on], key=lambda part: -len(part.elements))
    return PartKind(what, model, (*short, *heads, named), tuple(ordered), not heads)


def _cut(pattern: Pattern) -> Iterator[Pattern]:
    """A clause in pieces that may stand by themselves: words that follow a value and lead to
    another begin a new one."""
    piece: list[Element] = []
    for element, behind in zip_longest(pattern.elements, pattern.elements[1:]):
        has_value = any(not isinstance(each, Literal | Option) for each in piece)
        leads_on = behind is not None and not isinstance(behind, Literal | Option)
        if isinstance(element, Literal) and has_value and leads_on:
            yield Pattern(tuple(piece))
            piece = []
        piece.append(element)
    if piece:
        yield Pattern(tuple(piece))


def _led_in(pattern: Pattern) -> Iterator[Pattern]:
    """The later pieces of a clause with the words that it begins with: of "drawn from {from} to
    {to}" also "drawn to {to}"."""
    first = pattern.elements[0]
    if not isinstance(first, Literal) or first.words.lower() in MARKS:
        return
    for piece in list(_cut(pattern))[1:]:
        mark = piece.elements[0]
        if isinstance(mark, Literal) and mark.words.lower() in MARKS:
            yield Pattern((first, *piece.elements), is_rare=True)


def _head_of(pattern: Pattern) -> Pattern:
    """The words before the first value."""
    count = 0
    while count < len(pattern.elements) and isinstance(pattern.elements[count], Literal):
        count += 1
    return Pattern(pattern.elements[:count])


# Other words for the boxes of windows, as they are typed.
_BOXES = (
    ("line", "line"), ("line", "each line"), ("word", "word"), ("word", "each word"),
    ("unit", "itself"), ("unit", "own box"), ("title", "whole title"), ("title", "title"),
)  # fmt: skip


def _window() -> PartKind:
    """A window, also as it is typed: "seen within the line, 20 px soft above and below"."""
    kind = kind_of_wording("window", Window, WINDOW)
    of = Option("of", (*WINDOW.values["of"].options, *_BOXES))
    soft, grow = (_TurnedRound(name, WINDOW.values[name]) for name in ("soft", "grow"))
    typed = [
        Pattern((Literal("seen"), Literal("within"), of)),
        Pattern((Literal("within"), of)),
        Pattern((Literal("each character is seen"), Literal("within"), of)),
        Pattern((soft,)),
        Pattern((grow,)),
    ]
    heads = (Pattern((Literal("seen"), Literal("within"))), *kind.heads)
    return replace(kind, heads=heads, parts=(*typed, *kind.parts))


@dataclass(frozen=True)
class _TurnedRound(Element):
    """Sides with the number in front: "20 px soft above and below", "10 px larger all round"."""

    name: str
    how: Any

    def take(self, reading: Reading, into: ReadValues) -> bool:
        start = reading.at
        number: ReadValues = {}
        words = "soft" if self.name == "soft" else "larger"
        if NumberOf("value", self.how.measure or LENGTH_PX).take(reading, number):
            atom = reading.atom()
            if atom is not None and atom.phrase == (words,):
                reading.at += 1
                sides = [0.0] * len(self.how.parts)
                before = reading.at
                SidesOf(self.name, self.how).same(reading, sides, number["value"])
                Literal(self.how.after).take(reading, into)
                into[self.name] = sides if reading.at > before and any(sides) else number["value"]
                return True
        reading.at = start
        return False

    def told(self) -> list[str]:
        words = "soft" if self.name == "soft" else "larger"
        return [f"20 px {words} above and below", f"20 px {words} all round"]
