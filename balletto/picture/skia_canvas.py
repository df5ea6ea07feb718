"""The canvas that draws: Skia, on a picture kept in memory."""

import math
from collections.abc import Iterable
from functools import lru_cache

import numpy as np
import skia

from ..lettering.shaping import Glyph
from .canvas import Gradient, Letter

# By their names of the W3C's "Compositing and Blending".
BLEND_MODES = {
    "multiply": skia.BlendMode.kMultiply,
    "screen": skia.BlendMode.kScreen,
    "overlay": skia.BlendMode.kOverlay,
    "darken": skia.BlendMode.kDarken,
    "lighten": skia.BlendMode.kLighten,
    "color-dodge": skia.BlendMode.kColorDodge,
    "color-burn": skia.BlendMode.kColorBurn,
    "hard-light": skia.BlendMode.kHardLight,
    "soft-light": skia.BlendMode.kSoftLight,
    "difference": skia.BlendMode.kDifference,
    "exclusion": skia.BlendMode.kExclusion,
    "hue": skia.BlendMode.kHue,
    "saturation": skia.BlendMode.kSaturation,
    "color": skia.BlendMode.kColor,
    "luminosity": skia.BlendMode.kLuminosity,
}


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

    def outline(self, glyphs: tuple[Glyph, ...]) -> "_Outline":
        builder = skia.PathBuilder()
        for glyph in glyphs:
            _trace(builder, glyph)
        return _Outline(builder.detach())

    def draw(self, letters: Iterable[Letter], blend: str = "normal") -> None:
        if blend != "normal":
            paint = skia.Paint()
            paint.setBlendMode(BLEND_MODES[blend])
            self._canvas.resetMatrix()
            self._canvas.saveLayer(None, paint)
        self._draw_all(letters)
        if blend != "normal":
            self._canvas.restore()

    def _draw_all(self, letters: Iterable[Letter]) -> None:
        # One tight loop: at a letter in 30 microseconds, every look-up tells.
        canvas, paint, scale = self._canvas, self._paint, self._scale
        make_matrix, concat = skia.Matrix.MakeAll, skia.Matrix.Concat
        for letter in letters:
            outline, matrix, fill, opacity, line, blur = letter
            placed = make_matrix(*matrix)
            canvas.setMatrix(concat(scale, placed) if scale else placed)
            if line is None and not blur and type(fill) is str:
                paint.setColor(round(opacity * 255) << 24 | _rgb(fill))
                canvas.drawPath(outline.path, paint)
            else:
                self._draw_dressed(outline, fill, opacity, line, blur)

    def _draw_dressed(
        self,
        outline: "_Outline",
        fill: str | Gradient | None,
        opacity: float,
        line: tuple[float, str] | None,
        blur: float,
    ) -> None:
        """A letter with a line, a gradient or a blur."""
        # A line over a fill that both let something through would show their overlap.
        is_layered = line is not None and fill is not None and opacity < 1
        if is_layered:
            bounds = outline.path.computeTightBounds().makeOutset(*[line[0] + 3 * blur] * 2)
            self._canvas.saveLayerAlpha(bounds, round(opacity * 255))
            opacity = 1.0
        if fill is not None:
            self._canvas.drawPath(outline.path, _paint(fill, opacity, blur))
        if line is not None:
            paint = _paint(line[1], opacity, blur)
            paint.setStyle(skia.Paint.kStroke_Style)
            paint.setStrokeJoin(skia.Paint.kRound_Join)
            paint.setStrokeWidth(line[0])
            self._canvas.drawPath(outline.edge, paint)
        if is_layered:
            self._canvas.restore()


def _paint(fill: str | Gradient, opacity: float, blur: float) -> skia.Paint:
    paint = skia.Paint(AntiAlias=True)
    if isinstance(fill, Gradient):
        paint.setShader(_shader(fill))
    else:
        paint.setColor(0xFF000000 | _rgb(fill))
    paint.setAlpha(round(opacity * 255))
    if blur:
        paint.setMaskFilter(skia.MaskFilter.MakeBlur(skia.kNormal_BlurStyle, blur, True))
    return paint


class _Outline:
    """A path, and its edge: the same without the pieces of contours that lie inside others."""

    __slots__ = ("_edge", "path")

    def __init__(self, path: skia.Path):
        self.path = path
        self._edge: skia.Path | None = None

    @property
    def edge(self) -> skia.Path:
        if self._edge is None:
            # Letters of variable fonts are put together of contours that overlap.
            self._edge = skia.Simplify(self.path) or self.path
        return self._edge


@lru_cache(maxsize=1024)
def _shader(gradient: Gradient) -> skia.Shader:
    colors = [0xFF000000 | _rgb(color) for color in gradient.colors]
    start, end = skia.Point(*gradient.start), skia.Point(*gradient.end)
    if gradient.is_round:
        radius = max(math.dist(gradient.start, gradient.end), 1e-3)
        return skia.GradientShader.MakeRadial(start, radius, colors)
    return skia.GradientShader.MakeLinear([start, end], colors)


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
