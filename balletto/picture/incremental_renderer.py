"""Drawing one frame after another, touching only the part of the picture that changes.

All that lies on that part is drawn on a canvas beside, in full: what is cut off by a clip is not
always the same to the last bit. Then the part is copied.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from itertools import compress, zip_longest

import numpy as np

from ..raster.pixel_buffer import Edges
from .canvases.canvas import DrawItem
from .canvases.skia_canvas import SkiaCanvas
from .composing.compositing import CompositeNode, draw_node
from .composing.item_boxes import boxes_of_items, meeting
from .frame import Picture

NOTHING: Edges = (0, 0, 0, 0)


class IncrementalRenderer:
    """Successive frames of a picture, at `size` or the scene's own. Where all changes they come in
    other memory: `pixels` are those of the frame drawn last, until the next."""

    def __init__(self, picture: Picture, size: tuple[int, int] | None = None):
        self._picture = picture
        width, height = picture.scene.size
        wide, high = size or (width, height)
        self._canvas = SkiaCanvas(wide, high, (wide / width, high / height))
        self._all: Edges = (0, 0, wide, high)
        self._nodes: list[CompositeNode] | None = None
        self._background: DrawItem | None = None
        self._pixels = np.zeros_like(self._canvas.pixels)
        # The edges of the items of plain nodes of this frame and the one before, by the identity
        # of the node, which is its own as long as it is kept with them.
        self._boxes: dict[int, tuple[CompositeNode, np.ndarray]] = {}

    @property
    def pixels(self) -> np.ndarray:
        """The frame drawn last, (height, width, 4), BGRA premultiplied."""
        return self._pixels

    def draw(self, frame: float) -> Edges:
        """Draws a frame and gives the edges, left, top, right and bottom, between which it may
        differ from the one before; all 0 if it does not."""
        nodes = list(_flattened(self._picture.nodes(self._canvas, frame)))
        background = self._picture.background_item(self._canvas, frame)
        before, self._nodes = self._nodes, nodes
        kept = {id(node) for node in before or ()}
        self._boxes = {number: known for number, known in self._boxes.items() if number in kept}
        is_new = before is None or background != self._background
        self._background = background
        changed = self._all if before is None or is_new else self._changed(before, nodes)
        left, top, right, bottom = changed
        if left >= right or top >= bottom:
            return NOTHING
        color = self._picture.background_color
        if background:
            self._canvas.lay_background(background, color, changed)
        else:
            self._canvas.clear(color, changed)
        for node in nodes if changed == self._all else self._touching(nodes, changed):
            draw_node(self._canvas, node)
        if changed == self._all:
            self._pixels = self._canvas.turned_over(self._pixels)
        else:
            part = np.s_[top:bottom, left:right]
            self._pixels[part] = self._canvas.pixels[part]
        return changed

    def _changed(self, before: list[CompositeNode], nodes: list[CompositeNode]) -> Edges:
        """The edges around all that is another than before."""
        found: list[Sequence[int]] = []
        for old, new in zip_longest(before, nodes):
            if old == new:
                continue
            if old and new and old.is_plain and new.is_plain and old.blend == new.blend:
                found += self._changed_items(old, new)
            else:
                found += [self._edges(node) for node in (old, new) if node]
        if not found:
            return NOTHING
        # What an adjustment reaches, it may change anywhere.
        if any(node.adjusts for node in nodes):
            return self._all
        return self._around(np.array(found))

    def _changed_items(self, old: CompositeNode, new: CompositeNode) -> list[list[int]]:
        """The boxes of the items of plain nodes that are others, as they were and as they are."""
        items, others = old.samples[0], new.samples[0]
        was, is_now = self._boxes_in(old), self._boxes_in(new)
        if len(items) == len(others):
            changed = [one != other for one, other in zip(items, others, strict=True)]
            was, is_now = was[changed], is_now[changed]
        return [*was.tolist(), *is_now.tolist()]

    def _boxes_in(self, node: CompositeNode) -> np.ndarray:
        """The boxes of the items of a plain node, (items, 4)."""
        if id(node) not in self._boxes:
            boxes = boxes_of_items(node.samples[0], self._canvas.scale)
            self._boxes[id(node)] = (node, boxes)
        return self._boxes[id(node)][1]

    def _touching(self, nodes: list[CompositeNode], edges: Edges) -> list[CompositeNode]:
        """What of nodes is drawn between edges."""
        found = []
        for node in nodes:
            if node.is_plain:
                met = meeting(self._boxes_in(node), edges).tolist()
                near = list(compress(node.samples[0], met))
                if near:
                    found.append(replace(node, samples=(near,)))
            elif meeting(np.array(self._edges(node)), edges):
                found.append(node)
        return found

    def _edges(self, node: CompositeNode) -> Edges:
        """The edges in memory between which a node draws; those of the picture if that is not
        known."""
        reach = node.extent
        if reach is None:
            return self._all
        across, down = self._canvas.scale[:2]
        found = np.array(reach) * (across, down, across, down)
        # Edges are smoothed over the pixel beyond.
        return self._around(np.array([[*np.floor(found[:2] - 2), *np.ceil(found[2:] + 2)]]))

    def _around(self, boxes: np.ndarray) -> Edges:
        """The edges of the picture around boxes (number, 4), as far as they lie in it."""
        _, _, width, height = self._all
        inside = np.clip(boxes, 0, (width, height, width, height)).astype(int)
        inside = inside[(inside[:, 0] < inside[:, 2]) & (inside[:, 1] < inside[:, 3])]
        if not len(inside):
            return NOTHING
        left, top = inside[:, :2].min(axis=0).tolist()
        right, bottom = inside[:, 2:].max(axis=0).tolist()
        return left, top, right, bottom


def _flattened(nodes: Iterable[CompositeNode]) -> Iterator[CompositeNode]:
    """Nodes with the members of those that are drawn as these in their stead."""
    for node in nodes:
        if node.passes_through:
            yield from _flattened(node.members)
        else:
            yield node
