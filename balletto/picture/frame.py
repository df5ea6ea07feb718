"""Drawing frames of a scene: prepared once, then any frame in any order.

The same drawing serves the workbench, stills and clips; only the size of the canvas differs.
"""

import math
from functools import lru_cache, partial

import numpy as np

from ..raster.pixel_buffer import Scale
from ..scene.document import Scene
from ..scene.effects.shadow import Shadow
from ..scene.layers import Layer
from ..scene.values.tracks import value_at
from .backgrounds import Backgrounds
from .canvases.canvas import Canvas, DrawItem
from .canvases.skia_canvas import SkiaCanvas
from .composing.boxes import around
from .composing.compositing import CompositeNode, Drawn, DrawnMatte, draw_node
from .composing.copies import copied_members, drawn_copies
from .composing.effect_values import effects_at
from .composing.masks import cuts_of
from .layers import PREPARED_LAYERS
from .pixels.bitmaps import Box
from .shutter.moments import moments_for, step_between


class _NestedPicture:
    """A scene that another shows, made ready to draw."""

    def __init__(self, scene: Scene):
        self._picture = Picture(scene)
        self._outlines = SkiaCanvas(1, 1)  # what prepares them
        self._step_after = lru_cache(maxsize=256)(self._step)

    def draw(self, frame: float, size: tuple[int, int]) -> np.ndarray:
        return draw_frame(self._picture, frame, size)

    def moments(self, frames: np.ndarray, size: tuple[int, int]) -> np.ndarray:
        return moments_for(frames, partial(self._step_after, size))

    def _step(self, size: tuple[int, int], frame: int) -> float:
        """How far anything goes in it from a frame to the next, see `step_between`."""
        picture, canvas = self._picture, self._outlines
        grounds = [picture.background_item(canvas, each) for each in (frame, frame + 1)]
        if grounds[0] != grounds[1]:
            return math.inf
        width, height = picture.scene.size
        scale = Scale(size[0] / width, size[1] / height, *size)
        return step_between(picture.nodes(canvas, frame), picture.nodes(canvas, frame + 1), scale)


class Picture:
    """A scene made ready to draw. UnknownFont if a font is not shipped."""

    def __init__(self, scene: Scene):
        self.scene = scene
        self._backgrounds = Backgrounds(scene)
        self._prepared = {
            layer.id: PREPARED_LAYERS[layer.kind](scene, _of_one_copy(layer), _NestedPicture)
            for layer in scene.layers
        }
        mattes = [layer.matte for layer in scene.layers if layer.matte]
        self._only_mattes = {matte.layer for matte in mattes if not matte.visible}

    @property
    def background_color(self) -> str | None:
        """The background's colour; None where it is transparent."""
        return self._backgrounds.color

    def background_item(self, canvas: Canvas, frame: float) -> DrawItem | None:
        """What lies over that colour, behind everything else; None if nothing does."""
        return self._backgrounds.item(canvas, frame)

    def draw(self, canvas: Canvas, frame: float) -> None:
        """Draws one frame; fractions of a frame are allowed."""
        if item := self.background_item(canvas, frame):
            canvas.lay_background(item, self.background_color)
        else:
            canvas.clear(self.background_color)
        for node in self.nodes(canvas, frame):
            draw_node(canvas, node)

    def nodes(self, canvas: Canvas, frame: float) -> list[CompositeNode]:
        """What is drawn in a frame, from back to front, with outlines prepared by `canvas`."""
        return self._nodes_in(None, canvas, frame)

    def _nodes_in(self, group: str | None, canvas: Canvas, frame: float) -> list[CompositeNode]:
        return [
            self._node(layer, canvas, frame)
            for layer in self.scene.layers
            if layer.group == group
            and layer.id not in self._only_mattes
            and self.scene.shows(layer, frame)
        ]

    def _node(self, layer: Layer, canvas: Canvas, frame: float) -> CompositeNode:
        ready = self._prepared[layer.id]
        samples, find_box = self._drawn(layer, canvas, self._shutter_times(layer, frame))
        members: list[CompositeNode] = []
        if layer.has_members:
            members = self._members(layer, canvas, frame)

            def find_box() -> Box | None:
                return _all_extents(members)

        return CompositeNode(
            tuple(_once_each(samples)),
            tuple(members),
            layer.blend,
            ready.opacity(frame),
            effects_at(layer, frame, self.scene.size),
            cuts_of(canvas, self.scene, layer, frame),
            self._matte(layer, canvas, frame),
            layer.works_below,
            find_box,
        )

    def _drawn(self, layer: Layer, canvas: Canvas, times: np.ndarray) -> Drawn:
        """What a layer draws itself at some times, in all its copies."""
        ready = self._prepared[layer.id]
        if layer.formation is None or layer.has_members:
            return ready.drawn(canvas, times)
        return drawn_copies(self.scene, layer, times, partial(ready.drawn, canvas))

    def _members(self, group: Layer, canvas: Canvas, frame: float) -> list[CompositeNode]:
        """What lies in a group, in all its copies."""
        if group.formation is None:
            return self._nodes_in(group.id, canvas, frame)
        times = self._shutter_times(group, frame)
        return copied_members(
            self.scene, group, frame, times, lambda time: self._nodes_in(group.id, canvas, time)
        )

    def _matte(self, layer: Layer, canvas: Canvas, frame: float) -> DrawnMatte | None:
        """The matte of a layer: it works in its own span, whether or not it is shown itself."""
        if layer.matte is None:
            return None
        source = self.scene.layer(layer.matte.layer)
        first, end = source.span
        node = CompositeNode(find_box=lambda: (0.0, 0.0, 0.0, 0.0))
        if first <= frame < end:
            node = self._node(source, canvas, frame)
        return DrawnMatte(node, layer.matte.by, layer.matte.invert)

    def _shutter_times(self, layer: Layer, frame: float) -> np.ndarray:
        """The times at which a layer is seen in a frame: one, or those of an open shutter."""
        shutter = layer.motion_blur or self.scene.motion_blur
        if shutter is None or not shutter.on:
            return np.array([float(frame)])
        angle = float(value_at(shutter.angle, np.array(frame)))
        if angle <= 0:
            return np.array([float(frame)])
        count = shutter.samples
        steps = (np.arange(count) + 0.5 - count / 2) / count
        return frame + shutter.phase / 360 + steps * angle / 360


def _once_each(samples: list[list[DrawItem]]) -> list[list[DrawItem]]:
    """One of each run of samples that look alike, if all runs are as long: where nothing moves
    while the shutter is open, one sample."""
    first = samples[0]
    run = next(
        (number for number, sample in enumerate(samples) if not _look_alike(sample, first)),
        len(samples),
    )
    parts = [samples[start : start + run] for start in range(0, len(samples), run)]
    is_even = len(parts) == 1 or (
        run > 1
        and len(parts[-1]) == run
        and all(_look_alike(sample, part[0]) for part in parts for sample in part[1:])
    )
    return samples[::run] if is_even else samples


def _look_alike(one: list[DrawItem], other: list[DrawItem]) -> bool:
    return len(one) == len(other) and all(
        item.looks_like(as_well) for item, as_well in zip(one, other, strict=True)
    )


def _of_one_copy(layer: Layer) -> Layer:
    """A layer as one of its copies is drawn: the shadows of all fall the same way, so they are
    drawn once these are in their places."""
    if layer.formation is None:
        return layer
    left = tuple(effect for effect in layer.effects if not isinstance(effect, Shadow))
    return layer.model_copy(update={"effects": left})


def _all_extents(nodes: list[CompositeNode]) -> Box | None:
    """The box of nodes with what their effects add; None if that is not known of one."""
    boxes = []
    for node in nodes:
        if node.extent is None:
            return None
        boxes.append(node.extent)
    return around(boxes)


def draw_frame(picture: Picture, frame: float, size: tuple[int, int] | None = None) -> np.ndarray:
    """One frame as new pixels (height, width, 4), BGRA premultiplied, at `size` or the scene's."""
    width, height = picture.scene.size
    wide, high = size or (width, height)
    canvas = SkiaCanvas(wide, high, (wide / width, high / height))
    picture.draw(canvas, frame)
    return canvas.pixels
