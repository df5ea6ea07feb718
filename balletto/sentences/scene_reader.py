"""Reading what is said of a scene as a whole: its size, rate, length and background."""

from dataclasses import dataclass, field
from functools import cache
from typing import Any

from ..scene.measures import LENGTH, PIXELS, PLAIN
from .atoms import Atom
from .elements import ColorOf, Element, Literal, NumberOf, Reading, Values
from .numbers import number_in
from .patterns import Pattern, row


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
class _LengthOf(Element):
    """How long it is, as it was typed: seconds are counted once the rate is known."""

    name: str

    def take(self, reading: Reading, into: Values) -> bool:
        atom = reading.atom()
        if atom is None or not atom.is_plain:
            return False
        number_in(atom.raw, LENGTH, reading.rate)
        into[self.name] = atom
        reading.at += 1
        return True

    def told(self) -> list[str]:
        return ["120 frames"]


@dataclass(frozen=True)
class _FramesOf(Element):
    """A number of frames, of those in a second."""

    name: str

    def take(self, reading: Reading, into: Values) -> bool:
        atom = reading.atom()
        if atom is None or not atom.is_plain:
            return False
        raw = atom.raw.lower().removesuffix("frames").removesuffix("frame").strip()
        into[self.name] = number_in(raw, PLAIN, reading.rate)
        reading.at += 1
        return True

    def told(self) -> list[str]:
        return ["30 frames a"]


@cache
def scene_patterns() -> tuple[Pattern, ...]:
    """What may be said of a scene."""
    size, length = SizeOf("size"), _LengthOf("length")
    rate, frames = NumberOf("rate", PLAIN, example=30, is_plain=True), _FramesOf("rate")
    ground = ColorOf("background")
    found = [
        row("picture of", size), row(size), row("at", frames, "second"), row(frames, "second"),
        row(rate, "fps"), row("at", rate, "fps"), row(length, "long"), row(length),
        row("seen", "from", NumberOf("distance", PIXELS, example=2000, is_plain=True), "before it"),
        row("on", ground), row("on nothing"),
    ]  # fmt: skip
    found[-1] = Pattern(found[-1].elements, (("background", None),))
    return tuple(sorted(found, key=lambda pattern: -len(pattern.elements)))


@dataclass
class SceneReader:
    """Reads the atoms of a scene's own sentence."""

    reading: Reading
    values: Values = field(default_factory=dict)
    places: dict[str, tuple[int, int]] = field(default_factory=dict)

    @property
    def is_known(self) -> bool:
        """Whether it can be nothing else: a number of frames alone may be anything."""
        return bool(set(self.values) - {"length"}) or self._is_long

    _is_long: bool = False

    def step(self) -> bool:
        """Reads what comes next; False if it is not understood."""
        start = self.reading.at
        for pattern in scene_patterns():
            if pattern.names() & set(self.values):
                continue
            values = pattern.match(self.reading)
            if values is not None:
                atoms = self.reading.atoms[start : self.reading.at]
                self.places |= dict.fromkeys(values, (atoms[0].start, atoms[-1].end))
                self._is_long |= pattern.elements[-1] == Literal("long")
                self.values |= values
                return True
        return False

    def open_parts(self) -> list[Pattern]:
        """What may still be said."""
        return [each for each in scene_patterns() if not each.names() & set(self.values)]

    def data(self) -> dict[str, Any]:
        """What is said, as plain data of a scene."""
        data = dict(self.values)
        if "rate" in data:
            data["rate"] = f"{data['rate']:.10g}"
        if isinstance(data.get("length"), Atom):
            rate = float(data.get("rate", self.reading.rate))
            data["length"] = round(number_in(data["length"].raw, LENGTH, rate))
        if "distance" in data:
            data["camera"] = {"distance": data.pop("distance")}
        if "background" in data:
            color = data["background"]
            ground = {"kind": "color", "color": color} if color else {"kind": "none"}
            data["background"] = ground
        return data
