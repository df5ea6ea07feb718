"""Reading a formation: "32 copies in a ring of 180 px, facing out, each 2 frames after the one
before"."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cache
from typing import Any

from ...scene.formations import FORMATION_KINDS
from ...scene.formations.base import CHANCE, LAST, CopyChance, LastCopy
from ...scene.values.measures import DEGREES, FRAMES
from ..language.rules import Pattern, element_for, parts_of, row
from ..language.terms import EaseOf, Literal, NumberOf, OrderOf, Reading, ReadValues
from .part_reader import PartKind, PartReader, kind_of_wording


@cache
def _kinds() -> tuple[tuple[str, PartKind], ...]:
    """The kinds; each begins with how its copies stand: "12 copies in a ring of 200 px", "in a
    ring"."""
    found = []
    for name, model in FORMATION_KINDS.items():
        wording = model.wording
        values = {each: element_for(each, how) for each, how in wording.values.items()}
        first, *parts = parts_of(wording.words, values)
        counted = [each for each in first.elements[:1] if isinstance(each, NumberOf)]
        stands = Literal(f"in a {wording.title}")
        heads = [
            first,
            *([Pattern(first.elements[1:])] if counted and len(first.elements) > 2 else []),
            *([Pattern((*counted, stands))] if counted else []),
            Pattern((stands,)),
        ]
        found.append((name, PartKind("formation", model, tuple(heads), tuple(parts))))
    return tuple(found)


@cache
def _more() -> tuple[tuple[str, PartKind], ...]:
    """What may be said of copies besides how they stand."""
    return (
        ("last", kind_of_wording("last", LastCopy, LAST)),
        ("chance", kind_of_wording("chance", CopyChance, CHANCE)),
    )


@cache
def _delays() -> tuple[Pattern, ...]:
    gap = NumberOf("gap", FRAMES, example=2, is_plain=True)
    span = NumberOf("span", FRAMES, example=24, is_plain=True)
    return (
        row("each", gap, "after the one before"),
        row("within", span, "in all"),
        row(OrderOf()),
        row("spread", EaseOf("curve")),
    )


@cache
def _sector() -> Pattern:
    """A sector to which a ring is cut."""
    low, high = (NumberOf(name, DEGREES, is_plain=True) for name in ("low", "high"))
    return row("only", "from", low, "to", high)


def formation_phrases() -> Iterator[str]:
    """All words that formations are known by."""
    for _, kind in (*_kinds(), *_more()):
        yield from kind.phrases()
    for pattern in (*_delays(), _sector()):
        yield from pattern.phrases()


@dataclass
class FormationReader:
    """Reads the atoms of a formation, of whichever kind."""

    reading: Reading
    kind: str = ""
    delay: ReadValues = field(default_factory=dict)
    places: dict[str, tuple[int, int]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        self._form: PartReader | None = None
        self._parts = [(name, PartReader(self.reading, kind)) for name, kind in _more()]

    @property
    def is_known(self) -> bool:
        """Whether it says how the copies stand."""
        return self._form is not None

    @property
    def values(self) -> dict[str, Any]:
        """What is said, if anything is."""
        return self.data() if self.is_known else {}

    def step(self) -> bool:
        """Reads what comes next; False if it is not understood."""
        if self._form is None:
            return self._begins()
        parts = [self._form, *(part for _, part in self._parts)]
        return any(part.step() for part in parts) or self._delayed() or self._cut()

    def _begins(self) -> bool:
        for name, kind in _kinds():
            for head in kind.heads:
                values = head.match(self.reading)
                if values is not None:
                    form = PartReader(self.reading, kind, values, set(values), is_known=True)
                    self.kind, self._form = name, form
                    return True
        return False

    def _delayed(self) -> bool:
        for pattern in _delays():
            if not pattern.names() & set(self.delay) and (found := pattern.match(self.reading)):
                self.delay |= found
                return True
        return False

    def _cut(self) -> bool:
        is_ring = "cut" in FORMATION_KINDS[self.kind].model_fields
        sector = _sector().match(self.reading) if is_ring else None
        if self._form is None or sector is None:
            return False
        self._form.values.setdefault("cut", []).append([sector["low"], sector["high"]])
        return True

    def open_parts(self) -> list[Pattern]:
        """What may still be said."""
        if self._form is None:
            return [kind.heads[0] for _, kind in _kinds()]
        more = [pattern for _, part in self._parts for pattern in part.open_parts()]
        delays = [each for each in _delays() if not each.names() & set(self.delay)]
        return [*self._form.open_parts(), *delays, *more]

    def data(self) -> dict[str, Any]:
        """The formation as plain data."""
        form = self._form.values if self._form else {}
        more = {name: part.values for name, part in self._parts if part.values}
        delay = {"delay": self.delay} if self.delay else {}
        return {"kind": self.kind, **form, **more, **delay}
