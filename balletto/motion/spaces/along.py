"""Titles along a path: from where letters stand in a straight line to where they stand along it.

A letter that moves keep straight at (x, y) of title space stands at the length x, counted from the
offset, along the path, and as far off it as y is off the baseline. So what moves do to letters,
words and lines is done along the path; what they do to the title is done to all of it.
"""

from typing import NamedTuple

import numpy as np

from ...lettering.layout import Layout
from ...scene.document import Scene
from ...scene.layers.shape import ShapeLayer
from ...scene.layers.title import Title
from ...scene.letters.along import Along
from ...scene.values.bezier_path import BezierPath, path_of
from ...scene.values.tracks import changes_over_time, value_at
from .affine import STILL, Space

_LEAST_SCALE = 1e-6


class PathStand(NamedTuple):
    """Where letters stand: points (..., 2) on the path, or off it as far as the title is raised,
    and the turns (..., 2, 2) from the straight line to the way that leads on there."""

    points: np.ndarray
    turns: np.ndarray


class TextPath:
    """The path of a title, at any time."""

    def __init__(self, shape: ShapeLayer, title: Title, along: Along, baseline: float):
        self._shape, self._along, self._baseline = shape, along, baseline
        self._own_scale = title.transform.scale
        values = [value for _, value in shape.shape]
        scales = shape.transform.scale, self._own_scale
        self._changes = any(changes_over_time(each) for each in (*scales, *values))

    def at(self, time: float) -> BezierPath:
        """The path at a frame, in title space: a title that is larger has larger letters on it."""
        at = np.array(time if self._changes else 0.0)
        transform = self._shape.transform
        own = value_at(self._own_scale, at)
        scale = value_at(transform.scale, at) / np.where(np.abs(own) < _LEAST_SCALE, 1.0, own)
        return path_of(self._shape.shape.outline(at), tuple(scale.tolist()), transform.pivot)

    def start(self, times: np.ndarray) -> np.ndarray:
        """The lengths along the path, at times of any shape, of what the lines are aligned to."""
        share = value_at(self._along.offset, times) / 100
        if not self._changes:
            return share * self.at(0.0).length
        lengths = {time: self.at(time).length for time in np.unique(times).tolist()}
        return share * np.vectorize(lengths.__getitem__)(times)

    def stand(self, times: np.ndarray, across: np.ndarray) -> PathStand:
        """Where what stands `across` (t, n) px of the straight line stands at times (t, 1) or
        (t, n)."""
        way = -1.0 if self._along.reverse else 1.0
        lengths = self.start(times) + way * across
        if not self._changes:
            points, directions = self.at(0.0).at_with_directions(lengths)
        else:
            points, directions = np.empty((2, *across.shape, 2))
            every = np.broadcast_to(times, across.shape)
            for time in np.unique(times).tolist():
                here = every == time
                found = self.at(time).at_with_directions(lengths[here])
                points[here], directions[here] = found
        right = directions * way
        turns = np.stack([right, right[..., ::-1] * (-1.0, 1.0)], axis=-1)
        rise = value_at(self._along.rise, times)
        return PathStand(points - turns[..., 1] * rise[..., None], turns)

    def points(self, times: np.ndarray, points: np.ndarray) -> np.ndarray:
        """Where points (n, 2) of the straight title, or (t, n, 2), stand at times (t, 1) or (t, n):
        (t, n, 2)."""
        shape = (len(times), points.shape[-2])
        stand = self.stand(times, np.broadcast_to(points[..., 0], shape))
        off = points[..., 1] - self._baseline
        return stand.points + stand.turns[..., 1] * off[..., None]

    def bent(self, times: np.ndarray, space: Space, middles: np.ndarray) -> Space:
        """The maps of letters, (times, n, ...), whose boxes have their middles at (n, 2) or (times,
        n, 2), from those as they are in a straight line: each stands where the middle of its box
        does."""
        shape = (len(times), middles.shape[-2])
        kept = np.broadcast_to(space.linear, (*shape, 3, 3))
        shift = np.broadcast_to(space.shift, (*shape, 3))
        # Where the middle of each box is in the straight line, by the moves.
        there = (kept[..., :2] * middles[..., None, :]).sum(-1) + shift
        stand = self.stand(times[:, None], there[..., 0])
        off = there[..., 1, None] - self._baseline
        points = stand.points + stand.turns[..., 1] * off
        turn = np.broadcast_to(np.eye(3), (*shape, 3, 3)).copy()
        if not self._along.upright:
            turn[..., :2, :2] = stand.turns
        linear = turn @ kept
        moved = (turn @ (shift - there)[..., None])[..., 0]
        moved[..., :2] += points
        moved[..., 2] += there[..., 2]
        return Space(linear, moved)

    def matrices(self, times: np.ndarray, middles: np.ndarray) -> np.ndarray:
        """The maps of the plane, (times, n, 3, 3), of what is at rest with middles at (n, 2)."""
        bent = self.bent(times, STILL, middles)
        found = np.zeros((*bent.shift.shape[:2], 3, 3))
        found[..., :2, :2] = bent.linear[..., :2, :2]
        found[..., :2, 2] = bent.shift[..., :2]
        found[..., 2, 2] = 1
        return found

    def boxes(self, time: float, boxes: np.ndarray) -> np.ndarray:
        """The boxes (n, 4) around where boxes (n, 4) of the straight title stand at a time."""
        left, top, right, bottom = boxes.T
        middles = np.stack([left + right, top + bottom], axis=1) / 2
        matrices = self.matrices(np.array([time]), middles)[0]
        xs = np.stack([left, right, right, left], axis=1)
        ys = np.stack([top, top, bottom, bottom], axis=1)
        corners = np.einsum("nij,njk->nik", matrices[:, :2, :2], np.stack([xs, ys], axis=1))
        corners += matrices[:, :2, 2:]
        return np.concatenate([corners.min(axis=2), corners.max(axis=2)], axis=1)

    def around(self, times: np.ndarray) -> np.ndarray:
        """The boxes around the path itself, (times, 4)."""
        if not self._changes:
            return np.broadcast_to(self.at(0.0).box, (len(times), 4))
        return np.array([self.at(time).box for time in times.tolist()]).reshape(-1, 4)


def text_path(scene: Scene, title: Title, layout: Layout) -> TextPath | None:
    """The path that a title stands along; None if its lines are straight."""
    if title.along is None:
        return None
    shape = scene.layer(title.along.layer)
    assert isinstance(shape, ShapeLayer)  # as has been checked where the scene was read
    return TextPath(shape, title, title.along, layout.baseline)
