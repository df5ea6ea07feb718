"""Reading how a title is set, and where a layer stands."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cache
from typing import Any

from ..lettering.faces import axes_of
from ..lettering.families import FAMILIES
from ..scene import measures
from ..scene.value_names import AXES, axis_name
from . import styles
from .elements import ColorOf, Element, Literal, NumberOf, Option, Reading, StringOf, Values
from .patterns import Pattern, elements_of, row

_WEIGHTS = (
    (100, "thin"), (200, "extra light"), (300, "light"), (400, "regular"), (500, "medium"),
    (600, "semibold"), (700, "bold"), (800, "extra bold"), (900, "black weight"),
)  # fmt: skip
_ALIGNED = (
    *styles.ALIGNMENTS, ("left", "left aligned"), ("right", "right aligned"),
    ("center", "centre aligned"),
)  # fmt: skip


@dataclass(frozen=True)
class _Clause:
    """A pattern of a style; `name` is what it says."""

    name: str
    pattern: Pattern


@dataclass
class StyleReader:
    """Reads the atoms of a style."""

    reading: Reading
    style: dict[str, Any] = field(default_factory=dict)
    done: set[str] = field(default_factory=set)
    places: dict[str, tuple[int, int]] = field(default_factory=dict)

    @property
    def is_known(self) -> bool:
        """Whether it says anything."""
        return bool(self.style)

    def step(self) -> bool:
        """Reads what comes next; False if it is not understood."""
        start = self.reading.at
        for clause in style_clauses():
            values = clause.pattern.match(self.reading)
            if values is None or (clause.name in self.done and clause.name not in _AGAIN):
                self.reading.at = start
                continue
            self._set(clause.name, values)
            self.done.add(clause.name)
            atoms = self.reading.atoms[start : self.reading.at]
            self.places[clause.name] = (atoms[0].start, atoms[-1].end)
            return True
        return False

    def open_parts(self) -> list[Pattern]:
        """What may still be said."""
        return [clause.pattern for clause in style_clauses() if clause.name not in self.done]

    def _set(self, name: str, values: Values) -> None:
        if name == "axes":
            self.style.setdefault("axes", {})[values["tag"]] = values["value"]
        elif name == "color":
            fill = self.style.get("fill")
            self.style["fill"] = {
                **fill, "colors": [*fill.get("colors", []), values["color"]]
            } if isinstance(fill, dict) else values["color"]  # fmt: skip
        elif name in ("angle", "over"):
            if isinstance(self.style.get("fill"), dict):
                self.style["fill"][name] = values[name]
        elif name == "fill":
            kind = values["fill"]
            if kind != "color":
                self.style["fill"] = "none" if kind == "none" else {"kind": kind}
        else:
            self.style.update(values)

    def data(self) -> dict[str, Any]:
        """The style as plain data."""
        return self.style


_AGAIN = ("axes", "color")


@cache
def style_clauses() -> tuple[_Clause, ...]:
    """What may be said of a style, the longest first."""
    number = NumberOf
    outline = NumberOf("outline", styles.OUTLINE_WIDTH)
    of = [
        ("font", ("Set in", Option("font", styles.FONTS))),
        ("font", (Option("font", styles.FONTS),)),
        ("size", (number("size", styles.SIZE), "large")),
        ("size", ("size", number("size", styles.SIZE))),
        ("size", (number("size", styles.SIZE),)),
        ("tracking", ("spaced", number("tracking", styles.TRACKING))),
        ("leading", ("line", number("leading", styles.LEADING), "apart")),
        ("align", (Option("align", _ALIGNED),)),
        ("wrap", ("broken", "at", number("wrap", styles.SIZE), "wide")),
        ("wrap", ("broken", "at", number("wrap", styles.SIZE))),
        ("outline", ("outline", outline, ColorOf("outline_color"))),
        ("outline", ("outline", outline)),
        ("fill", (Option("fill", styles.FILLS),)),
        ("color", ("from", ColorOf("color"))),
        ("color", ("to", ColorOf("color"))),
        ("color", (ColorOf("color"),)),
        ("over", ("over", Option("over", styles.OVERS))),
        ("angle", ("turned", number("angle", measures.DEGREES))),
    ]
    clauses = [_Clause(name, row(*parts)) for name, parts in of]
    clauses += [
        _Clause("axes", Pattern((Literal(called), number("value", measures.PLAIN)),
                                (("tag", tag),)))
        for tag, called in _axes()
    ]  # fmt: skip
    clauses.append(_Clause("axes", row(StringOf("tag"), number("value", measures.PLAIN))))
    clauses += [
        _Clause("axes", Pattern((Literal(words),), (("tag", "wght"), ("value", value))))
        for value, words in _WEIGHTS
    ]
    return tuple(sorted(clauses, key=lambda clause: -len(clause.pattern.elements)))


def _axes() -> list[tuple[str, str]]:
    """The axes of all families: tag, and what it is called."""
    found = {
        axis.tag: axis_name(axis.tag, axis.name) for name in FAMILIES for axis in axes_of(name)
    }
    return list({**AXES, **found}.items())


def style_phrases() -> Iterator[str]:
    """All words that styles are known by."""
    for clause in style_clauses():
        yield from clause.pattern.phrases()


_PLACE = "Stands {x} across, {y} down and {z}, turned {turn}, {width} wide and {height} high"


@cache
def place_patterns() -> tuple[Pattern, ...]:
    """What may be said of a place."""
    values: dict[str, Element] = {
        "x": NumberOf("position.0", measures.PIXELS), "y": NumberOf("position.1", measures.PIXELS),
        "z": NumberOf("position.2", measures.NEARER_DEEPER, needs_direction=True),
        "turn": NumberOf("rotation.2", measures.DEGREES),
        "width": NumberOf("scale.0", measures.PERCENT_OF_ONE),
        "height": NumberOf("scale.1", measures.PERCENT_OF_ONE),
        "tip": NumberOf("rotation.0", measures.DEGREES),
        "swing": NumberOf("rotation.1", measures.DEGREES),
        "opacity": NumberOf("opacity", measures.OPACITY),
    }  # fmt: skip
    texts = [
        "Stands {x} across", "Stands at {x} across", "{x} across", "{y} down", "{z}",
        "turned {turn}", "{width} wide", "{height} high", "tipped {tip}", "swung {swing}",
        "{opacity} opaque", "in depth tipped {tip}",
    ]  # fmt: skip
    found = [Pattern(tuple(elements_of(text, values))) for text in texts]
    return tuple(sorted(found, key=lambda pattern: -len(pattern.elements)))


@dataclass
class PlaceReader:
    """Reads where a layer stands: numbers alone, as keyframes are set where it is drawn."""

    reading: Reading
    values: dict[str, Any] = field(default_factory=dict)
    places: dict[str, tuple[int, int]] = field(default_factory=dict)

    @property
    def is_known(self) -> bool:
        """Whether it can be nothing else: a move, too, may be turned and opaque."""
        return any(name.startswith(("position", "scale")) for name in self.values)

    def step(self) -> bool:
        """Reads what comes next; False if it is not understood."""
        for pattern in place_patterns():
            values = pattern.match(self.reading)
            if values is not None:
                self.values |= values
                return True
        return False

    def open_parts(self) -> list[Pattern]:
        """What may still be said."""
        return [each for each in place_patterns() if not each.names() & set(self.values)]

    def data(self) -> dict[str, Any]:
        """The numbers that are said, by their paths below `transform`."""
        return self.values
