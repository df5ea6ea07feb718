"""Drawing frames of a scene: prepared once, then any frame in any order.

The same drawing serves the workbench, stills and clips; only the size of the canvas differs.
"""

from dataclasses import dataclass, field
from typing import Any

import numpy as np

from ..lettering.layout import Layout, lay_out
from ..motion.evaluate import compose
from ..motion.matrices import place
from ..scene.document import Scene, Title
from .canvas import Canvas
from .skia_canvas import SkiaCanvas


@dataclass
class _SetTitle:
    """A title with its layout and, once drawn, the prepared outline of each character."""

    title: Title
    layout: Layout
    outlines: list[Any] = field(default_factory=list)


class Picture:
    """A scene made ready to draw. UnknownFont if a font is not shipped."""

    def __init__(self, scene: Scene):
        self.scene = scene
        self._titles = [_SetTitle(layer, lay_out(layer)) for layer in scene.layers]

    def draw(self, canvas: Canvas, frame: float) -> None:
        """Draws one frame; fractions of a frame are allowed."""
        background = self.scene.background
        canvas.clear(background.color if background.kind == "color" else None)
        for title in self._titles:
            first, end = title.title.span
            if first <= frame < end:
                self._draw_title(canvas, title, frame)

    def _draw_title(self, canvas: Canvas, title: _SetTitle, frame: float) -> None:
        layout = title.layout
        if not title.outlines:
            title.outlines = [canvas.outline(each.glyphs) for each in layout.characters]
        times = np.array([frame], dtype=float)
        composites = compose(title.title, layout, times)
        placed = place(self.scene, title.title.transform, layout, composites, times)
        seen = placed.before_camera[0] & (placed.opacities[0] > 0)
        matrices = placed.matrices[0].reshape(-1, 9).tolist()
        opacities = placed.opacities[0].tolist()
        for index in np.flatnonzero(seen).tolist():
            fill = layout.characters[index].fill
            canvas.fill(title.outlines[index], matrices[index], fill, opacities[index])


def draw_frame(picture: Picture, frame: float, size: tuple[int, int] | None = None) -> np.ndarray:
    """One frame as new pixels (height, width, 4), BGRA premultiplied, at `size` or the scene's."""
    width, height = picture.scene.size
    wide, high = size or (width, height)
    canvas = SkiaCanvas(wide, high, (wide / width, high / height))
    picture.draw(canvas, frame)
    return canvas.pixels
