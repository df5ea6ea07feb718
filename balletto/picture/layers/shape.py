"""Shapes: the outline of their shape, its fill and its stroke."""

from typing import ClassVar

import numpy as np

from ...motion.becoming import shape_way
from ...motion.spaces.layer_motion import moved_values
from ...scene.document import Scene
from ...scene.forms.stroke import Stroke
from ...scene.layers.shape import ShapeLayer
from ..canvases.canvas import DrawnLine, Gradient
from ..composing.effect_values import displacement_at, further, plain_over
from ..letterforms.appearance import gradient_over
from ..letterforms.outlines import Commands, displaced
from ..letterforms.passages import passage
from .base import Prepare, RestBox
from .form import Form, PreparedForm, box_of


def outline_of(layer: ShapeLayer, frame: float) -> Commands:
    """The outline of a shape layer at a frame, in its own space."""
    return layer.shape.outline(np.array(frame))


class PreparedShape(PreparedForm):
    """A shape layer made ready."""

    prepares: ClassVar = ShapeLayer

    def __init__(self, scene: Scene, layer: ShapeLayer, prepare: Prepare):
        super().__init__(scene, layer, prepare)
        self._lines: dict[float, DrawnLine | None] = {}

    @classmethod
    def rest_box(cls, scene: Scene, layer: ShapeLayer, frame: float) -> RestBox:
        left, top, right, bottom = box_of(outline_of(layer, frame))
        # A line has no height: it still can be taken hold of.
        across, down = max(0.0, 8 - (right - left)) / 2, max(0.0, 8 - (bottom - top)) / 2
        return [left - across, top - down, right + across, bottom + down]

    def form(self, time: float) -> Form:
        layer = self._layer
        line = self._line_at(time) if layer.stroke else None
        commands = self._commands(time)
        return Form(commands, self._fill(commands), line)

    def _line_at(self, time: float) -> DrawnLine | None:
        """Its stroke at a time; worked out together with the other times that are drawn now."""
        lines = self._lines  # once: another thread may put others in their place meanwhile
        if time not in lines:
            self._state(time)
            times = [*{time, *self._states}]
            found = strokes_at(self._layer.stroke, np.array(times))
            self._lines = lines = dict(zip(times, found, strict=True))
        return lines[time]

    def _commands(self, time: float) -> Commands:
        commands = self._form_at(time)
        displacement = displacement_at(self._scene, self._layer, time)
        more = moved_values(self._scene, self._layer, np.array([time])).get("displace")
        if more is not None:
            displacement = displacement_at(self._scene, self._layer, time, is_moved=True)
            displacement = further(displacement, float(more[0]))
        return commands if displacement is None else displaced(commands, *displacement)

    def _form_at(self, time: float) -> Commands:
        """Its outline, on its way to others if moves say so."""
        own, at = outline_of(self._layer, time), np.array(time)
        way = shape_way(self._scene, self._layer, time)
        if way is None or (not way.leg and not way.share):
            return own
        start = way.targets[way.leg - 1].outline(at) if way.leg else own
        return passage((start,), (way.targets[way.leg].outline(at),)).at(way.share)

    def _fill(self, commands: Commands) -> str | Gradient | None:
        fill = self._layer.fill
        if isinstance(fill, str):
            return None if fill == "none" else fill
        return gradient_over(fill, box_of(commands))


def stroke_at(stroke: Stroke, time: float) -> DrawnLine | None:
    """A stroke at a time; None if there is nothing of it."""
    return strokes_at(stroke, np.array([time]))[0]


def strokes_at(stroke: Stroke, times: np.ndarray) -> list[DrawnLine | None]:
    """A stroke at each of some times; None where there is nothing of it."""
    dashes = stroke.dashes or ()
    even = dashes if len(dashes) % 2 == 0 else dashes * 2
    changing = (stroke.width, stroke.color, stroke.first, stroke.last, stroke.travel)
    columns = [plain_over(value, times) for value in (*changing, stroke.dash_shift)]
    found: list[DrawnLine | None] = []
    for width, color, first, last, travel, shift in zip(*columns, strict=True):
        seen = _seen(first / 100, last / 100, travel / 100)
        if width <= 0 or seen == ():
            found.append(None)
            continue
        ends, joins, each = stroke.ends, stroke.joins, stroke.each
        dashed = (even, shift) if even else None
        found.append(DrawnLine(width, color, ends, joins, dashed, seen, True, each))
    return found


def _seen(start: float, end: float, travel: float) -> tuple[tuple[float, float], ...] | None:
    """The parts of a length that lie from start to end, moved on by `travel`, which comes round
    again at the end; None if that is all of it."""
    low, high = min(start, end), max(start, end)
    low, high = max(0.0, low), min(1.0, high)
    if high - low >= 1:
        return None
    if high <= low:
        return ()
    first = (low + travel) % 1.0
    last = first + high - low
    return ((first, last),) if last <= 1 else ((first, 1.0), (0.0, last - 1))
