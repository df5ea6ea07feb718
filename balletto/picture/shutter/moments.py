"""At which moments a nested scene is drawn while a shutter is open over it: samples between which
hardly anything moves in it show the same picture of it."""

import math
from collections.abc import Callable, Sequence
from dataclasses import replace

import numpy as np

from ...raster.pixel_buffer import Scale
from ..canvases.canvas import DrawItem
from ..composing.compositing import CompositeNode
from .shutter_samples import differs_gradually, evened, look_of, needed_for, steps_of

_SAME_LOOK = 1 / 8  # opacity, or colour, that comes in a frame: more may come at once
_EXACT = 6  # decimals of a frame

# Gives the step from a whole frame to the next, see `step_between`.
StepAfter = Callable[[int], float]


def moments_for(frames: np.ndarray, step_after: StepAfter) -> np.ndarray:
    """The moment that is drawn for each of the frames, (n,), evenly apart, at which a scene is seen
    while a shutter is open."""
    count = len(frames)
    if count < 2 or (np.diff(frames) < 0).any():  # it begins anew meanwhile
        return frames
    whole = range(math.floor(frames[0]), math.ceil(frames[-1]))
    steps = max(map(step_after, whole), default=0.0)
    way = steps * (frames[-1] - frames[0]) * count / (count - 1)
    needed = int(needed_for(np.array(way), count))
    number = next(each for each in range(needed, count + 1) if count % each == 0)
    parts = frames.reshape(number, -1)
    middle = (parts[:, 0] + parts[:, -1]) / 2
    return np.repeat(np.round(middle, _EXACT), count // number)


def step_between(
    nodes: Sequence[CompositeNode], later: Sequence[CompositeNode], scale: Scale
) -> float:
    """How far anything goes in a picture from some nodes to those of the next frame, as a share of
    a step that looks like a smear; without end if more changes."""
    if len(nodes) != len(later):
        return math.inf
    steps = (_step_of(*pair, scale) for pair in zip(nodes, later, strict=True))
    return max(steps, default=0.0)


def _step_of(node: CompositeNode, later: CompositeNode, scale: Scale) -> float:
    if _dress_of(node) != _dress_of(later):
        return math.inf
    within = step_between(_nodes_in(node), _nodes_in(later), scale)
    samples = evened([_items_of(node), _items_of(later)])
    if samples is None:
        return math.inf
    for item, other in zip(*samples, strict=True):
        away = np.abs(np.subtract(look_of(item), look_of(other))).max()
        if away > _SAME_LOOK or not differs_gradually(other, item):
            return math.inf
    if not samples[0]:
        return within
    matrices = np.array([[item.matrix for item in items] for items in samples])
    return max(within, float(steps_of(samples, matrices, scale).max()))


def _dress_of(node: CompositeNode) -> CompositeNode:
    """A node without what is seen to move: what is on it, and where it is cut."""
    matte = node.matte and node.matte._replace(node=CompositeNode())
    cuts = tuple(cut._replace(outline=None, matrix=[], opacity=1.0) for cut in node.cuts)
    return replace(node, samples=(), members=(), cuts=cuts, matte=matte)


def _items_of(node: CompositeNode) -> list[DrawItem]:
    """What a node draws itself, in the middle of a shutter of its own, and where it is cut."""
    cuts = [DrawItem(cut.outline, cut.matrix, "#FFFFFF", cut.opacity) for cut in node.cuts]
    return [*node.samples[len(node.samples) // 2], *cuts]


def _nodes_in(node: CompositeNode) -> tuple[CompositeNode, ...]:
    return (*node.members, node.matte.node) if node.matte else node.members
