"""Drawing frames of a scene: prepared once, then any frame in any order.

The same drawing serves the workbench, stills and clips; only the size of the canvas differs.
"""

import math
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np

from ..lettering.layout import Layout, lay_out
from ..motion.evaluate import compose
from ..motion.matrices import place
from ..scene.document import Scene, Title
from .canvas import Canvas, Fill
from .skia_canvas import SkiaCanvas

# Frames are worked out so many at a time: that costs little more than one, and as a rule the
# next frame that is asked for is the next one.
BLOCK = 16


@dataclass
class _Block:
    """Frames of a title worked out together: (frames, n, 3, 3) and (frames, n), 0 if not seen."""

    ink: np.ndarray
    matrices: np.ndarray
    opacities: np.ndarray

    @cached_property
    def rows(self) -> list[tuple[float, float]]:
        """For each frame the highest and lowest y that is drawn on; inf, -inf if none."""
        return _rows(self.ink, self.matrices, self.opacities > 0)


@dataclass
class _SetTitle:
    """A title made ready: its layout, the prepared outlines, and the block worked out last."""

    scene: Scene
    title: Title
    layout: Layout
    colors: list[str]
    outlines: list[Any] = field(default_factory=list)
    last: tuple[float, _Block] | None = None

    def shows(self, frame: float) -> bool:
        first, end = self.title.span
        return first <= frame < end

    def at(self, frame: float) -> tuple[_Block, int]:
        """The block that a frame is in, and its place there."""
        is_whole = frame == int(frame)
        start = frame - frame % BLOCK if is_whole else frame
        last = self.last  # taken once: another thread may draw another frame meanwhile
        if last is None or last[0] != start:
            times = start + np.arange(BLOCK if is_whole else 1, dtype=float)
            self.last = last = (start, self._work_out(times))
        return last[1], int(frame - start)

    def _work_out(self, times: np.ndarray) -> _Block:
        composites = compose(self.scene, self.title, self.layout, times)
        placed = place(self.scene, self.title, self.layout, composites, times)
        opacities = np.where(placed.before_camera, placed.opacities, 0.0)
        return _Block(self.layout.ink, placed.matrices, opacities)


def _rows(ink: np.ndarray, matrices: np.ndarray, seen: np.ndarray) -> list[tuple[float, float]]:
    left, top, right, bottom = ink.T
    corners = np.stack([(left, top), (right, top), (right, bottom), (left, bottom)])  # (4, 2, n)
    y, w = (
        matrices[:, None, :, row, 0] * corners[:, 0]
        + matrices[:, None, :, row, 1] * corners[:, 1]
        + matrices[:, None, :, row, 2]
        for row in (1, 2)
    )
    # A corner at or behind the camera reaches who knows where: then all rows count.
    far = np.where(w > 1e-6, y / np.where(w > 1e-6, w, 1.0), np.nan)
    tops = np.where(np.isnan(far), -np.inf, far).min(axis=1)
    bottoms = np.where(np.isnan(far), np.inf, far).max(axis=1)
    highest = np.where(seen, tops, np.inf).min(axis=1, initial=np.inf)
    lowest = np.where(seen, bottoms, -np.inf).max(axis=1, initial=-np.inf)
    return list(zip(highest.tolist(), lowest.tolist(), strict=True))


class Picture:
    """A scene made ready to draw. UnknownFont if a font is not shipped."""

    def __init__(self, scene: Scene):
        self.scene = scene
        self._titles = [_set(scene, layer) for layer in scene.layers]

    @property
    def ground(self) -> str | None:
        """The background's colour; None where it is transparent."""
        background = self.scene.background
        return background.color if background.kind == "color" else None

    def draw(self, canvas: Canvas, frame: float) -> None:
        """Draws one frame; fractions of a frame are allowed."""
        canvas.clear(self.ground)
        canvas.fill(self.fills(canvas, frame))

    def fills(self, canvas: Canvas, frame: float) -> list[Fill]:
        """What is filled in a frame, from back to front, with outlines prepared by `canvas`."""
        fills: list[Fill] = []
        for title in self._titles:
            if title.shows(frame):
                if not title.outlines:
                    title.outlines = [canvas.outline(c.glyphs) for c in title.layout.characters]
                block, place_in = title.at(frame)
                matrices = block.matrices[place_in].reshape(-1, 9).tolist()
                opacities = block.opacities[place_in].tolist()
                every = zip(title.outlines, matrices, title.colors, opacities, strict=True)
                fills += [fill for fill in every if fill[3] > 0]
        return fills

    def rows(self, frame: float) -> tuple[int, int]:
        """The rows of the picture, from first to end, that anything but the ground may touch."""
        top, bottom = math.inf, -math.inf
        for title in self._titles:
            if title.shows(frame):
                block, place_in = title.at(frame)
                highest, lowest = block.rows[place_in]
                top, bottom = min(top, highest), max(bottom, lowest)
        height = self.scene.size[1]
        if top > bottom:
            return 0, 0
        # Edges are smoothed over the pixel beyond.
        return math.floor(max(top - 2, 0)), math.ceil(min(bottom + 2, height))


def _set(scene: Scene, title: Title) -> _SetTitle:
    layout = lay_out(title)
    return _SetTitle(scene, title, layout, [character.fill for character in layout.characters])


def draw_frame(picture: Picture, frame: float, size: tuple[int, int] | None = None) -> np.ndarray:
    """One frame as new pixels (height, width, 4), BGRA premultiplied, at `size` or the scene's."""
    width, height = picture.scene.size
    wide, high = size or (width, height)
    canvas = SkiaCanvas(wide, high, (wide / width, high / height))
    picture.draw(canvas, frame)
    return canvas.pixels
