"""Elements: what patterns are made of. Each reads one thing from the atoms that come next: a word,
a number by its measure, a colour, one of several options."""

import re
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, NamedTuple

from lark import Tree

from ...scene.orders import ORDERS
from ...scene.values.measures import FRAME, PIXELS, PLAIN, WHOLE, Measure
from ...scene.values.quantity_reader import QuantityError
from ...scene.values.wording import Said
from .lexicon import Phrase, spelt
from .numbers import number_in
from .tokens import Atom, Atoms, point_of, tie_of


@dataclass
class Reading:
    """The atoms of a text, and where reading stands.

    expected: by the place of an atom, what patterns that had begun needed there
    """

    atoms: list[Atom]
    reader: Atoms
    rate: float
    at: int = 0
    expected: dict[int, list["Needed"]] = field(default_factory=dict)
    refused: str = ""

    def atom(self, ahead: int = 0) -> Atom | None:
        """The atom that comes next, or so many further."""
        place = self.at + ahead
        return self.atoms[place] if place < len(self.atoms) else None

    def refuse(self, message: str) -> None:
        """Notes why the value that comes next does not fit."""
        self.refused = message

    def expect(self, element: "Element", is_rare: bool = False) -> None:
        """Notes what was needed here."""
        self.expected.setdefault(self.at, []).append(Needed(element, self.refused, is_rare))


class Needed(NamedTuple):
    """An element that was needed, why what stands there does not do, and whether it is rarely
    meant."""

    element: "Element"
    refused: str
    is_rare: bool


ReadValues = dict[str, Any]
_NONE = object()


class Element:
    """A part of a pattern."""

    def take(self, reading: Reading, into: ReadValues) -> bool:
        """Reads it into values, and says whether it was there; QuantityError if a value stands
        there that does not fit."""
        raise NotImplementedError

    def told(self) -> list[str]:
        """What can be typed for it."""
        raise NotImplementedError


@dataclass(frozen=True)
class Literal(Element):
    """Words."""

    words: str

    @property
    def phrase(self) -> Phrase:
        return spelt(self.words)

    def take(self, reading: Reading, into: ReadValues) -> bool:
        atom = reading.atom()
        if atom is None or atom.phrase != self.phrase or atom.kind in ("value", "string"):
            return False
        reading.at += 1
        return True

    def told(self) -> list[str]:
        return [self.words.strip()]


@dataclass(frozen=True)
class Option(Element):
    """One of several words."""

    name: str
    options: tuple[tuple[Any, str], ...]

    def take(self, reading: Reading, into: ReadValues) -> bool:
        atom = reading.atom()
        if atom is None:
            return False
        if (pace := self._pace(reading)) is not None:
            into[self.name] = pace
            return True
        for value, words in self.options:
            if atom.phrase == spelt(words) and atom.kind != "value":
                into[self.name] = value
                reading.at += 1
                return True
        return False

    def _pace(self, reading: Reading) -> str | None:
        """How often a second: "9 times a second", "9/s"."""
        if not any(isinstance(value, str) and value.endswith("/s") for value, _ in self.options):
            return None
        atom, behind = reading.atom(), reading.atom(1)
        if atom is None or atom.kind != "value" or atom.parts is not None:
            return None
        number = re.match(r"[\d.]+", atom.raw)
        if number and re.fullmatch(r"[\d.]+\s*/s", atom.raw):
            reading.at += 1
            return f"{number[0]}/s"
        if number and number[0] == atom.raw and behind and behind.phrase == ("times", "second"):
            reading.at += 2
            return f"{number[0]}/s"
        return None

    def told(self) -> list[str]:
        return [words for _, words in self.options]


@dataclass(frozen=True)
class NumberOf(Element):
    """A number by its measure, plain, keyed or tied. A number for a value that has directions needs
    one, but where it has a word of its own. `example` is one that is likely; what `is_plain` takes
    no keys and no ties."""

    name: str
    measure: Measure
    needs_direction: bool = False
    example: float | None = None
    is_plain: bool = False

    def take(self, reading: Reading, into: ReadValues) -> bool:
        atom = reading.atom()
        if atom is None or atom.kind not in ("value", "listed"):
            return False
        value = self._value(atom, reading)
        if value is _NONE:
            return False
        into[self.name] = value
        reading.at += 1
        return True

    def _value(self, atom: Atom, reading: Reading) -> Any:
        if isinstance(atom.parts, Tree):
            if self.is_plain:
                raise QuantityError("one value is needed here, without keyframes")
            if atom.parts.data == "tie":
                return tie_of(atom.parts, reading.rate) if not self.needs_direction else _NONE
            return reading.reader.course(atom.parts, self._keyed(reading), reading.rate)
        if self.needs_direction and not self._has_direction(atom.raw):
            return _NONE
        return number_in(atom.raw, self.measure, reading.rate)

    def _keyed(self, reading: Reading) -> Callable[[Any], float | int]:
        def read(tree: Any) -> float | int:
            raw = " ".join(map(str, tree.children))
            if self.needs_direction and not self._has_direction(raw):
                raise QuantityError(f"a direction is needed: “{self.measure.say(40)}”")
            return number_in(raw, self.measure, reading.rate)

        return read

    def _has_direction(self, raw: str) -> bool:
        words = raw.lower().split()
        named = {
            self.measure.below, self.measure.above, *_ALSO.get(self.measure.below, ()),
            *_ALSO.get(self.measure.above, ()),
        }  # fmt: skip
        return any(word in named for word in words)

    def told(self) -> list[str]:
        usual = 20 if self.measure.scale == 1 else 0.5
        return [self.measure.say(usual if self.example is None else self.example)]


_ALSO = {"above": ("up",), "nearer": ("closer",), "deeper": ("farther", "further")}


@dataclass(frozen=True)
class PairOf(Element):
    """Two numbers of pixels: a point, or a size."""

    name: str
    words: tuple[str, str] = ("across", "down")
    measure: Measure = PIXELS

    def take(self, reading: Reading, into: ReadValues) -> bool:
        atom = reading.atom()
        if atom is None or atom.kind not in ("value", "listed"):
            return False
        if isinstance(atom.parts, Tree):
            return self._moving(atom.parts, reading, into)
        first, between, second, behind = (reading.atom(ahead) for ahead in range(4))
        if between is None or second is None or between.phrase != spelt(self.words[0]):
            return False
        has_end = bool(self.words[1])
        if has_end and (behind is None or behind.phrase != spelt(self.words[1])):
            return False
        into[self.name] = [
            number_in(each.raw, self.measure, reading.rate) for each in (first, second) if each
        ]
        reading.at += 4 if has_end else 3
        return True

    def _moving(self, tree: Any, reading: Reading, into: ReadValues) -> bool:
        if tree.data == "tie":
            into[self.name] = tie_of(tree, reading.rate)
        else:
            into[self.name] = reading.reader.course(
                tree, lambda keyed: point_of(keyed, reading.rate), reading.rate
            )
            if any(len(key["value"]) != 2 for key in into[self.name]["keys"]):
                return False
        reading.at += 1
        return True

    def told(self) -> list[str]:
        return [f"960 px {self.words[0]} 540 px {self.words[1]}".strip()]


@dataclass(frozen=True)
class ColorOf(Element):
    """A colour, plain, keyed or tied."""

    name: str

    def take(self, reading: Reading, into: ReadValues) -> bool:
        atom = reading.atom()
        if atom is None:
            return False
        if atom.kind == "color":
            into[self.name] = _hex(atom.raw)
        elif atom.kind == "value" and isinstance(atom.parts, Tree):
            if atom.parts.data == "tie":
                into[self.name] = tie_of(atom.parts, reading.rate)
            else:
                into[self.name] = reading.reader.course(
                    atom.parts, lambda keyed: _hex(str(keyed.children[0])), reading.rate
                )
        elif atom.kind == "word" and " ".join(atom.phrase) in COLORS:
            into[self.name] = COLORS[" ".join(atom.phrase)]
        else:
            return False
        reading.at += 1
        return True

    def told(self) -> list[str]:
        return ["#F2B705", *COLORS]


# The sixteen colours that HTML 4 names.
COLORS = {
    "black": "#000000", "silver": "#C0C0C0", "grey": "#808080", "white": "#FFFFFF",
    "maroon": "#800000", "red": "#FF0000", "purple": "#800080", "fuchsia": "#FF00FF",
    "green": "#008000", "lime": "#00FF00", "olive": "#808000", "yellow": "#FFFF00",
    "navy": "#000080", "blue": "#0000FF", "teal": "#008080", "aqua": "#00FFFF",
}  # fmt: skip


def _hex(raw: str) -> str:
    """A colour in full: "#fa0" is "#FFAA00"."""
    digits = raw[1:].upper()
    return "#" + ("".join(digit * 2 for digit in digits) if len(digits) == 3 else digits)


@dataclass(frozen=True)
class EaseOf(Element):
    """An ease."""

    name: str

    def take(self, reading: Reading, into: ReadValues) -> bool:
        atom = reading.atom()
        if atom is None or atom.kind != "ease":
            return False
        into[self.name] = atom.parts
        reading.at += 1
        return True

    def told(self) -> list[str]:
        return ["soft landing", "soft both", "overshoot", "linear", "soft start", "quick landing"]


@dataclass(frozen=True)
class OrderOf(Element):
    """An order, with what it needs: it gives several values."""

    def take(self, reading: Reading, into: ReadValues) -> bool:
        atom = reading.atom()
        if atom is None or atom.kind != "order":
            return False
        token, *rest = atom.parts
        words = reading.reader.lexicon.meant(spelt(token))
        name = next(name for name, order in ORDERS.items() if spelt(order.words) == words)
        into["order"] = name
        reading.at += 1
        needs = ORDERS[name].needs
        numbers = [each for each in rest if each.type == "NUMBER"]
        if needs == "seed":
            into["seed"] = number_in(numbers[0], WHOLE, reading.rate) if numbers else 0
        elif needs == "ranks":
            ranks = [number_in(each, PLAIN, reading.rate) for each in numbers]
            into["ranks"] = ranks or [0, 1]
        elif needs == "point":
            return self._point(reading, into)
        return True

    def _point(self, reading: Reading, into: ReadValues) -> bool:
        Literal("at").take(reading, into)
        if PairOf("point").take(reading, into):
            return True
        raise QuantityError("a point is needed here: say “at 960 px across, 540 px down”")

    def told(self) -> list[str]:
        return [order.words for order in ORDERS.values()]


@dataclass(frozen=True)
class ListOf(Element):
    """Several numbers, in parentheses or one after another."""

    name: str
    measure: Measure

    def take(self, reading: Reading, into: ReadValues) -> bool:
        numbers: list[float | int] = []
        while (atom := reading.atom()) and (atom.kind == "listed" or atom.is_plain):
            raws = [atom.raw]
            if atom.kind == "listed":
                raws = [str(token) for token in atom.parts if token.type == "NUMBER"]
            numbers += [number_in(raw, self.measure, reading.rate) for raw in raws]
            reading.at += 1
        into[self.name] = numbers
        return bool(numbers)

    def told(self) -> list[str]:
        return ["0, 3 and 9 frames"]


@dataclass(frozen=True)
class SidesOf(Element):
    """One number for all sides, or one for each with its words behind it."""

    name: str
    how: Said

    def take(self, reading: Reading, into: ReadValues) -> bool:
        sides = [0.0] * len(self.how.parts)
        taken, start = False, reading.at
        while self._one(reading, sides):
            taken = True
        if taken:
            into[self.name] = sides
            return True
        reading.at = start
        number = NumberOf(self.name, self.how.measure or PLAIN)
        if not number.take(reading, into):
            return False
        Literal(self.how.after).take(reading, into)
        return True

    def _one(self, reading: Reading, sides: list[float]) -> bool:
        """One number and the words of its side; further sides that have the same."""
        atom, behind = reading.atom(), reading.atom(1)
        if atom is None or not atom.is_plain:
            return False
        for place, part in enumerate(self.how.parts):
            words = spelt(part.after)
            said = part.after.split()[-1]
            inside = atom.phrase[-1:] == (said,)
            if not inside and (behind is None or behind.phrase != words):
                continue
            raw = re.sub(rf"\s*{said}$", "", atom.raw, flags=re.IGNORECASE) if inside else atom.raw
            sides[place] = number_in(raw, self.how.measure or PLAIN, reading.rate)
            reading.at += 1 if inside else 2
            self.same(reading, sides, sides[place])
            return True
        return False

    def same(self, reading: Reading, sides: list[float], value: float) -> None:
        """Sides named behind one number: "20 px above and below"."""
        while (atom := reading.atom()) and atom.kind == "word":
            place = next(
                (
                    n for n, part in enumerate(self.how.parts)
                    if atom.phrase in (spelt(part.after), (part.after.split()[-1],))
                ),
                None,
            )  # fmt: skip
            if place is None:
                return
            sides[place] = value
            reading.at += 1

    def told(self) -> list[str]:
        return [f"20 px {part.after}" for part in self.how.parts]


@dataclass(frozen=True)
class NamesOf(Element):
    """Some of the properties of a pose, by their nouns."""

    name: str
    nouns: tuple[tuple[str, str], ...]  # property, noun

    def take(self, reading: Reading, into: ReadValues) -> bool:
        names = []
        while (atom := reading.atom()) and atom.kind == "word":
            name = next((name for name, noun in self.nouns if spelt(noun) == atom.phrase), None)
            if name is None:
                break
            names.append(name)
            reading.at += 1
        into[self.name] = names
        return bool(names)

    def told(self) -> list[str]:
        return [noun for _, noun in self.nouns]


@dataclass(frozen=True)
class StringOf(Element):
    """Words within marks."""

    name: str

    def take(self, reading: Reading, into: ReadValues) -> bool:
        atom = reading.atom()
        if atom is None or atom.kind != "string":
            return False
        into[self.name] = atom.parts
        reading.at += 1
        return True

    def told(self) -> list[str]:
        return ["“words”"]


@dataclass(frozen=True)
class NameOf(Option):
    """A name within marks, or one of some options."""

    def take(self, reading: Reading, into: ReadValues) -> bool:
        return super().take(reading, into) or StringOf(self.name).take(reading, into)


@dataclass(frozen=True)
class TimeOf(Element):
    """A frame: "frame 12", "2 s"."""

    name: str

    def take(self, reading: Reading, into: ReadValues) -> bool:
        Literal("frame").take(reading, into)
        return NumberOf(self.name, FRAME).take(reading, into)

    def told(self) -> list[str]:
        return ["frame 12"]


@dataclass(frozen=True)
class Maybe(Element):
    """An element that may stand behind what is before it; behind a comma it is another clause."""

    element: Element

    def take(self, reading: Reading, into: ReadValues) -> bool:
        atom = reading.atom()
        if atom is not None and not atom.is_parted:
            self.element.take(reading, into)
        return True

    def told(self) -> list[str]:
        return self.element.told()
