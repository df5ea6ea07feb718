"""Faces: a family at certain axis values, ready to shape text and to give outlines.

Font files are opened once and kept; a face is kept per set of axis values. All measures here are
in font units, y up, as HarfBuzz gives them; layout scales them to pixels.
"""

import io
import unicodedata
from dataclasses import dataclass, field
from functools import lru_cache
from pathlib import Path
from typing import NamedTuple

import uharfbuzz as hb
from fontTools.ttLib import woff2

from ..scene.document import Scene
from ..scene.errors import Fault
from ..scene.layers.title import Title
from .families import FALLBACKS, FAMILIES, Family

# An outline: ("move" | "line" | "curve" | "close", coordinates), quadratic curves as "quad".
Command = tuple[str, tuple[float, ...]]
# Into how many steps the range of an axis is divided where it moves.
AXIS_STEPS = 256
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


@dataclass(frozen=True, eq=False)
class Part:
    """One file of a family at its axis values."""

    path: Path
    axes: tuple[tuple[str, float], ...]
    font: hb.Font
    covered: frozenset[int]
    units: int
    _outlines: dict[int, tuple[Command, ...]] = field(default_factory=dict)

    def moved(self, changes: tuple[tuple[str, float], ...]) -> "Part":
        """This file with some axes moved by so much, in steps so fine that none is seen; each
        stays in its range, and one that the font lacks has no effect."""
        wanted = dict(changes)
        axes = []
        for axis in _open(self.path).axes:
            value = dict(self.axes)[axis.tag] + wanted.get(axis.tag, 0.0)
            step = (axis.high - axis.low) / AXIS_STEPS or 1.0
            value = axis.low + round((value - axis.low) / step) * step
            axes.append((axis.tag, min(max(value, axis.low), axis.high)))
        return _part(self.path, tuple(axes))

    def advance(self, glyph: int) -> float:
        """The advance of a glyph in font units."""
        return self.font.get_glyph_h_advance(glyph)

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


def _covers(covered: frozenset[int], text: str) -> bool:
    """Whether there is a glyph for every point of a text that shows at all; a letter and its marks
    may have one together, as shaping finds them."""
    return any(
        all(ord(point) in covered or _is_unseen(point) for point in form)
        for form in (text, unicodedata.normalize("NFC", text))
    )


def _is_unseen(point: str) -> bool:
    """Joiners, marks of direction and choosers of a variant need no glyph of their own."""
    return unicodedata.category(point) == "Cf" or "\ufe00" <= point <= "\ufe0f"


@lru_cache(maxsize=1024)
def _part(path: Path, axes: tuple[tuple[str, float], ...]) -> Part:
    file = _open(path)
    font = hb.Font(file.face)
    font.set_variations(dict(axes))
    return Part(path, axes, font, file.covered, file.face.upem)


def _draw_functions() -> hb.DrawFuncs:
    draw = hb.DrawFuncs()
    draw.set_move_to_func(lambda x, y, out: out.append(("move", (x, y))))
    draw.set_line_to_func(lambda x, y, out: out.append(("line", (x, y))))
    draw.set_quadratic_to_func(lambda *xy: xy[-1].append(("quad", xy[:-1])))
    draw.set_cubic_to_func(lambda *xy: xy[-1].append(("curve", xy[:-1])))
    draw.set_close_path_func(lambda out: out.append(("close", ())))
    return draw


_DRAW = _draw_functions()


class Found(NamedTuple):
    """The file that a character is set in, and its family; None where no font has its glyph."""

    part: Part
    family: str | None


@dataclass(frozen=True, eq=False)
class Face:
    """A family at axis values: ascent and descent (positive, below) in ems, and its files."""

    family: str
    axes: tuple[tuple[str, float], ...]
    ascent: float
    descent: float
    parts: tuple[Part, ...]

    @lru_cache(maxsize=4096)  # noqa: B019 - faces are few and kept anyway
    def part_for(self, text: str) -> Found:
        """The first file that covers a character: of this family, else of those to fall back on,
        else the first of those, whose box for a missing glyph then stands."""
        own = next((part for part in self.parts if _covers(part.covered, text)), None)
        if own is not None:
            return Found(own, self.family)
        for name in FALLBACKS:
            for path in family(name).files:
                if _covers(covered_by(path), text):
                    return Found(_part_near(path, self.axes), name)
        return Found(_part_near(family(FALLBACKS[0]).files[0], self.axes), None)


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
    parts = tuple(_part_near(path, axes) for path in family(name).files)
    extents = parts[0].font.get_font_extents("ltr")
    units = parts[0].units
    return Face(name, axes, extents.ascender / units, -extents.descender / units, parts)


def resting_axes(name: str, size: float) -> dict[str, float]:
    """What each axis of the family is at when nothing is said, for text of `size` px.

    The weight is 400, the optical size follows the size as in CSS, all else is the font's default.
    """
    return dict(_clamped(axes_of(name), {"wght": 400.0, "opsz": size}))


def _part_near(path: Path, axes: tuple[tuple[str, float], ...]) -> Part:
    """A file at axis values as near to those wanted as it has them."""
    return _part(path, _clamped(_open(path).axes, dict(axes)))


def _clamped(axes: tuple[Axis, ...], wanted: dict[str, float]) -> tuple[tuple[str, float], ...]:
    return tuple(
        (axis.tag, min(max(wanted.get(axis.tag, axis.default), axis.low), axis.high))
        for axis in axes
    )


def font_faults(scene: Scene) -> list[Fault]:
    """A fault for each place in the scene that names a font which is not there."""
    named = []
    for index, layer in enumerate(scene.layers):
        if not isinstance(layer, Title):
            continue
        named.append((f"layers[{index}].style.font", layer.style.font))
        named += [
            (f"layers[{index}].runs[{number}].style.font", run.style.font)
            for number, run in enumerate(layer.runs)
            if run.style.font is not None
        ]
        named += [
            (f"layers[{index}].moves[{number}].becomes.style.font", move.becomes.style.font)
            for number, move in enumerate(layer.moves)
            if move.becomes is not None and move.becomes.style.font is not None
        ]
    return [Fault(path, str(UnknownFont(name))) for path, name in named if name not in FAMILIES]
