"""Layers that draw one form, filled or with a line: shapes, pictures, videos, nested scenes; with
its shadow, and as often as its trail says."""

from typing import Any, NamedTuple

import numpy as np

from ...motion.layer_motion import moved_matrices, moved_values
from ...scene.document import Scene
from ...scene.primitives import rectangle
from ...scene.tracks import value_at
from ..bitmaps import Bitmap, Box, Photo
from ..boxes import around, boxes_of, widened
from ..canvas import Canvas, DrawItem, Gradient, Line
from ..compositing import Drawn
from ..effect_values import as_copies, shadow_at, trail_of, values_of, with_shadows
from ..hatched import hatched, hatching_at
from ..outlines import Commands
from .base import Prepare, PreparedLayer
from .look import Look

_LARGEST = 1000.0  # times, that a copy of a trail grows


class Form(NamedTuple):
    """What a layer draws at a time in its own space: an outline, what fills it, its line."""

    commands: Commands
    fill: str | Gradient | Photo | None
    line: Line | None = None


def form_of(bitmap: Bitmap, size: tuple[float, float]) -> Form:
    """A bitmap that is so large in px of the layer, its middle at the origin."""
    width, height = size
    box = (-width / 2, -height / 2, width / 2, height / 2)
    return Form(rectangle(width, height, 0.0), Photo(bitmap, box))


class PreparedForm(PreparedLayer):
    """A layer of one form made ready; outlines that stay the same are prepared once."""

    def __init__(self, scene: Scene, layer: Any, prepare: Prepare):
        super().__init__(scene, layer, prepare)
        self._prepared: tuple[Commands, Any] | None = None

    def form(self, time: float) -> Form | None:
        """What it draws at a time; None if nothing."""
        raise NotImplementedError

    def opacity(self, frame: float) -> float:
        """What moves make of it is its form's own, at each of the times that are drawn."""
        return 1.0

    def drawn(self, canvas: Canvas, times: np.ndarray) -> Drawn:
        """The form at each of `times`, as it is drawn."""
        found = [self._at(canvas, float(time)) for time in times]
        return Drawn([items for items, _ in found], lambda: around([box for _, box in found]))

    def _at(self, canvas: Canvas, time: float) -> tuple[list[DrawItem], Box]:
        trail = trail_of(self._layer)
        if trail is None:
            return self._plain(canvas, time, 1.0, 1.0)
        values = values_of(trail, time)
        fade, shrink, width = (values[name] for name in ("fade", "shrink", "outline"))
        items: list[DrawItem] = []
        boxes = []
        for back in range(trail.copies, -1, -1):
            copies, box = self._plain(
                canvas, time - back * trail.gap, fade**back, min(shrink**back, _LARGEST)
            )
            items += as_copies(copies, width) if back else copies
            boxes.append(widened(box, width))
        return items, around(boxes)

    def _plain(
        self, canvas: Canvas, time: float, fade: float, shrink: float
    ) -> tuple[list[DrawItem], Box]:
        """The form, after its shadow, as it is at a time; as a copy it may be fainter, smaller."""
        layer, at = self._layer, np.array(time)
        form = self.form(time)
        if form is None:
            return [], around([])
        look = Look.of(moved_values(self._scene, layer, np.array([time])))
        commands, fill, line = form
        fill, line = look.tinted(fill), look.lined(line)
        matrices = moved_matrices(self._scene, layer, np.array([time]))
        if shrink != 1:
            matrices = matrices @ _scaled(layer.transform.pivot, shrink)
        opacity = float(np.clip(value_at(layer.transform.opacity, at), 0, 1)) * fade * look.opacity
        is_seen = opacity > 0 and matrices[0, 2, 2] > 1e-6 and (fill or line)
        shadow = shadow_at(layer, time)
        margin = 3 * look.blur
        if line:
            margin += line.width * (3 if line.joins == "sharp" else 1)
        own = np.array([widened(box_of(commands), margin)])
        box = boxes_of(own, matrices[:, None], np.array([[bool(is_seen)]]))[0]
        if not is_seen:
            return [], box
        more = shadow.margin if shadow else 0.0
        hatching = hatching_at(self._scene, layer, time)
        matrix = matrices[0].reshape(-1).tolist()
        item = DrawItem(
            self._outline(canvas, commands),
            matrix,
            fill,
            opacity,
            line,
            look.blur,
            filled=look.filled,
        )
        items = [item]
        if hatching is not None:
            items = hatched([item], [commands], [look.hatched], hatching, canvas.outline)[0]
            more += hatching.margin
        shares = [look.shadow] * len(items)
        return with_shadows(items, shadow, shares), widened(box, more)

    def _outline(self, canvas: Canvas, commands: Commands) -> Any:
        if self._prepared is None or self._prepared[0] != commands:
            self._prepared = (commands, canvas.outline(commands))
        return self._prepared[1]


def box_of(commands: Commands) -> Box:
    """The box around all points of an outline, its handles too."""
    points = np.array([n for _, numbers in commands for n in numbers]).reshape(-1, 2)
    return (*points.min(axis=0).tolist(), *points.max(axis=0).tolist())


def _scaled(pivot: tuple[float, float], factor: float) -> np.ndarray:
    x, y = pivot
    return np.array([[factor, 0, x - factor * x], [0, factor, y - factor * y], [0, 0, 1.0]])
