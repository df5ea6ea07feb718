"""Where things are in the picture: corners of titles at rest and of characters as they move."""

from typing import Any

import numpy as np

from ..lettering.layout import lay_out
from ..motion.evaluate import compose
from ..motion.spaces.affine import corners_seen, own_space, resting_matrices
from ..motion.spaces.along import text_path
from ..motion.spaces.matrices import place
from ..scene.document import Scene
from ..scene.layers import Layer
from ..scene.layers.title import Title
from ..scene.values.tracks import value_at
from .layers import PREPARED_LAYERS


def places(scene: Scene, frame: float, layer_id: str | None = None) -> dict[str, Any]:
    """Four corners [x, y], clockwise from the top left, of what can be pointed at in a frame.

    layers: by id, the box of each layer at rest, where it shows at this frame; its `lever`, the
    matrix [[a, b], [c, d]] from a shift in the picture to one of its position; its `pivot` in the
    picture; and its `position`, `rotation` and `scale` there; of a title along a path `bent`, the
    points around its letters as they stand along it, else None
    characters: for the title `layer_id`, of each character as it is drawn, with its `index` in
    the text; those behind the camera are left out
    """
    shown = [layer for layer in scene.layers if scene.shows(layer, frame)]
    found = {layer.id: _place(scene, layer, frame) for layer in shown}
    title = next((t for t in scene.titles if t.id == layer_id and t in shown), None)
    return {
        "layers": {layer: place for layer, place in found.items() if place},
        "characters": _characters(scene, title, frame) if title else [],
    }


def _place(scene: Scene, layer: Layer, frame: float) -> dict[str, Any] | None:
    box = rest_box(scene, layer, frame)
    if box is None:
        return None
    matrix = _matrix(scene, layer, frame)
    at = np.array(float(frame))
    return {
        "corners": _corners(matrix[None], np.array([box]))[0].tolist(),
        "lever": np.round(lever(scene, layer, frame), 6).tolist(),
        "pivot": _seen_through(matrix, layer.transform.pivot),
        **{
            name: np.round(value_at(getattr(layer.transform, name), at), 4).tolist()
            for name in ("position", "rotation", "scale")
        },
        "locked": layer.locked,
        "bent": _bent(scene, layer, frame, matrix) if isinstance(layer, Title) else None,
        "group": layer.group,
    }


_STEPS = 32  # along each side of what is bent


def _bent(scene: Scene, title: Title, frame: float, matrix: np.ndarray) -> list[Any] | None:
    layout = lay_out(scene, title)
    path = text_path(scene, title, layout)
    if path is None or not len(layout.boxes["title"]):
        return None
    left, top, right, bottom = layout.boxes["title"][0].tolist()
    across = np.linspace(left, right, _STEPS)
    above, below = (np.column_stack([across, np.full(_STEPS, y)]) for y in (top, bottom))
    straight = np.concatenate([above, below[::-1]])
    points = path.points(np.array([[float(frame)]]), straight)[0]
    return [_seen_through(matrix, tuple(point)) for point in points.tolist()]


def _characters(scene: Scene, title: Title, frame: float) -> list[dict[str, Any]]:
    layout = lay_out(scene, title)
    times = np.array([frame], dtype=float)
    placed = place(scene, title, layout, compose(scene, title, layout, times), times)
    corners = _corners(placed.matrices[0], layout.boxes["character"]).tolist()
    every = zip(layout.characters, corners, placed.before_camera[0], strict=True)
    return [{"index": character.index, "corners": each} for character, each, seen in every if seen]


def rest_box(scene: Scene, layer: Layer, frame: float) -> list[float] | None:
    """What a layer takes up in its own space at rest: left, top, right, bottom; None if nothing.

    A group takes up what its layers do, as they stand at the frame.
    """
    if layer.has_members:
        return _members_box(scene, layer, frame)
    return PREPARED_LAYERS[layer.kind].rest_box(scene, layer, frame)


def _members_box(scene: Scene, group: Layer, frame: float) -> list[float] | None:
    boxes = [
        (_matrix(scene, member, frame), rest_box(scene, member, frame))
        for member in scene.layers
        if member.group == group.id and scene.shows(member, frame)
    ]
    known = [(matrix, box) for matrix, box in boxes if box is not None]
    if not known:
        return None
    matrices, edges = (np.array(part) for part in zip(*known, strict=True))
    corners = _corners(matrices, edges).reshape(-1, 2)
    back = np.linalg.pinv(_matrix(scene, group, frame))
    own = np.column_stack([corners, np.ones(len(corners))]) @ back.T
    points = own[:, :2] / own[:, 2:]
    return [*points.min(axis=0).tolist(), *points.max(axis=0).tolist()]


def lever(scene: Scene, layer: Layer, frame: float) -> np.ndarray:
    """The matrix (2, 2) from a shift in the picture, in px, to that of a layer's position which
    causes it: by its depth, and by how the groups around it turn and scale."""
    around = np.eye(3)
    for group in scene.groups_of(layer):
        around = own_space(group.transform, np.array([float(frame)])).linear[0, 0] @ around
    depth = _matrix(scene, layer, frame)[2, 2]
    return np.linalg.pinv(around[:2, :2]) * depth


def centered_position(scene: Scene, layer_id: str, frame: float, axes: str) -> list[float]:
    """The position that puts the middle of a layer at the middle of the picture.

    axes: "x", "y" or "xy"; the others stay as they are at `frame`.
    """
    layer = scene.layer(layer_id)
    box = rest_box(scene, layer, frame)
    position = np.array(layer_position(scene, layer_id, frame))
    if box is None:
        return position.tolist()
    left, top, right, bottom = box
    middle = _seen_through(_matrix(scene, layer, frame), ((left + right) / 2, (top + bottom) / 2))
    away = [
        side / 2 - here if name in axes else 0.0
        for name, side, here in zip("xy", scene.size, middle, strict=True)
    ]
    position[:2] += lever(scene, layer, frame) @ away
    return np.round(position, 3).tolist()


def shifted_position(
    scene: Scene, layer_id: str, frame: float, by: list[float], grid: float
) -> list[float] | None:
    """The position of a layer moved by px of the picture [x, y] from where it is at a frame, its
    numbers rounded to `grid` px; None for what stands nowhere."""
    layer = scene.layer(layer_id)
    if not layer.has_place:
        return None
    position = np.array(layer_position(scene, layer_id, frame))
    moved = position[:2] + lever(scene, layer, frame) @ np.array(by, dtype=float)
    # Along a side that stays, the number stays as it is said.
    changed = np.abs(moved - position[:2]) > _STILL
    position[:2] = np.where(changed, np.round(moved / grid) * grid, position[:2])
    return np.round(position, 4).tolist()


_STILL = 1e-9  # px

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

    to: a side of all their boxes together, of one layer alone that of the picture (left,
        middle-across, right, top, middle-down, bottom),
    or spread-across, spread-down: their middles at even distances between the outermost
    ValueError if `to` is none of these, or there are not enough titles that show
    """
    least = 3 if to in _SPREADS else 1
    if to not in _SIDES and to not in _SPREADS:
        raise ValueError(f"one of {', '.join([*_SIDES, *_SPREADS])} is needed, got {to!r}")
    shown = places(scene, frame)["layers"]
    boxes = {layer: _extent(shown[layer]["corners"]) for layer in layers if layer in shown}
    if len(boxes) < least:
        raise ValueError(
            f"at least {least} layer{'s' * (least > 1)} that show at this frame are needed"
        )
    positions = {}
    around = np.array([[0, 0], scene.size], dtype=float) if len(boxes) == 1 else None
    for layer, (axis, by) in _shifts(boxes, to, around).items():
        position = layer_position(scene, layer, frame)
        shift = np.array(shown[layer]["lever"])[:, axis] * by
        position[:2] = np.round(position[:2] + shift, 3).tolist()
        positions[layer] = position
    return positions


# How far what is put at a side stays away from it, as a share of the picture's shorter side.
_MARGIN = 0.05


def position_at_sides(
    scene: Scene, layer_id: str, frame: float, sides: tuple[str, str], margin: float | None = None
) -> list[float] | None:
    """The position that puts a layer at sides of the picture, as it stands at rest, `margin` px
    away from the edge, or a little.

    sides: across left, middle or right, down top, middle or bottom; "" stays as it is
    None for what takes up no room
    """
    layer = scene.layer(layer_id)
    first, end = layer.span
    frame = min(max(frame, first), max(first, end - 1))
    shown = places(scene, frame)["layers"].get(layer_id)
    if shown is None:
        return None
    box, position = _extent(shown["corners"]), np.array(layer_position(scene, layer_id, frame))
    margin = _MARGIN * min(scene.size) if margin is None else margin
    inner = np.array([[margin, margin], np.array(scene.size) - margin])
    names = zip(sides, ("middle-across", "middle-down"), strict=True)
    for name in (middle if side == "middle" else side for side, middle in names if side):
        axis, by = _shifts({layer_id: box}, name, inner)[layer_id]
        position[:2] += np.array(shown["lever"])[:, axis] * by
    return np.round(position, 3).tolist()


def position_beside(
    scene: Scene, layer_id: str, other_id: str, frame: float, how: tuple[int, float, bool]
) -> list[float] | None:
    """The position that puts a layer beside another, both as they stand at rest.

    how: along which axis, 0 across or 1 down; by how many px, below nothing to the left or above;
        whether their middles are in line then, or it stays where it is along the other axis
    None for what takes up no room, or does not show at the frame
    """
    shown = places(scene, frame)["layers"]
    if layer_id not in shown or other_id not in shown:
        return None
    (axis, by, is_in_line), own = how, shown[layer_id]
    box, other = _extent(own["corners"]), _extent(shown[other_id]["corners"])
    facing = int(by >= 0)  # the edge of the other that it faces
    shift = np.zeros(2)
    shift[axis] = other[facing, axis] - box[1 - facing, axis] + by
    if is_in_line:
        shift[1 - axis] = (other - box)[:, 1 - axis].mean()
    position = np.array(layer_position(scene, layer_id, frame))
    position[:2] += np.array(own["lever"]) @ shift
    return np.round(position, 3).tolist()


def _extent(corners: list[list[float]]) -> np.ndarray:
    """The upright box around corners: [[left, top], [right, bottom]]."""
    return np.array([np.min(corners, axis=0), np.max(corners, axis=0)])


def _shifts(
    boxes: dict[str, np.ndarray], to: str, around: np.ndarray | None = None
) -> dict[str, tuple[int, float]]:
    """For each box the axis along which, and how far, it is to go: within `around`, or else within
    the box around all of them."""
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
    outer = list(boxes.values()) if around is None else [around]
    all_low = min(box[0, axis] for box in outer)
    all_high = max(box[1, axis] for box in outer)
    line = all_low + share * (all_high - all_low)
    return {
        layer: (axis, float(line - (box[0, axis] + share * (box[1, axis] - box[0, axis]))))
        for layer, box in boxes.items()
    }


def group_pivot(scene: Scene, layers: list[str], frame: float) -> list[float]:
    """The middle of the box around layers, in the space of the group that they are in, or of the
    picture; [0, 0] if none of them takes up any room."""
    boxes = [
        _extent(_corners(_matrix(scene, layer, frame)[None], np.array([box]))[0].tolist())
        for layer in map(scene.layer, layers)
        if (box := rest_box(scene, layer, frame)) is not None
    ]
    if not boxes:
        return [0.0, 0.0]
    around = np.array([np.min(boxes, axis=(0, 1)), np.max(boxes, axis=(0, 1))]).mean(axis=0)
    groups = scene.groups_of(scene.layer(layers[0]))
    if groups:
        back = np.linalg.pinv(_matrix(scene, groups[0], frame)) @ [*around, 1.0]
        around = back[:2] / back[2]
    return np.round(around, 2).tolist()


def layer_position(scene: Scene, layer_id: str, frame: float) -> list[float]:
    """The position of a layer at a frame."""
    return value_at(scene.layer(layer_id).transform.position, np.array(frame)).tolist()


def pivot_shift(scene: Scene, layer_id: str, frame: float, place: list[float]) -> dict[str, Any]:
    """What puts the pivot of a layer at a place of the picture while nothing else moves there.

    pivot: in px of the layer's own space; by: how far its position is to be shifted for that
    """
    layer = scene.layer(layer_id)
    transform = layer.transform
    times = np.array([float(frame)])
    space = own_space(transform, times)
    linear, shift = (part.reshape(part.shape[2:]) for part in space)
    # The point of the layer's plane that is seen there.
    pivot = np.linalg.solve(_matrix(scene, layer, frame), np.array([*place, 1.0]))
    new = np.array([*(pivot[:2] / pivot[2]), 0.0]).round(3)
    position = value_at(transform.position, times)[0]
    by = shift - (position + new - linear @ new)
    return {"pivot": new[:2].tolist(), "by": by.round(3).tolist()}


def seen_at(scene: Scene, layer_id: str, frame: float, point: list[float]) -> list[float]:
    """Where a point of a layer's own space is seen in the picture at a frame."""
    layer = scene.layer(layer_id)
    return _seen_through(_matrix(scene, layer, frame), (point[0], point[1]))


def _seen_through(matrix: np.ndarray, point: tuple[float, float]) -> list[float]:
    x, y, w = matrix @ np.array([*point, 1.0])
    return [round(float(x / w), 4), round(float(y / w), 4)]


def _matrix(scene: Scene, layer: Layer, frame: float) -> np.ndarray:
    return resting_matrices(scene, layer, np.array([float(frame)]))[0]


def _corners(matrices: np.ndarray, boxes: np.ndarray) -> np.ndarray:
    """The corners (n, 4, 2) of boxes (n, 4) seen through matrices (n, 3, 3), for the page."""
    return np.round(corners_seen(matrices, boxes)[0], 2)
