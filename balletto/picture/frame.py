"""Drawing frames of a scene: prepared once, then any frame in any order.

The same drawing serves the workbench, stills and clips; only the size of the canvas differs.
"""

import math
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any, NamedTuple

import numpy as np

from ..lettering.layout import Layout, lay_out
from ..motion.evaluate import compose
from ..motion.matrices import place
from ..motion.reflow import moved_axes
from ..scene.document import Scene, Title
from .canvas import Canvas, Letter
from .dress import Dress, dress
from .skia_canvas import SkiaCanvas

# Frames are worked out so many at a time: that costs little more than one, and as a rule the
# next frame that is asked for is the next one.
BLOCK = 16
# Outlines at moved axes that a title keeps: those of a few seconds, not of a whole clip.
MOST_MOVED = 4096


@dataclass
class _Block:
    """Frames of a title worked out together: (frames, n, 3, 3) and (frames, n), 0 if not seen.

    axes: by tag, how far font axes are moved, (frames, n)
    """

    ink: np.ndarray
    matrices: np.ndarray
    opacities: np.ndarray
    dress: Dress
    axes: dict[str, np.ndarray]

    @cached_property
    def rows(self) -> list[tuple[float, float]]:
        """For each frame the highest and lowest y that is drawn on; inf, -inf if none."""
        return _rows(self._reach, self.matrices, self.opacities > 0)

    @property
    def _reach(self) -> np.ndarray:
        """What is drawn on, (n, 4) or (frames, n, 4): the ink, and what its dress and axes add."""
        more = np.asarray(self.dress.reach)
        if self.axes:
            # How far a letter of other axes reaches is not known before it is made: half as far
            # again as it is high is more than any does.
            more = more + (self.ink[:, 3] - self.ink[:, 1]) / 2
        return self.ink + np.expand_dims(more, -1) * np.array([-1, -1, 1, 1])


@dataclass
class _SetTitle:
    """A title made ready: its layout, the prepared outlines, and the block worked out last."""

    scene: Scene
    title: Title
    layout: Layout
    outlines: list[Any] = field(default_factory=list)
    moved: dict[Any, Any] = field(default_factory=dict)
    last: tuple[float, _Block] | None = None

    def shows(self, frame: float) -> bool:
        first, end = self.title.span
        return self.title.id in self.scene.shown and first <= frame < end

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
        worn = dress(self.layout, composites, len(times))
        axes = moved_axes(self.layout, composites)
        return _Block(self.layout.ink, placed.matrices, opacities, worn, axes)

    def outlines_at(self, canvas: Canvas, block: _Block, row: int) -> list[Any]:
        """The prepared outlines of all characters in a frame of a block."""
        if not self.outlines:
            self.outlines = [canvas.outline(c.glyphs) for c in self.layout.characters]
        if not block.axes:
            return self.outlines
        tags = sorted(block.axes)
        changes = np.stack([block.axes[tag][row] for tag in tags], axis=-1).tolist()
        return [
            self._moved_outline(canvas, number, tuple(zip(tags, change, strict=True)))
            for number, change in enumerate(changes)
        ]

    def _moved_outline(self, canvas: Canvas, number: int, changes: Any) -> Any:
        glyphs = self.layout.characters[number].glyphs
        parts = [glyph.part.moved(changes) for glyph in glyphs]
        key = (number, *(part.axes for part in parts))
        if key not in self.moved:
            if len(self.moved) >= MOST_MOVED:
                self.moved.clear()
            moved = tuple(replace(g, part=part) for g, part in zip(glyphs, parts, strict=True))
            self.moved[key] = canvas.outline(moved)
        return self.moved[key]


def _rows(reach: np.ndarray, matrices: np.ndarray, seen: np.ndarray) -> list[tuple[float, float]]:
    left, top, right, bottom = np.moveaxis(reach, -1, 0)
    corners = ((left, top), (right, top), (right, bottom), (left, bottom))
    y, w = (
        np.stack(
            [
                matrices[..., row, 0] * x + matrices[..., row, 1] * y + matrices[..., row, 2]
                for x, y in corners
            ],
            axis=1,
        )
        for row in (1, 2)
    )
    # A corner at or behind the camera reaches who knows where: then all rows count.
    far = np.where(w > 1e-6, y / np.where(w > 1e-6, w, 1.0), np.nan)
    tops = np.where(np.isnan(far), -np.inf, far).min(axis=1)
    bottoms = np.where(np.isnan(far), np.inf, far).max(axis=1)
    highest = np.where(seen, tops, np.inf).min(axis=1, initial=np.inf)
    lowest = np.where(seen, bottoms, -np.inf).max(axis=1, initial=-np.inf)
    return list(zip(highest.tolist(), lowest.tolist(), strict=True))


class Sheet(NamedTuple):
    """The letters of a layer as they are drawn, and how they are blended with what lies behind."""

    blend: str
    letters: list[Letter]


class Picture:
    """A scene made ready to draw. UnknownFont if a font is not shipped."""

    def __init__(self, scene: Scene):
        self.scene = scene
        self._titles = [_SetTitle(scene, layer, lay_out(layer)) for layer in scene.layers]

    @property
    def ground(self) -> str | None:
        """The background's colour; None where it is transparent."""
        background = self.scene.background
        return background.color if background.kind == "color" else None

    def draw(self, canvas: Canvas, frame: float) -> None:
        """Draws one frame; fractions of a frame are allowed."""
        canvas.clear(self.ground)
        for sheet in self.sheets(canvas, frame):
            canvas.draw(sheet.letters, sheet.blend)

    def sheets(self, canvas: Canvas, frame: float) -> list[Sheet]:
        """What is drawn in a frame, from back to front, with outlines prepared by `canvas`."""
        sheets = []
        for title in self._titles:
            if title.shows(frame):
                block, row = title.at(frame)
                worn = block.dress
                every = zip(
                    title.outlines_at(canvas, block, row),
                    block.matrices[row].reshape(-1, 9).tolist(),
                    worn.fills[row],
                    block.opacities[row].tolist(),
                    worn.lines[row],
                    worn.blurs[row],
                    strict=True,
                )
                letters = [letter for letter in every if letter[3] > 0]
                sheets.append(Sheet(title.title.blend, letters))
        return sheets

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


def draw_frame(picture: Picture, frame: float, size: tuple[int, int] | None = None) -> np.ndarray:
    """One frame as new pixels (height, width, 4), BGRA premultiplied, at `size` or the scene's."""
    width, height = picture.scene.size
    wide, high = size or (width, height)
    canvas = SkiaCanvas(wide, high, (wide / width, high / height))
    picture.draw(canvas, frame)
    return canvas.pixels
