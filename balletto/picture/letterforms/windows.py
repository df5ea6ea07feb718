"""Windows: what the letters of a title are seen within, in any frame, and how that is drawn."""

from typing import Any

import numpy as np
import skia

from ...lettering.layout import Layout
from ...motion.spaces.along import TextPath, text_path
from ...motion.spaces.layer_motion import moved_matrices
from ...scene.document import Scene
from ...scene.layers.title import Title
from ..canvases.canvas import SeenWindow

# By the name of a window's boxes, that of the units whose boxes they are.
_UNITS = {"line": "line", "word": "word", "unit": "character", "title": "title"}


def boxes_of_window(title: Title, layout: Layout) -> np.ndarray:
    """The boxes that a window lets see through, (units, 4), grown, in the space of the layer."""
    if title.window is None:
        return np.zeros((0, 4))
    boxes = layout.boxes[_UNITS[title.window.of]]
    return boxes + np.array(title.window.grown) * np.array([-1, -1, 1, 1])


def windows_at(
    scene: Scene, title: Title, layout: Layout, times: np.ndarray
) -> list[list[SeenWindow]] | None:
    """For each time the window of each character; None if it has none."""
    window = title.window
    if window is None:
        return None
    kind, boxes = _UNITS[window.of], boxes_of_window(title, layout)
    path = text_path(scene, title, layout)
    if path is not None:
        return _along(scene, title, layout, path, times)
    found = []
    for matrix in moved_matrices(scene, title, times).reshape(-1, 9).tolist():
        each = [SeenWindow(tuple(box), window.softened, matrix) for box in boxes.tolist()]
        found.append([each[number] for number in layout.member[kind].tolist()])
    return found


def _along(
    scene: Scene, title: Title, layout: Layout, path: TextPath, times: np.ndarray
) -> list[list[SeenWindow]]:
    """Along a path the window of each letter is as that of the straight line, turned to where the
    letter stands at rest."""
    assert title.window is not None
    placed = path.matrices(times, layout.centers["character"])
    matrices = moved_matrices(scene, title, times)[:, None] @ placed
    boxes = boxes_of_window(title, layout)[layout.member[_UNITS[title.window.of]]].tolist()
    return [
        [
            SeenWindow(tuple(box), title.window.softened, matrix)
            for box, matrix in zip(boxes, row, strict=True)
        ]
        for row in matrices.reshape(len(times), -1, 9).tolist()
    ]


def open_window(canvas: skia.Canvas, window: SeenWindow, to_memory: Any) -> None:
    """Lets only what is within a window be drawn from now on; `to_memory` leads from the picture
    to the pixels of the canvas. Until `close_window`."""
    placed = _placed(window, to_memory)
    canvas.save()
    canvas.setMatrix(placed)
    canvas.clipRect(skia.Rect.MakeLTRB(*window.box), doAntiAlias=True)
    if any(window.soft):
        canvas.saveLayer()


def close_window(canvas: skia.Canvas, window: SeenWindow, to_memory: Any) -> None:
    """Fades what was drawn since at the soft edges of a window, and lets all be drawn again."""
    if any(window.soft):
        canvas.setMatrix(_placed(window, to_memory))
        for paint in _fades(window):
            canvas.drawPaint(paint)
        canvas.restore()
    canvas.restore()


def _placed(window: SeenWindow, to_memory: Any) -> skia.Matrix:
    matrix = skia.Matrix.MakeAll(*window.matrix)
    return skia.Matrix.Concat(to_memory, matrix) if to_memory else matrix


def _fades(window: SeenWindow) -> list[skia.Paint]:
    """What lets through nothing at an edge, and all from where it is not soft any more."""
    left, top, right, bottom = window.box
    ways = (((left, 0), (1, 0)), ((0, top), (0, 1)), ((right, 0), (-1, 0)), ((0, bottom), (0, -1)))
    paints = []
    for ((x, y), (across, down)), soft in zip(ways, window.soft, strict=True):
        if soft:
            ends = [skia.Point(x, y), skia.Point(x + across * soft, y + down * soft)]
            shader = skia.GradientShader.MakeLinear(ends, [0x00000000, 0xFF000000])
            paints.append(skia.Paint(Shader=shader, BlendMode=skia.BlendMode.kDstIn))
    return paints
