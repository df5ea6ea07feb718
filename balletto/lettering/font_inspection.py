"""Looking into font files that people send, apart from everything else: what browsers check fonts
with has to take them, and their letters have to come out of the shaper."""

import logging
import random
from pathlib import Path

import ots
import uharfbuzz as hb
from fontTools.ttLib import TTFont

from ..apart import LostProcess, apart
from .faces import part_of_file
from .font_files import FontAbout, FontFileError, about, fonts_in

MOST_FONTS = 40  # of a collection
SECONDS = 10  # of a processor, for a file
_TRIED = 300  # glyphs whose outlines are drawn
_MOST_COMMANDS = 200_000  # that these may have together


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
            found.append(_written(font, folder / f"{number}"))
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
    _sanitize(path)
    with TTFont(path, lazy=True) as plain:
        found = about(plain)
    _try(path)
    return path, found


def _sanitize(path: Path) -> None:
    done = ots.sanitize(str(path), str(path.with_suffix(".checked")), capture_output=True)
    if done.returncode:
        lines = done.stderr.decode(errors="replace").splitlines()
        told = next((line for line in lines if "ERROR" in line or "Failed" in line), "")
        told = told.removeprefix("ERROR:").strip() or "no browser would take it"
        raise FontFileError(f"its tables are damaged ({told})")


def _try(path: Path) -> None:
    """Shapes and draws some of its glyphs, at an end of its axes as well."""
    part = part_of_file(path)
    count = hb.Face(hb.Blob.from_file_path(path)).glyph_count
    numbers = random.Random(count).sample(range(count), min(count, _TRIED))
    commands = 0
    for number in numbers:
        commands += len(part.outline(number))
        if commands > _MOST_COMMANDS:
            raise FontFileError("its outlines have too many points")
    buffer = hb.Buffer()
    buffer.add_codepoints(sorted(part.covered)[:_TRIED])
    buffer.guess_segment_properties()
    hb.shape(part.font, buffer)
