"""What is drawn over the picture to be dragged: the way of a title, the edges of its sweeps, its
spots. All places are of the picture, in px."""

from collections.abc import Callable
from functools import partial
from typing import Any

import numpy as np

from ...lettering.layout import lay_out
from ...motion.spaces.affine import Space, resting_matrices, through_camera
from ...motion.spaces.along import text_path
from ...motion.units import part_of, units_for
from ...scene.document import Scene
from ...scene.layers.title import Title
from ...scene.letters.along import Along
from ...scene.moving.moves import Move
from ...scene.orders import ranks_of
from ...scene.selectors.spot import Spot
from ...scene.selectors.sweep import Sweep, band_of
from ...scene.values.tracks import Tied, Track, value_at

MOST_DOTS = 600
_DIGITS = 2
_APART = 12  # px from point to point of a path
_STEPS = 8  # into which an edge of a wedge is cut, along a path
PlainPoint = list[float]


def way(scene: Scene, title: Title) -> dict[str, Any] | None:
    """The way of a title whose position is keyed; None if it stays.

    dots: one for each frame from its first to its last key
    keys: of each its `value`, its `place`, its frame `at`, and its handles `in` and `out`
    where it has them
    scale: px of the position for one of the picture, of each key
    """
    track = title.transform.position
    if not isinstance(track, Track):
        return None
    at = np.array([key.at for key in track.keys])
    count = int(min(MOST_DOTS, max(2, round(at[-1] - at[0]) + 1)))
    dots = _seen(scene, value_at(track, np.linspace(at[0], at[-1], count)))[0]
    places = np.array([key.value for key in track.keys], dtype=float)
    points, depths = _seen(scene, places)
    keys = []
    for key, place, point, depth in zip(track.keys, places, points, depths, strict=True):
        said = {
            "at": key.at,
            "value": list(key.value),
            "place": _plain(point),
            "scale": round(float(depth), 6),
        }
        for name, handle in (("in", key.coming), ("out", key.going)):
            if handle:
                said[name] = _plain(_seen(scene, place[None] + [*handle, 0])[0][0])
        keys.append(said)
    return {"dots": dots.round(_DIGITS).tolist(), "keys": keys}


def _seen(scene: Scene, places: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Points of space (n, 3) in the picture, (n, 2), and their depths, (n,)."""
    still = np.broadcast_to(np.eye(3), (len(places), 3, 3))
    matrices = through_camera(Space(still, places), scene)
    seen = matrices[..., 2]
    depth = np.maximum(seen[:, 2], 1e-6)
    return seen[:, :2] / depth[:, None], depth


def _through(matrix: np.ndarray, points: np.ndarray) -> np.ndarray:
    """Points (n, 2) of a layer in the picture, through its matrix."""
    x, y, w = matrix @ np.concatenate([points.T, np.ones((1, len(points)))])
    return np.stack([x, y], axis=1) / np.maximum(w, 1e-6)[:, None]


def _plain(point: np.ndarray) -> PlainPoint:
    return [round(float(number), _DIGITS) for number in point]


_MOST_ALONG = 360  # points of a path


def along(scene: Scene, title: Title, frame: float) -> dict[str, Any] | None:
    """The path that a title stands along at a frame; None if it stands straight.

    points: of the picture, along its length, evenly; the last is the first of a closed one
    percents: where along the path each is
    offset, rise: the values; foot: the point that the title is aligned to; up: a px off the path
    there, in the picture
    """
    path = text_path(scene, title, lay_out(scene, title))
    if path is None or title.along is None or is_tied(title.along):
        return None
    at = np.array([float(frame)])
    whole = path.at(float(frame))
    count = int(np.clip(whole.length / _APART, 8, _MOST_ALONG))
    shares = np.linspace(0, 1, count + 1)
    points = whole.at(np.minimum(shares, 1 - 1e-9) * whole.length)
    stand = path.stand(at[:, None], np.zeros((1, 1)))
    up = -stand.turns[0, 0, :, 1]
    matrix = resting_matrices(scene, title, at)[0]
    foot, head = _through(matrix, np.array([stand.points[0, 0], stand.points[0, 0] + up]))
    return {
        "points": _through(matrix, points).round(_DIGITS).tolist(),
        "percents": (shares * 100).round(4).tolist(),
        "closed": whole.is_closed,
        "offset": _at(title.along.offset, frame),
        "rise": _at(title.along.rise, frame),
        "foot": _plain(foot),
        "up": np.round(head - foot, 6).tolist(),
    }


def is_tied(along: Along) -> bool:
    """Whether the place along a path follows other values, so that no hand can set it."""
    return isinstance(along.offset, Tied) or isinstance(along.rise, Tied)


def sweeps(scene: Scene, title: Title, move: Move, frame: float) -> list[dict[str, Any]]:
    """The sweeps of a move on the letters of its title.

    index: which selector it is; low, high, travel: its values at the frame
    edges: the lines [top, bottom] of its low and its high edge
    wedge: a polygon below the letters that is as high as the band is strong
    step: how much of its measure one px along the line is
    """
    layout = lay_out(scene, title)
    if not len(part_of(layout, move.unit, move.among).boxes):
        return []
    matrix = resting_matrices(scene, title, np.array([float(frame)]))[0]
    times = np.array([[float(frame)]])
    path = text_path(scene, title, layout)
    stand = None if path is None else partial(path.points, times)
    found = []
    for index, selector in enumerate(move.reach):
        if not isinstance(selector, Sweep):
            continue
        units = units_for(scene, title, layout, move)
        scale = 1.0 if selector.measure == "units" else len(units) / 100
        boxes = part_of(layout, move.unit, move.among).boxes
        line = _Line(boxes, ranks_of(selector, units), matrix, stand)
        low, high, soft_low, soft_high = (
            float(number[0, 0]) * scale for number in band_of(selector, times)
        )
        profile = [(low, 0.0), (low + soft_low, 1.0), (high - soft_high, 1.0), (high, 0.0)]
        found.append(
            {
                "index": index,
                **{name: _at(getattr(selector, name), frame) for name in ("low", "high", "travel")},
                "edges": [line.across(low), line.across(high)],
                "wedge": line.wedge(profile),
                "step": round(line.units_a_pixel / scale, 6),
            }
        )
    return found


class _Line:
    """The units of a title in the order of their ranks, as a line that edges stand on."""

    def __init__(
        self,
        boxes: np.ndarray,
        ranks: np.ndarray,
        matrix: np.ndarray,
        stand: Callable[[np.ndarray], np.ndarray] | None,
    ):
        self.boxes, self.matrix = boxes[np.argsort(ranks, kind="stable")], matrix
        self.stand = stand  # where points (n, 2) of the line are along a path, (1, n, 2)
        # Towards higher ranks the line goes to the right or to the left.
        middles = (self.boxes[:, 0] + self.boxes[:, 2]) / 2
        self.is_forward = len(boxes) < 2 or bool(middles[-1] >= middles[0])
        self.is_single = bool(np.ptp(boxes[:, 3]) < (boxes[0, 3] - boxes[0, 1]) / 2)

    @property
    def units_a_pixel(self) -> float:
        """How many units a px of the picture is along the line, negative if it goes to the left."""
        ends = (0.0, float(len(self.boxes)))
        first, last = (self._seen(self._straight(rank, 0.0)) for rank in ends)
        length = max(1.0, float(np.hypot(*(last - first))))
        return len(self.boxes) / length * (1 if self.is_forward else -1)

    def across(self, rank: float) -> list[PlainPoint]:
        """The line of an edge: its upper and its lower end."""
        _, top, _, bottom = self._box(rank)
        return [_plain(self._point(rank, y)) for y in (top, bottom)]

    def wedge(self, profile: list[tuple[float, float]]) -> list[PlainPoint]:
        """A polygon below the letters, as high at each rank as its share; none over several lines
        of text."""
        if not self.is_single:
            return []
        _, top, _, bottom = self._box(0.0)
        high = (bottom - top) * 0.16
        shares = [*profile, (profile[-1][0], 0.0), (profile[0][0], 0.0)]
        if self.stand is not None:  # what is straight is bent with the path
            ranks, heights = np.array([*shares, shares[0]]).T
            steps = np.linspace(0, len(shares), len(shares) * _STEPS + 1)
            each = np.arange(len(shares) + 1)
            bent = (np.interp(steps, each, side) for side in (ranks, heights))
            shares = list(zip(*(side.tolist() for side in bent), strict=True))
        return [_plain(self._point(rank, bottom + high - share * high)) for rank, share in shares]

    def _box(self, rank: float) -> np.ndarray:
        return self.boxes[self._place(rank)]

    def _place(self, rank: float) -> int:
        return int(np.clip(np.floor(rank), 0, len(self.boxes) - 1))

    def _point(self, rank: float, y: float) -> np.ndarray:
        point = self._straight(rank, y)
        return self._seen(point if self.stand is None else self.stand(point[None])[0, 0])

    def _seen(self, point: np.ndarray) -> np.ndarray:
        return _through(self.matrix, point[None])[0]

    def _straight(self, rank: float, y: float) -> np.ndarray:
        """Where a rank is along the line; past its ends at the pace of the last unit."""
        left, _, right, _ = self._box(rank)
        share = rank - self._place(rank)
        share = share if self.is_forward else 1 - share
        return np.array([left + share * (right - left), y])


def spots(move: Move, frame: float) -> list[dict[str, Any]]:
    """The spots of a move, by their shape, with their values at the frame."""
    names = {
        "round": ("center", "inner", "outer"),
        "slope": ("start", "end"),
        "band": ("center", "angle", "width"),
    }
    return [
        {
            "index": index,
            "shape": selector.shape,
            **{name: _at(getattr(selector, name), frame) for name in names[selector.shape]},
        }
        for index, selector in enumerate(move.reach)
        if isinstance(selector, Spot)
    ]


def _at(value: Any, frame: float) -> Any:
    return np.round(value_at(value, np.array(float(frame))), 4).tolist()
