"""Reading how a title, or some of its letters, are set."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cache
from typing import Any

from ...scene.letters.characters import place_in
from ...scene.letters.features import FEATURE, FEATURES, SET, tag_of_set
from ...scene.letters.languages import LANGUAGES
from ...scene.values import measures
from ...scene.values.value_names import AXES
from ..language.rules import Pattern, row
from ..language.terms import (
    ColorOf,
    Literal,
    NameOf,
    NumberOf,
    Option,
    Reading,
    ReadValues,
    StringOf,
)
from . import wording as styles

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

    @property
    def is_in_gradient(self) -> bool:
        """Whether a gradient is being told, of which the turn was not."""
        fill = self.style.get("fill")
        return isinstance(fill, dict) and fill.get("kind") == "linear" and "angle" not in fill

    def step(self) -> bool:
        """Reads what comes next; False if it is not understood."""
        start = self.reading.at
        for clause in style_clauses():
            if not self._is_open(clause.name):
                continue
            values = clause.pattern.match(self.reading)
            if values is None:
                continue
            self._set(clause.name, values)
            self.done.add(clause.name)
            atoms = self.reading.atoms[start : self.reading.at]
            self.places[clause.name] = (atoms[0].start, atoms[-1].end)
            return True
        return False

    def open_parts(self) -> list[Pattern]:
        """What may still be said."""
        return [each.pattern for each in style_clauses() if self._is_open(each.name)]

    def _is_open(self, name: str) -> bool:
        """Whether a thing may be said now: each once, but axes, and the colours of a gradient."""
        fill = self.style.get("fill")
        if name in _OF_GRADIENTS and not isinstance(fill, dict):
            return False
        if name == "color":
            return fill is None or isinstance(fill, dict)
        return name not in self.done or name in ("axes", "stop", *_FEATURES)

    def _set(self, name: str, values: ReadValues) -> None:
        if name == "axes":
            self.style.setdefault("axes", {})[values["tag"]] = values["value"]
        elif name in _FEATURES:
            tag = tag_of_set(values["set"]) if "set" in values else values["tag"]
            self.style.setdefault("features", {})[tag] = _FEATURES[name]
        elif name in ("color", "stop"):
            fill = self.style.get("fill")
            self.style["fill"] = {
                **fill, "colors": [*fill.get("colors", []), values["color"]]
            } if isinstance(fill, dict) else values["color"]  # fmt: skip
        elif name in _OF_GRADIENTS:
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


# The clauses of features, and whether these are on then. That they are "with" something needs no
# word: "and" and "with" mean nothing by themselves.
_FEATURES = {"feature": True, "without": False}
_OF_GRADIENTS = ("angle", "over", "stop")


@dataclass
class RunReader(StyleReader):
    """Reads the style of some letters of a title, which are told first: "“Moons”, red"."""

    text: str | None = None
    letters: tuple[int, int] | None = None

    @property
    def is_known(self) -> bool:
        """Whether letters are told, and anything of their style."""
        return self.letters is not None and bool(self.style)

    def step(self) -> bool:
        """Reads what comes next; False if it is not understood."""
        return self._which() if self.letters is None else super().step()

    def _which(self) -> bool:
        for pattern in run_heads():
            values = pattern.match(self.reading)
            if values is not None:
                self.letters = self._range(values)
                return self.letters is not None
        return False

    def _range(self, values: ReadValues) -> tuple[int, int] | None:
        if "words" not in values:
            return values["first"] - 1, values["last"]
        found = place_in(self.text, values["words"])
        if found is None:
            self.reading.at -= 1
            self.reading.refuse("there are no such letters in the title")
            self.reading.expect(StringOf("words"))
        return found

    def open_parts(self) -> list[Pattern]:
        """What may still be said."""
        return list(run_heads()) if self.letters is None else super().open_parts()

    def data(self) -> dict[str, Any]:
        """The run as plain data."""
        first, end = self.letters or (0, 0)
        return {"from": first, "to": end, "style": self.style}


@dataclass(frozen=True)
class _LanguageOf(StringOf):
    """A language by its name, or its tag, within marks: no words are kept for all of them."""

    def take(self, reading: Reading, into: ReadValues) -> bool:
        if not super().take(reading, into):
            return False
        called = into[self.name].strip().casefold()
        tags = {name.casefold(): tag for tag, name in LANGUAGES.items()}
        into[self.name] = tags.get(called, into[self.name].strip())
        return True

    def told(self) -> list[str]:
        return ["“Turkish”"]


@cache
def run_heads() -> tuple[Pattern, ...]:
    """How some letters are told."""
    whole = [NumberOf(name, measures.WHOLE, is_plain=True) for name in ("first", "last")]
    words = StringOf("words")
    return (
        row("of", "character", whole[0], "to", whole[1]),
        row("character", whole[0], "to", whole[1]),
        row("of", words),
        row(words),
    )


@cache
def style_clauses() -> tuple[_Clause, ...]:
    """What may be said of a style, the longest first."""
    number = NumberOf
    outline = NumberOf("outline", styles.OUTLINE_WIDTH)
    features: list[tuple[Any, ...]] = [
        (Option("tag", tuple(FEATURES.items())),),
        (SET, NumberOf("set", measures.WHOLE, is_plain=True)),
        (FEATURE, StringOf("tag")),
    ]
    of = [
        ("font", ("Set in", NameOf("font", styles.FONTS))),
        ("font", (Option("font", styles.FONTS),)),
        *(("without", (styles.WITHOUT, *feature)) for feature in features),
        *(("feature", feature) for feature in features),
        ("language", ("written in", _LanguageOf("language"))),
        ("size", (number("size", styles.SIZE), "large")),
        ("size", ("size", number("size", styles.SIZE))),
        ("size", (number("size", styles.SIZE),)),
        ("tracking", ("spaced", number("tracking", styles.TRACKING))),
        ("leading", ("line", number("leading", styles.LEADING), "apart")),
        ("align", (Option("align", _ALIGNED),)),
        ("widest", ("not wider than", number("widest", styles.SIZE))),
        ("least_size", ("at", "least", number("least_size", styles.SIZE), "large")),
        ("least_size", ("at", "least", number("least_size", styles.SIZE))),
        ("most_lines", ("at", "most", number("most_lines", styles.LINES), "line")),
        ("wrap", ("broken", "at", number("wrap", styles.SIZE), "wide")),
        ("wrap", ("broken", "at", number("wrap", styles.SIZE))),
        ("outline", ("outline", outline, ColorOf("outline_color"))),
        ("outline", ("outline", outline)),
        ("outline_color", ("outline", ColorOf("outline_color"))),
        ("fill", (Option("fill", styles.FILLS),)),
        ("stop", ("from", ColorOf("color"))),
        ("stop", ("to", ColorOf("color"))),
        ("color", (ColorOf("color"),)),
        ("over", ("over", Option("over", styles.OVERS))),
        ("angle", ("turned", number("angle", measures.DEGREES))),
    ]
    clauses = [_Clause(name, row(*parts)) for name, parts in of]
    clauses += [
        _Clause("axes", Pattern((Literal(called), number("value", measures.PLAIN)),
                                (("tag", tag),)))
        for tag, called in AXES.items()
    ]  # fmt: skip
    tagged = (StringOf("tag"), number("value", measures.PLAIN))
    clauses.append(_Clause("axes", Pattern(tagged, is_rare=True)))
    clauses += [
        _Clause("axes", Pattern((Literal(words),), (("tag", "wght"), ("value", value))))
        for value, words in _WEIGHTS
    ]
    clauses += [
        _Clause("axes", Pattern((Literal(words),), (("tag", "ital"), ("value", value))))
        for value, words in styles.ITALICS
    ]
    return tuple(sorted(clauses, key=lambda clause: -len(clause.pattern.elements)))


def style_phrases() -> Iterator[str]:
    """All words that styles are known by."""
    for clause in style_clauses():
        yield from clause.pattern.phrases()
