"""Off the picture: the displacement that takes a title, or each of its units, just out of sight on
a side, wherever it stands and however it is turned."""

from collections.abc import Iterable
from typing import Any

import numpy as np

from ...lettering.layout import Layout, unions
from ...scene.document import Scene
from ...scene.effects.displace import Displace
from ...scene.effects.shadow import Shadow
from ...scene.layers.title import Title
from ...scene.moving.moves import Move
from ...scene.values.tracks import Tied, Track, is_color, value_at
from ..units import cells_among, part_of
from .affine import corners_seen, resting_matrices
from .along import text_path

# The axis of the picture that a side lies on, and which way.
_WAYS = {"left": (0, -1.0), "right": (0, 1.0), "above": (1, -1.0), "below": (1, 1.0)}
_NEAREST = 1e-6  # depth, where that of the picture is 1
_BEYOND = 1.0  # px: so far out that smoothed edges are gone too


def off_picture(
    scene: Scene, title: Title, layout: Layout, move: Move, times: np.ndarray
) -> np.ndarray:
    """What the `off` of the pose of a move adds to the place of its units, in px of title space:
    (times, units, 2), or (times, 1, 2) where all go together."""
    axis, sign = _WAYS[move.pose.off or "left"]
    boxes = _boxes(layout, move, layout.ink)
    if not len(boxes):
        return np.zeros((len(times), 1, 2))
    around = _ink_around(title) * np.array([-1, -1, 1, 1])
    boxes = boxes + around
    matrices = resting_matrices(scene, title, times)
    across, up = _margins(title)
    shifts = np.empty((len(times), len(boxes), 2))
    edge = 0.0 if sign < 0 else float(scene.size[axis])
    edge += sign * ((across, up)[axis] + _BEYOND)
    path = text_path(scene, title, layout)
    for row, matrix in enumerate(matrices):
        if path is not None:
            boxes = _boxes(layout, move, path.boxes(float(times[row]), layout.ink)) + around
        shifts[row] = _shifts(np.broadcast_to(matrix, (len(boxes), 3, 3)), boxes, axis, sign, edge)
    return _among_cells(shifts, layout, move)


def _among_cells(shifts: np.ndarray, layout: Layout, move: Move) -> np.ndarray:
    """Shifts of letters where white space takes part too, which has nothing to take away."""
    if move.pose.off_of != "unit" or not move.spaces or move.unit != "character":
        return shifts
    cells = cells_among(layout, move.among)
    letters = part_of(layout, "character", move.among).letters
    wide = np.zeros((len(shifts), len(cells), 2))
    wide[:, np.searchsorted(cells, layout.visible[letters])] = shifts
    return wide


def _boxes(layout: Layout, move: Move, ink: np.ndarray) -> np.ndarray:
    """The boxes of ink that go together: one for each unit, or one of all that the move moves.
    ink: (characters, 4), the boxes of each letter."""
    part = part_of(layout, move.unit, move.among)
    if not len(part.letters):
        return np.zeros((0, 4))
    alone = move.pose.off_of == "unit"
    return unions(ink[part.letters], part.member if alone else np.zeros_like(part.member))


def _shifts(
    matrices: np.ndarray, boxes: np.ndarray, axis: int, sign: float, edge: float
) -> np.ndarray:
    """The shifts (n, 2) in the plane of the title that bring boxes (n, 4), seen through matrices
    (n, 3, 3), beyond an edge of the picture: along the line that is seen to lead there straight.

    A corner seen at (a / c) goes to (a + t b) / (c + t d) with t px along that line, so that it
    stands on the edge e at t = (e c - a) / (b - e d).
    """
    middles = (boxes[:, :2] + boxes[:, 2:]) / 2
    ways = _ways(matrices, middles, axis, sign)
    moved = np.einsum("nij,nj->ni", matrices[:, :, :2], ways)
    places, depths = corners_seen(matrices, boxes)
    seen = places[..., axis] * depths
    slope = moved[:, axis] - edge * moved[:, 2]
    slope = np.where(np.abs(slope) < 1e-9, 1e-9 * sign, slope)
    far = (edge * depths - seen) / slope[:, None]
    return ways * far.max(axis=1, initial=0.0)[:, None]


def _ways(matrices: np.ndarray, points: np.ndarray, axis: int, sign: float) -> np.ndarray:
    """The directions (n, 2) in the plane that are seen, at points, to go straight to a side."""
    seen = np.einsum("nij,nj->ni", matrices, np.column_stack([points, np.ones(len(points))]))
    # At the camera and behind it nothing is seen: there any way will do.
    depth = np.maximum(seen[:, 2:], _NEAREST)
    place = seen[:, :2] / depth
    # The derivative of (a / c, b / c) by the place in the plane.
    slopes = (matrices[:, :2, :2] - place[..., None] * matrices[:, 2:, :2]) / depth[..., None]
    wanted = np.zeros(2)
    wanted[axis] = sign
    ways = np.einsum("nij,j->ni", np.linalg.pinv(slopes), wanted)
    length = np.linalg.norm(ways, axis=1, keepdims=True)
    return ways / np.where(length > 0, length, 1.0)


def _ink_around(title: Title) -> float:
    """How far lines and bumps reach beyond outlines, in px of the title's space."""
    widths = [title.style.outline, *(run.style.outline or 0 for run in title.runs)]
    bumps = [_largest(e.amount) for e in title.effects if e.on and isinstance(e, Displace)]
    return max(map(_largest, widths)) + max(bumps, default=0.0)


def _margins(title: Title) -> tuple[float, float]:
    """How far effects reach beyond what is drawn, across and down, in px of the picture."""
    across = down = 0.0
    for effect in (effect for effect in title.effects if effect.on):
        if isinstance(effect, Shadow):
            soft = 3 * _largest(effect.softness)
            across = max(across, _largest(effect.x) + soft)
            down = max(down, _largest(effect.y) + soft)
        elif effect.works_on == "picture":
            numbers = (item for item in effect if _is_number(item[1]))
            values = {name: _largest(value) for name, value in numbers}
            across, down = (each + effect.margin(values) for each in (across, down))
    return across, down


def _is_number(value: Any) -> bool:
    """Whether a value of an effect is a number, plain or changing."""
    is_plain = isinstance(value, int | float) and not isinstance(value, bool)
    return is_plain or (isinstance(value, Track | Tied) and not is_color(value))


def _largest(value: Any) -> float:
    """The largest size of a number, whenever that is."""
    keys: Iterable[Any] = [key.value for key in value.keys] if isinstance(value, Track) else []
    numbers = [abs(key) for key in keys] or [abs(float(value_at(value, np.zeros(()))))]
    return float(max(numbers))
