"""Faces: a family at certain axis values, ready to shape text and to give outlines.

Font files are opened once and kept; a face is kept per set of axis values. All measures here are
in font units, y up, as HarfBuzz gives them; layout scales them to pixels.
"""

import io
import math
import unicodedata
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import lru_cache
from itertools import chain
from pathlib import Path
from typing import NamedTuple

import uharfbuzz as hb
from fontTools.ttLib import woff2
from uniseg.emoji import emoji_presentation

from .families import (
    COVERS,
    EMOJI,
    FALLBACKS,
    FAMILIES,
    FOLDER,
    HAN_FALLBACKS,
    HAN_USUALLY,
    Cut,
    Family,
)
from .font_files import Axis

# An outline: ("move" | "line" | "curve" | "close", coordinates), quadratic curves as "quad".
Command = tuple[str, tuple[float, ...]]
# Into how many steps the range of an axis is divided where it moves.
AXIS_STEPS = 256
# The box that an outline just fits into: left, bottom, right, top.
Extents = tuple[float, float, float, float]


@dataclass(frozen=True)
class _File:
    face: hb.Face
    covered: frozenset[int]
    axes: tuple[Axis, ...]


@lru_cache(maxsize=512)  # slices are small, others are read as they are needed
def _open(path: Path) -> _File:
    face = hb.Face(_blob(path))
    axes = tuple(
        Axis(axis.tag, face.get_name(axis.name_id) or axis.tag, *_range(axis))
        for axis in face.axis_infos
    )
    return _File(face, frozenset(face.unicodes), axes)


def _blob(path: Path) -> hb.Blob:
    if path.suffix != ".woff2":
        return hb.Blob.from_file_path(path)  # read as it is needed
    plain = io.BytesIO()
    with path.open("rb") as compressed:
        woff2.decompress(compressed, plain)
    return hb.Blob(plain.getvalue())


def _range(axis: hb.OTVarAxisInfo) -> tuple[float, float, float]:
    return axis.min_value, axis.default_value, axis.max_value


@dataclass(frozen=True, eq=False)
class FacePart:
    """One file of a family at its axis values; `slant` is how far its letters lean that have no
    italic of their own, in units across for one up."""

    path: Path
    axes: tuple[tuple[str, float], ...]
    font: hb.Font
    covered: frozenset[int]
    units: int
    slant: float = 0.0
    _outlines: dict[int, tuple[Command, ...]] = field(default_factory=dict)
    _color_kinds: dict[int, str | None] = field(default_factory=dict)

    def moved(self, changes: tuple[tuple[str, float], ...]) -> "FacePart":
        """This file with some axes moved by so much, in steps so fine that none is seen; each
        stays in its range, and one that the font lacks has no effect."""
        wanted = dict(changes)
        axes = []
        for axis in _open(self.path).axes:
            value = dict(self.axes)[axis.tag] + wanted.get(axis.tag, 0.0)
            step = (axis.high - axis.low) / AXIS_STEPS or 1.0
            value = axis.low + round((value - axis.low) / step) * step
            axes.append((axis.tag, min(max(value, axis.low), axis.high)))
        return _part(self.path, tuple(axes), self.slant)

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

    def color_kind(self, glyph: int) -> str | None:
        """How a glyph has colours of its own: in layers that are painted, or as a picture, "png" or
        "svg"; None if it has but an outline."""
        if glyph not in self._color_kinds:
            self._color_kinds[glyph] = _color_kind(self.font, glyph)
        return self._color_kinds[glyph]

    def extents(self, glyph: int) -> Extents:
        """The extents of a glyph, in font units, y up."""
        found = self.font.get_glyph_extents(glyph)
        if self.color_kind(glyph) == "svg":
            # A drawing does not say how large it is: it has its advance, as high as a line.
            line = self.font.get_font_extents("ltr")
            return 0.0, line.descender, self.advance(glyph), line.ascender
        if found is None:
            return 0.0, 0.0, 0.0, 0.0
        right, bottom = found.x_bearing + found.width, found.y_bearing + found.height
        return found.x_bearing, bottom, right, found.y_bearing


def _color_kind(font: hb.Font, glyph: int) -> str | None:
    face = font.face
    if face.has_color_paint and face.glyph_has_color_paint(glyph):
        return "layers"
    if face.has_color_layers and face.get_glyph_color_layers(glyph):
        return "layers"
    if face.has_color_svg and len(face.get_glyph_color_svg(glyph)):
        return "svg"
    if face.has_color_png and len(font.get_glyph_color_png(glyph)):
        return "png"
    return None


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
def _part(path: Path, axes: tuple[tuple[str, float], ...], slant: float = 0.0) -> FacePart:
    file = _open(path)
    font = hb.Font(file.face)
    font.set_variations(dict(axes))
    font.synthetic_slant = slant
    return FacePart(path, axes, font, file.covered, file.face.upem, slant)


def part_of_file(path: Path) -> FacePart:
    """A font file as it is when nothing is said of its axes."""
    return _part(path, _clamped(_open(path).axes, {}))


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

    part: FacePart
    family: str | None


@dataclass(frozen=True, eq=False)
class Face:
    """A family at axis values: ascent and descent (positive, below) in ems, and its files, which
    are opened where a letter of theirs is set.

    weight: of its cut, where that has no axis of weights; None where it has, or it has but one
    """

    family: str
    axes: tuple[tuple[str, float], ...]
    ascent: float
    descent: float
    files: tuple[Path, ...]
    weight: float | None = None

    @property
    def moving(self) -> tuple[str, ...]:
        """The tags of the axes that its files have, along which letters can move."""
        return tuple(axis.tag for axis in _open(self.files[0]).axes)

    @property
    def _is_of_letters(self) -> bool:
        """Whether it is a font of letters, which may have a few emoji without colour."""
        face = _open(self.files[0]).face
        has_colors = (
            face.has_color_layers, face.has_color_paint, face.has_color_png, face.has_color_svg
        )  # fmt: skip
        return ord("A") in covered_by(self.files[0]) and not any(has_colors)

    @lru_cache(maxsize=4096)  # noqa: B019 - faces are few and kept anyway
    def part_for(self, text: str, language: str = "") -> Found:
        """The first file that covers a character: of this family, else of those to fall back on,
        else the first of those, whose box for a missing glyph then stands. An emoji is set in a
        font that has it in colour, unless this is one that has it as it is."""
        own = next((path for path in self.files if _covers(covered_by(path), text)), None)
        is_emoji = _is_emoji(text)
        if own is not None and not (is_emoji and self._is_of_letters):
            return Found(_part_near(own, self.axes), self.family)
        han = HAN_FALLBACKS.get(language.partition("-")[0], HAN_FALLBACKS[HAN_USUALLY])
        for name in (*((EMOJI,) if is_emoji else ()), *FALLBACKS, *han):
            for path in FAMILIES[name].files:
                if _covers(covered_by(path), text):
                    return Found(_part_near(path, self.axes), name)
        return Found(_part_near(FAMILIES[FALLBACKS[0]].files[0], self.axes), None)


_EMOJI_STYLE, _TEXT_STYLE = "\ufe0f", "\ufe0e"


def _is_emoji(text: str) -> bool:
    """Whether a character is meant to be seen as an emoji, in colour, and not as a letter is: as it
    is by itself, or as it is said to be (UTS 51)."""
    if _TEXT_STYLE in text:
        return False
    return _EMOJI_STYLE in text or bool(emoji_presentation(text[0]))


@lru_cache(maxsize=512)
def axes_of(family: Family) -> tuple[Axis, ...]:
    """The design axes of a family: those of its files, and those along which its cuts lie. None for
    a font of one shape."""
    axes = {axis.tag: axis for axis in _open(family.files[0]).axes}
    for tag, (name, place) in _CUT_AXES.items():
        places = sorted({place(cut) for cut in family.cuts})
        if tag not in axes and len(places) > 1:
            away = [abs(at - _AT_REST[tag]) for at in places]
            axes[tag] = Axis(tag, name, places[0], places[away.index(min(away))], places[-1])
    return tuple(axes.values())


# Along which axes cuts lie: what that is called, and where on it a cut is.
_CUT_AXES: dict[str, tuple[str, Callable[[Cut], float]]] = {
    "wght": ("Weight", lambda cut: cut.weight),
    "wdth": ("Width", lambda cut: cut.width),
    "ital": ("Italic", lambda cut: float(cut.is_italic)),
}
_AT_REST = {"wght": 400.0, "wdth": 100.0, "ital": 0.0}


def cut_for(family: Family, axes: dict[str, float]) -> Cut:
    """The cut that is nearest to axis values: upright or italic before the width, and that before
    the weight."""

    def away(cut: Cut) -> tuple[float, ...]:
        inner = {axis.tag: axis for axis in _open(cut.files[0]).axes}
        wanted = ((tag, axes.get(tag, _AT_REST[tag])) for tag in ("ital", "wdth", "wght"))
        return tuple(
            max(inner[tag].low - value, value - inner[tag].high, 0.0)
            if tag in inner
            else abs(_CUT_AXES[tag][1](cut) - value)
            for tag, value in wanted
        )

    return min(family.cuts, key=away)


def covered_by(path: Path) -> frozenset[int]:
    """The code points that a font file has glyphs for; of a slice of a family without opening
    it."""
    slices = _slices(path.parent)
    return slices[path.stem] if path.stem in slices else _open(path).covered


@lru_cache(maxsize=64)
def _slices(folder: Path) -> dict[str, frozenset[int]]:
    """What each slice of a family covers, by its name; nothing for a family without slices."""
    index = folder / COVERS
    if folder.parent != FOLDER or not index.exists():
        return {}
    found = {}
    for line in index.read_text().splitlines():
        name, _, ranges = line.partition(": ")
        ends = ([int(end, 16) for end in each.split("-")] for each in ranges.split())
        points = (range(each[0], each[-1] + 1) for each in ends)
        found[name] = frozenset(chain.from_iterable(points))
    return found


def likely_language(text: str) -> str:
    """Which language that has Han letters a text is likely in, by the other letters in it."""
    if any("\u3040" <= point <= "\u30ff" for point in text):  # kana
        return "ja"
    if any("\uac00" <= point <= "\ud7af" or "\u1100" <= point <= "\u11ff" for point in text):
        return "ko"
    return HAN_USUALLY


def features_of(family: Family) -> frozenset[str]:
    """The tags of what can be chosen in a family, as "smcp", whatever the script."""
    face = _open(family.files[0]).face
    found: set[str] = set()
    for table in ("GSUB", "GPOS"):
        for script in range(len(face.get_table_script_tags(table))):
            found |= {*face.get_language_feature_tags(table, script, _NO_LANGUAGE)}
    return frozenset(found)


_NO_LANGUAGE = 0xFFFF  # hb-ot-layout.h: what holds where no language is said


@lru_cache(maxsize=256)
def face(family: Family, axes: tuple[tuple[str, float], ...] = ()) -> Face:
    """The family at `axes` (sorted pairs of tag and value).

    As in CSS, an axis that the font lacks has no effect and a value past its range counts as the
    end of the range; an axis not given is where `resting_axes` says.
    """
    cut = cut_for(family, dict(axes))
    if cut.is_italic:
        axes = tuple(axis for axis in axes if axis[0] != _ITALIC)  # it leans by itself
    first = _part_near(cut.files[0], axes)
    extents = first.font.get_font_extents("ltr")
    units = first.units
    has_weights = any(axis.tag == "wght" for axis in _open(cut.files[0]).axes)
    weight = None if has_weights or len(family.cuts) == 1 else cut.weight
    ascent, descent = extents.ascender / units, -extents.descender / units
    return Face(family.name, axes, ascent, descent, cut.files, weight)


def resting_axes(family: Family, size: float) -> dict[str, float]:
    """What each axis of the family is at when nothing is said, for text of `size` px.

    The weight is 400, the optical size follows the size as in CSS, all else is the font's default.
    """
    return dict(_clamped(axes_of(family), {"wght": 400.0, "opsz": size}))


def _part_near(path: Path, axes: tuple[tuple[str, float], ...]) -> FacePart:
    """A file at axis values as near to those wanted as it has them. What it has neither an italic
    nor a slant for leans as it is; colour does not lean."""
    file, wanted = _open(path), dict(axes)
    italic = min(max(wanted.get(_ITALIC, 0.0), 0.0), 1.0)
    own = {axis.tag: axis for axis in file.axes}
    if not italic or _ITALIC in own:
        return _part(path, _clamped(file.axes, wanted))
    if (slant := own.get("slnt")) is not None:
        if wanted.get("slnt", slant.default) == slant.default:
            wanted["slnt"] = slant.default + italic * (slant.low - slant.default)
        return _part(path, _clamped(file.axes, wanted))
    has_colors = file.face.has_color_png or file.face.has_color_svg
    return _part(path, _clamped(file.axes, wanted), 0.0 if has_colors else italic * _LEAN)


_ITALIC, _LEAN = "ital", math.tan(math.radians(12))  # as far as most italics lean


def _clamped(axes: tuple[Axis, ...], wanted: dict[str, float]) -> tuple[tuple[str, float], ...]:
    return tuple(
        (axis.tag, min(max(wanted.get(axis.tag, axis.default), axis.low), axis.high))
        for axis in axes
    )
