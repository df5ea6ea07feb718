"""Reading what is said of a scene as a whole: its size, rate, length and background."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from typing import Any

from ...scene.values.measures import DEGREES, LENGTH, PIXELS, PLAIN
from ..language.numbers import number_in
from ..language.rules import Pattern, PatternReader, row
from ..language.terms import (
    COLORS,
    ColorOf,
    Element,
    Literal,
    NumberOf,
    Reading,
    ReadValues,
    StringOf,
)
from ..layers.media import AFTERS, SPEED
from .ground import FILLS


@dataclass(frozen=True)
class SizeOf(Element):
    """Two sides in px: "800 by 450", "1920 x 1080 px"."""

    name: str

    def take(self, reading: Reading, into: ReadValues) -> bool:
        first, between = reading.atom(), reading.atom(1)
        if first is None or not first.is_plain or between is None:
            return False
        is_crossed = first.raw.rstrip().endswith("×")
        second = between if is_crossed else reading.atom(2)
        if not is_crossed and between.phrase not in (("by",), ("x",)):
            return False
        if second is None or not second.is_plain:
            return False
        raw = first.raw.rstrip().removesuffix("×")
        into[self.name] = [number_in(each, PIXELS, reading.rate) for each in (raw, second.raw)]
        reading.at += 2 if is_crossed else 3
        return True

    def told(self) -> list[str]:
        return ["1920 by 1080 px"]


@dataclass(frozen=True)
class GroundOf(Element):
    """What a scene lies on: a colour, a gradient of colours, a picture or a video by its name."""

    name: str

    def take(self, reading: Reading, into: ReadValues) -> bool:
        start = reading.at
        found = self._colored(reading) or self._gradient(reading) or self._file(reading)
        if found is None:
            reading.at = start
            return False
        into[self.name] = found
        return True

    def _colored(self, reading: Reading) -> ReadValues | None:
        color: ReadValues = {}
        plain = ColorOf("color").take(reading, color) and isinstance(color["color"], str)
        return {"kind": "color", **color} if plain else None

    def _gradient(self, reading: Reading) -> ReadValues | None:
        if not Literal("gradient").take(reading, {}):
            return None
        Literal("from").take(reading, {})
        colors: list[str] = []
        stop: ReadValues = {}
        while ColorOf("stop").take(reading, stop):
            colors.append(stop["stop"])
            Literal("to").take(reading, {})
        if Literal("round").take(reading, {}):
            return {"kind": "gradient", "fill": {"kind": "round", "colors": colors}}
        angle: ReadValues = {"angle": 90}
        if Literal("along").take(reading, {}) or Literal("turned").take(reading, {}):
            NumberOf("angle", DEGREES, is_plain=True).take(reading, angle)
        return {"kind": "gradient", "fill": {"kind": "linear", **angle, "colors": colors}}

    def _file(self, reading: Reading) -> ReadValues | None:
        for words, kind in (("picture", "still"), ("video", "clip")):
            file: ReadValues = {}
            if Literal(words).take(reading, {}) and StringOf("file").take(reading, file):
                return {"kind": kind, **file, **_shown(reading, kind)}
        return None

    def told(self) -> list[str]:
        return ["#F2B705", *COLORS, "a gradient from #101428 to #3A2150"]


def _shown(reading: Reading, kind: str) -> ReadValues:
    """How a file fills the picture; how fast a video plays, and what comes at its end."""
    found: ReadValues = {}
    patterns = _shown_patterns(kind)
    while values := next(filter(None, (pattern.match(reading) for pattern in patterns)), None):
        found |= values
    return found


@cache
def _shown_patterns(kind: str) -> tuple[Pattern, ...]:
    """What may be said of a file that a scene lies on."""
    fills = (Pattern((Literal(words),), (("fill", fill),)) for fill, words in FILLS)
    if kind == "still":
        return tuple(fills)
    ends = (Pattern((Literal("at"), Literal("its end"), Literal(words)), (("after", after),))
            for after, words in AFTERS)  # fmt: skip
    speed = Pattern((Literal("at"), NumberOf("speed", SPEED, is_plain=True)))
    return (*fills, *ends, speed)


def ground_phrases() -> Iterator[str]:
    """The words that grounds are known by."""
    yield from ("gradient", "round", "along", "turned", "picture", "video", "from", "to")
    yield from ("at", "its end", *(words for _, words in (*FILLS, *AFTERS)))


@dataclass(frozen=True)
class _Typed(Element):
    """A number alone, kept as it is typed: what it counts is known once all is read, as seconds are
    counted by the rate."""

    name: str
    example: str

    def take(self, reading: Reading, into: ReadValues) -> bool:
        atom = reading.atom()
        if atom is None or not atom.is_plain:
            return False
        number_in(atom.raw, LENGTH, reading.rate)
        into[self.name] = atom.raw
        reading.at += 1
        return True

    def told(self) -> list[str]:
        return [self.example]


@cache
def scene_patterns() -> tuple[Pattern, ...]:
    """What may be said of a scene."""
    size, length = SizeOf("size"), _Typed("length", "120 frames")
    rate, frames = _Typed("rate", "30"), _Typed("rate", "30 frames a")
    ground = GroundOf("background")
    found = [
        row("picture of", size), row(size), row("at", frames, "second"), row(frames, "second"),
        row(rate, "fps"), row("at", rate, "fps"), row(length, "long"), row(length),
        row("seen", "from", NumberOf("distance", PIXELS, example=2000, is_plain=True), "before it"),
        row("on", ground), row("on nothing"),
    ]  # fmt: skip
    found[-1] = Pattern(found[-1].elements, (("background", None),))
    return tuple(sorted(found, key=lambda pattern: -len(pattern.elements)))


class SceneReader(PatternReader):
    """Reads the atoms of a scene's own sentence."""

    @property
    def is_known(self) -> bool:
        """Whether it can be nothing else: a number of frames alone may be anything."""
        return bool(set(self.values) - {"length"}) or self._is_long

    _is_long = False

    @property
    def patterns(self) -> tuple[Pattern, ...]:
        return scene_patterns()

    def keep(self, pattern: Pattern, values: ReadValues) -> None:
        self._is_long |= pattern.elements[-1] == Literal("long")
        super().keep(pattern, values)

    def data(self) -> dict[str, Any]:
        """What is said, as plain data of a scene."""
        data = dict(self.values)
        rate = self.reading.rate
        if "rate" in data:
            rate = number_in(data["rate"].lower().partition("frame")[0], PLAIN, rate)
            data["rate"] = f"{rate:.10g}"
        if "length" in data:
            data["length"] = round(number_in(data["length"], LENGTH, rate))
        if "distance" in data:
            data["camera"] = {"distance": data.pop("distance")}
        if "background" in data:
            data["background"] = data["background"] or {"kind": "none"}
        return data
