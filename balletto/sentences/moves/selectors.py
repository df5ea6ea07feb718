"""What is read of selectors: their templates turned round, for every kind that there is."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cache
from typing import Any

from ...scene.selectors import SELECTOR_KINDS, Selector
from ...scene.selectors.base import COMBINES
from ...scene.selectors.spot import SPOT_SHAPES
from ...scene.values.measures import FRAME
from ...scene.values.wording import Said
from ..language.rules import MARKS, Pattern, element_for, elements_of, parts_of
from ..language.terms import Element, Literal, NamesOf, NumberOf, Option, Reading, ReadValues
from .wording import PROPERTY_WORDS

_SIZE = (1920, 1080)
Nouns = tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class PropertiesOf(Element):
    """Some properties of a pose, or a choice for all of them."""

    name: str
    how: Said
    nouns: Nouns

    def take(self, reading: Reading, into: ReadValues) -> bool:
        if Option(self.name, self.how.options).take(reading, into):
            return True
        template = PROPERTY_WORDS[self.name].replace("{}", f"{{{self.name}}}")
        some = Pattern(tuple(elements_of(template, {self.name: NamesOf(self.name, self.nouns)})))
        values = some.match(reading)
        into.update(values or {})
        return values is not None

    def told(self) -> list[str]:
        first = self.nouns[0][1]
        some = PROPERTY_WORDS[self.name].format(first)
        return [*(words for _, words in self.how.options), some]


@dataclass
class SelectorPatterns:
    """How one form of selector is known, and what may be said of it.

    start: what it says by itself, besides its kind
    """

    kind: str
    start: dict[str, Any]
    heads: list[Pattern]
    parts: list[Pattern]

    def phrases(self) -> Iterator[str]:
        """All words that it is known by."""
        for pattern in (*self.heads, *self.parts):
            for element in pattern.elements:
                yield from Pattern((element,)).phrases()
                if isinstance(element, PropertiesOf):
                    yield from (words for _, words in element.how.options)
                    yield from PROPERTY_WORDS[element.name].split("{}")


@dataclass
class SelectorRead:
    """A selector that is being read."""

    of: SelectorPatterns
    values: ReadValues
    done: set[str] = field(default_factory=set)

    def step(self, reading: Reading) -> bool:
        """Whether what comes next is a part of it that was not said yet."""
        if self._band(reading):
            return True
        for pattern in self.open_parts():
            if (values := pattern.match(reading)) is not None:
                self.values |= values
                self.done |= self._said_by(pattern)
                return True
        return False

    def _said_by(self, pattern: Pattern) -> set[str]:
        """What a pattern says, and what stands for the same."""
        names, model = pattern.names(), SELECTOR_KINDS[self.of.kind]
        pairs = model.replaced.items()
        return names | {one for pair in pairs if names & set(pair) for one in pair}

    def open_parts(self) -> list[Pattern]:
        """What may still be said, the longest first."""
        parts = [part for part in self.of.parts if not part.names() & self.done]
        return sorted(parts, key=lambda part: -len(part.elements))

    def _band(self, reading: Reading) -> bool:
        """A band that is told at two times: "from 0 % to 100 % at 0 to 100 % at 2s"."""
        if self.of.kind != "sweep" or "low" in self.done:
            return False
        values = _BAND.match(reading)
        if values is None:
            return False
        times = (values.pop("first"), values.pop("last"))
        low = zip(times, (values["low"], values.pop("then")), strict=True)
        keys = [{"at": at, "value": value} for at, value in low]
        self.values |= values | {"low": {"keys": keys}}
        self.done |= {"low", "high"}
        return True

    def data(self) -> dict[str, Any]:
        """The selector as plain data."""
        return {"kind": self.of.kind, **self.of.start, **self.values}


def _percent(name: str) -> NumberOf:
    return NumberOf(name, SELECTOR_KINDS["sweep"].values["low"].measure or FRAME)


_BAND = Pattern(
    (
        Literal("from"), _percent("low"), Literal("to"), _percent("high"), Literal("at"),
        NumberOf("first", FRAME), Literal("to"), _percent("then"), Literal("at"),
        NumberOf("last", FRAME),
    )
)  # fmt: skip
COMBINE = Option("combine", COMBINES)


@cache
def selector_patterns(nouns: Nouns) -> tuple[SelectorPatterns, ...]:
    """The patterns of all kinds; `nouns` are what properties are called."""
    return tuple(
        patterns
        for kind, model in SELECTOR_KINDS.items()
        for patterns in _of_kind(kind, model, nouns)
    )


def _of_kind(kind: str, model: type[Selector], nouns: Nouns) -> Iterator[SelectorPatterns]:
    """Those of a kind; of a kind that has forms, those of each."""
    for _, data in model.starts(_SIZE):
        form = SPOT_SHAPES[data["shape"]] if kind == "spot" else model
        selector = form.model_validate(data, strict=False)
        heads: list[Pattern] = []
        parts: list[Pattern] = []
        for each in _variants(selector):
            values = {
                name: PropertiesOf(name, how, nouns) if how.of_properties
                else element_for(name, how)
                for name, how in each.said.items()
            }  # fmt: skip
            first, *others = parts_of(each.words, values)
            head, rest = _without_head(first)
            heads.append(head)
            parts += [rest, first, *others, *parts_of(each.less_used, values)]
        start = {"shape": data["shape"]} if kind == "spot" else {}
        if kind != "spot":
            heads += [Pattern((Literal(words),)) for words in (model.title, *model.also)]
        parts += [short for part in parts if (short := _without_end(part))]
        parts = [part for part in dict.fromkeys(parts) if part.elements]
        yield SelectorPatterns(kind, start, list(dict.fromkeys(heads)), parts)


def _without_end(part: Pattern) -> Pattern | None:
    """A part that begins with words without those after its last value: "from 0 % to 30 %"."""
    if len(part.elements) < 3:
        return None
    ends = (part.elements[0], part.elements[-1])
    return Pattern(part.elements[:-1]) if all(isinstance(end, Literal) for end in ends) else None


def _variants(selector: Selector) -> Iterator[Selector]:
    """A selector in all ways in which it is said: with each option, and said otherwise."""
    yield selector
    for name, how in selector.said.items():
        for value, _ in how.options:
            if name in type(selector).model_fields:
                yield selector.model_copy(update={name: value})
    for _, name, value in selector.other_ways:
        yield selector.model_copy(update={name: value})


def _without_head(first: Pattern) -> tuple[Pattern, Pattern]:
    """The words that a selector is known by, up to its first value, and the rest."""
    count = 0
    for number, element in enumerate(first.elements):
        if not isinstance(element, Literal | Option):
            break
        if isinstance(element, Literal) and element.words not in MARKS:
            count = number + 1
    if all(isinstance(element, Literal) for element in first.elements):
        count = len(first.elements)
    return Pattern(first.elements[:count]), Pattern(first.elements[count:])
