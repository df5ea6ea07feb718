"""Layers that draw one form, filled or with a line: shapes, pictures, videos, nested scenes; with
its shadow, and as often as its trail says."""

from collections.abc import Callable
from typing import Any, NamedTuple

import numpy as np

from ...motion.spaces.layer_motion import moved_matrices, moved_values
from ...scene.document import Scene
from ...scene.forms.primitives import rectangle
from ...scene.values.tracks import BLOCK, value_at
from ..canvases.canvas import Canvas, DrawItem, DrawnLine, Gradient
from ..composing.boxes import around, box_through, widened
from ..composing.compositing import Drawn
from ..composing.effect_values import as_copies, shadow_at, trail_of, values_of, with_shadows
from ..composing.look import Look
from ..letterforms.hatched import hatched, hatching_at
from ..letterforms.outlines import Commands
from ..pixels.bitmaps import Bitmap, Box, Photo
from .base import Prepare, PreparedLayer

FindBox = Callable[[], Box]

_LARGEST = 1000.0  # times, that a copy of a trail grows


class Form(NamedTuple):
    """What a layer draws at a time in its own space: an outline, what fills it, its line."""

    commands: Commands
    fill: str | Gradient | Photo | None
    line: DrawnLine | None = None


class FormState(NamedTuple):
    """How a form is at a time: its way to the picture (3, 3), what moves make of its look, and how
    opaque it is with both."""

    matrix: np.ndarray
    look: Look
    opacity: float


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
        self._states: dict[float, FormState] = {}

    def form(self, time: float) -> Form | None:
        """What it draws at a time; None if nothing."""
        raise NotImplementedError

    def opacity(self, frame: float) -> float:
        """What moves make of it is its form's own, at each of the times that are drawn."""
        return 1.0

    def drawn(self, canvas: Canvas, times: np.ndarray) -> Drawn:
        """The form at each of `times`, as it is drawn."""
        if len(times) > 1:
            self._open_shutter(times)
        found = [self._at(canvas, float(time)) for time in times]
        return Drawn([items for items, _ in found], lambda: around([find() for _, find in found]))

    def _open_shutter(self, times: np.ndarray) -> None:
        """Works out what is asked for at each of the times of an open shutter, together."""
        self._states = self._worked_out(times)

    def _at(self, canvas: Canvas, time: float) -> tuple[list[DrawItem], FindBox]:
        trail = trail_of(self._layer)
        if trail is None:
            return self._plain(canvas, time, 1.0, 1.0)
        values = values_of(trail, time)
        fade, shrink, width = (values[name] for name in ("fade", "shrink", "outline"))
        items: list[DrawItem] = []
        finders = []
        self._states = self._worked_out(time - np.arange(trail.copies + 1) * trail.gap)
        for back in range(trail.copies, -1, -1):
            copies, find_box = self._plain(
                canvas, time - back * trail.gap, fade**back, min(shrink**back, _LARGEST)
            )
            items += as_copies(copies, width) if back else copies
            finders.append(find_box)
        return items, lambda: around([widened(find(), width) for find in finders])

    def _state(self, time: float) -> FormState:
        """How it is at a time. Whole frames are worked out together with those around them."""
        states = self._states  # once: another thread may put others in their place meanwhile
        if time not in states:
            is_whole = time == int(time)
            times = time - time % BLOCK + np.arange(BLOCK) if is_whole else np.array([time])
            self._states = states = self._worked_out(times)
        return states[time]

    def _worked_out(self, times: np.ndarray) -> dict[float, FormState]:
        layer = self._layer
        matrices = moved_matrices(self._scene, layer, times)
        values = moved_values(self._scene, layer, times)
        opacities = np.clip(value_at(layer.transform.opacity, times), 0, 1)
        looks = [Look.of(values, row) for row in range(len(times))]
        opaque = [
            opacity * look.opacity for opacity, look in zip(opacities.tolist(), looks, strict=True)
        ]
        states = map(FormState, matrices, looks, opaque)
        return dict(zip(times.tolist(), states, strict=True))

    def _plain(
        self, canvas: Canvas, time: float, fade: float, shrink: float
    ) -> tuple[list[DrawItem], FindBox]:
        """The form, after its shadow, as it is at a time; as a copy it may be fainter, smaller."""
        layer = self._layer
        form = self.form(time)
        if form is None:
            return [], nowhere
        matrix, look, opacity = self._state(time)
        commands, fill, line = form
        if shrink != 1:
            matrix = matrix @ _scaled(layer.transform.pivot, shrink)
        opacity *= fade
        if opacity <= 0 or matrix[2, 2] <= 1e-6:
            return [], nowhere
        numbers = matrix.reshape(-1).tolist()
        outline = self._outline(canvas, commands)
        item = look.dressed(DrawItem(outline, numbers, fill, opacity, line))
        if not (item.fill or item.line):
            return [], nowhere
        shadow = shadow_at(layer, time)
        more = shadow.margin if shadow else 0.0
        items = [item]
        hatching = hatching_at(self._scene, layer, time)
        if hatching is not None:
            items = hatched([item], [commands], [look.hatched], hatching, canvas.outline)[0]
            more += hatching.margin
        margin = 3 * look.blur
        if line := item.line:
            margin += line.width * (3 if line.joins == "sharp" else 1)

        def find_box() -> Box:
            return widened(box_through(widened(box_of(commands), margin), numbers), more)

        return with_shadows(items, shadow, [look.shadow] * len(items)), find_box

    def _outline(self, canvas: Canvas, commands: Commands) -> Any:
        if self._prepared is None or self._prepared[0] != commands:
            self._prepared = (commands, canvas.outline(commands))
        return self._prepared[1]


def nowhere() -> Box:
    """The box of nothing."""
    return around([])


def box_of(commands: Commands) -> Box:
    """The box around all points of an outline, its handles too."""
    points = np.array([n for _, numbers in commands for n in numbers]).reshape(-1, 2)
    return (*points.min(axis=0).tolist(), *points.max(axis=0).tolist())


def _scaled(pivot: tuple[float, float], factor: float) -> np.ndarray:
    x, y = pivot
    return np.array([[factor, 0, x - factor * x], [0, factor, y - factor * y], [0, 0, 1.0]])
