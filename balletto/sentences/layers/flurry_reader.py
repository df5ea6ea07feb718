"""Reading a flurry: "a burst of 40 stars, thrown at 0°, 60° apart at the most, at 500 px a second,
from a ring of 200 px, coloured white and gold"."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cache
from typing import Any

from ...scene.formations.base import COPIES
from ...scene.forms.flurry import BIRTHS, FLIGHT, FLURRY, PIECES, PLACE_KINDS, Births, Flurry
from ...scene.forms.flurry_starts import STARTS, THINGS
from ..language.rules import Pattern, row
from ..language.terms import ColorOf, Literal, NumberOf, Option, Reading, ReadValues, StringOf
from ..wording.values import OWN_COURSE
from .flurries import OWN_THINGS
from .part_reader import PartKind, PartReader, kind_of_wording

_THING = Option("things", tuple((name, name) for name in THINGS))
_COPIES = NumberOf("count", COPIES, example=40)
_COUNT = NumberOf("count", PIECES, example=40, is_plain=True)


@cache
def flurry_heads() -> tuple[Pattern, ...]:
    """How a flurry begins; each says the start that it begins with, if it has a name."""
    found = []
    for name in ("flurry", *STARTS):
        title = "rising letters" if name == "rising letters" else f"a {name}"
        start = (("start", name),) if name in STARTS else ()
        of = Literal(f"{title} of")
        rows = [row(title), Pattern((of, _COUNT, _THING)), Pattern((of, _THING))]
        rows.append(Pattern((of, StringOf("text"))))
        rows.append(Pattern((of, _COUNT, Literal(OWN_THINGS)), is_rare=True))
        rows.append(Pattern((of, _COUNT, Literal("letters"), Literal("of"), StringOf("text"))))
        rows.append(Pattern((of, _COPIES, Literal("of"), StringOf("layer"))))
        found += [Pattern(each.elements, start) for each in rows]
    return tuple(sorted(found, key=lambda pattern: -len(pattern.elements)))


@cache
def _flurry() -> PartKind:
    return kind_of_wording("flurry", Flurry, FLURRY)


@cache
def _flight() -> PartKind:
    return kind_of_wording("flight", Flurry, FLIGHT)


@cache
def _births() -> PartKind:
    return kind_of_wording("births", Births, BIRTHS)


@cache
def _places() -> tuple[tuple[str, PartKind], ...]:
    kinds = PLACE_KINDS.items()
    return tuple((name, kind_of_wording("place", kind, kind.wording)) for name, kind in kinds)


@cache
def _more() -> tuple[Pattern, ...]:
    own = Pattern((Literal(OWN_COURSE),), is_rare=True)  # which no sentence says
    return (row("coloured", ColorOf("color")), row(ColorOf("color")), row("of", _THING), own)


def flurry_phrases() -> Iterator[str]:
    """All words that flurries are known by."""
    for pattern in (*flurry_heads(), *_more()):
        yield from pattern.phrases()
    for kind in (_flurry(), _flight(), _births(), *(kind for _, kind in _places())):
        yield from kind.phrases()


@dataclass
class FlurryReader:
    """Reads what is said of a flurry besides that it is one."""

    reading: Reading
    said: ReadValues = field(default_factory=dict)
    colors: list[str] = field(default_factory=list)
    places: dict[str, tuple[int, int]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        self._flurry = PartReader(self.reading, _flurry(), is_known=True)
        self._flight = PartReader(self.reading, _flight(), is_known=True)
        self._births = PartReader(self.reading, _births(), is_known=True)
        self._place: tuple[str, PartReader] | None = None

    @property
    def values(self) -> dict[str, Any]:
        """What is said, if anything is."""
        return self.data()

    def step(self) -> bool:
        """Reads what comes next; False if it is not understood."""
        parts = (self._flurry, self._flight, self._births)
        return self._stands() or any(part.step() for part in parts) or self._has_more()

    def _stands(self) -> bool:
        if self._place is not None:
            return self._place[1].step()
        for name, kind in _places():
            for pattern in (*kind.parts, *kind.heads):
                if pattern.elements[0] == Literal("at"):
                    continue  # as long as no line is told of, that is how fast they are
                values = pattern.match(self.reading)
                if values is not None:
                    reader = PartReader(self.reading, kind, values, set(values), is_known=True)
                    self._place = name, reader
                    return True
        return False

    def _has_more(self) -> bool:
        for pattern in _more():
            values = pattern.match(self.reading)
            if values is not None:
                if "color" in values:
                    self.colors.append(values["color"])
                else:
                    self.said |= values
                return True
        return False

    def open_parts(self) -> list[Pattern]:
        """What may still be said."""
        places = [] if self._place else [kind.parts[0] for _, kind in _places() if kind.parts]
        return [
            *self._flurry.open_parts(),
            *self._flight.open_parts(),
            *self._births.open_parts(),
            *places,
            *_more(),
        ]

    def data(self) -> dict[str, Any]:
        """The flurry as plain data, as far as it is said; `start` and `things` by their names."""
        data = dict(self.said) | self._flurry.values | self._flight.values
        if self._births.values:
            data["births"] = self._births.values
        if self._place is not None:
            data["place"] = {"kind": self._place[0], **self._place[1].values}
        return data | ({"colors": self.colors} if self.colors else {})
