"""Where things are in the picture: corners of titles at rest and of characters as they move."""

from typing import Any

import numpy as np

from ..lettering.layout import lay_out
from ..motion.evaluate import compose
from ..motion.matrices import place
from ..motion.space import corners_seen, layer_matrices, layer_space
from ..scene.document import Scene, Transform
from ..scene.tracks import value_at


def places(scene: Scene, frame: float, layer_id: str | None = None) -> dict[str, Any]:
    """Four corners [x, y], clockwise from the top left, of what can be pointed at in a frame.

    layers: by id, the box of each title at rest, where it shows at this frame; its `depth`, the
    pixels of its own that stand for one of the picture; its `pivot` in the picture; and its
    `position`, `rotation` and `scale` there
    characters: for the layer `layer_id`, of each character as it is drawn, with its `place` in
    the text; those behind the camera are left out
    """
    boxes = {}
    at = np.array(float(frame))
    characters: list[dict[str, Any]] = []
    for layer in scene.layers:
        layout = lay_out(layer)
        shows = layer.id in scene.shown and layer.span[0] <= frame < layer.span[1]
        if shows and layout.count("title"):
            matrix = _matrix(scene, layer.transform, frame)
            boxes[layer.id] = {
                "corners": _corners(matrix[None], layout.boxes["title"])[0].tolist(),
                "depth": float(matrix[2, 2]),
                "pivot": _seen_through(matrix, layer.transform.pivot),
                **{
                    name: np.round(value_at(getattr(layer.transform, name), at), 4).tolist()
                    for name in ("position", "rotation", "scale")
                },
                "locked": layer.locked,
            }
        if shows and layer.id == layer_id:
            times = np.array([frame], dtype=float)
            placed = place(scene, layer, layout, compose(scene, layer, layout, times), times)
            corners = _corners(placed.matrices[0], layout.boxes["character"]).tolist()
            characters = [
                {"place": character.place, "corners": each}
                for character, each, seen in zip(
                    layout.characters, corners, placed.before_camera[0], strict=True
                )
                if seen
            ]
    return {"layers": boxes, "characters": characters}


def centered_position(scene: Scene, layer_id: str, frame: float, axes: str) -> list[float]:
    """The position that puts the middle of a title at the middle of the picture.

    axes: "x", "y" or "xy"; the others stay as they are at `frame`.
    """
    layer = scene.layer(layer_id)
    layout = lay_out(layer)
    position = np.array(layer_position(scene, layer_id, frame))
    if not layout.count("title"):
        return position.tolist()
    left, top, right, bottom = layout.boxes["title"][0]
    matrix = _matrix(scene, layer.transform, frame)
    x, y, w = matrix @ np.array([(left + right) / 2, (top + bottom) / 2, 1.0])
    for axis, name in enumerate("xy"):
        if name in axes:
            away = scene.size[axis] / 2 - (x, y)[axis] / w
            position[axis] += away * matrix[2, 2]  # a shift in depth looks smaller by this
    return np.round(position, 3).tolist()


# The side of the boxes that is aligned, as an axis and a share of the box along it.
_SIDES = {
    "left": (0, 0.0), "middle-across": (0, 0.5), "right": (0, 1.0),
    "top": (1, 0.0), "middle-down": (1, 0.5), "bottom": (1, 1.0),
}  # fmt: skip
_SPREADS = {"spread-across": 0, "spread-down": 1}


def aligned_positions(
    scene: Scene, layers: list[str], frame: float, to: str
) -> dict[str, list[float]]:
    """The positions that align titles as they stand at rest in a frame, by their ids.

    to: a side of all their boxes together (left, middle-across, right, top, middle-down, bottom),
    or spread-across, spread-down: their middles at even distances between the outermost
    ValueError if `to` is none of these, or there are not enough titles that show
    """
    least = 3 if to in _SPREADS else 2
    if to not in _SIDES and to not in _SPREADS:
        raise ValueError(f"one of {', '.join([*_SIDES, *_SPREADS])} is needed, got {to!r}")
    shown = places(scene, frame)["layers"]
    boxes = {layer: _extent(shown[layer]["corners"]) for layer in layers if layer in shown}
    if len(boxes) < least:
        raise ValueError(f"at least {least} titles that show at this frame are needed")
    positions = {}
    for layer, (axis, by) in _shifts(boxes, to).items():
        position = layer_position(scene, layer, frame)
        position[axis] = round(position[axis] + by * shown[layer]["depth"], 3)
        positions[layer] = position
    return positions


def _extent(corners: list[list[float]]) -> np.ndarray:
    """The upright box around corners: [[left, top], [right, bottom]]."""
    return np.array([np.min(corners, axis=0), np.max(corners, axis=0)])


def _shifts(boxes: dict[str, np.ndarray], to: str) -> dict[str, tuple[int, float]]:
    """For each box the axis along which, and how far, it is to go."""
    if to in _SPREADS:
        axis = _SPREADS[to]
        middles = {layer: box[:, axis].mean() for layer, box in boxes.items()}
        ordered = sorted(middles, key=middles.__getitem__)
        even = np.linspace(middles[ordered[0]], middles[ordered[-1]], len(ordered))
        return {
            layer: (axis, float(place - middles[layer]))
            for layer, place in zip(ordered, even, strict=True)
        }
    axis, share = _SIDES[to]
    all_low = min(box[0, axis] for box in boxes.values())
    all_high = max(box[1, axis] for box in boxes.values())
    line = all_low + share * (all_high - all_low)
    return {
        layer: (axis, float(line - (box[0, axis] + share * (box[1, axis] - box[0, axis]))))
        for layer, box in boxes.items()
    }


def layer_position(scene: Scene, layer_id: str, frame: float) -> list[float]:
    """The position of a layer at a frame."""
    return value_at(scene.layer(layer_id).transform.position, np.array(frame)).tolist()


def pivot_shift(scene: Scene, layer_id: str, frame: float, place: list[float]) -> dict[str, Any]:
    """What puts the pivot of a layer at a place of the picture while nothing else moves there.

    pivot: in px of the layer's own space; by: how far its position is to be shifted for that
    """
    transform = scene.layer(layer_id).transform
    times = np.array([float(frame)])
    space = layer_space(transform, times)
    linear, shift = (part.reshape(part.shape[2:]) for part in space)
    # The point of the layer's plane that is seen there.
    pivot = np.linalg.solve(_matrix(scene, transform, frame), np.array([*place, 1.0]))
    new = np.array([*(pivot[:2] / pivot[2]), 0.0]).round(3)
    position = value_at(transform.position, times)[0]
    by = shift - (position + new - linear @ new)
    return {"pivot": new[:2].tolist(), "by": by.round(3).tolist()}


def _seen_through(matrix: np.ndarray, point: tuple[float, float]) -> list[float]:
    x, y, w = matrix @ np.array([*point, 1.0])
    return [round(float(x / w), 2), round(float(y / w), 2)]


def _matrix(scene: Scene, transform: Transform, frame: float) -> np.ndarray:
    return layer_matrices(scene, transform, np.array([float(frame)]))[0]


def _corners(matrices: np.ndarray, boxes: np.ndarray) -> np.ndarray:
    """The corners (n, 4, 2) of boxes (n, 4) seen through matrices (n, 3, 3), for the page."""
    return np.round(corners_seen(matrices, boxes)[0], 2)
