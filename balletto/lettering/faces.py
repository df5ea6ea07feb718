"""Faces: a family at certain axis values, ready to shape text and to give outlines.

Font files are opened once and kept; a face is kept per set of axis values. All measures here are
in font units, y up, as HarfBuzz gives them; layout scales them to pixels.
"""

import io
from dataclasses import dataclass, field
from functools import lru_cache
from pathlib import Path

import uharfbuzz as hb
from fontTools.ttLib import woff2

from ..scene.document import Scene
from ..scene.errors import Fault
from .families import FAMILIES, Family

# An outline: ("move" | "line" | "curve" | "close", coordinates), quadratic curves as "quad".
Command = tuple[str, tuple[float, ...]]
# The box that an outline just fits into: left, bottom, right, top.
Extents = tuple[float, float, float, float]


class UnknownFont(ValueError):
    """No family of that name is shipped."""

    def __init__(self, name: str):
        super().__init__(f"there is no font {name!r}; the fonts are: {', '.join(FAMILIES)}")


@dataclass(frozen=True)
class Axis:
    """A design axis of a variable font: tag, name, and its range."""

    tag: str
    name: str
    low: float
    default: float
    high: float


@dataclass(frozen=True)
class _File:
    face: hb.Face
    covered: frozenset[int]
    axes: tuple[Axis, ...]


@lru_cache(maxsize=64)
def _open(path: Path) -> _File:
    plain = io.BytesIO()
    with path.open("rb") as compressed:
        woff2.decompress(compressed, plain)
    face = hb.Face(plain.getvalue())
    axes = tuple(
        Axis(axis.tag, face.get_name(axis.name_id) or axis.tag, *_range(axis))
        for axis in face.axis_infos
    )
    return _File(face, frozenset(face.unicodes), axes)


def _range(axis: hb.OTVarAxisInfo) -> tuple[float, float, float]:
    return axis.min_value, axis.default_value, axis.max_value


@dataclass(frozen=True)
class Part:
    """One file of a face at its axis values."""

    font: hb.Font
    covered: frozenset[int]
    _outlines: dict[int, tuple[Command, ...]] = field(default_factory=dict)

    def outline(self, glyph: int) -> tuple[Command, ...]:
        """The outline of a glyph, in font units, y up; empty for a blank one."""
        if glyph not in self._outlines:
            commands: list[Command] = []
            self.font.draw_glyph(glyph, _DRAW, commands)
            self._outlines[glyph] = tuple(commands)
        return self._outlines[glyph]

    def extents(self, glyph: int) -> Extents:
        """The extents of a glyph, in font units, y up."""
        found = self.font.get_glyph_extents(glyph)
        if found is None:
            return 0.0, 0.0, 0.0, 0.0
        right, bottom = found.x_bearing + found.width, found.y_bearing + found.height
        return found.x_bearing, bottom, right, found.y_bearing


def _draw_functions() -> hb.DrawFuncs:
    draw = hb.DrawFuncs()
    draw.set_move_to_func(lambda x, y, out: out.append(("move", (x, y))))
    draw.set_line_to_func(lambda x, y, out: out.append(("line", (x, y))))
    draw.set_quadratic_to_func(lambda *xy: xy[-1].append(("quad", xy[:-1])))
    draw.set_cubic_to_func(lambda *xy: xy[-1].append(("curve", xy[:-1])))
    draw.set_close_path_func(lambda out: out.append(("close", ())))
    return draw


_DRAW = _draw_functions()


@dataclass(frozen=True)
class Face:
    """A family at axis values: units an em, ascent and descent (positive, below), and its files."""

    units: int
    ascent: float
    descent: float
    parts: tuple[Part, ...]

    def part_for(self, text: str) -> int:
        """The index of the first file that covers all of `text`; 0 where none does."""
        for index, part in enumerate(self.parts):
            if all(ord(character) in part.covered for character in text):
                return index
        return 0


def family(name: str) -> Family:
    """The family of that name; UnknownFont if it is not shipped."""
    if name not in FAMILIES:
        raise UnknownFont(name)
    return FAMILIES[name]


def axes_of(name: str) -> tuple[Axis, ...]:
    """The design axes of a family; none for a font of one shape."""
    return _open(family(name).files[0]).axes


def covered_by(path: Path) -> frozenset[int]:
    """The code points that a font file has glyphs for."""
    return _open(path).covered


@lru_cache(maxsize=256)
def face(name: str, axes: tuple[tuple[str, float], ...] = ()) -> Face:
    """The family at `axes` (sorted pairs of tag and value).

    As in CSS, an axis that the font lacks has no effect and a value past its range counts as the
    end of the range; an axis not given is where `resting_axes` says.
    """
    parts = []
    for path in family(name).files:
        file = _open(path)
        font = hb.Font(file.face)
        font.set_variations(_clamped(file.axes, dict(axes)))
        parts.append(Part(font, file.covered))
    extents = parts[0].font.get_font_extents("ltr")
    units = _open(family(name).files[0]).face.upem
    return Face(units, extents.ascender, -extents.descender, tuple(parts))


def resting_axes(name: str, size: float) -> dict[str, float]:
    """What each axis of the family is at when nothing is said, for text of `size` px.

    The weight is 400, the optical size follows the size as in CSS, all else is the font's default.
    """
    wanted = {"wght": 400.0, "opsz": size}
    return {
        axis.tag: min(max(wanted.get(axis.tag, axis.default), axis.low), axis.high)
        for axis in axes_of(name)
    }


def _clamped(axes: tuple[Axis, ...], wanted: dict[str, float]) -> dict[str, float]:
    return {
        axis.tag: min(max(wanted.get(axis.tag, axis.default), axis.low), axis.high) for axis in axes
    }


def font_faults(scene: Scene) -> list[Fault]:
    """A fault for each place in the scene that names a font which is not there."""
    named = []
    for index, layer in enumerate(scene.layers):
        named.append((f"layers[{index}].style.font", layer.style.font))
        named += [
            (f"layers[{index}].runs[{place}].style.font", run.style.font)
            for place, run in enumerate(layer.runs)
            if run.style.font is not None
        ]
    return [Fault(path, str(UnknownFont(name))) for path, name in named if name not in FAMILIES]
