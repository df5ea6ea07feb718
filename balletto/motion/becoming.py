"""How far letters are on their way to the texts that moves turn them into."""

from typing import Any, NamedTuple

import numpy as np

from ..lettering.layout import Layout, lay_out
from ..scene.document import Scene
from ..scene.layers.shape import ShapeLayer
from ..scene.layers.title import Title
from ..scene.moving.moves import Becoming, BecomingShape, Move
from ..scene.shapes import Shape
from .evaluate import trace
from .spaces.layer_motion import moves_of, units_of_move
from .units import cells_among, letter_moves, part_of, units_for


class Ways(NamedTuple):
    """Where letters are between the texts of a title: 0 is its own, k the k-th that a move turns it
    into. Each is on the way from `leg` to the next, by a `share` of it; (times, characters).

    targets: how the texts are laid out
    """

    targets: tuple[Layout, ...]
    leg: np.ndarray
    share: np.ndarray


def ways_of(scene: Scene, title: Title, layout: Layout, times: np.ndarray) -> Ways | None:
    """Where letters are between texts, from the weights of the moves that say so; None if no move
    does."""
    moves = [move for move in letter_moves(title) if move.on and move.becomes is not None]
    if not moves:
        return None
    targets = tuple(_laid_out(scene, title, move.becomes) for move in moves if move.becomes)
    weights = np.stack([_weights(scene, title, layout, move, times) for move in moves])
    return Ways(targets, *_legs(weights))


class ShapeWay(NamedTuple):
    """Where a shape is between its own form and others: as Ways say it, at one time."""

    targets: tuple[Shape, ...]
    leg: int
    share: float


def shape_way(scene: Scene, layer: ShapeLayer, time: float) -> ShapeWay | None:
    """Where a shape is between forms; None if no move of it says one."""
    moves = [move for move in moves_of(layer, "layer") if move.becomes is not None]
    if not moves:
        return None
    units = units_of_move(scene, layer, moves[0])
    weights = np.stack([trace(move, units, np.array([time])).weights[0] for move in moves])
    leg, share = _legs(weights)
    forms: list[Any] = [move.becomes for move in moves]
    targets = tuple(form.shape for form in forms if isinstance(form, BecomingShape))
    return ShapeWay(targets, int(leg[0]), float(share[0]))


def _laid_out(scene: Scene, title: Title, becoming: Becoming) -> Layout:
    said = {name: value for name, value in becoming.style if value is not None and value != {}}
    style = title.style.model_copy(update=said)
    changed = {"text": becoming.text, "style": style, "runs": ()}
    return lay_out(scene, title.model_copy(update=changed))


def _weights(
    scene: Scene, title: Title, layout: Layout, move: Move, times: np.ndarray
) -> np.ndarray:
    """The weights of a move for each character, (times, characters); 0 for those that take no
    part."""
    traced = trace(move, units_for(scene, title, layout, move), times)
    if move.spaces and move.unit == "character":
        wide = np.zeros((len(times), len(layout.cell_indices)))
        wide[:, cells_among(layout, move.among)] = traced.weights
        of_characters: np.ndarray = wide[:, layout.visible]
        return of_characters
    part = part_of(layout, move.unit, move.among)
    wide = np.zeros((len(times), len(layout.characters)))
    wide[:, part.letters] = np.broadcast_to(traced.weights, (len(times), len(part.boxes)))[
        :, part.member
    ]
    return wide


def _legs(weights: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """The leg and the share of it, from weights (moves, ...). Where a move has begun before those
    before it are done, letters go through one form after another as far as all have come together,
    so that nothing jumps. An ease may overshoot the last of them."""
    weights = np.nan_to_num(weights)
    last = np.where((weights > 0).any(axis=0), _last_above(weights), 0)
    number = np.arange(len(weights)).reshape(-1, *[1] * (weights.ndim - 1))
    are_done = ((weights >= 1) | (number >= last)).all(axis=0)
    own = np.take_along_axis(weights, last[None], axis=0)[0]
    together = np.clip(weights, 0, 1).sum(axis=0)
    leg = np.minimum(np.floor(together), len(weights) - 1).astype(int)
    return np.where(are_done, last, leg), np.where(are_done, own, together - leg)


def _last_above(weights: np.ndarray) -> np.ndarray:
    """The number of the last move that has begun."""
    begun = (weights > 0)[::-1]
    found: np.ndarray = len(weights) - 1 - begun.argmax(axis=0)
    return found
