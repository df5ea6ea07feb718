"""From composed values to the matrix that each character is drawn with, camera included.

The result maps a point of title space (u, v, 1) to picture pixels, in homogeneous coordinates, as a
3x3 matrix.
"""

from typing import NamedTuple

import numpy as np

from ..lettering.layout import UNIT_KINDS, Layout
from ..scene.document import Scene, Transform
from ..scene.tracks import value_at
from .evaluate import Composite
from .space import Space, layer_space, through_camera, turn


class Placed(NamedTuple):
    """Characters in the picture: matrices (times, n, 3, 3), opacities (times, n), and whether
    each stands before the camera (times, n)."""

    matrices: np.ndarray
    opacities: np.ndarray
    before_camera: np.ndarray


def place(
    scene: Scene,
    transform: Transform,
    layout: Layout,
    composites: dict[str, Composite],
    times: np.ndarray,
) -> Placed:
    """Every character of a title at `times`: title, line, word and character moves nested."""
    space = layer_space(transform, times)
    opacities = value_at(transform.opacity, times)[:, None]
    for kind in reversed(UNIT_KINDS):
        if kind in composites:
            member = layout.member[kind]
            inner = _unit_space(composites[kind], layout.centers[kind])
            space = space.after(Space(inner.linear[:, member], inner.shift[:, member]))
            opacities = opacities * composites[kind].full("opacity")[:, member]
    pivots = np.zeros((layout.count("character"), 3))
    pivots[:, :2] = layout.centers["character"]
    depth = (space.linear[..., 2, :] * pivots).sum(-1) + space.shift[..., 2]
    shape = (len(times), layout.count("character"))
    return Placed(
        np.broadcast_to(through_camera(space, scene), (*shape, 3, 3)),
        np.broadcast_to(opacities, shape),
        np.broadcast_to(scene.camera.distance + depth > 1, shape),
    )


def _unit_space(values: Composite, pivots: np.ndarray) -> Space:
    """The maps of units about their pivots: to the pivot, shift, Rz Ry Rx, scale, and back."""
    turns = [values[name] for name in ("rotation_x", "rotation_y", "rotation")]
    linear = np.empty((*values.shape, 3, 3))
    turn(linear, turns, (values["scale_x"], values["scale_y"]))
    shift = np.empty((*values.shape, 3))
    for axis, name in enumerate(("x", "y", "z")):
        shift[..., axis] = values[name]
    shift[..., :2] += pivots
    shift -= linear[..., 0] * pivots[:, 0, None] + linear[..., 1] * pivots[:, 1, None]
    return Space(linear, shift)
