"""Copies of a layer: what it draws, at the frame that each shows, brought to where each stands."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import partial

import numpy as np

from ...motion.spaces.affine import through_camera
from ...motion.spaces.formations import Copies, copies_at
from ...motion.spaces.layer_motion import moved_matrices, moved_space
from ...scene.document import Scene
from ...scene.layers import Layer
from ...scene.pose import join_of
from ..canvases.canvas import DrawItem
from ..pixels.bitmaps import Box
from .boxes import around, boxes_of, widened
from .compositing import CompositeNode, Drawn
from .effect_values import shadow_at, with_shadows
from .look import LOOKS, Look, plain_looks

# Below this determinant a layer is seen from its edge, or is no larger than a point.
_LEAST = 1e-9


@dataclass(frozen=True)
class _InPlace:
    """The copies of a layer at one time that are seen: what the layer draws at the frames `shown`
    is brought through a matrix of the picture to where each stands.

    numbers: of the copies, (n,); which: of each the place in `shown`; backs: from the picture of
        what is drawn to the layer, (shown, 3, 3); matrices: (n, 3, 3); opacity: (n,)
    looks: what moves make of each besides
    """

    numbers: np.ndarray
    backs: np.ndarray
    shown: np.ndarray
    which: np.ndarray
    matrices: np.ndarray
    opacity: list[float]
    looks: list[Look]

    def __iter__(self) -> Iterator[tuple[int, np.ndarray, float, Look]]:
        return zip(self.which.tolist(), self.matrices, self.opacity, self.looks, strict=True)


def _in_place(scene: Scene, layer: Layer, time: float) -> _InPlace:
    copies = copies_at(scene, layer, np.array([time]))
    there = _there(scene, layer, copies, time)
    shown, which = np.unique(copies.time[0], return_inverse=True)
    rest = moved_matrices(scene, layer, shown)
    is_open = np.abs(np.linalg.det(rest)) > _LEAST
    backs = np.linalg.inv(np.where(is_open[:, None, None], rest, np.eye(3)))
    first, end = layer.span
    is_there = is_open & (shown >= first) & (shown < end)
    seen = is_there[which] & (copies.opacity[0] > 0) & (there[:, 2, 2] > 1e-6)
    numbers = np.flatnonzero(seen)
    used, which = np.unique(which[numbers], return_inverse=True)
    matrices = there[numbers] @ backs[used][which]
    opacity = np.clip(copies.opacity[0, numbers], 0.0, 1.0).tolist()
    looks = _looks(copies, numbers)
    return _InPlace(numbers, backs[used], shown[used], which, matrices, opacity, looks)


def _there(scene: Scene, layer: Layer, copies: Copies, time: float) -> np.ndarray:
    """From the space of the layer to where each copy is seen, (n, 3, 3)."""
    own = moved_space(scene, layer, np.array([time]))
    seen: np.ndarray = through_camera(own.after(copies.space), scene)[0]
    return seen


def _looks(copies: Copies, numbers: np.ndarray) -> list[Look]:
    """What moves make of copies besides where they stand and how opaque they are."""
    values = {name: value for name, value in copies.looks.items() if name in LOOKS}
    if not values:
        return plain_looks(len(numbers))
    return [
        Look.of({n: join_of(n).of_units(value, number[None]) for n, value in values.items()})
        for number in numbers
    ]


def drawn_copies(
    scene: Scene, layer: Layer, times: np.ndarray, draw: Callable[[np.ndarray], Drawn]
) -> Drawn:
    """What the copies of a layer draw at each of `times`; `draw` gives what it draws by itself at
    some times, without its shadow."""
    samples: list[list[DrawItem]] = []
    boxes: list[Callable[[], Box | None]] = []
    for time in times:
        shadow = shadow_at(layer, float(time))
        copies = _in_place(scene, layer, float(time))
        drawn = draw(copies.shown) if len(copies.shown) else Drawn([[]], lambda: around([]))
        own = drawn.samples if len(drawn.samples) > 1 else drawn.samples * len(copies.shown)
        items = [
            _brought(item, matrix, opacity, look)
            for number, matrix, opacity, look in copies
            for item in own[number]
        ]
        samples.append(with_shadows(items, shadow))
        more = shadow.margin if shadow else 0.0
        boxes.append(_box_through(drawn.find_box, copies.matrices, more))
    return Drawn(samples, lambda: _all_around(boxes))


def copied_members(
    scene: Scene,
    group: Layer,
    time: float,
    shutter: np.ndarray,
    nodes: Callable[[float], Sequence[CompositeNode]],
) -> list[CompositeNode]:
    """The members of a group for each of its copies; `nodes` gives them at a time. The copies
    themselves are seen at all times (k,) of an open shutter."""
    copies = _in_place(scene, group, time)
    known = [nodes(float(shown)) for shown in copies.shown]
    ways = copies.matrices[:, None]
    if len(shutter) > 1 and len(copies.numbers):
        every = [
            _there(scene, group, copies_at(scene, group, at[None]), float(at)) for at in shutter
        ]
        ways = np.stack(every, axis=1)[copies.numbers] @ copies.backs[copies.which][:, None]
        if np.allclose(ways, ways[:, :1]):
            ways = copies.matrices[:, None]  # nothing moves while the shutter is open
    found: list[CompositeNode] = []
    for (number, _, opacity, look), matrices in zip(copies, ways, strict=True):
        members = tuple(_node_brought(node, matrices, look) for node in known[number])
        if opacity < 1 and members:
            find_box = partial(_all_around, [member.find_box for member in members])
            members = (CompositeNode(members=members, opacity=opacity, find_box=find_box),)
        found += members
    return found


def _brought(item: DrawItem, matrix: np.ndarray, opacity: float, look: Look) -> DrawItem:
    """An item through a matrix of the picture."""
    window = item.window
    if window is not None:
        window = window._replace(matrix=_through(matrix, window.matrix))
    return look.dressed(item)._replace(
        matrix=_through(matrix, item.matrix),
        opacity=item.opacity * opacity * look.opacity,
        window=window,
    )


def _through(matrix: np.ndarray, inner: list[float]) -> list[float]:
    made: list[float] = (matrix @ np.reshape(inner, (3, 3))).reshape(-1).tolist()
    return made


def _node_brought(node: CompositeNode, matrices: np.ndarray, look: Look) -> CompositeNode:
    """A node with all that is in it through a matrix of the picture, or those of the times of an
    open shutter, (k, 3, 3); its effects stay as they are, its cuts as they are half-way."""
    matte = node.matte
    if matte is not None:
        matte = matte._replace(node=_node_brought(matte.node, matrices, Look()))
    middle = matrices[len(matrices) // 2]
    return replace(
        node,
        samples=tuple(
            [_brought(item, matrix, 1.0, look) for item in sample]
            for sample, matrix in _in_turn(node.samples, matrices)
        ),
        members=tuple(_node_brought(member, matrices, look) for member in node.members),
        cuts=tuple(cut._replace(matrix=_through(middle, cut.matrix)) for cut in node.cuts),
        matte=matte,
        find_box=_box_through(node.find_box, matrices),
    )


def _in_turn(
    samples: Sequence[list[DrawItem]], matrices: np.ndarray
) -> Iterator[tuple[list[DrawItem], np.ndarray]]:
    """Each sample of a shutter with the matrix of its time: of what stays while the shutter is open
    there is one, and a shutter of its own may have more or fewer."""
    count = max(len(samples), len(matrices)) if samples else 0
    for number in range(count):
        share = number / count
        yield samples[int(share * len(samples))], matrices[int(share * len(matrices))]


def _box_through(
    find: Callable[[], Box | None], matrices: np.ndarray, more: float = 0.0
) -> Callable[[], Box | None]:
    """What finds the box around a box as it is seen through matrices (n, 3, 3)."""

    def find_brought() -> Box | None:
        box = find()
        if box is None or not np.isfinite(box).all():
            return box
        count = len(matrices)
        seen = np.ones((1, count), dtype=bool)
        return widened(boxes_of(np.array([box] * count), matrices[None], seen)[0], more)

    return find_brought


def _all_around(boxes: Sequence[Callable[[], Box | None]]) -> Box | None:
    """The box around boxes; None if one is not known."""
    found = [find() for find in boxes]
    known = [box for box in found if box is not None]
    return around(known) if len(known) == len(found) else None
