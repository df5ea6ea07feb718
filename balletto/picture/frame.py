"""Drawing frames of a scene: prepared once, then any frame in any order.

The same drawing serves the workbench, stills and clips; only the size of the canvas differs.
"""

import math
from collections.abc import Callable
from functools import partial
from typing import Any, Protocol

import numpy as np

from ..scene.document import Scene
from ..scene.layers import Layer
from ..scene.tracks import value_at
from .boxes import around, widened
from .canvas import Box, Canvas, Letter
from .grounds import Grounds
from .masks import cuts_of
from .set_image import Draw, SetNested, SetPicture, SetVideo
from .shapes import SetShape
from .sheets import Drawn, DrawnMatte, Sheet, lay
from .skia_canvas import SkiaCanvas
from .steps import steps_of
from .titles import SetTitle


class SetLayer(Protocol):
    """A layer made ready to draw."""

    def opacity(self, frame: float) -> float:
        """How opaque the layer as a whole is, besides its letters."""

    def drawn(self, canvas: Canvas, times: np.ndarray) -> Drawn:
        """What it draws itself at each of `times`."""


class SetWhole:
    """A layer that draws nothing itself: a group, or an adjustment."""

    def __init__(self, scene: Scene, layer: Layer):
        self._layer = layer

    def opacity(self, frame: float) -> float:
        opacity = value_at(self._layer.transform.opacity, np.array(frame))
        return float(np.clip(opacity, 0, 1))

    def drawn(self, canvas: Canvas, times: np.ndarray) -> Drawn:
        return Drawn([[]], lambda: None)


def _prepared(scene: Scene) -> Draw:
    """What draws frames of a scene: of one that is nested."""
    picture = Picture(scene)
    return lambda frame, size: draw_frame(picture, frame, size)


SET_LAYERS: dict[str, Callable[[Scene, Any], SetLayer]] = {
    "title": SetTitle,
    "shape": SetShape,
    "picture": SetPicture,
    "video": SetVideo,
    "scene": partial(SetNested, prepare=_prepared),
    "sound": SetWhole,
    "group": SetWhole,
    "adjustment": SetWhole,
}


class Picture:
    """A scene made ready to draw. UnknownFont if a font is not shipped."""

    def __init__(self, scene: Scene):
        self.scene = scene
        self._grounds = Grounds(scene)
        self._set = {layer.id: SET_LAYERS[layer.kind](scene, layer) for layer in scene.layers}
        mattes = [layer.matte for layer in scene.layers if layer.matte]
        self._only_mattes = {matte.layer for matte in mattes if not matte.visible}

    @property
    def ground(self) -> str | None:
        """The background's colour; None where it is transparent."""
        return self._grounds.color

    def ground_letter(self, canvas: Canvas, frame: float) -> Letter | None:
        """What lies over that colour, behind everything else; None if nothing does."""
        return self._grounds.letter(canvas, frame)

    def draw(self, canvas: Canvas, frame: float) -> None:
        """Draws one frame; fractions of a frame are allowed."""
        canvas.clear(self.ground)
        if letter := self.ground_letter(canvas, frame):
            canvas.lay_ground(letter)
        for sheet in self.sheets(canvas, frame):
            lay(canvas, sheet)

    def sheets(self, canvas: Canvas, frame: float) -> list[Sheet]:
        """What is drawn in a frame, from back to front, with outlines prepared by `canvas`."""
        return self._sheets_in(None, canvas, frame)

    def _sheets_in(self, group: str | None, canvas: Canvas, frame: float) -> list[Sheet]:
        return [
            self._sheet(layer, canvas, frame)
            for layer in self.scene.layers
            if layer.group == group
            and layer.id not in self._only_mattes
            and self.scene.shows(layer, frame)
        ]

    def _sheet(self, layer: Layer, canvas: Canvas, frame: float) -> Sheet:
        ready = self._set[layer.id]
        samples, find_box = ready.drawn(canvas, self._shutter_times(layer, frame))
        if all(sample == samples[0] for sample in samples):
            samples = samples[:1]  # nothing moves while the shutter is open
        members: list[Sheet] = []
        if layer.kind == "group":
            members = self._sheets_in(layer.id, canvas, frame)

            def find_box() -> Box | None:
                return _all_reached(members)

        return Sheet(
            tuple(samples),
            tuple(members),
            layer.blend,
            ready.opacity(frame),
            steps_of(layer, frame, self.scene.size),
            cuts_of(canvas, self.scene, layer, frame),
            self._matte(layer, canvas, frame),
            layer.kind == "adjustment",
            find_box,
        )

    def _matte(self, layer: Layer, canvas: Canvas, frame: float) -> DrawnMatte | None:
        """The matte of a layer: it works in its own span, whether or not it is shown itself."""
        if layer.matte is None:
            return None
        source = self.scene.layer(layer.matte.layer)
        first, end = source.span
        sheet = Sheet(find_box=lambda: (0.0, 0.0, 0.0, 0.0))
        if first <= frame < end:
            sheet = self._sheet(source, canvas, frame)
        return DrawnMatte(sheet, layer.matte.by, layer.matte.invert)

    def _shutter_times(self, layer: Layer, frame: float) -> np.ndarray:
        """The times at which a layer is seen in a frame: one, or those of an open shutter."""
        shutter = layer.motion_blur or self.scene.motion_blur
        is_open = shutter is not None and shutter.on
        angle = float(value_at(shutter.angle, np.array(frame))) if is_open else 0.0
        if shutter is None or angle <= 0:
            return np.array([float(frame)])
        count = shutter.samples
        steps = (np.arange(count) + 0.5 - count / 2) / count
        return frame + shutter.phase / 360 + steps * angle / 360

    def rows(self, sheets: list[Sheet]) -> tuple[int, int]:
        """The rows of the picture, from first to end, that anything but the ground may touch."""
        top, bottom = math.inf, -math.inf
        height = self.scene.size[1]
        for sheet in sheets:
            highest, lowest = sheet.rows or (0.0, float(height))
            top, bottom = min(top, highest), max(bottom, lowest)
        if top > bottom:
            return 0, 0
        # Edges are smoothed over the pixel beyond.
        return math.floor(max(top - 2, 0)), math.ceil(min(bottom + 2, height))


def _all_reached(sheets: list[Sheet]) -> Box | None:
    """The box of sheets with what their effects add; None if that is not known of one."""
    boxes = []
    for sheet in sheets:
        if sheet.box is None or sheet.rows is None:
            return None
        boxes.append(widened(sheet.box, sheet.margin))
    return around(boxes)


def draw_frame(picture: Picture, frame: float, size: tuple[int, int] | None = None) -> np.ndarray:
    """One frame as new pixels (height, width, 4), BGRA premultiplied, at `size` or the scene's."""
    width, height = picture.scene.size
    wide, high = size or (width, height)
    canvas = SkiaCanvas(wide, high, (wide / width, high / height))
    picture.draw(canvas, frame)
    return canvas.pixels
