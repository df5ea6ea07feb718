"""What all prepared layers have: a layer that was made ready to be drawn in any frame."""

from collections.abc import Callable
from typing import Any, ClassVar, Protocol

import numpy as np

from ...motion.spaces.layer_motion import moved_values
from ...scene.document import Scene
from ...scene.layers import Layer
from ..canvases.canvas import Canvas
from ..composing.compositing import Drawn


class PreparedScene(Protocol):
    """A scene that a layer shows, made ready to be drawn."""

    def draw(self, frame: float, size: tuple[int, int]) -> np.ndarray:
        """A frame of it as new pixels (height, width, 4), BGRA premultiplied."""

    def moments(self, frames: np.ndarray, size: tuple[int, int]) -> np.ndarray:
        """For each of the frames at which it is seen while a shutter is open, (n,), the one that is
        drawn: of those that look alike, the same."""


Prepare = Callable[[Scene], PreparedScene]
# Left, top, right, bottom in px of a layer's own space.
RestBox = list[float]


class PreparedLayer:
    """A layer made ready to draw. `prepares` is the kind of layer that it is for.

    prepare: what makes another scene ready, for those that show one
    """

    prepares: ClassVar[type[Layer]]

    def __init__(self, scene: Scene, layer: Any, prepare: Prepare):
        self._scene, self._layer = scene, layer

    def opacity(self, frame: float) -> float:
        """How opaque the layer as a whole is, besides what it draws: as the moves have it of the
        group that it is a member of."""
        return moved_opacity(self._scene, self._layer, frame)

    def drawn(self, canvas: Canvas, times: np.ndarray) -> Drawn:
        """What it draws itself at each of `times`: nothing, if it is not told."""
        return Drawn([[]], lambda: None)

    @classmethod
    def rest_box(cls, scene: Scene, layer: Any, frame: float) -> RestBox | None:
        """What it takes up at rest; None if nothing."""
        return None


def moved_opacity(scene: Scene, layer: Layer, frame: float) -> float:
    """How opaque moves leave a layer."""
    values = moved_values(scene, layer, np.array([float(frame)]))
    return float(values["opacity"][0]) if "opacity" in values else 1.0


def around_origin(size: tuple[float, float]) -> RestBox:
    """The box of a size about the origin."""
    width, height = size
    return [-width / 2, -height / 2, width / 2, height / 2]
