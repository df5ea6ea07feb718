"""Shape layers made ready to draw: the outline of their shape, its fill and its stroke."""

from collections.abc import Callable
from typing import Any

import numpy as np

from ..motion.space import layer_matrices
from ..scene.colors import hex_of
from ..scene.document import Scene
from ..scene.layers import ShapeLayer
from ..scene.outlines import commands_of
from ..scene.shapes import Stroke
from ..scene.tracks import value_at
from .boxes import around, boxes_of, widened
from .canvas import Box, Canvas, Gradient, Letter, Line
from .dress import gradient_over
from .forms import arc, ellipse, rectangle, regular, star
from .outlines import Commands, displaced
from .sheets import Drawn
from .steps import as_copies, cast_of, push_of, trail_of, values_of, with_shadows

_LARGEST = 1000.0  # times, that a copy of a trail grows


def _number(value: Any, at: np.ndarray) -> float:
    return float(value_at(value, at))


def _line(shape: Any, at: np.ndarray) -> Commands:
    start, end = value_at(shape.start, at), value_at(shape.end, at)
    return ("move", tuple(start.tolist())), ("line", tuple(end.tolist()))


def _arc(shape: Any, at: np.ndarray) -> Commands:
    size = value_at(shape.size, at).tolist()
    return arc(*size, _number(shape.angle, at), _number(shape.sweep, at))


SHAPES: dict[str, Callable[[Any, np.ndarray], Commands]] = {
    "line": _line,
    "rectangle": lambda shape, at: rectangle(
        *value_at(shape.size, at).tolist(), _number(shape.corner, at)
    ),
    "ellipse": lambda shape, at: ellipse(*value_at(shape.size, at).tolist()),
    "arc": _arc,
    "polygon": lambda shape, at: regular(shape.corners, _number(shape.radius, at)),
    "star": lambda shape, at: star(
        shape.corners, _number(shape.outer, at), _number(shape.inner, at)
    ),
    "path": lambda shape, _: commands_of(shape.path),
}


def outline_of(layer: ShapeLayer, frame: float) -> Commands:
    """The outline of a shape layer at a frame, in its own space."""
    return SHAPES[layer.shape.kind](layer.shape, np.array(frame))


def box_of(commands: Commands) -> Box:
    """The box around all points of an outline, its handles too."""
    points = np.array([n for _, numbers in commands for n in numbers]).reshape(-1, 2)
    return (*points.min(axis=0).tolist(), *points.max(axis=0).tolist())


class SetShape:
    """A shape layer made ready; outlines that stay the same are prepared once."""

    def __init__(self, scene: Scene, layer: ShapeLayer):
        self._scene, self._layer = scene, layer
        self._prepared: tuple[Commands, Any] | None = None

    def opacity(self, frame: float) -> float:
        """That of the layer is its letter's own."""
        return 1.0

    def drawn(self, canvas: Canvas, times: np.ndarray) -> Drawn:
        """The shape at each of `times`, as letters are drawn."""
        found = [self._at(canvas, float(time)) for time in times]
        return Drawn([letters for letters, _ in found], lambda: around([box for _, box in found]))

    def _at(self, canvas: Canvas, time: float) -> tuple[list[Letter], Box]:
        trail = trail_of(self._layer)
        if trail is None:
            return self._plain(canvas, time, 1.0, 1.0)
        values = values_of(trail, time)
        fade, shrink, width = (values[name] for name in ("fade", "shrink", "outline"))
        letters: list[Letter] = []
        boxes = []
        for back in range(trail.copies, -1, -1):
            copies, box = self._plain(
                canvas, time - back * trail.gap, fade**back, min(shrink**back, _LARGEST)
            )
            letters += as_copies(copies, width) if back else copies
            boxes.append(widened(box, width))
        return letters, around(boxes)

    def _plain(
        self, canvas: Canvas, time: float, fade: float, shrink: float
    ) -> tuple[list[Letter], Box]:
        """The shape, after its shadow, as it is at a time; as a copy it may be fainter, smaller."""
        layer, at = self._layer, np.array(time)
        commands = self._commands(time)
        matrices = layer_matrices(self._scene, layer, np.array([time]))
        if shrink != 1:
            matrices = matrices @ _scaled(layer.transform.pivot, shrink)
        opacity = float(np.clip(value_at(layer.transform.opacity, at), 0, 1)) * fade
        line = _stroke(layer.stroke, at) if layer.stroke else None
        fill = self._fill(commands)
        is_seen = opacity > 0 and matrices[0, 2, 2] > 1e-6 and (fill or line)
        cast = cast_of(layer, time)
        reach = (line.width if line else 0) * (3 if line and line.joins == "sharp" else 1)
        own = np.array([widened(box_of(commands), reach)])
        box = boxes_of(own, matrices[:, None], np.array([[bool(is_seen)]]))[0]
        if not is_seen:
            return [], box
        more = cast.reach if cast else 0.0
        matrix = matrices[0].reshape(-1).tolist()
        letter = Letter(self._outline(canvas, commands), matrix, fill, opacity, line)
        return with_shadows([letter], cast), widened(box, more)

    def _commands(self, time: float) -> Commands:
        commands = outline_of(self._layer, time)
        push = push_of(self._scene, self._layer, time)
        return commands if push is None else displaced(commands, *push)

    def _outline(self, canvas: Canvas, commands: Commands) -> Any:
        if self._prepared is None or self._prepared[0] != commands:
            self._prepared = (commands, canvas.outline(commands))
        return self._prepared[1]

    def _fill(self, commands: Commands) -> str | Gradient | None:
        fill = self._layer.fill
        if isinstance(fill, str):
            return None if fill == "none" else fill
        return gradient_over(fill, box_of(commands))


def _scaled(pivot: tuple[float, float], factor: float) -> np.ndarray:
    x, y = pivot
    return np.array([[factor, 0, x - factor * x], [0, factor, y - factor * y], [0, 0, 1.0]])


def _stroke(stroke: Stroke, at: np.ndarray) -> Line | None:
    """A stroke at a time; None if there is nothing of it."""
    width = _number(stroke.width, at)
    seen = _seen(
        *(_number(value, at) / 100 for value in (stroke.first, stroke.last, stroke.travel))
    )
    if width <= 0 or seen == ():
        return None
    color = value_at(stroke.color, at)
    dashes = None
    if stroke.dashes:
        even = stroke.dashes if len(stroke.dashes) % 2 == 0 else stroke.dashes * 2
        dashes = (even, _number(stroke.dash_shift, at))
    return Line(width, hex_of(color), stroke.ends, stroke.joins, dashes, seen, True)


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
