"""Made-up fonts, made anew for each run: files that nobody ships."""

import io
from functools import lru_cache
from pathlib import Path

from fontTools.fontBuilder import FontBuilder
from fontTools.pens.ttGlyphPen import TTGlyphPen
from fontTools.ttLib import TTFont, woff2

from balletto.lettering.families import FAMILIES

LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789 .,"
UNITS = 1000


def square_font(
    family: str = "Perihelion", style: str = "Regular", weight: int = 400, *,
    is_italic: bool = False, embedding: int = 0, letters: str = LETTERS,
) -> bytes:  # fmt: skip
    """A font whose letters are squares, the wider the heavier it is."""
    wide = 200 + weight // 2
    builder = FontBuilder(UNITS, isTTF=True)
    names = [f"u{ord(letter):04X}" for letter in letters]
    builder.setupGlyphOrder([".notdef", *names])
    builder.setupCharacterMap(
        {ord(letter): name for letter, name in zip(letters, names, strict=True)}
    )
    glyphs = {".notdef": _square(0)}
    glyphs |= {
        name: _square(0 if letter == " " else wide)
        for letter, name in zip(letters, names, strict=True)
    }
    builder.setupGlyf(glyphs)
    builder.setupHorizontalMetrics(dict.fromkeys(glyphs, (wide + 100, 50)))
    builder.setupHorizontalHeader(ascent=800, descent=-200)
    builder.setupNameTable(
        {
            "familyName": family,
            "styleName": style,
            "licenseDescription": "Made up for tests: anybody may do anything with it.",
        }
    )
    selection = (1 if is_italic else 0) | (0x40 if style == "Regular" else 0)
    builder.setupOS2(
        sTypoAscender=800, sTypoDescender=-200, usWinAscent=800, usWinDescent=200,
        usWeightClass=weight, fsSelection=selection, fsType=embedding,
    )  # fmt: skip
    builder.setupPost()
    builder.font["head"].macStyle = 2 if is_italic else 0
    file = io.BytesIO()
    builder.save(file)
    return file.getvalue()


def _square(side: int):
    pen = TTGlyphPen(None)
    if side:
        pen.moveTo((50, 0))
        for point in ((50, 700), (50 + side, 700), (50 + side, 0)):
            pen.lineTo(point)
        pen.closePath()
    return pen.glyph()


@lru_cache
def variable_font(family: str = "Aphelion") -> bytes:
    """A shipped variable font under another name, uncompressed."""
    plain = io.BytesIO()
    with FAMILIES["Bricolage Grotesque"].files[0].open("rb") as shipped:
        woff2.decompress(shipped, plain)
    font = TTFont(plain)
    for number in (1, 3, 4, 6, 16):
        font["name"].setName(family, number, 3, 1, 0x409)
    file = io.BytesIO()
    font.save(file)
    return file.getvalue()


def fonts_folder(folder: Path, **fonts: bytes) -> Path:
    """A folder with fonts, by the stems of their names."""
    folder.mkdir(parents=True, exist_ok=True)
    for name, content in fonts.items():
        (folder / f"{name}.ttf").write_bytes(content)
    return folder
