"""The first use of large fonts, each in a process that has opened none: what a request that draws
waits for."""

import subprocess
import sys
import tempfile
from pathlib import Path

from fontTools.fontBuilder import FontBuilder
from fontTools.pens.ttGlyphPen import TTGlyphPen

_MEASURE = """
import sys, time
from pathlib import Path
from balletto.lettering.layout import lay_out
from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from benchmarks.core import title_scene

def scene(text, font, folder):
    data = files.to_data(title_scene(text))
    data["layers"][0]["style"] |= {"font": font, "axes": {}}
    return files.from_data(data).in_folder(folder)

folder = Path(sys.argv[1])
draw_frame(Picture(scene("Warm", "Figtree", folder / "none")), 0)
began = time.perf_counter()
made = scene(sys.argv[2], sys.argv[3], folder)
draw_frame(Picture(made), 60)
took = (time.perf_counter() - began) * 1000
families = {each.family for each in lay_out(made, made.layers[0]).characters}
assert None not in families and sys.argv[3] in families | {"Figtree"}, families
print(took)
"""
_MADE = "Plenty"
_LETTERS = 26_000  # of a made-up font, which make it some 5 MB
_WORDS = "星空下的天文馆 東京の夜 서울의 달과 별"


def first_use() -> dict[str, float]:
    """From a scene to its first picture, in ms: in an own font of 5 MB, and in Chinese, Japanese
    and Korean letters that the chosen font has not."""
    with tempfile.TemporaryDirectory() as folder:
        (Path(folder) / "fonts").mkdir()
        _make(Path(folder) / "fonts" / "plenty.ttf")
        own = "".join(map(chr, range(0x4E00, 0x4E28)))
        return {
            "first_font_ms own_5_mb": _first(folder, own, _MADE),
            "first_font_ms han_kana_hangul": _first(folder, _WORDS, "Figtree"),
        }


def _first(folder: str, text: str, font: str) -> float:
    words = [sys.executable, "-c", _MEASURE, folder, text, font]
    tried = (subprocess.run(words, capture_output=True, text=True, check=True) for _ in range(3))
    return min(float(done.stdout) for done in tried)


def _make(path: Path) -> None:
    """A font of so many letters, each of them of a few dozen points."""
    names = [f"g{number}" for number in range(_LETTERS)]
    builder = FontBuilder(1000, isTTF=True)
    builder.setupGlyphOrder([".notdef", *names])
    builder.setupCharacterMap({0x4E00 + number: name for number, name in enumerate(names)})
    glyphs = {".notdef": TTGlyphPen(None).glyph()}
    for number, name in enumerate(names):
        pen = TTGlyphPen(None)
        for row in range(12):
            left, bottom = (number * 7 + row * 31) % 500, row * 60
            pen.moveTo((left, bottom))
            for point in ((left, bottom + 50), (left + 300, bottom + 40), (left + 310, bottom + 5)):
                pen.lineTo(point)
            pen.closePath()
        glyphs[name] = pen.glyph()
    builder.setupGlyf(glyphs)
    builder.setupHorizontalMetrics(dict.fromkeys(glyphs, (1000, 0)))
    builder.setupHorizontalHeader(ascent=800, descent=-200)
    builder.setupNameTable({"familyName": _MADE, "styleName": "Regular"})
    builder.setupOS2(sTypoAscender=800, sTypoDescender=-200, usWinAscent=800, usWinDescent=200)
    builder.setupPost(keepGlyphNames=False)
    builder.save(path)
