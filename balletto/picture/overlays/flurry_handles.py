"""Flurries as they are drawn over the picture, to be dragged: the fan that pieces are thrown into,
where they are born, and the ways of a few of them."""

from functools import partial
from typing import Any

import numpy as np

from ...motion.recent import Recent
from ...motion.spaces.affine import resting_matrices
from ...motion.spaces.flurries import pieces_at
from ...scene.document import Scene
from ...scene.forms.flurry import Flurry
from ...scene.layers import Layer
from ...scene.layers.flurry import FlurryLayer
from ...scene.values.tracks import value_at
from .mask_handles import grips_seen, is_tied, maps, seen_points

_WAYS, _STEPS = 9, 24  # pieces whose ways are shown, and points along each
_ALONG_FAN = 24  # points
_kept = Recent(most=32)  # ways are the same in all frames, and take long for thousands of pieces


def flurry_handles(scene: Scene, layer: Layer, frame: float) -> dict[str, Any] | None:
    """What of a flurry can be dragged at a frame, with the maps to the picture and back; None if it
    is none, or its values are tied.

    fan: points of the picture around the angle into which pieces are thrown
    ways: of a few pieces, from birth to death
    """
    if not isinstance(layer, FlurryLayer) or is_tied(layer.flurry) or is_tied(layer.flurry.place):
        return None
    flurry, time = layer.flurry, np.array([float(frame)])
    matrix = resting_matrices(scene, layer, time)[0]
    ways = partial(_ways, scene, flurry)
    return {
        "grips": grips_seen(flurry.grips(time), "flurry", matrix),
        "fan": seen_points(matrix, _fan(flurry, time)),
        "ways": [seen_points(matrix, way) for way in _kept.of(scene, layer.id, ways)],
        **maps(matrix),
    }


def _fan(flurry: Flurry, time: np.ndarray) -> np.ndarray:
    """The corners of the fan: its middle, and an arc as far away as pieces come at first."""
    direction, spread = (
        float(value_at(value, time)[0]) for value in (flurry.direction, flurry.spread)
    )
    half = min(abs(spread), 360.0) / 2
    angles = np.radians(direction + np.linspace(-half, half, _ALONG_FAN))
    reach = flurry.reach_at(time)
    arc = np.stack([reach * np.sin(angles), -reach * np.cos(angles)], axis=1)
    return np.concatenate([np.zeros((1, 2)), arc, np.zeros((1, 2))])


def _ways(scene: Scene, flurry: Flurry) -> list[np.ndarray]:
    """The ways of a few pieces, spread over all, from birth to death."""
    chosen = np.unique(np.linspace(0, flurry.count - 1, min(_WAYS, flurry.count)).astype(int))
    once = flurry.model_copy(update={"loop": False})
    born = pieces_at(scene, once, 1, np.zeros(1)).born
    ways = []
    for piece in chosen.tolist():
        times = born[piece] + np.linspace(0, flurry.life * (1 - 1e-6), _STEPS)
        pieces = pieces_at(scene, once, 1, times)
        alive = pieces.opacity[:, piece] > 0
        alive[0] = True
        way = np.stack([pieces.x[:, piece], pieces.y[:, piece]], axis=1)[alive]
        if len(way) > 1:
            ways.append(way)
    return ways
