"""Copies of a layer: where each stands, how it is turned, how large and opaque it is, and which
frame it shows."""

from typing import Any, NamedTuple

import numpy as np

from ...scene.document import Scene
from ...scene.layers import Layer
from ...scene.pose import both_of, limited
from ..stagger import delays_of
from .affine import Space
from .copy_places import COPIES, CopyStand, copy_places, members_of, stand_of
from .layer_motion import composed_moves, moves_of, unit_space, units_at


class Copies(NamedTuple):
    """The copies of a layer at some times, about its origin: (times, n, ...).

    space: the map of each, in the space of the layer; x, y, rotation, scale_x, scale_y, opacity: in
    numbers; time: the frame that each shows; looks: what moves make of each, by property
    """

    space: Space
    x: np.ndarray
    y: np.ndarray
    rotation: np.ndarray
    scale_x: np.ndarray
    scale_y: np.ndarray
    opacity: np.ndarray
    time: np.ndarray
    looks: dict[str, Any]


def copies_at(scene: Scene, layer: Layer, times: np.ndarray) -> Copies:
    """The copies of a layer that has a formation, at `times` (t,) in frames of the scene."""
    formation = layer.formation
    if formation is None:
        raise ValueError(f"{layer.id!r} has no formation")
    stand = stand_of(formation, times)
    delays = delays_of(formation.delay, units_at(scene, layer, copy_places(layer, "copy")))
    space, looks = _space_of(stand), dict[str, Any]()
    # From the inside out: a copy moves along its own axes, then its column, then its row.
    for unit in COPIES:
        moves = moves_of(layer, unit)
        if not moves:
            continue
        points, member = copy_places(layer, unit), members_of(formation, unit)
        values = composed_moves(moves, units_at(scene, layer, points), times)
        if unit == "copy":
            own = np.broadcast_to(np.array(layer.transform.pivot, dtype=float), points.shape)
            space = space.after(unit_space(values, own))
        else:
            outer = unit_space(values, points)
            space = Space(outer.linear[:, member], outer.shift[:, member]).after(space)
        for name in values.values:
            looks[name] = both_of(name, looks.get(name), values.of_units(name, member))
    return _told(stand, space, looks, times[:, None] - delays)


def _space_of(stand: CopyStand) -> Space:
    """The maps of copies in the space of their layer: put in their place, turned, scaled."""
    shape = stand.turns.shape
    turned = np.radians(stand.turns)
    linear = np.zeros((*shape, 3, 3))
    linear[..., 0, 0] = linear[..., 1, 1] = np.cos(turned) * stand.scales
    linear[..., 1, 0] = np.sin(turned) * stand.scales
    linear[..., 0, 1] = -linear[..., 1, 0]
    linear[..., 2, 2] = 1.0
    shift = np.zeros((*shape, 3))
    shift[..., :2] = stand.places
    return Space(linear, shift)


def _told(stand: CopyStand, space: Space, looks: dict[str, Any], shown: np.ndarray) -> Copies:
    return Copies(
        space,
        space.shift[..., 0],
        space.shift[..., 1],
        stand.turns + looks.get("rotation", 0.0),
        stand.scales * looks.get("scale_x", 1.0),
        stand.scales * looks.get("scale_y", 1.0),
        stand.opacity * limited("opacity", looks.get("opacity", 1.0)),
        np.broadcast_to(shown, stand.opacity.shape),
        looks,
    )
