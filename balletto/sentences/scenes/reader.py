"""Reading what is said of a scene as a whole: its size, rate, length and background."""

from dataclasses import dataclass
from functools import cache
from typing import Any

from ...scene.values.measures import LENGTH, PIXELS, PLAIN
from ..language.numbers import number_in
from ..language.rules import Pattern, PatternReader, row
from ..language.terms import ColorOf, Element, Literal, NumberOf, Reading, Values


@dataclass(frozen=True)
class SizeOf(Element):
    """Two sides in px: "800 by 450", "1920 x 1080 px"."""

    name: str

    def take(self, reading: Reading, into: Values) -> bool:
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
class _Typed(Element):
    """A number alone, kept as it is typed: what it counts is known once all is read, as seconds are
    counted by the rate."""

    name: str
    example: str

    def take(self, reading: Reading, into: Values) -> bool:
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
    ground = ColorOf("background")
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

    def keep(self, pattern: Pattern, values: Values) -> None:
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
            color = data["background"]
            ground = {"kind": "color", "color": color} if color else {"kind": "none"}
            data["background"] = ground
        return data
