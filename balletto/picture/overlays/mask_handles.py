"""Masks, windows and lines as they are drawn over the picture, to be dragged."""

from collections.abc import Callable
from typing import Any

import numpy as np

from ...lettering.layout import lay_out
from ...motion.spaces.affine import resting_matrices
from ...scene.document import Scene
from ...scene.forms.primitives import moved
from ...scene.layers import Layer
from ...scene.layers.title import Title
from ...scene.moving.grips import Grip
from ...scene.values.tracks import Tied, Track, value_at
from ..layers.form import box_of
from ..letterforms.windows import boxes_of_window

_ROUND = 48  # points along an ellipse
_DIGITS = 3


def mask_handles(scene: Scene, layer: Layer, frame: float) -> list[dict[str, Any]]:
    """The masks of a layer that are on, as they are at a frame.

    index: which it is; center, rotation, and `size` where it has one: its values
    outline: points of the picture around it
    matrix, back: three rows each, from its space to the picture and from there
    """
    at = np.array(float(frame))
    own = resting_matrices(scene, layer, np.array([float(frame)]))[0]
    across, down = scene.view.origin
    still = np.array([[1.0, 0.0, across], [0.0, 1.0, down], [0.0, 0.0, 1.0]])
    return [
        _mask(index, mask, still if mask.fixed else own, at)
        for index, mask in enumerate(layer.masks)
        if mask.on and not is_tied(mask)
    ]


def mask_elsewhere(
    scene: Scene, layer_id: str, index: int, frame: float, fixed: bool
) -> dict[str, Any]:
    """The values that a mask has to get to stay where it is seen at a frame, once it stands in the
    picture (`fixed`) or moves with its layer: plain values, and keys one by one. Empty if it is so
    already, or follows other values.

    A layer that is tipped in depth or stretched unevenly shows a form that no mask in the picture
    has: the nearest is given.
    """
    layer = scene.layer(layer_id)
    mask = layer.masks[index]
    if mask.fixed == fixed or is_tied(mask):
        return {}
    across, down = scene.view.origin
    still = np.array([[1.0, 0.0, across], [0.0, 1.0, down], [0.0, 0.0, 1.0]])

    def to_other(at: float) -> np.ndarray:
        own = resting_matrices(scene, layer, np.array([at]))[0]
        there = np.linalg.inv(still) @ own
        there = there / there[2, 2]
        return there if fixed else np.linalg.inv(there)

    found: dict[str, Any] = {}
    for name, convert in _ELSEWHERE.items():
        value = getattr(mask, name, None)
        if value is None:
            continue
        if not isinstance(value, Track):
            found[name] = convert(to_other(frame), value)
            continue
        keys = [
            {**key.model_dump(exclude_unset=True), "value": convert(to_other(key.at), key.value)}
            for key in value.keys
        ]
        found[name] = {**value.model_dump(exclude_unset=True), "keys": keys}
    return found


def _center_there(matrix: np.ndarray, center: tuple[float, float]) -> list[float]:
    x, y, w = matrix @ np.array([*center, 1.0])
    return [round(float(x / w), _DIGITS), round(float(y / w), _DIGITS)]


def _turn_there(matrix: np.ndarray, rotation: float) -> float:
    return round(rotation + float(np.degrees(np.arctan2(matrix[1, 0], matrix[0, 0]))), _DIGITS)


def _size_there(matrix: np.ndarray, size: tuple[float, float]) -> list[float]:
    wide, high = np.hypot(matrix[0, 0], matrix[1, 0]), np.hypot(matrix[0, 1], matrix[1, 1])
    return [round(float(size[0] * wide), _DIGITS), round(float(size[1] * high), _DIGITS)]


def _length_there(matrix: np.ndarray, length: float) -> float:
    area = abs(float(np.linalg.det(matrix[:2, :2])))
    return round(length * area**0.5, _DIGITS)


# How each value of a mask is told in another space; its feather is always in px of the picture.
_ELSEWHERE: dict[str, Callable[[np.ndarray, Any], Any]] = {
    "center": _center_there, "rotation": _turn_there, "size": _size_there,
    "corner": _length_there, "expand": _length_there,
}  # fmt: skip


def is_tied(part: Any) -> bool:
    """Whether a value of a part follows others."""
    return any(isinstance(value, Tied) for _, value in part)


def _mask(index: int, mask: Any, matrix: np.ndarray, at: np.ndarray) -> dict[str, Any]:
    center, turned = value_at(mask.center, at).tolist(), float(value_at(mask.rotation, at))
    size = value_at(mask.size, at).tolist() if hasattr(mask, "size") else None
    return {
        "index": index,
        "center": np.round(center, _DIGITS).tolist(),
        "rotation": round(turned, _DIGITS),
        "size": size and np.round(size, _DIGITS).tolist(),
        "outline": _outline(mask, size, center, turned, matrix, at),
        **maps(matrix),
    }


def _outline(
    mask: Any, size: list[float] | None, center: list[float], turned: float, matrix: np.ndarray,
    at: np.ndarray,
) -> list[list[float]]:  # fmt: skip
    if mask.kind == "ellipse" and size:
        angles = np.linspace(0, 2 * np.pi, _ROUND, endpoint=False)
        points = np.column_stack([np.cos(angles) * size[0], np.sin(angles) * size[1]]) / 2
    else:
        left, top, right, bottom = box_of(mask.outline(at))
        points = np.array([[left, top], [right, top], [right, bottom], [left, bottom]])
    turned_commands = moved((("line", tuple(points.reshape(-1).tolist())),), center, turned)
    return seen_points(matrix, np.array(turned_commands[0][1]).reshape(-1, 2))


def line_handles(scene: Scene, layer: Layer, frame: float) -> dict[str, Any] | None:
    """The ends of a line as they are at a frame, from `from` to `to`, with the maps to the picture
    and back; None if it is none, or its ends are tied."""
    shape = getattr(layer, "shape", None)
    if shape is None or shape.kind != "line" or is_tied(shape):
        return None
    at = np.array(float(frame))
    matrix = resting_matrices(scene, layer, np.array([float(frame)]))[0]
    ends = [value_at(value, at).tolist() for value in (shape.start, shape.end)]
    return {"ends": ends, "seen": seen_points(matrix, np.array(ends)), **maps(matrix)}


def copy_handles(scene: Scene, layer: Layer, frame: float) -> dict[str, Any] | None:
    """Where the copies of a layer are seen by its formation alone, what of that can be dragged, and
    the maps to the picture and back; None if it has none."""
    formation = layer.formation
    if formation is None or is_tied(formation):
        return None
    time = np.array([float(frame)])
    matrix = resting_matrices(scene, layer, time)[0]
    places = formation.places(time)[0][0]
    grips = grips_seen(formation.grips(time), "formation", matrix)
    return {"grips": grips, "seen": seen_points(matrix, places), **maps(matrix)}


def grips_seen(grips: list[Grip], part: str, matrix: np.ndarray) -> list[dict[str, Any]]:
    """Grips of a part of a layer with where they are seen, and the path of their value in it."""
    return [
        {
            **grip._asdict(),
            "path": f"{part}.{grip.name}",
            "seen": seen_points(matrix, np.array([grip.at]))[0],
        }
        for grip in grips
    ]


def window_handles(scene: Scene, title: Title, frame: float) -> dict[str, Any] | None:
    """The window of a title at a frame: the boxes of its units as they are seen, the first of them
    before and after it is grown, in the space of the layer, and its values side by side; None if it
    has none, or no letters."""
    window = title.window
    boxes = boxes_of_window(title, lay_out(scene, title)) if window else np.zeros((0, 4))
    if window is None or not len(boxes):
        return None
    matrix = resting_matrices(scene, title, np.array([float(frame)]))[0]
    left, top, right, bottom = boxes.T
    corners = np.stack([left, top, right, top, right, bottom, left, bottom], axis=1)
    return {
        "outlines": [seen_points(matrix, each.reshape(-1, 2)) for each in corners],
        "box": np.round(boxes[0], _DIGITS).tolist(),
        "grow": list(window.grown),
        "soft": list(window.softened),
        **maps(matrix),
    }


def seen_points(matrix: np.ndarray, points: np.ndarray) -> list[list[float]]:
    """Points (n, 2) of a layer's space in the picture."""
    seen = np.column_stack([points, np.ones(len(points))]) @ matrix.T
    return np.round(seen[:, :2] / np.maximum(seen[:, 2:], 1e-6), 2).tolist()


def maps(matrix: np.ndarray) -> dict[str, list[list[float]]]:
    """The maps from a layer's space to the picture and back, three rows each."""
    back = np.linalg.pinv(matrix)
    return {"matrix": np.round(matrix, 8).tolist(), "back": np.round(back, 10).tolist()}
