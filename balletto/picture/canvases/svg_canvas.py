"""The canvas that writes SVG 2: a frame as a drawing that stays sharp, with its letters as paths.

What a drawing cannot hold is said by NotInSvg, with what would do.
"""

import base64
import io
from collections.abc import Iterable, Sequence
from html import escape

import numpy as np
import skia
from PIL import Image

from ...raster.svg_filters import color_matrix, flooded, gaussian_blur, number
from ..letterforms.outlines import Commands
from ..pixels.bitmaps import Box, Photo
from ..stills import straight_rgba
from .canvas import DrawItem, DrawnLine, EffectValues, Gradient, MaskCut, Matrix, SeenWindow
from .skia_canvas import SkiaCanvas
from .skia_outlines import Outline

_FAR = 20_000  # px: farther than anything is seen
_ENDS = {"flat": "butt", "round": "round", "square": "square"}
_JOINS = {"sharp": "miter", "round": "round", "cut": "bevel"}
_CONIC_STEPS = 2  # halvings of one into quadratics
_VERBS = {
    skia.Path.kMove_Verb: "M",
    skia.Path.kLine_Verb: "L",
    skia.Path.kQuad_Verb: "Q",
    skia.Path.kCubic_Verb: "C",
    skia.Path.kClose_Verb: "Z",
}


class NotInSvg(ValueError):
    """Something of the scene cannot be said in a drawing."""


class SvgCanvas:
    """A drawing of width x height, of a scene of so many px. `text()` is the whole file."""

    def __init__(self, size: tuple[int, int], scene_size: tuple[int, int]):
        self._size, self._scene_size = size, scene_size
        self._groups: list[list[str]] = [[]]
        self._definitions: list[str] = []

    def text(self) -> str:
        """The SVG file."""
        width, height = self._size
        view = " ".join(map(str, (0, 0, *self._scene_size)))
        lines = "\n".join((*self._definitions_text(), *self._groups[0]))
        return (
            f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}" height="{height}" '
            f'viewBox="{view}" preserveAspectRatio="none">\n{lines}\n</svg>\n'
        )

    def _definitions_text(self) -> list[str]:
        return ["<defs>", *self._definitions, "</defs>"] if self._definitions else []

    def clear(self, color: str | None) -> None:
        self._groups = [[]]
        if color is not None:
            self._put(_rectangle(color))

    def lay_background(self, background: DrawItem, color: str | None) -> None:
        self.clear(color)
        self.draw([background])

    # Paths are prepared as for drawing: parts and edges of them are the same then.
    @staticmethod
    def outline(commands: Commands) -> Outline:
        return SkiaCanvas.outline(commands)

    def draw(self, items: Iterable[DrawItem], blend: str = "normal") -> None:
        said = [part for item in items for part in self._item(item)]
        if blend == "normal":
            self._groups[-1] += said
        elif said:
            self._put(_group(said, f'style="mix-blend-mode: {blend}"'))

    def _put(self, element: str) -> None:
        self._groups[-1].append(element)

    # Items

    def _item(self, item: DrawItem) -> list[str]:
        parts = []
        path, transform = _placed(item.outline.path, item.matrix)
        if isinstance(item.fill, Photo):
            parts.append(self._photo(item.fill, item.matrix))
        elif item.fill is not None:
            fill = self._fill(item.fill, item.matrix, not transform)
            share = "" if item.filled >= 1 else f' fill-opacity="{number(item.filled)}"'
            parts.append(f'<path d="{_data(path)}" fill="{fill}"{share}{transform}/>')
        if item.line is not None:
            parts.append(self._line(item, item.line))
        if item.within is not None and parts:
            parts = [_group(parts, f'clip-path="url(#{self._clip(item)})"')]
        looks = "" if item.opacity >= 1 else f' opacity="{number(item.opacity)}"'
        if item.blur:
            scale = _scale_of(item.matrix)
            looks += f' filter="url(#{self._blurred(item.blur * scale)})"'
        parts = [_group(parts, looks.strip())] if looks and parts else parts
        return self._within(parts, item.window) if item.window and parts else parts

    def _clip(self, item: DrawItem) -> str:
        """What keeps an item within an outline."""
        path, transform = _placed(item.within.path, item.matrix)
        return self._define("clipPath", "", f'<path d="{_data(path)}"{transform}/>')

    def _within(self, parts: list[str], window: SeenWindow) -> list[str]:
        """Parts as far as they lie within a window."""
        if list(window.matrix[6:]) != [0, 0, 1]:
            raise NotInSvg(
                "An SVG cannot hold a window that is seen in perspective. Choose a PNG still."
            )
        left, top, right, bottom = window.box
        moved = f'transform="{_affine(window.matrix)}"'
        size = f'width="{number(max(right - left, 0))}" height="{number(max(bottom - top, 0))}"'
        edges = f'<rect x="{number(left)}" y="{number(top)}" {size} {moved}/>'
        whole = [_group(parts, f'clip-path="url(#{self._define("clipPath", "", edges)})"')]
        middles = ((left, 0.0, 1, 0), (0.0, top, 0, 1), (right, 0.0, -1, 0), (0.0, bottom, 0, -1))
        for (at_x, at_y, across, down), soft in zip(middles, window.soft, strict=True):
            if soft:
                end = (at_x + across * soft, at_y + down * soft)
                mask = self._fade((at_x, at_y), end, window.matrix)
                whole = [_group(whole, f'mask="url(#{mask})"')]
        return whole

    def _fade(self, start: tuple[float, float], end: tuple[float, float], matrix: Matrix) -> str:
        """A mask that lets through nothing at one point and all at another."""
        ends = (
            f'x1="{number(start[0])}" y1="{number(start[1])}" '
            f'x2="{number(end[0])}" y2="{number(end[1])}"'
        )
        where = f'gradientUnits="userSpaceOnUse" gradientTransform="{_affine(matrix)}" {ends}'
        stops = '<stop offset="0" stop-opacity="0"/><stop offset="1"/>'
        gradient = self._define("linearGradient", where, stops)
        content = _rectangle(f"url(#{gradient})")
        return self._define("mask", f'{_REGION} mask-type="alpha"', content)

    def _line(self, item: DrawItem, line: DrawnLine) -> str:
        placed, transform = _placed(item.outline.along(line), item.matrix)
        width = line.width * (1 if transform else _scale_of(item.matrix))
        dashes = ""
        if line.dashes:
            lengths, shift = line.dashes
            told = " ".join(map(number, lengths))
            dashes = f' stroke-dasharray="{told}" stroke-dashoffset="{number(shift)}"'
        return (
            f'<path d="{_data(placed)}" fill="none" stroke="{line.color}" '
            f'stroke-width="{number(width)}" stroke-linecap="{_ENDS[line.ends]}" '
            f'stroke-linejoin="{_JOINS[line.joins]}"{dashes}{transform}/>'
        )

    def _fill(self, fill: str | Gradient, matrix: Matrix, is_placed: bool) -> str:
        return fill if isinstance(fill, str) else f"url(#{self._gradient(fill, matrix, is_placed)})"

    def _gradient(self, fill: Gradient, matrix: Matrix, is_placed: bool) -> str:
        steps = len(fill.colors) - 1
        stops = "".join(
            f'<stop offset="{number(n / steps)}" stop-color="{color}"/>'
            for n, color in enumerate(fill.colors)
        )
        moved = f' gradientTransform="{_affine(matrix)}"' if is_placed else ""
        (x, y), (to_x, to_y) = fill.start, fill.end
        where = f'gradientUnits="userSpaceOnUse"{moved}'
        if fill.is_round:
            radius = float(np.hypot(to_x - x, to_y - y))
            place = f'cx="{number(x)}" cy="{number(y)}" r="{number(radius)}"'
            return self._define("radialGradient", f"{where} {place}", stops)
        ends = zip(("x1", "y1", "x2", "y2"), (x, y, to_x, to_y), strict=True)
        place = " ".join(f'{name}="{number(value)}"' for name, value in ends)
        return self._define("linearGradient", f"{where} {place}", stops)

    def _photo(self, photo: Photo, matrix: Matrix) -> str:
        if matrix[6] or matrix[7]:
            raise NotInSvg(
                "An SVG cannot hold a picture that is turned in depth. Choose a PNG still."
            )
        left, top, right, bottom = photo.box
        file = io.BytesIO()
        Image.fromarray(straight_rgba(photo.bitmap.pixels)).save(file, "PNG")
        data = base64.b64encode(file.getvalue()).decode()
        looks = f' filter="url(#{self._one_color(photo.color)})"' if photo.color else ""
        return (
            f'<image href="data:image/png;base64,{data}" x="{number(left)}" y="{number(top)}" '
            f'width="{number(right - left)}" height="{number(bottom - top)}" '
            f'preserveAspectRatio="none" transform="{_affine(matrix)}"{looks}/>'
        )

    # Groups

    def open(self, box: Box | None, margin: float) -> None:
        self._groups.append([])

    def average(self, samples: Sequence[Sequence[DrawItem]]) -> None:
        raise NotInSvg(
            "An SVG cannot hold what motion blurs. Choose a PNG still, a frame where all rests, or "
            "switch motion blur off."
        )

    def apply(self, effects: Sequence[EffectValues]) -> None:
        for effect in effects:
            if dict(effect.values).get(effect.model.nothing_at, 1):
                self._wrap(f'filter="url(#{self._filter(effect)})"')

    def _wrap(self, looks: str) -> None:
        self._groups[-1] = [_group(self._groups[-1], looks)] if self._groups[-1] else []

    def cut(self, cuts: Sequence[MaskCut]) -> None:
        self._wrap(f'mask="url(#{self._mask(cuts)})"')

    def close(self, blend: str, opacity: float) -> None:
        inside = self._groups.pop()
        looks = [] if opacity >= 1 else [f'opacity="{number(opacity)}"']
        # By itself even where it is blended as usual: what is in it blends with that alone.
        style = "isolation: isolate" if blend == "normal" else f"mix-blend-mode: {blend}"
        if inside:
            self._put(_group(inside, " ".join((*looks, f'style="{style}"'))))

    def close_as_matte(self, by: str, invert: bool) -> None:
        inside = self._groups.pop()
        if by == "luminance":
            inside = [_rectangle("#000000"), *inside]
        if invert:
            inside = [_group(inside, f'filter="url(#{self._inverted(by)})"')]
        name = self._define("mask", f'{_REGION} mask-type="{by}"', "".join(inside))
        self._wrap(f'mask="url(#{name})"')

    def adjust(
        self, effects: Sequence[EffectValues], cuts: Sequence[MaskCut], opacity: float
    ) -> None:
        before = self._groups[-1]
        self.apply(effects)
        looks = [] if opacity >= 1 else [f'opacity="{number(opacity)}"']
        looks += [f'mask="url(#{self._mask(cuts)})"'] if cuts else []
        if looks and before:
            # As it was, with the adjusted copy over it where that is let through.
            self._groups[-1] = [*before, _group(self._groups[-1], " ".join(looks))]

    # Definitions

    def _define(self, kind: str, attributes: str, content: str) -> str:
        """Adds a definition; gives its name. The same one is there once."""
        known = f" {attributes}>{content}</{kind}>"
        for index, text in enumerate(self._definitions, start=1):
            if text == f'<{kind} id="d{index}"{known}':
                return f"d{index}"
        name = f"d{len(self._definitions) + 1}"
        self._definitions.append(f'<{kind} id="{name}"{known}')
        return name

    def _filter(self, effect: EffectValues) -> str:
        content = effect.model.svg_filter(dict(effect.values))
        if content is None:
            name = effect.kind.replace("-", " ")
            raise NotInSvg(f"An SVG cannot hold the effect “{name}”. Choose a PNG still.")
        return self._defined_filter(content)

    def _defined_filter(self, content: str) -> str:
        return self._define("filter", f'{_REGION} color-interpolation-filters="sRGB"', content)

    def _colors(self, rows: Sequence[Sequence[float]]) -> str:
        return self._defined_filter(color_matrix(rows))

    def _blurred(self, radius: float) -> str:
        return self._defined_filter(gaussian_blur(radius, radius))

    def _one_color(self, color: str) -> str:
        return self._defined_filter(flooded(color))

    def _inverted(self, by: str) -> str:
        if by == "alpha":
            return self._colors([[0, 0, 0, 0, 0]] * 3 + [[0, 0, 0, -1, 1]])
        rows = [[-1, 0, 0, 0, 1], [0, -1, 0, 0, 1], [0, 0, -1, 0, 1], [0, 0, 0, 1, 0]]
        return self._colors(rows)

    def _mask(self, cuts: Sequence[MaskCut]) -> str:
        """Masks one after another, as light: what is white lets through."""
        content = [_rectangle("#000000" if cuts[0].mode == "add" else "#FFFFFF")]
        for cut in cuts:
            inside = f'mask="url(#{self._covered(cut)})"'
            if cut.mode == "intersect":
                content = [_rectangle("#000000"), _group(content, inside)]
            else:
                color = "#FFFFFF" if cut.mode == "add" else "#000000"
                content.append(_group([_rectangle(color)], inside))
        return self._define("mask", f'{_REGION} mask-type="luminance"', "".join(content))

    def _covered(self, cut: MaskCut) -> str:
        """The form of a mask: opaque where it lets through."""
        path, transform = _placed(cut.outline.path, cut.matrix)
        line = ""
        if cut.expand > 0:
            line = f' stroke="#FFFFFF" stroke-width="{number(2 * cut.expand)}"'
            line += ' stroke-linejoin="round"'
        if cut.expand < 0:
            raise NotInSvg("An SVG cannot hold a mask that is made narrower. Choose a PNG still.")
        form = f'<path d="{_data(path)}" fill="#FFFFFF"{line}{transform}/>'
        if cut.feather:
            form = _group([form], f'filter="url(#{self._blurred(cut.feather)})"')
        if cut.invert:
            form = _group([form], f'filter="url(#{self._inverted("alpha")})"')
        form = _group([form], f'opacity="{number(cut.opacity)}"') if cut.opacity < 1 else form
        return self._define("mask", f'{_REGION} mask-type="alpha"', form)


_EDGES = f'x="{-_FAR}" y="{-_FAR}" width="{2 * _FAR}" height="{2 * _FAR}"'
_REGION = f'{_EDGES} maskUnits="userSpaceOnUse" filterUnits="userSpaceOnUse"'


def _rectangle(color: str) -> str:
    return f'<rect {_EDGES} fill="{escape(color)}"/>'


def _group(content: Sequence[str], looks: str) -> str:
    return f"<g {looks}>{''.join(content)}</g>"


def _affine(matrix: Matrix) -> str:
    a, b, x, c, d, y = matrix[:6]
    return f"matrix({' '.join(map(number, (a, c, b, d, x, y)))})"


def _scale_of(matrix: Matrix) -> float:
    a, b, _, c, d, *_ = matrix
    return float(np.sqrt(abs(a * d - b * c))) / max(matrix[8], 1e-6)


def _placed(path: skia.Path, matrix: Matrix) -> tuple[skia.Path, str]:
    """A path and how it is placed; what is seen in perspective is placed already."""
    if matrix[6] or matrix[7] or matrix[8] != 1:
        moved = skia.Path()
        path.transform(skia.Matrix.MakeAll(*matrix), moved)
        return moved, ""
    return path, f' transform="{_affine(matrix)}"'


def _data(path: skia.Path) -> str:
    """The path data of a path."""
    parts: list[str] = []
    walk = skia.Path.Iter(path, False)
    while True:
        verb, points = walk.next()
        if verb == skia.Path.kDone_Verb:
            return "".join(parts)
        if verb == skia.Path.kConic_Verb:  # what a quadratic is, seen in perspective
            quads = skia.Path.ConvertConicToQuads(*points[:3], walk.conicWeight(), _CONIC_STEPS)
            for n in range(1, len(quads) - 1, 2):
                parts.append("Q" + _told(quads[n : n + 2]))
        else:
            # All but a move tell where they come from too.
            parts.append(
                _VERBS[verb] + _told(points if verb == skia.Path.kMove_Verb else points[1:])
            )


def _told(points: Sequence[skia.Point]) -> str:
    return " ".join(number(each) for point in points for each in (point.x(), point.y()))
