"""Compositing nodes: what is drawn together and then blended with what lies behind, and how.

A frame is a list of nodes, from the back to the front, that says all there is to draw: two frames
with equal nodes look the same.
"""

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property
from typing import NamedTuple

from ..canvases.canvas import Canvas, DrawItem, EffectValues, MaskCut
from ..pixels.bitmaps import Box
from .boxes import common, widened

DrawItems = list[DrawItem]


class Drawn(NamedTuple):
    """What a layer draws itself at some times, and what gives the box around all of that."""

    samples: list[DrawItems]
    find_box: Callable[[], Box | None]


class DrawnMatte(NamedTuple):
    """A node that says what another lets through."""

    node: "CompositeNode"
    by: str
    invert: bool


@dataclass(frozen=True)
class CompositeNode:
    """Items and other nodes, drawn together.

    samples: of the items, whose mean is drawn; as a rule one
    members: nodes drawn on top of them, from the back to the front
    effects: done one after another; of an adjustment they are done to all that lies below
    find_box: gives the box of the picture outside which nothing is drawn before the effects, or
        None if that is not known; asked only where it matters, since it takes a while
    """

    samples: tuple[DrawItems, ...] = ([],)
    members: tuple["CompositeNode", ...] = ()
    blend: str = "normal"
    opacity: float = 1.0
    effects: tuple[EffectValues, ...] = ()
    cuts: tuple[MaskCut, ...] = ()
    matte: DrawnMatte | None = None
    adjusts: bool = False
    find_box: Callable[[], Box | None] = field(default=lambda: None, compare=False)

    @cached_property
    def box(self) -> Box | None:
        """What `find_box` gives."""
        return self.find_box()

    @property
    def is_plain(self) -> bool:
        """Whether its items can be drawn straight onto what lies behind."""
        dressed = self.effects or self.cuts or self.matte or self.members or self.opacity < 1
        return not dressed and len(self.samples) == 1

    @property
    def passes_through(self) -> bool:
        """Whether its members can be drawn straight onto what lies behind, one after another: over
        each other is over that."""
        dressed = self.effects or self.cuts or self.matte or self.adjusts or self.opacity < 1
        return not dressed and not any(self.samples) and self.is_over

    @property
    def is_over(self) -> bool:
        """Whether it, and all that is in it, just lies over what is behind."""
        lies_over = self.blend == "normal" and not self.adjusts
        return lies_over and all(member.is_over for member in self.members)

    @property
    def in_sight(self) -> Box | None:
        """The box outside which nothing of it is ever seen, where its matte says so; before its
        effects, so that these have what they reach for."""
        if self.matte is None or self.matte.invert or self.is_unbounded:
            return self.box
        source = self.matte.node
        if source.box is None or source.is_unbounded:
            return self.box
        seen = widened(source.box, source.margin + self.margin)
        return seen if self.box is None else common(self.box, seen)

    @property
    def is_unbounded(self) -> bool:
        """Whether its effects may reach anywhere."""
        return any(effect.model.is_unbounded for effect in self.effects)

    @property
    def margin(self) -> float:
        """How far its effects reach, in px of the picture."""
        return sum(effect.margin for effect in self.effects)

    @property
    def extent(self) -> Box | None:
        """The box of the picture outside which nothing of it is seen; None if that is not known."""
        if self.adjusts or self.in_sight is None or self.is_unbounded:
            return None
        return widened(self.in_sight, self.margin)


def draw_node(canvas: Canvas, node: CompositeNode) -> None:
    """Draws a node on what there is."""
    if node.adjusts:
        canvas.adjust(node.effects, node.cuts, node.opacity)
    elif node.passes_through:
        for member in node.members:
            draw_node(canvas, member)
    elif node.is_plain:
        canvas.draw(node.samples[0], node.blend)
    else:
        _fill(canvas, node)
        canvas.close(node.blend, node.opacity)


def _fill(canvas: Canvas, node: CompositeNode) -> None:
    """Opens a node and draws all that is on it."""
    canvas.open(node.in_sight, node.margin)
    if len(node.samples) > 1:
        canvas.average(node.samples)
    else:
        canvas.draw(node.samples[0])
    for member in node.members:
        draw_node(canvas, member)
    if node.effects:
        canvas.apply(node.effects)
    if node.cuts:
        canvas.cut(node.cuts)
    if node.matte:
        _fill(canvas, node.matte.node)
        canvas.close_as_matte(node.matte.by, node.matte.invert)
