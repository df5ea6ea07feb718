"""Glyphs that have colours of their own: painted in layers (COLR), or pictures (PNG, SVG).

Layers are painted by HarfBuzz. What a font has of PNG and SVG is read by larger decoders, so apart
from everything else, as all that people send is.
"""

import io
import math
import re
import zlib
from collections.abc import Callable, Sequence
from pathlib import Path
from xml.etree import ElementTree

import numpy as np
import skia
import uharfbuzz as hb
from PIL import Image

from ...apart import LostProcess, apart
from ...lettering.faces import FacePart, part_of_file
from ...lettering.shaping import Glyph
from ...scene.forms.svg_bounds import MOST_BYTES, svg_root
from ..pixels.bitmap_store import BITMAPS
from ..pixels.bitmaps import Bitmap, Box, Photo
from ..pixels.media import premultiplied

_SHARPNESS = 2  # pixels of a picture for one that is seen, so that a larger clip is sharp too
_MOST_SIDE = 1024  # pixels
_MOST_PIXELS = 2**22  # of a picture in a font
_TRIES = 2
_SECONDS = 5  # of a processor, for a picture of a font
_GZIP = b"\x1f\x8b"
_SVG_GLYPH = re.compile(r"^glyph\d+$")


def color_photo(glyphs: Sequence[Glyph], box: Box, color: str, growth: float) -> Photo:
    """The picture of the glyphs of a letter, which fills its `box` in the space of its layer.

    color: of what has none of its own
    growth: how many times as large it is seen, at the most
    """
    left, top, right, bottom = box
    longest = max(right - left, bottom - top, 1e-6)
    wanted = _SHARPNESS * 2.0 ** math.ceil(math.log2(min(max(growth, 1.0), _MOST_SIDE)))
    density = min(wanted, _MOST_SIDE / longest)
    size = tuple(max(1, math.ceil(side * density)) for side in (right - left, bottom - top))
    placed = [(g.part.path, g.part.axes, g.number, g.x - left, g.y - top, g.scale) for g in glyphs]
    key = repr(("glyphs", placed, color, density, size))
    bitmap = BITMAPS.get(key, lambda: Bitmap(key, _drawn(glyphs, box, color, density, size)))
    return Photo(bitmap, (left, top, left + size[0] / density, top + size[1] / density))


def _drawn(
    glyphs: Sequence[Glyph], box: Box, color: str, density: float, size: tuple[int, ...]
) -> np.ndarray:
    """Pixels (height, width, 4), BGRA premultiplied, of glyphs one over the other."""
    left, top, _, _ = box
    width, height = size
    pixels = np.zeros((height, width, 4), np.uint8)
    for glyph in glyphs:
        # From font units, y up, to pixels, y up from the lower edge.
        scale = glyph.scale * density
        origin = (glyph.x - left) * density, height - (glyph.y - top) * density
        kind = glyph.part.color_kind(glyph.number)
        draw = _PICTURES.get(kind or "")
        if draw is None:
            over = _painted(glyph.part, glyph.number, color, (scale, *origin), size)
        else:
            over = _pictured(glyph, kind or "", (scale, *origin), size)
        below = pixels.astype(np.uint16) * (255 - over[..., 3:].astype(np.uint16)) + 127
        pixels = np.minimum(over + below // 255, 255).astype(np.uint8)
    return pixels


# How large a font unit is, and where the origin of a glyph is, y up from the lower edge.
_Way = tuple[float, float, float]


def _painted(
    part: FacePart, number: int, color: str, way: _Way, size: tuple[int, ...]
) -> np.ndarray:
    """A glyph in layers, or in one colour, as HarfBuzz paints it."""
    scale, x, y = way
    paint = hb.RasterPaint()
    red, green, blue = bytes.fromhex(color[1:])
    paint.foreground = hb.Color(red, green, blue, 255)
    paint.transform = (scale, 0, 0, scale, x, y)
    paint.extents = hb.RasterExtents(0, 0, *size)
    paint.paint_glyph(part.font, number)
    image = paint.render()
    if image is None:
        return np.zeros((size[1], size[0], 4), np.uint8)
    rows = np.frombuffer(image.buffer, np.uint8).reshape(size[1], -1, 4)
    return rows[::-1, : size[0]]


def _pictured(glyph: Glyph, kind: str, way: _Way, size: tuple[int, ...]) -> np.ndarray:
    """A glyph that is a picture, in its box; nothing where that cannot be read."""
    scale, x, y = way
    left, bottom, right, top = glyph.extents
    wide, high = (max(1, round((end - start) * scale)) for start, end in
                  ((left, right), (bottom, top)))  # fmt: skip
    wide, high = min(wide, _MOST_SIDE), min(high, _MOST_SIDE)
    own = _read_apart(glyph.part.path, glyph.number, kind, (wide, high))
    pixels = np.zeros((size[1], size[0], 4), np.uint8)
    column, row = round(x + left * scale), round(size[1] - (y + top * scale))
    first, begin = max(column, 0), max(row, 0)
    part = own[begin - row : max(0, size[1] - row), first - column : max(0, size[0] - column)]
    pixels[begin : begin + part.shape[0], first : first + part.shape[1]] = part
    return pixels


def _read_apart(path: Path, number: int, kind: str, size: tuple[int, int]) -> np.ndarray:
    """The picture of a glyph; nothing where it cannot be read."""
    for _ in range(_TRIES):
        try:
            return apart(_picture_of, path, number, kind, size, seconds=_SECONDS)
        except LostProcess:
            continue  # the machine may have been too busy for it
        except Exception:  # what reads damaged bytes raises whatever comes
            break
    return np.zeros((size[1], size[0], 4), np.uint8)


def _picture_of(path: Path, number: int, kind: str, size: tuple[int, int]) -> np.ndarray:
    """The picture of a glyph of a font file, as large as `size`: BGRA, premultiplied."""
    return _PICTURES[kind](part_of_file(path), number, size)


def _png(part: FacePart, number: int, size: tuple[int, int]) -> np.ndarray:
    part.font.ppem = (2**15, 2**15)  # the largest that there is
    content = part.font.get_glyph_color_png(number).data
    with Image.open(io.BytesIO(content)) as image:
        if image.width * image.height > _MOST_PIXELS:
            raise ValueError("the picture is too large")
        straight = np.asarray(image.convert("RGBA"))
    own = Image.fromarray(premultiplied(straight)).resize(size, Image.Resampling.BOX
        if size[0] < straight.shape[1] else Image.Resampling.BICUBIC)  # fmt: skip
    return np.ascontiguousarray(np.asarray(own)[..., [2, 1, 0, 3]])


def _svg(part: FacePart, number: int, size: tuple[int, int]) -> np.ndarray:
    """The glyph of a document, which may hold those of others: only its own element is drawn
    (OpenType 1.9, "SVG"). Its space is that of the glyph, y down."""
    content = part.font.face.get_glyph_color_svg(number).data
    if content.startswith(_GZIP):
        content = zlib.decompressobj(wbits=31).decompress(content, MOST_BYTES + 1)
    root = svg_root(content)
    own = f"glyph{number}"
    for parent in list(root.iter()):
        for child in list(parent):
            if _SVG_GLYPH.match(str(child.get("id", ""))) and child.get("id") != own:
                parent.remove(child)
    left, bottom, right, top = part.extents(number)
    root.set("viewBox", f"{left} {-top} {right - left} {top - bottom}")
    root.set("width", str(size[0]))
    root.set("height", str(size[1]))
    root.set("preserveAspectRatio", "none")
    # Skia knows elements by their plain names. This process draws this glyph alone.
    ElementTree.register_namespace("", "http://www.w3.org/2000/svg")
    ElementTree.register_namespace("xlink", "http://www.w3.org/1999/xlink")
    written = ElementTree.tostring(root)
    drawing = skia.SVGDOM.MakeFromStream(skia.MemoryStream.MakeCopy(written))
    if drawing is None:
        raise ValueError("the drawing cannot be read")
    pixels = np.zeros((size[1], size[0], 4), np.uint8)
    info = skia.ImageInfo.Make(*size, skia.kBGRA_8888_ColorType, skia.kPremul_AlphaType)
    drawing.setContainerSize(skia.Size(*size))
    drawing.render(skia.Surface.MakeRasterDirect(info, pixels).getCanvas())
    return pixels


_PICTURES: dict[str, Callable[[FacePart, int, tuple[int, int]], np.ndarray]] = {
    "png": _png,
    "svg": _svg,
}
