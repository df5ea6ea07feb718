"""The canvas that draws: Skia, on a picture kept in memory."""

import numpy as np
import skia

from ..lettering.layout import Glyph
from .canvas import Matrix


def _color(color: str) -> int:
    return 0xFF000000 | int(color[1:], 16)


class SkiaCanvas:
    """A picture of width x height pixels; `pixels` (height, width, 4) is its memory.

    BGRA, premultiplied, 8 bit: the order that Skia is fastest in. `scale` is applied last, so that
    the same drawing fills a picture of another size.
    """

    def __init__(self, width: int, height: int, scale: tuple[float, float] = (1.0, 1.0)):
        self.pixels = np.zeros((height, width, 4), dtype=np.uint8)
        info = skia.ImageInfo.Make(width, height, skia.kBGRA_8888_ColorType, skia.kPremul_AlphaType)
        self._surface = skia.Surface.MakeRasterDirect(info, self.pixels)
        self._canvas = self._surface.getCanvas()
        self._scale = None if scale == (1.0, 1.0) else skia.Matrix.Scale(*scale)
        self._paint = skia.Paint(AntiAlias=True)

    def clear(self, color: str | None) -> None:
        self._canvas.clear(0 if color is None else _color(color))

    def outline(self, glyphs: tuple[Glyph, ...]) -> skia.Path:
        builder = skia.PathBuilder()
        for glyph in glyphs:
            _trace(builder, glyph)
        return builder.detach()

    def fill(self, outline: skia.Path, matrix: Matrix, color: str, opacity: float) -> None:
        placed = skia.Matrix.MakeAll(*matrix)
        self._canvas.setMatrix(skia.Matrix.Concat(self._scale, placed) if self._scale else placed)
        self._paint.setColor(_color(color))
        self._paint.setAlphaf(opacity)
        self._canvas.drawPath(outline, self._paint)


def _trace(builder: skia.PathBuilder, glyph: Glyph) -> None:
    """Adds a glyph's outline, turned from font units (y up) to title space (y down)."""
    verbs = {
        "move": builder.moveTo,
        "line": builder.lineTo,
        "quad": builder.quadTo,
        "curve": builder.cubicTo,
    }
    for verb, numbers in glyph.commands:
        if verb == "close":
            builder.close()
            continue
        scaled = [
            glyph.y - number * glyph.scale if axis % 2 else glyph.x + number * glyph.scale
            for axis, number in enumerate(numbers)
        ]
        verbs[verb](*scaled)
