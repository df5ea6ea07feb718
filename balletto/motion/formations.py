"""Copies of a layer: where each stands, how it is turned, how large and opaque it is, and which
frame it shows."""

from typing import NamedTuple

import numpy as np

from ..scene.document import Scene
from ..scene.formations import Formation
from ..scene.formations.grid import GridFormation
from ..scene.layers import Layer
from .affine import Space
from .copy_places import Stand, copy_places, stand_of
from .evaluate import Composite
from .layer_motion import composed_moves, moves_of, unit_space, units_at
from .stagger import delays_of


class Copies(NamedTuple):
    """The copies of a layer at some times, about its origin: (times, n, ...).

    space: the map of each, in the space of the layer; x, y, rotation, scale_x, scale_y, opacity: in
    numbers; time: the frame that each shows; looks: what moves make of each besides
    """

    space: Space
    x: np.ndarray
    y: np.ndarray
    rotation: np.ndarray
    scale_x: np.ndarray
    scale_y: np.ndarray
    opacity: np.ndarray
    time: np.ndarray
    looks: Composite | None


def copies_at(scene: Scene, layer: Layer, times: np.ndarray) -> Copies:
    """The copies of a layer that has a formation, at `times` (t,) in frames of the scene."""
    formation = layer.formation
    if formation is None:
        raise ValueError(f"{layer.id!r} has no formation")
    stand = stand_of(formation, times)
    units = units_at(scene, layer, copy_places(layer, "copy"))
    delays = delays_of(formation.delay, units)
    space = _space_of(stand)
    looks = None
    if moves := moves_of(layer, "copy"):
        looks = composed_moves(moves, units, times)
        pivot = np.array([layer.transform.pivot], dtype=float)
        space = space.after(unit_space(looks, np.repeat(pivot, len(units), axis=0)))
    outer = _rows_and_columns(scene, layer, formation, times)
    if outer is not None:
        space = outer.after(space)
    return _told(stand, space, looks, times[:, None] - delays)


def _space_of(stand: Stand) -> Space:
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


def _rows_and_columns(
    scene: Scene, layer: Layer, formation: Formation, times: np.ndarray
) -> Space | None:
    """What moves of whole rows and columns do to each copy of a grid; None if nothing."""
    if not isinstance(formation, GridFormation):
        return None
    found: Space | None = None
    for unit, member in zip(("column", "row"), formation.cells(), strict=True):
        moves = moves_of(layer, unit)
        if not moves:
            continue
        middles = copy_places(layer, unit)
        values = composed_moves(moves, units_at(scene, layer, middles), times)
        space = unit_space(values, middles)
        own = Space(space.linear[:, member], space.shift[:, member])
        found = own if found is None else own.after(found)
    return found


def _told(stand: Stand, space: Space, looks: Composite | None, shown: np.ndarray) -> Copies:
    rotation, scale_x, scale_y = stand.turns, stand.scales, stand.scales
    opacity = stand.opacity
    if looks is not None:
        rotation = rotation + looks["rotation"]
        scale_x, scale_y = scale_x * looks["scale_x"], scale_y * looks["scale_y"]
        opacity = opacity * looks["opacity"]
    time = np.broadcast_to(shown, opacity.shape)
    x, y = space.shift[..., 0], space.shift[..., 1]
    return Copies(space, x, y, rotation, scale_x, scale_y, opacity, time, looks)
