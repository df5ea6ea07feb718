"""The canvas that draws: Skia, on a picture kept in memory."""

import math
from collections.abc import Iterable, Sequence
from functools import lru_cache
from itertools import accumulate, groupby
from operator import attrgetter

import numpy as np
import skia

from ..raster.pixel_buffer import PixelBuffer, Scale, times_alpha
from .bitmaps import Box, Photo
from .canvas import Cut, DrawItem, EffectValues, Gradient, Line
from .masks import let_through, matte_of
from .motion_blur import mean_in_linear_light
from .outlines import WITHOUT, Commands
from .sprite_cache import SpriteCache
from .windows import close_window, open_window

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


_ENDS = {
    "flat": skia.Paint.kButt_Cap,
    "round": skia.Paint.kRound_Cap,
    "square": skia.Paint.kSquare_Cap,
}
_JOINS = {
    "sharp": skia.Paint.kMiter_Join,
    "round": skia.Paint.kRound_Join,
    "cut": skia.Paint.kBevel_Join,
}


class SkiaCanvas:
    """A picture of width x height pixels; `pixels` (height, width, 4) is its memory.

    BGRA, premultiplied, 8 bit. `scale` is applied last, so that the same drawing fills a picture
    of another size. Buffers that are open lie on a stack; what is drawn goes to the last of them.
    """

    def __init__(self, width: int, height: int, scale: tuple[float, float] = (1.0, 1.0)):
        self._buffers = [PixelBuffer.empty(0, 0, width, height)]
        self._pixel = Scale(*scale, width, height)
        self._paint = skia.Paint(AntiAlias=True)
        self._sprites = SpriteCache(self._draw_sprite)
        self._background: tuple[DrawItem, PixelBuffer] | None = None
        self._aim()

    @property
    def pixels(self) -> np.ndarray:
        return self._buffers[0].pixels

    def _aim(self) -> None:
        """Makes the last buffer what is drawn on."""
        buffer = self._buffers[-1]
        self._canvas = buffer.canvas
        moved = (-buffer.left, -buffer.top)
        if self._pixel[:2] == (1.0, 1.0) and moved == (0, 0):
            self._scale = None
            return
        self._scale = skia.Matrix.Scale(*self._pixel[:2])
        self._scale.postTranslate(*moved)

    def clear(self, color: str | None, rows: tuple[int, int] | None = None) -> None:
        """Fills the picture, or just its rows from first to end."""
        self._canvas.resetMatrix()
        self._canvas.save()
        if rows is not None:
            width = self.pixels.shape[1]
            self._canvas.clipRect(skia.Rect.MakeLTRB(0, rows[0], width, rows[1]), doAntiAlias=False)
        self._canvas.clear(0 if color is None else 0xFF000000 | _rgb(color))
        self._canvas.restore()

    def lay_background(self, background: DrawItem, rows: tuple[int, int] | None = None) -> None:
        """Fills the picture, or just its rows from first to end; drawn once while it stays."""
        if self._background is None or self._background[0] != background:
            whole = self._buffers[0]
            buffer = whole.like(whole.pixels.copy())
            self._draw_on(buffer, [background], buffer.canvas)
            self._background = (background, buffer)
        first, end = rows or (0, len(self.pixels))
        self.pixels[first:end] = self._background[1].pixels[first:end]

    @staticmethod
    def outline(commands: Commands) -> "Outline":
        if WITHOUT in commands:
            at = commands.index(WITHOUT)
            whole, holes = (SkiaCanvas.outline(c) for c in (commands[:at], commands[at + 1 :]))
            return whole.without(holes)
        builder = skia.PathBuilder()
        verbs = {
            "move": builder.moveTo,
            "line": builder.lineTo,
            "quad": builder.quadTo,
            "curve": builder.cubicTo,
            "close": builder.close,
        }
        for verb, numbers in commands:
            if verb != "end":
                verbs[verb](*numbers)
        return Outline(builder.detach())

    def draw(self, items: Iterable[DrawItem], blend: str = "normal") -> None:
        if blend != "normal":
            paint = skia.Paint()
            paint.setBlendMode(BLEND_MODES[blend])
            self._canvas.resetMatrix()
            self._canvas.saveLayer(None, paint)
        self._draw_all(items)
        if blend != "normal":
            self._canvas.restore()

    def _draw_all(self, items: Iterable[DrawItem]) -> None:
        for window, those in groupby(items, attrgetter("window")):
            if window is not None:
                open_window(self._canvas, window, self._scale)
            self._draw_each(those)
            if window is not None:
                close_window(self._canvas, window, self._scale)

    def _draw_each(self, items: Iterable[DrawItem]) -> None:
        # One tight loop: at an item in 30 microseconds, every look-up tells.
        canvas, paint, scale = self._canvas, self._paint, self._scale
        make_matrix, concat = skia.Matrix.MakeAll, skia.Matrix.Concat
        for item in items:
            outline, matrix, fill, opacity, line, blur, is_copy, _, filled, within = item
            if is_copy and self._sprites.put(canvas, item, self._buffers[-1], self._pixel):
                continue
            placed = make_matrix(*matrix)
            canvas.setMatrix(concat(scale, placed) if scale else placed)
            if within is not None:
                canvas.save()
                canvas.clipPath(within.path, skia.ClipOp.kIntersect, True)
            if line is None and not blur and type(fill) is str:
                opacity *= filled
                paint.setColor(round(opacity * 255) << 24 | _rgb(fill))
                canvas.drawPath(outline.path, paint)
            else:
                self._draw_dressed(outline, fill, opacity, line, blur, filled)
            if within is not None:
                canvas.restore()

    def _draw_sprite(self, canvas: skia.Canvas, matrix: skia.Matrix, item: DrawItem) -> None:
        canvas.setMatrix(matrix)
        before, self._canvas = self._canvas, canvas
        self._draw_dressed(item.outline, item.fill, 1.0, item.line, item.blur, item.filled)
        self._canvas = before

    def _draw_dressed(
        self,
        outline: "Outline",
        fill: str | Gradient | Photo | None,
        opacity: float,
        line: Line | None,
        blur: float,
        filled: float,
    ) -> None:
        """An item with a line, a gradient, a picture or a blur."""
        # A line over a fill that both let something through would show their overlap.
        is_layered = line is not None and fill is not None and opacity < 1
        if line is not None and is_layered:
            bounds = outline.path.computeTightBounds().makeOutset(*[line.width + 3 * blur] * 2)
            self._canvas.saveLayerAlpha(bounds, round(opacity * 255))
            opacity = 1.0
        if isinstance(fill, Photo):
            _draw_photo(self._canvas, fill, opacity * filled, blur)
        elif fill is not None and filled > 0:
            self._canvas.drawPath(outline.path, _paint(fill, opacity * filled, blur))
        if line is not None:
            self._draw_line(outline, line, opacity, blur)
        if is_layered:
            self._canvas.restore()

    def _draw_line(self, outline: "Outline", line: Line, opacity: float, blur: float) -> None:
        paint = _paint(line.color, opacity, blur)
        paint.setStyle(skia.Paint.kStroke_Style)
        paint.setStrokeCap(_ENDS[line.ends])
        paint.setStrokeJoin(_JOINS[line.joins])
        paint.setStrokeWidth(line.width)
        if line.dashes:
            paint.setPathEffect(skia.DashPathEffect.Make(*line.dashes))
        self._canvas.drawPath(outline.along(line), paint)

    # Buffers

    def open(self, box: Box | None, margin: float) -> None:
        scale = self._pixel
        edges = scale._replace(margin=margin).edges
        if box is not None:
            left, top, right, bottom = box
            near = (left * scale.across - 2, top * scale.down - 2)
            far = (right * scale.across + 2, bottom * scale.down + 2)
            # A box without end, or with nothing in it, is kept within the edges as well.
            low = [math.floor(_within(n, *edges[axis::2])) for axis, n in enumerate(near)]
            high = [math.ceil(_within(n, *edges[axis::2])) for axis, n in enumerate(far)]
            edges = (low[0], low[1], high[0], high[1])
        self._buffers.append(PixelBuffer.empty(*edges))
        self._aim()

    def average(self, samples: Sequence[Sequence[DrawItem]]) -> None:
        self._buffers[-1] = mean_in_linear_light(self._buffers[-1], samples, self._draw_on)
        self._aim()

    def _draw_on(self, buffer: PixelBuffer, items: Iterable[DrawItem], canvas: skia.Canvas) -> None:
        """Draws items on a canvas that shows the place of a buffer."""
        self._buffers.append(buffer)
        self._aim()
        self._canvas = canvas
        self._draw_all(items)
        self._buffers.pop()
        self._aim()

    def apply(self, effects: Sequence[EffectValues]) -> None:
        self._buffers[-1] = self._done(effects, self._buffers[-1])
        self._aim()

    def _done(self, effects: Sequence[EffectValues], buffer: PixelBuffer) -> PixelBuffer:
        """A buffer after effects, of which only is kept what the next ones may bring into sight."""
        margins = [effect.margin for effect in effects]
        for number, effect in enumerate(effects):
            scale = self._pixel._replace(margin=sum(margins[number + 1 :]))
            buffer = effect.applied(buffer, scale).within(scale.edges)
        return buffer

    def cut(self, cuts: Sequence[Cut]) -> None:
        buffer = self._buffers[-1]
        self._let_through(let_through(cuts, buffer, self._pixel))

    def _let_through(self, alpha: np.ndarray) -> None:
        buffer = self._buffers[-1]
        self._buffers[-1] = buffer.like(times_alpha(buffer.pixels, alpha))
        self._aim()

    def close(self, blend: str, opacity: float) -> None:
        buffer = self._buffers.pop()
        self._aim()
        paint = skia.Paint(Alphaf=opacity)
        if blend != "normal":
            paint.setBlendMode(BLEND_MODES[blend])
        self._put(buffer, paint)

    def _put(self, buffer: PixelBuffer, paint: skia.Paint) -> None:
        below = self._buffers[-1]
        self._canvas.resetMatrix()
        place = (buffer.left - below.left, buffer.top - below.top)
        self._canvas.drawImage(buffer.image(), *place, skia.SamplingOptions(), paint)

    def close_as_matte(self, by: str, invert: bool) -> None:
        buffer = self._buffers.pop()
        self._aim()
        below = self._buffers[-1]
        fitted = PixelBuffer.empty(below.left, below.top, below.right, below.bottom)
        place = (buffer.left - below.left, buffer.top - below.top)
        fitted.canvas.drawImage(buffer.image(), *place)
        self._let_through(matte_of(fitted, by, invert))

    def adjust(self, effects: Sequence[EffectValues], cuts: Sequence[Cut], opacity: float) -> None:
        below = self._buffers[-1]
        # What lies beyond the edges is taken to go on as it is there, or else they would fade.
        margin = sum(effect.margin for effect in effects)
        buffer = self._done(effects, below.continued(self._pixel._replace(margin=margin)))
        rows = slice(below.top - buffer.top, below.bottom - buffer.top)
        columns = slice(below.left - buffer.left, below.right - buffer.left)
        changed = buffer.pixels[rows, columns]
        share = let_through(cuts, below, self._pixel) if cuts else None
        below.pixels[:] = _between(below.pixels, changed, share, opacity)


def _within(value: float, low: float, high: float) -> float:
    return min(max(value, low), high)


def _between(
    old: np.ndarray, new: np.ndarray, share: np.ndarray | None, opacity: float
) -> np.ndarray:
    """Pixels on the way from old to new ones, by a share (height, width) 0..255 and an opacity."""
    if share is None and opacity >= 1:
        return new
    way = opacity if share is None else (share * (opacity / 255))[..., None]
    return np.round(old + (new.astype(float) - old) * way).astype(np.uint8)


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


_SMOOTH = skia.SamplingOptions(skia.FilterMode.kLinear, skia.MipmapMode.kLinear)


def _draw_photo(canvas: skia.Canvas, photo: Photo, opacity: float, blur: float) -> None:
    """A picture in its box. Not as a shader, which would be copied through its bytes."""
    paint = skia.Paint(AntiAlias=True)
    paint.setAlpha(round(opacity * 255))
    if photo.color is not None:
        color = 0xFF000000 | _rgb(photo.color)
        paint.setColorFilter(skia.ColorFilters.Blend(color, skia.BlendMode.kSrcIn))
    if blur:
        paint.setImageFilter(skia.ImageFilters.Blur(blur, blur))
    box = skia.Rect.MakeLTRB(*photo.box)
    canvas.drawImageRect(photo.bitmap.image, box, _SMOOTH, paint)


class Outline:
    """A path, and its edge: the same without the pieces of contours that lie inside others."""

    __slots__ = ("_edge", "path")

    def __init__(self, path: skia.Path):
        self.path = path
        self._edge: skia.Path | None = None

    @property
    def edge(self) -> skia.Path:
        if self._edge is None:
            # Glyphs of variable fonts are put together of contours that overlap.
            self._edge = skia.Simplify(self.path) or self.path
        return self._edge

    def without(self, holes: "Outline") -> "Outline":
        """What is left of it if others are cut out."""
        try:
            left = skia.Op(self.path, holes.path, skia.PathOp.kDifference_PathOp)
        except RuntimeError:  # forms too tangled for it: they stay whole
            left = None
        return self if left is None else Outline(left)

    def along(self, line: Line) -> skia.Path:
        """What a line runs along: all contours or the edge, as far as it is seen."""
        path = self.path if line.whole else self.edge
        if line.seen is None:
            return path
        builder = skia.PathBuilder()
        lengths = _lengths_of(path)
        for first, end in line.seen:
            if line.each:
                shares = [(first * length, end * length) for length in lengths]
            else:
                whole = sum(lengths)
                before = [0.0, *accumulate(lengths)]
                shares = [(first * whole - at, end * whole - at) for at in before[:-1]]
            _add_parts(builder, path, lengths, shares)
        return builder.detach()


def _add_path(builder: skia.PathBuilder, path: skia.Path) -> None:
    """Adds the contours of a path, which are made of moves, lines, quadratics and cubics."""
    verbs = {
        skia.Path.kMove_Verb: builder.moveTo,
        skia.Path.kLine_Verb: builder.lineTo,
        skia.Path.kQuad_Verb: builder.quadTo,
        skia.Path.kCubic_Verb: builder.cubicTo,
    }
    for verb, points in path:
        if verb in verbs:
            # All but a move tell where they come from too.
            new = points if verb == skia.Path.kMove_Verb else points[1:]
            verbs[verb](*(number for point in new for number in (point.x(), point.y())))


def commands_of_path(path: skia.Path) -> Commands:
    """A path of moves, lines, quadratics and cubics as commands."""
    verbs = {
        skia.Path.kMove_Verb: "move",
        skia.Path.kLine_Verb: "line",
        skia.Path.kQuad_Verb: "quad",
        skia.Path.kCubic_Verb: "curve",
        skia.Path.kClose_Verb: "close",
    }
    commands = []
    for verb, points in path:
        if verb in verbs:
            new = (
                points[1:] if verb not in (skia.Path.kMove_Verb, skia.Path.kClose_Verb) else points
            )
            numbers = tuple(number for point in new for number in (point.x(), point.y()))
            commands.append((verbs[verb], () if verbs[verb] == "close" else numbers))
    return tuple(commands)


def _lengths_of(path: skia.Path) -> list[float]:
    """The length of each contour."""
    measure = skia.PathMeasure(path, False)
    lengths = [measure.getLength()]
    while measure.nextContour():
        lengths.append(measure.getLength())
    return lengths


def _add_parts(
    builder: skia.PathBuilder,
    path: skia.Path,
    lengths: list[float],
    parts: list[tuple[float, float]],
) -> None:
    """Adds of each contour of a path what lies between two lengths along it."""
    measure = skia.PathMeasure(path, False)
    for length, (first, end) in zip(lengths, parts, strict=True):
        low, high = max(first, 0.0), min(end, length)
        if low < high:
            part = skia.Path()
            measure.getSegment(low, high, part, True)
            _add_path(builder, part)
        measure.nextContour()


@lru_cache(maxsize=1024)
def _shader(gradient: Gradient) -> skia.Shader:
    colors = [0xFF000000 | _rgb(color) for color in gradient.colors]
    start, end = skia.Point(*gradient.start), skia.Point(*gradient.end)
    if gradient.is_round:
        radius = max(math.dist(gradient.start, gradient.end), 1e-3)
        return skia.GradientShader.MakeRadial(start, radius, colors)
    return skia.GradientShader.MakeLinear([start, end], colors)
