"""The canvas that draws: Skia, on a picture kept in memory."""

import math
from collections.abc import Iterable, Iterator, Sequence
from functools import lru_cache
from itertools import groupby

import cv2
import numpy as np
import skia

from ...raster.blending import blend_few
from ...raster.pixel_buffer import AS_IT_IS, Edges, PixelBuffer, Scale, times_alpha
from ..composing.masks import let_through, matte_of
from ..letterforms.outlines import Commands
from ..letterforms.windows import close_window, open_window
from ..pixels.bitmaps import Box, Photo
from ..shutter.motion_blur import mean_in_linear_light
from .canvas import DrawItem, DrawnLine, EffectValues, Gradient, MaskCut
from .gradients import fill_with_gradient
from .photos import draw_photo, without_edges
from .skia_outlines import Outline
from .sprite_cache import NOTHING, PlacedSprite, SpriteCache

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
        self._mode = skia.BlendMode.kSrcOver  # how what is drawn is blended with what is there
        self._sprites = SpriteCache(self._draw_sprite)
        self._background: tuple[tuple[DrawItem, str | None], PixelBuffer] | None = None
        self._aim()

    @property
    def pixels(self) -> np.ndarray:
        return self._buffers[0].pixels

    def turned_over(self, pixels: np.ndarray) -> np.ndarray:
        """The picture that was drawn; the next is drawn on `pixels`, of the same size."""
        drawn = self.pixels
        self._buffers[0] = PixelBuffer(pixels)
        self._aim()
        return drawn

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

    @property
    def scale(self) -> Scale:
        """How large the picture in memory is, and how many of its pixels one of the scene's is."""
        return self._pixel

    def clear(self, color: str | None, edges: Edges | None = None) -> None:
        """Fills the picture, or just what lies between edges."""
        numbers = self.pixels.view(np.uint32)[..., 0]  # alpha, red, green, blue of each pixel
        if edges is not None:
            left, top, right, bottom = edges
            numbers = numbers[top:bottom, left:right]
        numbers.fill(0 if color is None else 0xFF000000 | _rgb(color))

    def lay_background(
        self, background: DrawItem, color: str | None, edges: Edges | None = None
    ) -> None:
        """Fills the picture, or just what lies between edges; drawn once while it stays."""
        if self._background is None or self._background[0] != (background, color):
            whole = self._buffers[0]
            self.clear(color)
            buffer = whole.like(whole.pixels.copy())
            self._draw_on(buffer, [background], buffer.canvas, [None])
            self._background = ((background, color), buffer)
        left, top, right, bottom = edges or (0, 0, *self._buffers[0].size)
        part = np.s_[top:bottom, left:right]
        self.pixels[part] = self._background[1].pixels[part]

    @staticmethod
    def outline(commands: Commands) -> Outline:
        return Outline.of(commands)

    def draw(self, items: Iterable[DrawItem], blend: str = "normal") -> None:
        items = list(items)
        mode = BLEND_MODES[blend] if blend != "normal" else skia.BlendMode.kSrcOver
        if blend == "normal" or _is_of_one_piece(items):
            if blend != "normal" and self._blend_photo(items[0], mode):
                return
            self._mode = mode
            self._draw_all(items)
            self._mode = skia.BlendMode.kSrcOver
            return
        # What several pieces make together is blended.
        self._canvas.resetMatrix()
        self._canvas.saveLayer(None, skia.Paint(BlendMode=mode))
        self._draw_all(items)
        self._canvas.restore()

    def _blend_photo(self, item: DrawItem, mode: skia.BlendMode) -> bool:
        """Blends a large photo that covers all that is seen, if that is what an item is."""
        if not isinstance(item.fill, Photo) or item != DrawItem(*item[:4]):
            return False  # it is dressed
        placed = skia.Matrix.MakeAll(*item.matrix)
        self._canvas.setMatrix(skia.Matrix.Concat(self._scale, placed) if self._scale else placed)
        buffer = self._buffers[-1]
        covering = without_edges(self._canvas, item.fill, buffer.left, buffer.top)
        if covering is not None:
            self._blend(covering, skia.Paint(Alphaf=item.opacity, BlendMode=mode))
        return covering is not None

    def _blend(self, buffer: PixelBuffer, paint: skia.Paint) -> None:
        """Blends pixels with the last buffer in a mode that is not the usual."""
        if not blend_few(buffer, self._buffers[-1], paint):
            self._put(buffer, paint)

    def _draw_all(self, items: Sequence[DrawItem]) -> None:
        self._draw_placed(items, self._sprites.placed(items, self._buffers[-1], self._pixel))

    def _draw_placed(self, items: Sequence[DrawItem], placed: Sequence[PlacedSprite]) -> None:
        """Draws items, some of them as sprites, within their windows."""
        for window, pairs in groupby(zip(items, placed, strict=True), lambda pair: pair[0].window):
            if window is not None:
                open_window(self._canvas, window, self._scale)
            self._draw_each(pairs)
            if window is not None:
                close_window(self._canvas, window, self._scale)

    def _draw_each(self, pairs: Iterable[tuple[DrawItem, PlacedSprite]]) -> None:
        # One tight loop: at an item in 30 microseconds, every look-up tells.
        canvas, paint, scale = self._canvas, self._paint, self._scale
        make_matrix, concat = skia.Matrix.MakeAll, skia.Matrix.Concat
        paint.setBlendMode(self._mode)
        is_reset = False
        for item, sprite in pairs:
            if sprite is not None:
                if sprite != NOTHING:
                    paint.setAlphaf(item.opacity)
                    if not is_reset:
                        canvas.resetMatrix()
                        is_reset = True
                    picture, left, top = sprite
                    canvas.drawImage(picture.image, left, top, AS_IT_IS, paint)
                continue
            outline, matrix, fill, opacity, line, blur, _, _, filled, within, _ = item
            placed = make_matrix(*matrix)
            canvas.setMatrix(concat(scale, placed) if scale else placed)
            is_reset = False
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
        before, self._canvas = (self._canvas, self._mode), canvas
        self._mode = skia.BlendMode.kSrcOver
        self._draw_dressed(item.outline, item.fill, 1.0, item.line, item.blur, item.filled)
        self._canvas, self._mode = before

    def _draw_dressed(
        self,
        outline: Outline,
        fill: str | Gradient | Photo | None,
        opacity: float,
        line: DrawnLine | None,
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
            draw_photo(self._canvas, fill, self._new_paint(opacity * filled), blur)
        elif fill is not None and filled > 0:
            self._fill(outline, fill, opacity * filled, blur)
        if line is not None:
            self._draw_line(outline, line, opacity, blur)
        if is_layered:
            self._canvas.restore()

    def _fill(self, outline: Outline, fill: str | Gradient, opacity: float, blur: float) -> None:
        paint = self._new_paint(opacity, blur)
        if isinstance(fill, str):
            paint.setColor(paint.getAlpha() << 24 | _rgb(fill))
        elif not blur and fill_with_gradient(self._canvas, outline.path, fill, paint):
            return
        else:
            paint.setShader(_shader(fill))
        self._canvas.drawPath(outline.path, paint)

    def _new_paint(self, opacity: float, blur: float = 0.0) -> skia.Paint:
        paint = skia.Paint(AntiAlias=True, BlendMode=self._mode)
        paint.setAlpha(round(opacity * 255))
        if blur:
            paint.setMaskFilter(skia.MaskFilter.MakeBlur(skia.kNormal_BlurStyle, blur, True))
        return paint

    def _draw_line(self, outline: Outline, line: DrawnLine, opacity: float, blur: float) -> None:
        paint = self._new_paint(opacity, blur)
        paint.setColor(paint.getAlpha() << 24 | _rgb(line.color))
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
        self._buffers[-1] = mean_in_linear_light(
            self._buffers[-1], samples, self._draw_in_turn, self._pixel
        )
        self._aim()

    def _draw_in_turn(
        self, buffer: PixelBuffer, samples: Sequence[Sequence[DrawItem]], canvas: skia.Canvas
    ) -> Iterator[None]:
        """Draws samples of items, one more each time that it is asked, on a canvas that shows the
        place of a buffer."""
        every = [item for items in samples for item in items]
        placed = iter(self._sprites.placed(every, buffer, self._pixel))
        for items in samples:
            self._draw_on(buffer, items, canvas, [next(placed) for _ in items])
            yield

    def _draw_on(
        self,
        buffer: PixelBuffer,
        items: Sequence[DrawItem],
        canvas: skia.Canvas,
        placed: Sequence[PlacedSprite],
    ) -> None:
        self._buffers.append(buffer)
        self._aim()
        self._canvas = canvas
        self._draw_placed(items, placed)
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

    def cut(self, cuts: Sequence[MaskCut]) -> None:
        buffer = self._buffers[-1]
        self._let_through(let_through(cuts, buffer, self._pixel))

    def _let_through(self, alpha: np.ndarray) -> None:
        """Leaves of the last buffer what `alpha` (height, width) says, and only where it does."""
        buffer = self._buffers[-1]
        left, top, right, bottom = _place_of(alpha)
        seen = buffer.pixels[top:bottom, left:right]
        kept = times_alpha(seen, alpha[top:bottom, left:right])
        self._buffers[-1] = PixelBuffer(kept, buffer.left + left, buffer.top + top)
        self._aim()

    def close(self, blend: str, opacity: float) -> None:
        buffer = self._buffers.pop()
        self._aim()
        paint = skia.Paint(Alphaf=opacity)
        if blend != "normal":
            paint.setBlendMode(BLEND_MODES[blend])
            self._blend(buffer, paint)
        else:
            self._put(buffer, paint)

    def _put(self, buffer: PixelBuffer, paint: skia.Paint) -> None:
        below = self._buffers[-1]
        self._canvas.resetMatrix()
        buffer.put_on(self._canvas, buffer.left - below.left, buffer.top - below.top, paint)

    def close_as_matte(self, by: str, invert: bool) -> None:
        buffer = self._buffers.pop()
        self._aim()
        below = self._buffers[-1]
        fitted = PixelBuffer.empty(below.left, below.top, below.right, below.bottom)
        buffer.put_on(fitted.canvas, buffer.left - below.left, buffer.top - below.top)
        self._let_through(matte_of(fitted, by, invert))

    def adjust(
        self, effects: Sequence[EffectValues], cuts: Sequence[MaskCut], opacity: float
    ) -> None:
        below = self._buffers[-1]
        share = let_through(cuts, below, self._pixel) if cuts else None
        left, top, right, bottom = 0, 0, *below.size
        if share is not None and not any(effect.model.is_unbounded for effect in effects):
            left, top, right, bottom = _place_of(share)
        margin = sum(effect.margin for effect in effects)
        across, down = self._pixel._replace(margin=margin).reach
        edges = (below.left + left, below.top + top, below.left + right, below.top + bottom)
        taken = below.seen_through(
            (edges[0] - across, edges[1] - down, edges[2] + across, edges[3] + down)
        )
        changed = self._done(effects, taken).within(edges)
        rows, columns = slice(top, bottom), slice(left, right)
        if share is not None:
            share = share[rows, columns]
        old = below.pixels[rows, columns]
        old[:] = _between(old, changed.pixels, share, opacity)


def _is_of_one_piece(items: Sequence[DrawItem]) -> bool:
    """Whether items are one fill, one line or one photo: then each pixel of it is blended once."""
    return len(items) == 1 and items[0].window is None and not (items[0].fill and items[0].line)


def _within(value: float, low: float, high: float) -> float:
    return min(max(value, low), high)


def _place_of(alpha: np.ndarray) -> Edges:
    """The box outside of which nothing is let through: one pixel at least."""
    left, top, width, height = cv2.boundingRect(alpha)
    return left, top, left + max(width, 1), top + max(height, 1)


def _between(
    old: np.ndarray, new: np.ndarray, share: np.ndarray | None, opacity: float
) -> np.ndarray:
    """Pixels on the way from old to new ones, by a share (height, width) 0..255 and an opacity."""
    if share is None:
        return new if opacity >= 1 else cv2.addWeighted(new, opacity, old, 1 - opacity, 0)
    way = share * np.float32(opacity / 255)
    return cv2.blendLinear(new, np.ascontiguousarray(old), way, 1 - way)


@lru_cache(maxsize=1024)
def _shader(gradient: Gradient) -> skia.Shader:
    colors = [0xFF000000 | _rgb(color) for color in gradient.colors]
    start, end = skia.Point(*gradient.start), skia.Point(*gradient.end)
    if gradient.is_round:
        radius = max(math.dist(gradient.start, gradient.end), 1e-3)
        return skia.GradientShader.MakeRadial(start, radius, colors)
    return skia.GradientShader.MakeLinear([start, end], colors)
