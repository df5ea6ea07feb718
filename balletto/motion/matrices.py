"""From composed values to the matrix that each character is drawn with, camera included.

Space matrices are pairs of a linear part (..., 3, 3) and a shift (..., 3); x right, y down, z away
from the viewer. The result maps a point of title space (u, v, 1) to picture pixels, in homogeneous
coordinates, as a 3x3 matrix.
"""

from collections.abc import Sequence
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from ..lettering.layout import UNIT_KINDS, Layout
from ..scene.document import Scene, Transform
from ..scene.tracks import Track, value_at
from .evaluate import Composite

Values = np.ndarray | float


class Space(NamedTuple):
    """An affine map of space: points p go to linear @ p + shift."""

    linear: np.ndarray
    shift: np.ndarray

    def after(self, inner: "Space") -> "Space":
        """This map done after `inner`."""
        shift = (self.linear @ inner.shift[..., None])[..., 0] + self.shift
        return Space(self.linear @ inner.linear, shift)


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
    space = _layer_space(transform, times)
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
        np.broadcast_to(_through_camera(space, scene), (*shape, 3, 3)),
        np.broadcast_to(opacities, shape),
        np.broadcast_to(scene.camera.distance + depth > 1, shape),
    )


def layer_matrix(scene: Scene, transform: Transform, time: float) -> np.ndarray:
    """The matrix (3, 3) from title space to the picture for a layer alone, at one time."""
    return _through_camera(_layer_space(transform, np.array([time], dtype=float)), scene)[0, 0]


def _layer_space(transform: Transform, times: np.ndarray) -> Space:
    """The layer's own map, (times, 1, ...), or (1, 1, ...) if it stays: scaled, turned, moved."""
    if any(isinstance(value, Track) for _, value in transform):
        return _moving_space(transform, times)
    return _still_space(transform)


@lru_cache(maxsize=512)
def _still_space(transform: Transform) -> Space:
    return _moving_space(transform, np.zeros(1))


def _moving_space(transform: Transform, times: np.ndarray) -> Space:
    turns = value_at(transform.rotation, times)
    scale = value_at(transform.scale, times)
    linear = np.empty((len(times), 3, 3))
    _turn(linear, turns.T if turns.any() else (0.0, 0.0, 0.0), scale.T)
    return Space(linear[:, None], value_at(transform.position, times)[:, None])


def _unit_space(values: Composite, pivots: np.ndarray) -> Space:
    """The maps of units about their pivots: to the pivot, shift, Rz Ry Rx, scale, and back."""
    turns = [values[name] for name in ("rotation_x", "rotation_y", "rotation")]
    linear = np.empty((*values.shape, 3, 3))
    _turn(linear, turns, (values["scale_x"], values["scale_y"]))
    shift = np.empty((*values.shape, 3))
    for axis, name in enumerate(("x", "y", "z")):
        shift[..., axis] = values[name]
    shift[..., :2] += pivots
    shift -= linear[..., 0] * pivots[:, 0, None] + linear[..., 1] * pivots[:, 1, None]
    return Space(linear, shift)


def _turn(linear: np.ndarray, turns: Sequence[Values], scale: Sequence[Values]) -> None:
    """Fills `linear` (..., 3, 3) with Rz Ry Rx S.

    Angles about x, y, z in degrees, positive clockwise seen along the axis. Whatever does not
    change may be a plain number, which costs next to nothing.
    """
    (sx, cx), (sy, cy), (sz, cz) = (_sine_and_cosine(turn) for turn in turns)
    scale_x, scale_y = scale
    linear[..., 0, 0] = cz * cy * scale_x
    linear[..., 1, 0] = sz * cy * scale_x
    linear[..., 2, 0] = -sy * scale_x
    linear[..., 0, 1] = (cz * sy * sx - sz * cx) * scale_y
    linear[..., 1, 1] = (sz * sy * sx + cz * cx) * scale_y
    linear[..., 2, 1] = cy * sx * scale_y
    linear[..., 0, 2] = cz * sy * cx + sz * sx
    linear[..., 1, 2] = sz * sy * cx - cz * sx
    linear[..., 2, 2] = cy * cx
    return linear


def _sine_and_cosine(degrees: Values) -> tuple[Values, Values]:
    if isinstance(degrees, float) and degrees == 0:
        return 0.0, 1.0
    radians = np.radians(degrees)
    return np.sin(radians), np.cos(radians)


def _through_camera(space: Space, scene: Scene) -> np.ndarray:
    """The plane z = 0 of title space seen through the camera, (..., 3, 3).

    With X, Y, Z linear in (u, v, 1), the picture has center + (X - center) * D / (D + Z); over the
    common denominator 1 + Z/D that is (X + center * Z/D) / (1 + Z/D).
    """
    plane = np.empty((*space.shift.shape, 3))
    plane[..., :2] = space.linear[..., :2]
    plane[..., 2] = space.shift
    depth = plane[..., 2, :] / scene.camera.distance
    seen = np.empty(plane.shape)
    for axis, side in enumerate(scene.size):
        seen[..., axis, :] = plane[..., axis, :] + side / 2 * depth
    seen[..., 2, :] = depth
    seen[..., 2, 2] += 1
    return seen
