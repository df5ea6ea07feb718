"""Flurries: one outline or picture drawn many times, wherever its pieces have flown."""

from typing import Any, ClassVar, NamedTuple

import numpy as np

from ...lettering.layout import Layout
from ...motion.spaces.flurries import letters_of, pieces_at
from ...motion.spaces.layer_motion import moved_matrices
from ...scene.document import Scene
from ...scene.forms.flurry import (
    BoxPlace,
    LayerSource,
    LinePlace,
    RingPlace,
    ShapeSource,
    TextSource,
)
from ...scene.layers.flurry import FlurryLayer
from ...scene.values.tracks import value_at
from ..canvases.canvas import Canvas, DrawItem, DrawnLine
from ..composing.boxes import around, boxes_of, widened
from ..composing.effect_values import shadow_at, with_shadows
from ..composing.look import Look
from ..letterforms.appearance import gradient_over, plain_fills
from ..letterforms.outlines import of_glyphs, prepared
from ..pixels.bitmaps import Box, Photo
from ..pixels.media import still
from .base import Prepare, RestBox, around_origin
from .form import FindBox, PreparedForm, box_of, form_of, nowhere
from .shape import stroke_at

_LEAST_AREA = 1e-9  # of a px of the layer, below which it is seen from its edge
_LEAST = 40.0  # px that a flurry takes up at rest, to be taken hold of


class _Look(NamedTuple):
    """What a piece looks like, about its own middle: what it draws, and the box of that."""

    items: list[DrawItem]
    box: Box


_IN_PLACE = np.eye(3).reshape(-1).tolist()
_NOTHING = _Look([], around([]))


def _of_one(outline: Any, box: Box, fill: Any, line: DrawnLine | None) -> _Look:
    """A look that is one outline."""
    return _Look([DrawItem(outline, _IN_PLACE, fill, 1.0, line)], box)


class PreparedFlurry(PreparedForm):
    """A flurry made ready: its looks are prepared once, while their shapes stay."""

    prepares: ClassVar = FlurryLayer
    _layer: FlurryLayer

    def __init__(self, scene: Scene, layer: FlurryLayer, prepare: Prepare):
        from . import PREPARED_LAYERS  # which is made of this module too

        super().__init__(scene, layer, prepare)
        self._of_texts: dict[str, list[_Look]] = {}
        thrown = [each.layer for each in layer.flurry.source if isinstance(each, LayerSource)]
        self._layers_thrown = {
            each: PREPARED_LAYERS[scene.layer(each).kind](scene, scene.layer(each), prepare)
            for each in thrown
        }

    @classmethod
    def rest_box(cls, scene: Scene, layer: FlurryLayer, frame: float) -> RestBox:
        place, at = layer.flurry.place, np.array(frame)
        width = height = _LEAST
        if isinstance(place, LinePlace):
            length, angle = float(value_at(place.length, at)), float(value_at(place.angle, at))
            across, down = np.abs([np.cos(np.radians(angle)), np.sin(np.radians(angle))]) * length
            width, height = max(width, float(across)), max(height, float(down))
        elif isinstance(place, BoxPlace):
            width = max(width, float(value_at(place.width, at)))
            height = max(height, float(value_at(place.height, at)))
        elif isinstance(place, RingPlace):
            width = height = max(width, 2 * float(value_at(place.radius, at)))
        return around_origin((width, height))

    def _plain(
        self, canvas: Canvas, time: float, fade: float, shrink: float
    ) -> tuple[list[DrawItem], FindBox]:
        """The pieces that are alive at a time, each after its shadow."""
        layer, at = self._layer, np.array([time])
        looks = self._looks(canvas, time)
        matrix, own, opacity = self._state(time)
        opacity *= fade
        if not looks or opacity <= 0 or matrix[2, 2] <= 1e-6:
            return [], nowhere
        pieces = pieces_at(self._scene, layer.flurry, len(looks), at)
        alive = np.flatnonzero(pieces.opacity[0] * pieces.size[0])
        size = pieces.size[0, alive] * shrink
        turn = np.radians(pieces.rotation[0, alive])
        matrices = np.zeros((len(alive), 3, 3))
        matrices[:, 0, 0] = matrices[:, 1, 1] = size * np.cos(turn)
        matrices[:, 1, 0] = size * np.sin(turn)
        matrices[:, 0, 1] = -matrices[:, 1, 0]
        matrices[:, 0, 2], matrices[:, 1, 2] = pieces.x[0, alive], pieces.y[0, alive]
        matrices[:, 2, 2] = 1.0
        placed = matrix @ matrices
        opacities = (pieces.opacity[0, alive] * opacity).tolist()
        chosen = [looks[number] for number in pieces.source[alive].tolist()]
        painted: list[int] = [-1] * len(alive)
        if pieces.color is not None:
            painted = pieces.color[alive].tolist()
        # Pieces of one look and colour are dressed once.
        dressed: dict[tuple[int, int], list[DrawItem]] = {}
        items = []
        flat = placed.reshape(-1, 9).tolist()
        for look, paint, there, share in zip(chosen, painted, flat, opacities, strict=True):
            key = (id(look), paint)
            if key not in dressed:
                color = layer.flurry.colors[paint] if paint >= 0 else None
                dressed[key] = [_dressed(item, own, color) for item in look.items]
            items += _thrown(dressed[key], there, share)
        boxes = np.array([look.box for look in chosen]).reshape(-1, 4)
        shadow = shadow_at(layer, time)
        more = 3 * own.blur + (shadow.margin if shadow else 0.0)
        seen = np.ones((1, len(alive)), dtype=bool)

        def find_box() -> Box:
            box = boxes_of(boxes, placed[None], seen)[0] if len(alive) else around([])
            return widened(box, more)

        return with_shadows(items, shadow, [own.shadow] * len(items)), find_box

    def _looks(self, canvas: Canvas, time: float) -> list[_Look]:
        """The looks that pieces have, those of a text letter by letter."""
        found: list[_Look] = []
        for source in self._layer.flurry.source:
            if isinstance(source, TextSource):
                found += self._letters(source, canvas)
            else:
                found.append(self._look(source, canvas, time))
        return found

    def _letters(self, source: TextSource, canvas: Canvas) -> list[_Look]:
        """Those of a text, which stay as they are."""
        told = source.model_dump_json()
        if told not in self._of_texts:
            layout = letters_of(self._scene, source.text, source.style)
            self._of_texts[told] = _letters_of(layout, canvas.outline)
        return self._of_texts[told]

    def _look(self, source: Any, canvas: Canvas, time: float) -> _Look:
        if isinstance(source, ShapeSource):
            return _of_shape(source, time, canvas.outline)
        if isinstance(source, LayerSource):
            return self._of_layer(source.layer, canvas, time)
        path = self._scene.path_of(source.file)
        if path is None:
            return _NOTHING
        bitmap = still(path)
        form = form_of(bitmap, bitmap.size)
        outline = prepared(form.commands, canvas.outline)
        return _of_one(outline, box_of(form.commands), form.fill, None)

    def _of_layer(self, layer: str, canvas: Canvas, time: float) -> _Look:
        """What another layer draws at a time, about its origin."""
        at = np.array([time])
        matrix = moved_matrices(self._scene, self._scene.layer(layer), at)[0]
        if abs(np.linalg.det(matrix)) < _LEAST_AREA:
            return _NOTHING
        back = np.linalg.inv(matrix)
        drawn = self._layers_thrown[layer].drawn(canvas, at)
        items = _thrown(drawn.samples[0], back.reshape(-1).tolist(), 1.0)
        box = drawn.find_box()
        if not items or box is None or not np.isfinite(box).all():
            return _Look(items, around([]))
        seen = np.ones((1, 1), dtype=bool)
        return _Look(items, boxes_of(np.array([box]), back[None, None], seen)[0])


def _of_shape(source: ShapeSource, time: float, prepare: Any) -> _Look:
    at = np.array(time)
    commands = source.shape.outline(at)
    box = box_of(commands)
    fill: Any = source.fill
    fill = (None if fill == "none" else fill) if isinstance(fill, str) else gradient_over(fill, box)
    line = stroke_at(source.stroke, time) if source.stroke else None
    wide = widened(box, line.width if line else 0)
    return _of_one(prepared(commands, prepare), wide, fill, line)


def _letters_of(layout: Layout, prepare: Any) -> list[_Look]:
    """The letters of a text, each about the middle of its box."""
    found = []
    fills = plain_fills(layout)
    for character, fill in zip(layout.characters, fills, strict=True):
        commands = of_glyphs(character.glyphs)
        left, top, right, bottom = box_of(commands)
        x, y = (left + right) / 2, (top + bottom) / 2
        moved = tuple(
            (verb, tuple(n - (y if axis % 2 else x) for axis, n in enumerate(numbers)))
            for verb, numbers in commands
        )
        setting = character.setting
        line = DrawnLine(setting.outline, setting.outline_color) if setting.outline > 0 else None
        box = widened((left - x, top - y, right - x, bottom - y), setting.outline)
        found.append(_of_one(prepare(moved), box, fill, line))
    return found


def _dressed(item: DrawItem, look: Look, color: str | None) -> DrawItem:
    """What a piece draws, in a colour if there is one, and as moves make of it."""
    fill, line = item.fill, item.line
    if color is not None:
        fill, line = _colored(fill, line, color)
    return look.dressed(item._replace(fill=fill, line=line))


def _thrown(items: list[DrawItem], there: list[float], opacity: float) -> list[DrawItem]:
    """What a piece draws where it is."""
    return [
        item.moved(
            there if item.matrix is _IN_PLACE else _through(there, item.matrix),
            item.opacity * opacity,
        )
        for item in items
    ]


def _through(matrix: list[float], inner: list[float]) -> list[float]:
    both = np.reshape(matrix, (3, 3)) @ np.reshape(inner, (3, 3))
    made: list[float] = both.reshape(-1).tolist()
    return made


def _colored(fill: Any, line: DrawnLine | None, color: str) -> tuple[Any, DrawnLine | None]:
    """A fill, or where there is none the line, of another colour; pictures stay."""
    if fill is None:
        return fill, line and line._replace(color=color)
    return (fill if isinstance(fill, Photo) else color), line
