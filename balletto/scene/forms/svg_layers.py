"""SVG files as layers of shapes: each path and plain shape with its fill and stroke, all in one
group. What SVG 2 says besides (text, patterns, masks, filters) is left out.
"""

import math
import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field, replace
from typing import Any
from xml.etree.ElementTree import Element

from fontTools.misc.transform import Identity, Transform
from fontTools.pens.boundsPen import BoundsPen
from fontTools.pens.recordingPen import RecordingPen
from fontTools.pens.transformPen import TransformPen
from fontTools.svgLib.path import parse_path
from fontTools.svgLib.path.shapes import PathBuilder
from PIL import ImageColor

from .outlines import MAX_DRAWING, written
from .svg_bounds import named_in, svg_root, used_by

MOST_SHAPES = 300
_DEEPEST = 40  # groups in groups
StyleData = dict[str, str]
_INHERITED = (
    "fill", "stroke", "stroke-width", "stroke-linecap", "stroke-linejoin", "stroke-dasharray",
    "fill-opacity", "stroke-opacity", "color",
)  # fmt: skip
_HIDDEN = ("defs", "symbol", "clipPath", "mask", "marker", "pattern", "metadata")
_ENDS = {"butt": "flat", "round": "round", "square": "square"}
_JOINS = {"miter": "sharp", "round": "round", "bevel": "cut"}
_TRANSFORM = re.compile(r"(matrix|translate|scale|rotate|skewX|skewY)\s*\(([^)]*)\)")
_NUMBER = re.compile(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?")
# px of a unit: CSS Values and Units 4, section 6.2.
_UNITS = {"": 1, "px": 1, "pt": 4 / 3, "pc": 16, "in": 96, "cm": 96 / 2.54, "mm": 96 / 25.4}
_LENGTH = re.compile(rf"({_NUMBER.pattern})({'|'.join(_UNITS)})")
_RULE = re.compile(r"\.([\w-]+)\s*\{([^}]*)\}")


@dataclass(frozen=True)
class _Here:
    """What holds where an element stands: the way to the picture, its style, how opaque it is."""

    transform: Transform = Identity
    style: StyleData = field(default_factory=dict)
    opacity: float = 1.0
    depth: int = 0


def layers_of_svg(content: bytes, name: str, span: tuple[int, int]) -> list[dict[str, Any]]:
    """The shapes of an SVG file as plain data of layers, from the back to the front, in a group of
    that name, about the middle of all of them.

    ValueError if the file cannot be read, or has no shapes, or too many.
    """
    root = svg_root(content)
    reader = _Reader(root)
    found = list(reader.shapes(root, _Here(_of_view_box(root))))
    if not found:
        raise ValueError("it has no paths and no plain shapes")
    boxes = [box for box, _ in found]
    left, top = min(box[0] for box in boxes), min(box[1] for box in boxes)
    right, bottom = max(box[2] for box in boxes), max(box[3] for box in boxes)
    middle = ((left + right) / 2, (top + bottom) / 2)
    layers = []
    for number, (box, shape) in enumerate(found):
        x, y = (box[0] + box[2]) / 2, (box[1] + box[3]) / 2
        place = shape["transform"] | {"position": [_round(x - middle[0]), _round(y - middle[1]), 0]}
        layers.append(
            {**shape, "id": f"s{number}", "span": list(span), "group": "g", "transform": place}
        )
    return [*layers, {"kind": "group", "id": "g", "name": name, "span": list(span)}]


def _of_view_box(root: Element) -> Transform:
    """The way from what is drawn to the size that the file says, all of it seen: where a view box
    differs from that."""
    box = [float(number) for number in _NUMBER.findall(root.get("viewBox", ""))]
    sides = [_LENGTH.fullmatch(root.get(side, "").strip()) for side in ("width", "height")]
    if len(box) != 4 or min(box[2:]) <= 0 or not all(sides):
        return Identity
    width, height = (float(side[1]) * _UNITS[side[2]] for side in sides if side)
    scale = min(width / box[2], height / box[3])
    return Identity.scale(scale) if scale > 0 else Identity


def _placed(element: Element, here: _Here) -> _Here:
    """Where what a `use` stands for is drawn."""
    if _tag(element) != "use":
        return here
    x, y = (
        float(found.group()) if (found := _NUMBER.match(element.get(axis, ""))) else 0.0
        for axis in ("x", "y")
    )
    return replace(here, transform=here.transform.translate(x, y))


class _Reader:
    """Reads the elements of a file; knows its gradients and the classes of its style sheet."""

    def __init__(self, root: Element):
        self._by_id = named_in(root)
        sheets = [each.text or "" for each in root.iter() if _tag(each) == "style"]
        self._classes = {
            name: _declared(text) for sheet in sheets for name, text in _RULE.findall(sheet)
        }
        self._count = 0

    def shapes(self, element: Element, here: _Here) -> Iterator[tuple[Any, dict[str, Any]]]:
        """The shapes of an element and all within it, each with its box."""
        if _tag(element) in _HIDDEN or here.depth > _DEEPEST:
            return
        own = {**self._styled(element)}
        if own.get("display") == "none" or own.get("visibility") == "hidden":
            return
        transform = here.transform.transform(_transform_of(element.get("transform", "")))
        inherited = here.style | {
            n: v for n, v in own.items() if n in _INHERITED and v != "inherit"
        }
        opacity = here.opacity * _share(own.get("opacity", "1"))
        inside = _Here(transform, inherited, opacity, here.depth + 1)
        if shape := self._shape(element, inside):
            yield shape
        for child in self._used(element) if _tag(element) == "use" else element:
            yield from self.shapes(child, _placed(element, inside))

    def _used(self, element: Element) -> list[Element]:
        """What a `use` stands for: what lies in a symbol, or another element itself."""
        return [
            each
            for target in used_by(element, self._by_id)
            for each in (target if _tag(target) == "symbol" else [target])
        ]

    def _styled(self, element: Element) -> StyleData:
        """What is said of an element: by attributes, by its classes, by its own style."""
        said = dict(element.attrib)
        for name in element.get("class", "").split():
            said |= self._classes.get(name, {})
        return said | _declared(element.get("style", ""))

    def _shape(self, element: Element, here: _Here) -> tuple[Any, dict[str, Any]] | None:
        drawing = _drawing_of(element, here.transform)
        if drawing is None:
            return None
        self._count += 1
        if self._count > MOST_SHAPES:
            raise ValueError(f"it has more than {MOST_SHAPES} shapes: that is too many for layers")
        box, pen = drawing
        x, y = (box[0] + box[2]) / 2, (box[1] + box[3]) / 2
        path = written(pen, (1, 0, 0, 1, -x, -y))
        if len(path) > MAX_DRAWING:
            raise ValueError(f"one of its paths has more than {MAX_DRAWING:,} signs")
        fill, stroke = self._fill(here.style), self._stroke(here)
        if fill == "none" and stroke is None:
            return None
        opacity = here.opacity * (_share(here.style.get("fill-opacity", "1")) if not stroke else 1)
        place = {"opacity": _round(opacity)} if opacity < 1 else {}
        return box, {
            "kind": "shape",
            "name": (element.get("id") or "")[:100],
            "shape": {"kind": "path", "path": path},
            "fill": fill,
            "stroke": stroke,
            "transform": place,
        }

    def _fill(self, style: StyleData) -> Any:
        paint = style.get("fill", "black")
        if gradient := self._gradient(paint):
            return gradient
        return _color(paint, style) or "none"

    def _stroke(self, here: _Here) -> dict[str, Any] | None:
        style = here.style
        paint = style.get("stroke", "none")
        gradient = self._gradient(paint)
        color = gradient["colors"][0] if gradient else _color(paint, style)
        scale = math.sqrt(abs(_determinant(here.transform)))
        width = (_numbers(style.get("stroke-width", "1")) or [1.0])[0] * scale
        if color is None or width <= 0:
            return None
        ends = _ENDS.get(style.get("stroke-linecap", "butt"), "flat")
        joins = _JOINS.get(style.get("stroke-linejoin", "miter"), "sharp")
        stroke = {"width": _round(width), "color": color, "ends": ends, "joins": joins}
        dashes = [_round(n * scale) for n in _numbers(style.get("stroke-dasharray", "")) if n > 0]
        if dashes:
            stroke["dashes"] = (dashes * 2 if len(dashes) % 2 else dashes)[:16]
        return stroke

    def _gradient(self, paint: str) -> dict[str, Any] | None:
        """A gradient that a paint names, as far as ours can be it: its colours, and its angle."""
        found = re.match(r"\s*url\(\s*['\"]?#([^)'\"]+)", paint)
        element = self._by_id.get(found[1]) if found else None
        if element is None or _tag(element) not in ("linearGradient", "radialGradient"):
            return None
        stops = self._stops(element)
        if len(stops) < 2:
            return None
        colors = stops[:16]
        if _tag(element) == "radialGradient":
            return {"kind": "round", "colors": colors}
        ends = [_portion(element.get(name, usual)) for name, usual in _LINE]
        angle = math.degrees(math.atan2(ends[3] - ends[1], ends[2] - ends[0]))
        return {"kind": "linear", "colors": colors, "angle": _round(angle)}

    def _stops(self, element: Element) -> list[str]:
        """The colours of a gradient, or of the one that it takes them from."""
        for _ in range(_DEEPEST):
            stops = [each for each in element if _tag(each) == "stop"]
            if stops:
                styles = [self._styled(each) for each in stops]
                return [
                    _color(each.get("stop-color", "black"), each) or "#000000" for each in styles
                ]
            link = next((v for n, v in element.attrib.items() if n.endswith("href")), "")
            following = self._by_id.get(link.removeprefix("#"))
            if following is None:
                return []
            element = following
        return []


_LINE = (("x1", "0"), ("y1", "0"), ("x2", "1"), ("y2", "0"))


def _tag(element: Element) -> str:
    return str(element.tag).rpartition("}")[2]


def _declared(text: str) -> StyleData:
    """Declarations of CSS, by their properties."""
    pairs = (each.partition(":") for each in text.split(";") if ":" in each)
    return {name.strip(): value.replace("!important", "").strip() for name, _, value in pairs}


def _numbers(text: str) -> list[float]:
    return [float(number) for number in _NUMBER.findall(text)]


def _portion(text: str) -> float:
    number = (_numbers(text) or [0.0])[0]
    return number / 100 if text.strip().endswith("%") else number


def _share(text: str) -> float:
    return min(max(_portion(text), 0.0), 1.0)


def _color(paint: str, style: StyleData) -> str | None:
    """A colour as ours are said; None for none, and for what is no colour."""
    paint = style.get("color", "black") if paint == "currentColor" else paint
    if paint in ("none", "transparent", "inherit") or "url(" in paint:
        return None
    try:
        red, green, blue = ImageColor.getrgb(paint.strip())[:3]
    except ValueError:
        return None
    return f"#{red:02X}{green:02X}{blue:02X}"


def _transform_of(text: str) -> Transform:
    """A list of transforms as one; what is none of SVG's is left out."""
    whole = Identity
    for name, inner in _TRANSFORM.findall(text):
        numbers = _numbers(inner)
        made = _MADE[name](numbers) if numbers else None
        whole = whole.transform(made) if made is not None else whole
    return whole


def _rotated(numbers: list[float]) -> Transform:
    x, y = numbers[1:3] if len(numbers) >= 3 else (0.0, 0.0)
    return Identity.translate(x, y).rotate(math.radians(numbers[0])).translate(-x, -y)


_MADE: dict[str, Callable[[list[float]], Transform | None]] = {
    "matrix": lambda n: Transform(*n) if len(n) == 6 else None,
    "translate": lambda n: Identity.translate(n[0], n[1] if len(n) > 1 else 0),
    "scale": lambda n: Identity.scale(n[0], n[1] if len(n) > 1 else n[0]),
    "rotate": _rotated,
    "skewX": lambda n: Identity.skew(math.radians(n[0]), 0),
    "skewY": lambda n: Identity.skew(0, math.radians(n[0])),
}


def _determinant(transform: Transform) -> float:
    return float(transform[0] * transform[3] - transform[1] * transform[2])


def _drawing_of(element: Element, transform: Transform) -> tuple[Any, RecordingPen] | None:
    """The outline of a path or plain shape in the picture, and its box; None if it is none."""
    plain = Element(_tag(element), {n: v for n, v in element.attrib.items() if n != "transform"})
    if _tag(element) == "line":
        ends = [(_numbers(element.get(name, "0")) or [0.0])[0] for name in ("x1", "y1", "x2", "y2")]
        plain = Element("path", {"d": "M{} {}L{} {}".format(*ends)})
    builder = PathBuilder()
    try:
        if not builder.add_path_from_element(plain):
            return None
        pen = RecordingPen()
        parse_path(builder.paths[-1], TransformPen(pen, transform))
    except (ValueError, IndexError, KeyError, TypeError, AttributeError) as error:
        raise ValueError(f"a {_tag(element)} of it cannot be read: {error}") from None
    bounds = BoundsPen(None)
    pen.replay(bounds)
    return (bounds.bounds, pen) if bounds.bounds is not None else None


def _round(number: float) -> float:
    return round(number, 3)
