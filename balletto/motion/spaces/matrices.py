"""From composed values to the matrix that each character is drawn with, camera included.

The result maps a point of title space (u, v, 1) to picture pixels, in homogeneous coordinates, as a
3x3 matrix.
"""

from collections.abc import Iterable
from dataclasses import replace
from functools import reduce
from typing import NamedTuple

import numpy as np

from ...lettering.layout import UNIT_KINDS, Layout
from ...scene.document import Scene
from ...scene.layers.title import Title
from ...scene.values.tracks import value_at
from ..evaluate import Composite
from ..reflow import Reflow, reflow
from .affine import STILL, Space, scaled_about, through_camera, turned_about
from .along import TextPath, text_path
from .layer_motion import moved_space


class PlacedLetters(NamedTuple):
    """Characters in the picture: matrices (times, n, 3, 3), opacities (times, n), and whether
    each stands before the camera (times, n)."""

    matrices: np.ndarray
    opacities: np.ndarray
    before_camera: np.ndarray


def place(
    scene: Scene,
    title: Title,
    layout: Layout,
    composites: dict[str, Composite],
    times: np.ndarray,
    shrunk: np.ndarray | None = None,
    middles: np.ndarray | None = None,
) -> PlacedLetters:
    """Every character of a title at `times`: title, line, word and character moves nested.

    shrunk: factors (times,) by which the title as a whole is scaled besides, about its pivot
    middles: of the letters, (times, n, 2), where they are not at rest in the straight line
    """
    space = moved_space(scene, title, times)
    if shrunk is not None:
        space = space.after(scaled_about(title.transform.pivot, shrunk))
    # An ease that overshoots, or a tie, may leave 0..1.
    opacities = np.clip(value_at(title.transform.opacity, times)[:, None], 0.0, 1.0)
    flow = reflow(title, layout, composites)
    for composite in composites.values():
        opacities = opacities * composite.of_characters("opacity")
    middle = layout.centers["character"] if middles is None else middles
    path = text_path(scene, title, layout)
    if path is None:
        space = _nested(space, composites.values(), layout, flow)
    else:
        # What a title does as a whole is done to its path, all else along it.
        whole = [each for each in composites.values() if each.kind == "title"]
        parts = [each for each in composites.values() if each.kind != "title"]
        space = _nested(space, [_about(path, each, times) for each in whole], layout, None)
        bent = path.bent(times, _nested(STILL, parts, layout, flow), middle)
        for axis, name in enumerate(("off_x", "off_y")):
            bent.shift[..., axis] += sum(each.of_characters(name) for each in composites.values())
        space = space.after(bent)
    depth = (space.linear[..., 2, :2] * middle).sum(-1) + space.shift[..., 2]
    shape = (len(times), layout.count("character"))
    return PlacedLetters(
        np.broadcast_to(through_camera(space, scene), (*shape, 3, 3)),
        np.broadcast_to(opacities, shape),
        np.broadcast_to(scene.camera.distance + depth > 1, shape),
    )


def _nested(
    space: Space, composites: Iterable[Composite], layout: Layout, flow: Reflow | None
) -> Space:
    """The maps of letters by moves within a space, from the outermost units to the innermost."""
    for composite in composites:
        member = composite.member
        inner = _unit_space(composite, layout, flow)
        space = space.after(Space(inner.linear[:, member], inner.shift[:, member]))
    if flow is not None:
        space = Space(space.linear, space.shift + space.linear[..., 0] * flow.left[..., None])
    return space


def _about(path: TextPath, values: Composite, times: np.ndarray) -> Composite:
    """What moves do to a title as a whole, about the box of its path."""
    boxes = np.broadcast_to(path.around(times)[:, None], (*values.shape, 4))
    turns = {pivot: replace(each, boxes=boxes) for pivot, each in values.turns.items()}
    return replace(values, boxes=boxes, turns=turns)


def _unit_space(values: Composite, layout: Layout, flow: Reflow | None) -> Space:
    """The maps of units: about their pivots Rz Ry Rx, skew and scale, then the shift.

    Where moves have pivots that differ, the first of them turns last; all shifts add up.
    """
    spaces = [
        turned_about(part, values.shape, _pivots(part, layout, flow))
        for part in values.turns.values() or (values,)
    ]
    space = reduce(Space.after, spaces)
    for axis, name in enumerate(("x", "y", "z")):
        space.shift[..., axis] += values[name]
    return space


def _pivots(values: Composite, layout: Layout, flow: Reflow | None) -> np.ndarray:
    """The pivots of the units in title space, (n, 2), or (times, n, 2) if they shift."""
    (across, down), whose = values.pivot
    boxes, edges = values.boxes, values.edges
    # The owner of each unit is that of its first character; a larger one than its unit's own
    # cannot be meant, so the unit's own box counts then.
    if whose != "unit" and UNIT_KINDS.index(whose) > UNIT_KINDS.index(values.kind):
        _, first = np.unique(values.member, return_index=True)
        owners = layout.member[whose][first]
        boxes, edges = layout.boxes[whose][owners], layout.edges[whose][owners]
    low, high = boxes[..., :2], boxes[..., 2:]
    if flow is not None:  # which only goes across
        low = low + flow.left[:, edges[:, 0], None] * (1, 0)
        high = high + flow.right[:, edges[:, 1], None] * (1, 0)
    return low + (high - low) * (across, down)
