"""What lies behind everything, by kind of background. A new kind is a line in BACKGROUNDS."""

from collections.abc import Callable
from typing import Any

from ..scene.document import Scene
from .canvases.canvas import Canvas, DrawItem, Gradient
from .letterforms.appearance import gradient_over
from .pixels.bitmaps import Bitmap, Photo
from .pixels.media import still
from .pixels.played import frame_of

_UNMOVED = [1.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0]
Fill = Gradient | Photo | None


def _photo(scene: Scene, bitmap: Bitmap | None, fill: str) -> Photo | None:
    """A bitmap in the middle of the picture, so large that it fills it."""
    if bitmap is None:
        return None
    sides = list(zip(scene.size, bitmap.size, strict=True))
    scale = (max if fill == "filled" else min)(own / side for own, side in sides)
    across, down = (side * scale for _, side in sides)
    left, top = (scene.size[0] - across) / 2, (scene.size[1] - down) / 2
    return Photo(bitmap, (left, top, left + across, top + down))


def _still(scene: Scene, background: Any, _: float) -> Fill:
    path = scene.path_of(background.file)
    return _photo(scene, still(path), background.fill) if path else None


BACKGROUNDS: dict[str, Callable[[Scene, Any, float], Fill]] = {
    "gradient": lambda scene, background, _: gradient_over(background.fill, (0, 0, *scene.size)),
    "still": _still,
    "clip": lambda scene, background, frame: _photo(
        scene, frame_of(scene, background, frame), background.fill
    ),
}


class Backgrounds:
    """The background of a scene at its frames."""

    def __init__(self, scene: Scene):
        self._scene = scene
        self._outlines: dict[tuple[float, ...], Any] = {}

    @property
    def color(self) -> str | None:
        """The colour behind all; None where it is transparent; black around a picture."""
        background = self._scene.background
        if background.kind in ("none", "color"):
            return getattr(background, "color", None)
        return "#000000"

    def item(self, canvas: Canvas, frame: float) -> DrawItem | None:
        """What is laid over the colour at a frame; None if nothing is."""
        background = self._scene.background
        find = BACKGROUNDS.get(background.kind)
        fill = find(self._scene, background, frame) if find else None
        if fill is None:
            return None
        box = fill.box if isinstance(fill, Photo) else (0.0, 0.0, *map(float, self._scene.size))
        if box not in self._outlines:
            self._outlines = {box: canvas.outline(_outline(box))}
        return DrawItem(self._outlines[box], _UNMOVED, fill, 1.0)


def _outline(box: tuple[float, ...]) -> Any:
    left, top, right, bottom = box
    corners = ((left, top), (right, top), (right, bottom), (left, bottom))
    verbs = ("move", "line", "line", "line")
    return (*zip(verbs, corners, strict=True), ("close", ()))
