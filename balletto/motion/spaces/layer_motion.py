"""Layers as their moves have them: shapes, pictures, groups and their members leave rest as letters
do. A layer is one unit; what lies in a group directly are its members, the first the rearmost.

Moves nest from the outside in: the group as a whole, its member, the layer itself. A layer turns
and grows about its pivot, a member about where it stands.
"""

from collections.abc import Iterator
from functools import partial
from typing import NamedTuple

import numpy as np

from ...lettering.layout import UNIT_KINDS, lay_out
from ...scene.document import Scene
from ...scene.layers import Layer
from ...scene.layers.title import Title
from ...scene.moving.moves import Move
from ...scene.pose import PROPERTIES, both_of, parts_of
from ...scene.values.tracks import value_at
from ...scene.values.value_names import property_name
from ..evaluate import Composite, does_something, trace
from ..heard import loudness_in
from ..recent import Recent
from ..units import Units, unit_texts, units_for
from .affine import (
    Space,
    in_its_place,
    own_space,
    resting_matrices,
    resting_space,
    through_camera,
    turned_about,
)
from .copy_places import COPIES, copy_places


def moved_matrices(scene: Scene, layer: Layer, times: np.ndarray) -> np.ndarray:
    """The matrices from a layer's space to the picture, as moves have it, (times, 3, 3)."""
    if not _is_moved(scene, layer):
        return resting_matrices(scene, layer, times)
    seen = through_camera(moved_space(scene, layer, times), scene)[:, 0]
    return np.broadcast_to(seen, (len(times), 3, 3))


def moved_space(scene: Scene, layer: Layer, times: np.ndarray) -> Space:
    """The map of a layer with its moves, in groups with theirs; (times, 1, ...), or (1, 1, ...)."""
    if not _is_moved(scene, layer):
        return resting_space(scene, layer, times)
    space = _with_moves(scene, layer, times)
    inner = layer
    for group in scene.groups_of(layer):
        member = _member(scene, group, inner, times)
        space = space if member is None else member.after(space)
        space = _with_moves(scene, group, times).after(space)
        inner = group
    origin = np.array([*scene.view.origin, 0.0])
    return space._replace(shift=space.shift + origin)


def moved_values(scene: Scene, layer: Layer, times: np.ndarray) -> dict[str, np.ndarray]:
    """What moves make of the look of a layer itself: its properties but those of place, (times,);
    tints for colours. Its own moves, and those of its group that are for members."""
    found: list[tuple[Composite, int]] = []
    if moves := moves_of(layer, "layer"):
        found.append((_of_layer(scene, layer, moves, times)[0], 0))
    if (group := _group(scene, layer)) and (moved := _members_moved(scene, group, times)):
        found.append((moved.values, moved.places[layer.id]))
    values: dict[str, np.ndarray] = {}
    for composite, unit in found:
        for name in composite.values:
            own = composite.of_units(name, np.array(unit))
            values[name] = both_of(name, values.get(name), own)
    return values


def units_of_move(scene: Scene, layer: Layer, move: Move) -> Units:
    """What a move of any layer moves: the letters of a title, words, lines; or a layer as a whole,
    the members of a group."""
    if isinstance(layer, Title) and move.unit in UNIT_KINDS:
        return units_for(scene, layer, lay_out(scene, layer), move)
    if move.unit in COPIES and layer.formation is not None:
        return units_at(scene, layer, copy_places(layer, str(move.unit)))
    moved = _of_members if str(move.unit) == "member" else _of_layer
    return moved(scene, layer, [], np.zeros(1))[2]


def unit_words(scene: Scene, layer: Layer, move: Move) -> list[str]:
    """What each unit of a move of any layer is called."""
    if isinstance(layer, Title) and move.unit in UNIT_KINDS:
        return unit_texts(lay_out(scene, layer), move)
    if move.unit in COPIES and layer.formation is not None:
        count = len(copy_places(layer, str(move.unit)))
        return [str(number + 1) for number in range(count)]
    members = _members(scene, layer) if str(move.unit) == "member" else [layer]
    return [each.name or each.words or each.title for each in members]


def meaningless(layer: Layer) -> Iterator[tuple[Move, list[str]]]:
    """What moves of a layer that is no title say for nothing: each such move, and what the
    properties are called that are for letters alone."""
    for move in getattr(layer, "moves", ()) if not isinstance(layer, Title) else ():
        given = [name for name in move.pose.given if not is_of_layers(name)]
        said = [property_name(name) for name in given]
        if said := [*said, *(["off the picture"] if move.pose.off else [])]:
            yield move, said


def _is_moved(scene: Scene, layer: Layer) -> bool:
    """Whether any move has a part in where a layer is: its own, or those of groups around it."""
    around = scene.groups_of(layer)
    return bool(moves_of(layer, "layer")) or any(
        does_something(move) for group in around for move in getattr(group, "moves", ())
    )


def moves_of(layer: Layer, unit: str) -> list[Move]:
    moves = getattr(layer, "moves", ())
    return [move for move in moves if move.unit == unit and does_something(move)]


def _group(scene: Scene, layer: Layer) -> Layer | None:
    return next(iter(scene.groups_of(layer)), None)


def _members(scene: Scene, group: Layer) -> list[Layer]:
    """What lies in a group directly, from the rear to the front."""
    return [layer for layer in scene.layers if layer.group == group.id]


def _with_moves(scene: Scene, layer: Layer, times: np.ndarray) -> Space:
    """The map of a layer in its group, with the moves of it as a whole."""
    space = in_its_place(scene, layer, own_space(layer.transform, times))
    moves = moves_of(layer, "layer")
    if not moves:
        return space
    composite, points, _ = _of_layer(scene, layer, moves, times)
    return space.after(unit_space(composite, points))


def _member(scene: Scene, group: Layer, layer: Layer, times: np.ndarray) -> Space | None:
    """What the moves of a group do to one of its members; None if nothing."""
    moved = _members_moved(scene, group, times)
    if moved is None:
        return None
    unit = moved.places[layer.id]
    return Space(moved.space.linear[:, unit : unit + 1], moved.space.shift[:, unit : unit + 1])


class _Moved(NamedTuple):
    """What moves make of the members of a group: their values, their maps, and where each member
    stands in them."""

    values: Composite
    space: Space
    places: dict[str, int]


# All members of a group are moved together, and asked for one after another; with an open shutter,
# for each of its times.
_recent = Recent(most=128)


def _members_moved(scene: Scene, group: Layer, times: np.ndarray) -> _Moved | None:
    """The members of a group as its moves have them; None if it has no moves of them."""
    moves = moves_of(group, "member")
    if not moves:
        return None

    def move_them() -> _Moved:
        values, points, _ = _of_members(scene, group, moves, times)
        places = {layer.id: unit for unit, layer in enumerate(_members(scene, group))}
        return _Moved(values, unit_space(values, points), places)

    return _recent.of(scene, (group.id, times.tobytes()), move_them)


def unit_space(values: Composite, points: np.ndarray) -> Space:
    """The maps of units about points (n, 2), then the shift."""
    space = turned_about(values, values.shape, points)
    for axis, name in enumerate(("x", "y", "z")):
        space.shift[..., axis] += values[name]
    return space


def _of_layer(
    scene: Scene, layer: Layer, moves: list[Move], times: np.ndarray
) -> tuple[Composite, np.ndarray, Units]:
    """Moves of a layer as a whole: their values, the point that it turns about, and the unit."""
    points = np.array([layer.transform.pivot], dtype=float)
    units = units_at(scene, layer, points)
    return composed_moves(moves, units, times), points, units


def _of_members(
    scene: Scene, group: Layer, moves: list[Move], times: np.ndarray
) -> tuple[Composite, np.ndarray, Units]:
    """Moves of the members of a group, likewise: each turns about where it stands at frame 0."""
    places = [
        value_at(member.transform.position, np.zeros(1))[0, :2] for member in _members(scene, group)
    ]
    points = np.array(places, dtype=float).reshape(-1, 2)
    units = units_at(scene, group, points)
    return composed_moves(moves, units, times), points, units


def units_at(scene: Scene, layer: Layer, points: np.ndarray) -> Units:
    """Units whose rest centres are points (n, 2) of a layer's space."""

    def project(at: np.ndarray, centers: np.ndarray) -> np.ndarray:
        return _seen(scene, layer, at, centers)

    return Units(
        points,
        length=scene.length,
        rate=scene.frames_a_second,
        project=project,
        hear=partial(loudness_in, scene),
    )


def _seen(scene: Scene, layer: Layer, at: np.ndarray, points: np.ndarray) -> np.ndarray:
    """Points (n, 2) of a layer's space in the picture at times (t, 1) or (t, n): (t, n, 2)."""
    matrices = resting_matrices(scene.view.unfitted or scene, layer, at.reshape(-1))
    matrices = matrices.reshape(*at.shape, 3, 3)
    seen = (matrices[..., :2] * points[:, None, :]).sum(-1) + matrices[..., 2]
    places: np.ndarray = seen[..., :2] / np.maximum(seen[..., 2:], 1e-6)
    return places


def composed_moves(moves: list[Move], units: Units, times: np.ndarray) -> Composite:
    """Moves of layers, members or copies added up."""
    composite = Composite((len(times), len(units)), "layer", np.arange(len(units)))
    for move in moves:
        traced = trace(move, units, times)
        for name, value in move.pose.given.items():
            if is_of_layers(name):
                away = value_at(value, traced.local_times)
                for part in parts_of(name):
                    composite.join(part, traced.weights_of(name), away)
        if move.until_turn == "hidden":
            hidden = (traced.local_times < 0).astype(float)
            composite.join("opacity", hidden, np.zeros(1))
    composite.limit("opacity")
    return composite


def is_of_layers(name: str) -> bool:
    """Whether a property of a pose has a meaning for a layer as a whole."""
    return name in PROPERTIES and not PROPERTIES[name].is_of_letters
