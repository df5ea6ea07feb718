"""Made-up fonts, made anew for each run: files that nobody ships."""

import io
from functools import lru_cache
from pathlib import Path

import numpy as np
from fontTools.fontBuilder import FontBuilder
from fontTools.pens.ttGlyphPen import TTGlyphPen
from fontTools.ttLib import TTFont, newTable, woff2
from fontTools.ttLib.tables.S_V_G_ import SVGDocument
from fontTools.ttLib.tables.sbixGlyph import Glyph as SbixGlyph
from fontTools.ttLib.tables.sbixStrike import Strike
from PIL import Image

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


def colored_font(kind: str, family: str = "Nebula") -> bytes:
    """A font whose letter A is a square, its left half red and its right half blue: in layers
    ("COLR v0", "COLR v1"), as a PNG ("sbix") or as a drawing ("SVG")."""
    font = TTFont(io.BytesIO(square_font(family, letters="ALR .")))
    builder = FontBuilder(font=font)
    left, right = (_half(at) for at in (0, 300))
    font["glyf"]["u004C"], font["glyf"]["u0052"] = left, right
    font["hmtx"]["u004C"], font["hmtx"]["u0052"] = (700, 0), (700, 300)
    font["hmtx"]["u0041"] = (700, font["hmtx"]["u0041"][1])
    colors = [[(1, 0, 0, 1), (0, 0, 1, 1)]]
    if kind == "COLR v0":
        builder.setupCPAL(colors)
        builder.setupCOLR({"u0041": [("u004C", 0), ("u0052", 1)]}, version=0)
    elif kind == "COLR v1":
        builder.setupCPAL(colors)
        layers = [
            {"Format": 10, "Glyph": name, "Paint": {"Format": 2, "PaletteIndex": n, "Alpha": 1}}
            for n, name in enumerate(("u004C", "u0052"))
        ]
        builder.setupCOLR({"u0041": {"Format": 1, "Layers": layers}}, version=1)
    elif kind == "SVG":
        number = font.getGlyphID("u0041")
        halves = '<path fill="red" d="M0 0V-600H300V0z"/><path fill="blue" d="M300 0V-600H600V0z"/>'
        other = f'<g id="glyph{number + 1}"><path fill="lime" d="M0 0V-900H900V0z"/></g>'
        drawing = f'<g id="glyph{number}">{halves}</g>{other}'
        table = font["SVG "] = newTable("SVG ")
        svg = f'<svg xmlns="http://www.w3.org/2000/svg">{drawing}</svg>'
        table.docList = [SVGDocument(svg, number, number + 1)]
    elif kind == "sbix":
        table = font["sbix"] = newTable("sbix")
        strike = table.strikes[100] = Strike(ppem=100, resolution=72)
        for name in font.getGlyphOrder():
            picture = _halves_png() if name == "u0041" else b""
            strike.glyphs[name] = SbixGlyph(
                glyphName=name, graphicType="png " if picture else None, imageData=picture
            )
    file = io.BytesIO()
    font.save(file)
    return file.getvalue()


def _half(left: int):
    pen = TTGlyphPen(None)
    pen.moveTo((left, 0))
    for point in ((left, 600), (left + 300, 600), (left + 300, 0)):
        pen.lineTo(point)
    pen.closePath()
    return pen.glyph()


def _halves_png() -> bytes:
    pixels = np.zeros((60, 60, 3), np.uint8)
    pixels[:, :30, 0] = 255
    pixels[:, 30:, 2] = 255
    file = io.BytesIO()
    Image.fromarray(pixels).save(file, "PNG")
    return file.getvalue()
