"""The canvas that draws: Skia, on a picture kept in memory."""

from collections.abc import Iterable
from functools import lru_cache

import numpy as np
import skia

from ..lettering.layout import Glyph
from .canvas import Fill


@lru_cache(maxsize=4096)
def _rgb(color: str) -> int:
    return int(color[1:], 16)


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

    def clear(self, color: str | None, rows: tuple[int, int] | None = None) -> None:
        """Fills the picture, or just its rows from first to end."""
        self._canvas.resetMatrix()
        self._canvas.save()
        if rows is not None:
            width = self.pixels.shape[1]
            self._canvas.clipRect(skia.Rect.MakeLTRB(0, rows[0], width, rows[1]), doAntiAlias=False)
        self._canvas.clear(0 if color is None else 0xFF000000 | _rgb(color))
        self._canvas.restore()

    def outline(self, glyphs: tuple[Glyph, ...]) -> skia.Path:
        builder = skia.PathBuilder()
        for glyph in glyphs:
            _trace(builder, glyph)
        return builder.detach()

    def fill(self, fills: Iterable[Fill]) -> None:
        # One tight loop: at a letter in 30 microseconds, every look-up tells.
        canvas, paint, scale = self._canvas, self._paint, self._scale
        make_matrix, concat = skia.Matrix.MakeAll, skia.Matrix.Concat
        for outline, matrix, color, opacity in fills:
            placed = make_matrix(*matrix)
            canvas.setMatrix(concat(scale, placed) if scale else placed)
            paint.setColor(round(opacity * 255) << 24 | _rgb(color))
            canvas.drawPath(outline, paint)


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
