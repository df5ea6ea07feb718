"""Maps of space: turns, shifts and the camera.

A map is a linear part (..., 3, 3) and a shift (..., 3); x right, y down, z away from the viewer.
"""

from collections.abc import Sequence
from functools import lru_cache
from typing import Any, NamedTuple

import numpy as np

from ...scene.document import Scene
from ...scene.layers import Layer
from ...scene.layers.base import Transform
from ...scene.values.tracks import changes_over_time, value_at

Numeric = np.ndarray | float
Parts = Sequence[Numeric] | np.ndarray  # one for each axis


class Space(NamedTuple):
    """An affine map of space: points p go to linear @ p + shift."""

    linear: np.ndarray
    shift: np.ndarray

    def after(self, inner: "Space") -> "Space":
        """This map done after `inner`."""
        shift = (self.linear @ inner.shift[..., None])[..., 0] + self.shift
        return Space(self.linear @ inner.linear, shift)


STILL = Space(np.eye(3)[None, None], np.zeros((1, 1, 3)))


def resting_matrices(scene: Scene, layer: Layer, times: np.ndarray) -> np.ndarray:
    """The matrices from a layer's space to the picture, without its moves, (times, 3, 3)."""
    seen = through_camera(resting_space(scene, layer, times), scene)[:, 0]
    return np.broadcast_to(seen, (len(times), 3, 3))


def resting_space(scene: Scene, layer: Layer, times: np.ndarray) -> Space:
    """The map of a layer with those of the groups it is in: scaled, turned, moved, without what
    the moves of any of them do.

    (times, 1, ...), or (1, 1, ...) if it stays.
    """
    space = in_its_place(scene, layer, own_space(layer.transform, times))
    for group in scene.groups_of(layer):
        space = in_its_place(scene, group, own_space(group.transform, times)).after(space)
    origin = np.array([*scene.view.origin, 0.0])
    return space._replace(shift=space.shift + origin) if origin.any() else space


def in_its_place(scene: Scene, layer: Layer, space: Space) -> Space:
    """The map of a layer where a fit gives it a place: larger about its pivot, then moved. A title
    that has none goes with the shape that it stands along."""
    place = scene.view.places.get(layer.id)
    if place is None and (along := getattr(layer, "along", None)):
        place = scene.view.places.get(along.layer)
    if place is None:
        return space
    pivot = np.array([*layer.transform.pivot, 0.0])
    kept = (1 - place.scale) * (space.linear @ pivot)
    return Space(space.linear * place.scale, space.shift + kept + (*place.shift, 0.0))


def own_space(transform: Transform, times: np.ndarray) -> Space:
    """The map of a layer in its group, shaped as resting_space does."""
    if any(changes_over_time(value) for _, value in transform):
        return _moving_space(transform, times)
    return _still_space(transform)


@lru_cache(maxsize=512)
def _still_space(transform: Transform) -> Space:
    return _moving_space(transform, np.zeros(1))


def _moving_space(transform: Transform, times: np.ndarray) -> Space:
    turns = value_at(transform.rotation, times)
    scale = value_at(transform.scale, times)
    linear = np.empty((len(times), 3, 3))
    turn(linear, turns.T if turns.any() else (0.0, 0.0, 0.0), scale.T)
    # About the pivot: it is brought to the origin, then put back where the layer stands.
    pivot = np.array([*transform.pivot, 0.0])
    shift = value_at(transform.position, times) + pivot - linear @ pivot
    return Space(linear[:, None], shift[:, None])


def turned_about(values: Any, shape: tuple[int, int], pivots: np.ndarray) -> Space:
    """The maps of units, (times, units, ...), about pivots (n, 2) or (times, n, 2): Rz Ry Rx, skew
    and scale, by the composed `values` of a pose, which have `shape`."""
    linear = np.empty((*shape, 3, 3))
    turns = [values[name] for name in ("rotation_x", "rotation_y", "rotation")]
    turn(linear, turns, (values["scale_x"], values["scale_y"]), values["skew"])
    shift = -linear[..., 0] * pivots[..., 0, None] - linear[..., 1] * pivots[..., 1, None]
    shift[..., :2] += pivots
    return Space(linear, shift)


def scaled_about(pivot: tuple[float, float], factors: np.ndarray) -> Space:
    """The maps, (times, 1, ...), that scale all by factors (times,) about a point of the plane."""
    linear = np.eye(3) * factors[:, None, None]
    point = np.array([*pivot, 0.0])
    return Space(linear[:, None], (point - linear @ point)[:, None])


def turn(linear: np.ndarray, turns: Parts, scale: Parts, skew: Numeric = 0.0) -> None:
    """Fills `linear` (..., 3, 3) with Rz Ry Rx, the skew and the scale.

    Angles about x, y, z in degrees, positive clockwise seen along the axis; a positive skew leans
    clockwise too, the top to the right. Whatever does not change may be a plain number, which
    costs next to nothing.
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
    if not (isinstance(skew, float) and skew == 0):
        lean = -np.tan(np.radians(skew)) * scale_y
        for row, across in enumerate((cz * cy, sz * cy, -sy)):
            linear[..., row, 1] += lean * across


def _sine_and_cosine(degrees: Numeric) -> tuple[Numeric, Numeric]:
    if isinstance(degrees, float) and degrees == 0:
        return 0.0, 1.0
    radians = np.radians(degrees)
    return np.sin(radians), np.cos(radians)


def through_camera(space: Space, scene: Scene) -> np.ndarray:
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


def corners_seen(matrices: np.ndarray, boxes: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Corners of boxes (n, 4) seen through matrices (n, 3, 3): places in the picture (n, 4, 2),
    clockwise from the left top, and their depths (n, 4), which are 1 at the plane of the picture
    and not above 0 at the camera and behind it, where the places mean nothing."""
    left, top, right, bottom = boxes.T
    xs = np.stack([left, right, right, left], axis=1)
    ys = np.stack([top, top, bottom, bottom], axis=1)
    seen = np.einsum("nij,njk->nik", matrices, np.stack([xs, ys, np.ones_like(xs)], axis=1))
    depths = seen[:, 2]
    places = seen[:, :2] / np.where(depths == 0, 1.0, depths)[:, None]
    return places.transpose(0, 2, 1), depths
