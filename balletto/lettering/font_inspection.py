"""Looking into font files that people send, apart from everything else: what browsers check fonts
with has to take them, and their letters have to come out of the shaper."""

import logging
import random
import time
from pathlib import Path

import ots
import uharfbuzz as hb
from fontTools.ttLib import TTFont
from fontTools.ttLib.tables.DefaultTable import DefaultTable

from ..apart import LostProcess, apart
from ..scene.model import MAX_TEXT
from .faces import FacePart, part_of_file
from .font_files import MOST_BYTES, FontAbout, FontFileError, about, fonts_in

MOST_FONTS = 40  # of a collection
SECONDS = 10  # of a processor, for a file
_TRIED_S = 3.0  # that glyphs are drawn for, by chance: as a rule all of them
_BEYOND = 2.0**16  # any axis: their numbers have 16 bits before the point
_PAINTED_SIDE = 32  # pixels
_SHAPED = 300  # letters that are shaped
_MOST_IN_A_GLYPH = 30_000  # commands of an outline
_MOST_IN_A_TITLE = 4_000_000  # of the outlines of as many glyphs as a title may have


def inspected_fonts(path: Path, folder: Path) -> list[tuple[Path, FontAbout]]:
    """The fonts of a file, each written uncompressed into a folder, with what it says of itself.
    FontFileError if the file is none that can be used."""
    try:
        return apart(_looked_into, path, folder, seconds=SECONDS)
    except LostProcess as lost:
        raise FontFileError(f"{path.name} cannot be read: {lost}. It seems to be broken.") from None


def _looked_into(path: Path, folder: Path) -> list[tuple[Path, FontAbout]]:
    logging.getLogger("fontTools").setLevel(logging.CRITICAL)  # it is said where it matters
    found = []
    for number, font in enumerate(fonts_in(path)):
        if number == MOST_FONTS:
            raise FontFileError(f"{path.name} holds more than {MOST_FONTS} fonts.")
        try:
            if font.flavor == "woff2":
                _unpack(font, path, folder / "unpacked.ttf")
            found.append(_written(font, folder / f"{number}"))
            if sum(plain.stat().st_size for plain, _ in found) > MOST_BYTES:
                raise FontFileError(f"it unpacks to more than {MOST_BYTES // 2**20} MB")
        except FontFileError as error:
            raise FontFileError(f"{path.name} cannot be used: {error}.") from None
    return found


def _written(font: TTFont, stem: Path) -> tuple[Path, FontAbout]:
    """A font as a file of its own, once it was found to be right."""
    suffix = ".otf" if font.sfntVersion == "OTTO" else ".ttf"
    path = stem.with_suffix(suffix)
    try:
        font.flavor = None
        font.save(path, reorderTables=False)
    except Exception as error:  # as in reading
        raise FontFileError(f"its tables are damaged ({error})") from None
    if path.stat().st_size > MOST_BYTES:
        raise FontFileError(f"it unpacks to more than {MOST_BYTES // 2**20} MB")
    _sanitize(path, path.with_suffix(".checked"))
    with TTFont(path, lazy=True) as plain:
        found = about(plain)
    _try(path, found.glyphs)
    return path, found


# Of WOFF2 what may be packed in a way of its own, and what goes with that.
_PACKED = ("glyf", "loca", "head", "hhea", "hmtx", "maxp")


def _unpack(font: TTFont, path: Path, unpacked: Path) -> None:
    """Takes the outlines of a WOFF2 file as browsers unpack them, which takes a hundredth of the
    time that fontTools takes."""
    _sanitize(path, unpacked)
    with TTFont(unpacked, lazy=True) as plain:
        for tag in _PACKED:
            if tag in plain and tag in font:
                table = DefaultTable(tag)
                table.data = plain.reader[tag]
                font[tag] = table


def _sanitize(path: Path, into: Path) -> None:
    done = ots.sanitize(str(path), str(into), capture_output=True)
    if done.returncode:
        lines = done.stderr.decode(errors="replace").splitlines()
        told = next((line for line in lines if "ERROR" in line or "Failed" in line), "")
        told = told.removeprefix("ERROR:").strip() or "no browser would take it"
        raise FontFileError(f"its tables are damaged ({told})")


def _paint(part: FacePart, number: int) -> None:
    """Paints a glyph that has layers, on a few pixels: what harms only harms this process."""
    paint = hb.RasterPaint()
    scale = _PAINTED_SIDE / max(part.units, 1)
    paint.transform = (scale, 0, 0, scale, 0, 0)
    paint.extents = hb.RasterExtents(0, 0, _PAINTED_SIDE, _PAINTED_SIDE)
    paint.paint_glyph(part.font, number)
    paint.render()


def _try(path: Path, glyphs: int) -> None:
    """Shapes and draws what there is time for, at the ends of its axes as well. What a title of it
    takes in memory is bounded by that."""
    resting = part_of_file(path)
    ends = resting.moved(tuple((tag, _BEYOND) for tag, _ in resting.axes))
    numbers = random.Random(glyphs).sample(range(glyphs), glyphs)
    until = time.process_time() + _TRIED_S
    drawn = commands = 0
    for number in numbers:
        longest = max(len(part.outline(number)) for part in (resting, ends))
        drawn, commands = drawn + 1, commands + longest
        if resting.color_kind(number) == "layers":
            _paint(resting, number)
        if longest > _MOST_IN_A_GLYPH:
            raise FontFileError("an outline of it has too many points")
        if time.process_time() > until:
            break
    if drawn and commands / drawn * min(glyphs, MAX_TEXT) > _MOST_IN_A_TITLE:
        raise FontFileError("its outlines have too many points")
    for part in (resting, ends):
        buffer = hb.Buffer()
        buffer.add_codepoints(sorted(part.covered)[:_SHAPED])
        buffer.guess_segment_properties()
        hb.shape(part.font, buffer)
