"""Reading a new layer: what it is, then in any order how it is set, filled and drawn, where it
stands and when it is shown.

    a title “Ada Lovelace”, 60 px, grey, at 300 px across, 200 px down
    a rectangle of 12 px by 300 px, filled white, in the middle
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from functools import cache
from typing import Any

from ...scene.forms.stroke import STROKE, Stroke
from ...scene.shapes import SHAPE_KINDS, Shape
from ...scene.values.measures import DEGREES, LENGTH_PX, WHOLE
from ...stock.shapes import SHAPES
from ..language.rules import Pattern, PatternReader, row
from ..language.terms import (
    COLORS,
    ColorOf,
    Literal,
    NumberOf,
    Reading,
    ReadValues,
    StringOf,
    TimeOf,
)
from ..titles.reader import StyleReader
from .flurry_reader import FlurryReader, flurry_heads
from .formation_reader import FormationReader
from .part_reader import PartKind, PartReader, kind_of_wording
from .place_reader import PlaceReader
from .settings import SwitchReader, setting_patterns
from .shapes import A_PATH, FILLED, GRADIENTS, UNFILLED, with_article

# What is known by its name: scenes of the same person, files that were sent.
NAMED = ("scene", "picture", "video", "sound")


@dataclass(frozen=True)
class Head:
    """Words that say what a layer is, and its kind, or that of its shape."""

    pattern: Pattern
    kind: str
    shape: str = ""


MOST_AT_ONCE = 100  # layers that are made by one sentence


@cache
def _heads() -> tuple[Head, ...]:
    one = _heads_of_one()
    return (*(_several(head) for head in one if head.kind in _SEVERAL), *one)


_THICKEST_LINE = 20  # px, of a new line of which nothing else is said
_SEVERAL = ("shape", "title", "scene", "picture", "video")


@cache
def shape_heads() -> tuple[Head, ...]:
    """How all shapes begin that need no drawing."""
    return tuple(head for head in _heads_of_one() if head.shape)


def form_reader(reading: Reading, head: Head, values: ReadValues) -> PartReader:
    """Reads what more is said of the form of a shape, once its head has said some values."""
    reader = PartReader(reading, _form(head.shape))
    reader.values, reader.done = values, set(values)
    return reader


def _several(head: Head) -> Head:
    """The same of several: "12 rectangles of 20 px by 200 px"."""
    first, *rest = head.pattern.elements
    _, noun, *more = first.words.split() if isinstance(first, Literal) else ("", "")
    many = Literal(" ".join([_PLURALS.get(noun, f"{noun}s"), *more]))
    count = NumberOf("count", WHOLE, example=12, is_plain=True)
    several = Pattern((count, many, *rest), head.pattern.sets, is_rare=True)
    return Head(several, head.kind, head.shape)


_PLURALS = {"leaf": "leaves", "cross": "crosses"}


@cache
def _heads_of_one() -> tuple[Head, ...]:
    found = [Head(row("a title", StringOf("text")), "title")]
    found.append(Head(row("an adjustment"), "adjustment"))
    found += [Head(row(f"the {kind}", StringOf("called")), kind) for kind in NAMED]
    found += [Head(pattern, "flurry") for pattern in flurry_heads()]
    found.append(Head(row(A_PATH, StringOf("path")), "shape", "path"))
    for kind, model in SHAPE_KINDS.items():
        if not model.needed:
            found += [Head(pattern, "shape", kind) for pattern in _beginnings(kind, model)]
    for name, drawn in SHAPES.items():
        pattern = Pattern(row(with_article(name)).elements, (("path", drawn()),))
        found.append(Head(pattern, "shape", "path"))
    return tuple(found)


def _beginnings(kind: str, model: type[Shape]) -> Iterator[Pattern]:
    """How a shape begins: by its name alone, or, as the words between are one phrase with it, with
    its first value: "rectangle of 12 px by 300 px", "line of 4 px"."""
    title = with_article(model.wording.title)
    of = next((each for each in _form(kind).parts if each.elements[0] == Literal("of")), None)
    if of is not None:
        yield Pattern((Literal(f"{title} of"), *of.elements[1:]))
    elif model.is_line:
        yield row(f"{title} of", NumberOf("width", LENGTH_PX))
    yield row(title)


@cache
def _form(shape: str) -> PartKind:
    return kind_of_wording("shape", SHAPE_KINDS[shape], SHAPE_KINDS[shape].wording)


@cache
def _line() -> PartKind:
    return kind_of_wording("stroke", Stroke, STROKE)


@cache
def _fills() -> tuple[Pattern, ...]:
    """What may be said of the fill of a shape."""
    color, stop = ColorOf("color"), ColorOf("stop")
    found = [
        row(FILLED, ColorOf("fill")), row(color), row("from", stop), row("to", stop),
        Pattern(row(UNFILLED).elements, (("fill", "none"),)),
        row("turned", NumberOf("angle", DEGREES, is_plain=True)),
    ]  # fmt: skip
    found += [Pattern(row(words).elements, (("fill", kind),)) for kind, words in GRADIENTS]
    return tuple(sorted(found, key=lambda pattern: -len(pattern.elements)))


@cache
def _spans() -> tuple[Pattern, ...]:
    """When it is shown."""
    first, end = TimeOf("span.0"), TimeOf("span.1")
    both = row("shown", "from", first, "to", end)
    return (both, row("shown", "from", first), row("shown", "to", end))


def layer_phrases() -> Iterator[str]:
    """All words that layers are known by."""
    patterns = [head.pattern for head in _heads_of_one()]
    patterns += [*_fills(), *_spans()]
    shapes = [kind for kind, model in SHAPE_KINDS.items() if not model.needed]
    for kind in (*map(_form, shapes), _line()):
        patterns += [*kind.heads, *kind.parts]
    for pattern in patterns:
        yield from pattern.phrases()


def quiet_phrases() -> Iterator[str]:
    """The words for several layers at once, and of settings, which are understood, but not
    suggested."""
    for pattern in (*(head.pattern for head in _heads()), *setting_patterns()):
        yield from pattern.phrases()


class _SpanReader(PatternReader):
    """Reads when a layer is shown."""

    @property
    def patterns(self) -> tuple[Pattern, ...]:
        return _spans()


class _FillReader(PatternReader):
    """Reads how a shape is filled; `colors` are those of a gradient, or one that stands alone."""

    def __init__(self, reading: Reading):
        super().__init__(reading)
        self.colors: list[str] = []

    @property
    def patterns(self) -> tuple[Pattern, ...]:
        return _fills()

    def open_parts(self) -> list[Pattern]:
        is_gradient = self.values.get("fill") in [kind for kind, _ in GRADIENTS]
        closed = set() if is_gradient else {"stop"}
        if not self.is_in_gradient:
            closed.add("angle")
        if "fill" in self.values or self.colors:
            closed |= set() if is_gradient else {"color"}
        return [each for each in super().open_parts() if not each.names() & closed]

    def keep(self, pattern: Pattern, values: ReadValues) -> None:
        self.colors += [values.pop(name) for name in ("color", "stop") if name in values]
        super().keep(pattern, values)

    @property
    def is_in_gradient(self) -> bool:
        """Whether a gradient is being told, of which the turn was not."""
        return self.values.get("fill") == "linear" and "angle" not in self.values


@dataclass
class LayerReader:
    """Reads the atoms of a new layer."""

    reading: Reading
    head: Head | None = None
    said: ReadValues = field(default_factory=dict)
    count: int = 1
    places: dict[str, tuple[int, int]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        reading = self.reading
        self._place, self._style = PlaceReader(reading), StyleReader(reading)
        self._span, self._fill = _SpanReader(reading), _FillReader(reading)
        self._switches = SwitchReader(reading, self.head.kind if self.head else "")
        self._stroke, self._form = PartReader(reading, _line()), PartReader(reading, _line())
        self._formation = FormationReader(reading)
        self._flurry = FlurryReader(reading)

    @property
    def is_known(self) -> bool:
        """Whether it says what it is."""
        return self.head is not None

    @property
    def tells_a_form(self) -> bool:
        """Whether it is a shape of which more is told than what it is called."""
        return self.head is not None and bool(self.head.shape) and bool(self._form.values)

    def step(self) -> bool:
        """Reads what comes next; False if it is not understood."""
        if self.head is None:
            return self._begins()
        readers = self._readers()
        if self._goes_on():
            readers.insert(0, self._last)
        for reader in readers:
            if self._may_read(reader) and reader.step():
                self._last = reader
                return True
        return False

    _last: Any = None

    def _may_read(self, reader: Any) -> bool:
        """A colour is not that of a line of which nothing else was said."""
        atom = self.reading.atom()
        is_color = atom is not None and (atom.kind == "color" or " ".join(atom.phrase) in COLORS)
        return not is_color or reader is not self._stroke or bool(self._stroke.values)

    def _goes_on(self) -> bool:
        """Whether what was read last is told further: "turned" behind the colours of a gradient is
        that of the gradient, a colour behind a line that of the line."""
        if self._last is self._stroke:
            return "color" not in self._stroke.done
        return self._last in (self._fill, self._style) and self._last.is_in_gradient

    def _begins(self) -> bool:
        for head in _heads():
            values = head.pattern.match(self.reading)
            if values is not None:
                self.head = head
                self._switches = SwitchReader(self.reading, head.kind)
                if head.kind != "flurry":
                    self.count = values.pop("count", 1)
                if head.shape:
                    self._form = PartReader(self.reading, _form(head.shape))
                    into = self._stroke if "width" in values else self._form
                    into.values, into.done = values, set(values)
                elif head.kind == "flurry":
                    self._flurry.said = values
                else:
                    self.said = values
                return True
        return False

    def _readers(self) -> list[Any]:
        """What goes on for a kind, in the order in which it is tried."""
        kind, usual = self.head.kind if self.head else "", [self._span, self._switches]
        if kind == "shape":
            own = [self._form, self._formation, self._place]
            return [*own, *usual, self._fill, self._stroke]
        if kind in ("sound", "clicks", "adjustment"):
            return usual
        if kind == "flurry":
            return [self._flurry, self._formation, self._place, *usual]
        placed = [self._formation, self._place, *usual]
        return [*placed, self._style] if kind == "title" else placed

    def open_parts(self) -> list[Pattern]:
        """What may still be said."""
        if self.head is None:
            return [head.pattern for head in _heads()]
        return [pattern for reader in self._readers() for pattern in reader.open_parts()]

    def data(self) -> dict[str, Any]:
        """The layer as plain data, but what is not said; numbers of its place and time stand by
        their paths."""
        kind = self.head.kind if self.head else ""
        data: dict[str, Any] = {"kind": kind, **self.said}
        if make := _MADE.get(kind):
            data |= make(self)
        if self.count != 1:
            data["count"] = self.count
        if self._formation.is_known:
            data["formation"] = self._formation.data()
        if self._place.values:
            data["transform"] = self._place.data()
        return data | self._span.values | self._switches.values

    def shape_data(self) -> dict[str, Any]:
        """What is said of a shape, its fill and its line."""
        shape = self.head.shape if self.head else ""
        data: dict[str, Any] = {"shape": {"kind": shape, **self._form.values}}
        fill, colors = dict(self._fill.values), self._fill.colors
        kind, angle = fill.get("fill"), fill.get("angle")
        stroke = dict(self._stroke.values)
        if shape == "line" and stroke.get("width", 0) > _THICKEST_LINE and not self._form.values:
            half = stroke.pop("width") / 2  # "a line of 60 px" is as long as that
            data["shape"] |= {"from": [-half, 0], "to": [half, 0]}
        if kind in [each for each, _ in GRADIENTS]:
            turned = {"angle": angle} if angle is not None and kind == "linear" else {}
            data["fill"] = {"kind": kind, "colors": colors, **turned}
        elif colors and not kind and SHAPE_KINDS[shape].is_line:
            stroke.setdefault("color", colors[-1])
        elif colors or kind:
            data["fill"] = colors[-1] if colors else kind
        return data | ({"stroke": stroke} if stroke else {})

    def flurry_data(self) -> dict[str, Any]:
        """What is said of a flurry."""
        return {"flurry": self._flurry.data()}

    def title_data(self) -> dict[str, Any]:
        """How a title is set."""
        return {"style": self._style.data()} if self._style.is_known else {}


class SettingReader(LayerReader):
    """Reads how a layer that is there is set, filled and drawn, where it stands, and when it is
    shown, in one sentence."""

    def __init__(self, reading: Reading, kind: str, shape: str = ""):
        super().__init__(reading, Head(Pattern(()), kind, shape))
        if shape:
            self._form = PartReader(reading, _form(shape))
            self._form.is_known = True

    @property
    def is_known(self) -> bool:
        """Whether anything is said that can be nothing else: a move, too, may be turned."""
        readers = (
            self._span, self._switches, self._form, self._fill, self._stroke, self._formation,
            self._flurry,
        )  # fmt: skip
        is_dressed = any(reader.values for reader in readers) or bool(self._fill.colors)
        return is_dressed or self._style.is_known or self._place.is_known

    def data(self) -> dict[str, Any]:
        """What is said, as plain data; numbers of place and time by their paths."""
        data = super().data()
        del data["kind"]
        shape, flurry = data.pop("shape", {}), data.pop("flurry", {})
        data |= {f"flurry.{name}": value for name, value in flurry.items()}
        return data | {f"shape.{name}": shape[name] for name in shape if name != "kind"}


_MADE: dict[str, Callable[[LayerReader], dict[str, Any]]] = {
    "shape": LayerReader.shape_data,
    "title": LayerReader.title_data,
    "flurry": LayerReader.flurry_data,
}
