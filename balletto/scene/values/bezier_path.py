"""Ways of cubic Beziers, asked by the length along them."""

from functools import cached_property, lru_cache

import numpy as np

from ..forms.outlines import PathCommands

_MOST_PIECES = 64  # of a cubic, whose lengths are tabled
_MOST_ROWS = 2**16  # of that table, where there are that many cubics
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(8)
_TO_POWERS = np.array([[1, 0, 0, 0], [-3, 3, 0, 0], [3, -6, 3, 0], [-1, 3, -3, 1]])
_STEPS = 5  # of Newton's method: within a piece of a curve two or three are enough
_IN_A_BOX = 33  # points of a cubic that a box is put around
_HAIR = 1e-4  # of a cubic, over which its direction is measured where a handle has no length


class BezierPath:
    """Cubics that follow each other: points (k, 4, d), in px of a plane or of space.

    An open way goes straight on past either end; a closed one comes round.
    """

    def __init__(self, points: np.ndarray, is_closed: bool = False):
        self.is_closed = is_closed
        self._ends = points[0, 0], points[-1, 3]
        self._powers = _TO_POWERS @ points
        self._pieces = max(1, min(_MOST_PIECES, _MOST_ROWS // len(points)))
        self._edges = np.linspace(0.0, 1.0, self._pieces + 1)
        cubics = np.repeat(np.arange(len(points)), self._pieces)
        starts, stops = (np.tile(each, len(points)) for each in (self._edges[:-1], self._edges[1:]))
        pieces = self._length_between(cubics, starts, stops)
        self._table = np.concatenate([[0.0], np.cumsum(pieces)])

    @property
    def length(self) -> float:
        return float(self._table[-1])

    @cached_property
    def box(self) -> tuple[float, float, float, float]:
        """Around it in its plane: left, top, right, bottom, to a fraction of a px."""
        each = np.arange(len(self._powers))[:, None]
        points = self._position(each, np.linspace(0.0, 1.0, _IN_A_BOX)[None]).reshape(-1, 2)
        return (*points.min(axis=0).tolist(), *points.max(axis=0).tolist())

    def at(self, lengths: np.ndarray) -> np.ndarray:
        """Positions (..., d) at lengths from the start."""
        return self.at_with_directions(lengths)[0]

    def at_with_directions(self, lengths: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        """Positions at lengths from the start, and the directions there, of length 1."""
        if self.is_closed and self.length > 0:
            lengths = lengths % self.length
        within = np.clip(lengths, 0.0, self.length)
        cubics, parameters = self._parameters(within)
        positions = self._position(cubics, parameters)
        positions = np.where((lengths == 0)[..., None], self._ends[0], positions)
        positions = np.where((lengths == self.length)[..., None], self._ends[1], positions)
        directions = self._directions(cubics, parameters)
        return positions + (lengths - within)[..., None] * directions, directions

    def _parameters(self, lengths: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        """Which cubic lies at lengths from the start, and its parameter there: from the table, then
        by Newton's steps."""
        pieces = np.searchsorted(self._table, lengths, side="right") - 1
        pieces = np.clip(pieces, 0, len(self._table) - 2)
        cubics, piece = np.divmod(pieces, self._pieces)
        start, end = self._edges[piece], self._edges[piece + 1]
        left = lengths - self._table[pieces]
        whole = self._table[pieces + 1] - self._table[pieces]
        parameters = start + (end - start) * np.where(whole > 0, left / np.maximum(whole, 1e-12), 0)
        for _ in range(_STEPS):
            speed = np.maximum(self._speed(cubics, parameters), 1e-9)
            parameters = parameters - (
                (self._length_between(cubics, start, parameters) - left) / speed
            )
            parameters = np.clip(parameters, start, end)
        return cubics, parameters

    def _position(self, cubics: np.ndarray, parameters: np.ndarray) -> np.ndarray:
        powers = parameters[..., None] ** np.arange(4)
        found: np.ndarray = (powers[..., None, :] @ self._powers[cubics])[..., 0, :]
        return found

    def _slopes(self, cubics: np.ndarray, parameters: np.ndarray) -> np.ndarray:
        """The derivatives (..., d) at parameters (...), of cubics (...)."""
        slopes = np.arange(1, 4)[:, None] * self._powers[cubics][..., 1:, :]
        powers = parameters[..., None] ** np.arange(3)
        found: np.ndarray = (powers[..., None, :] @ slopes)[..., 0, :]
        return found

    def _speed(self, cubics: np.ndarray, parameters: np.ndarray) -> np.ndarray:
        return np.linalg.norm(self._slopes(cubics, parameters), axis=-1)

    def _length_between(self, cubics: np.ndarray, start: np.ndarray, end: np.ndarray) -> np.ndarray:
        """By Gauss's rule over each piece."""
        half = (end - start) / 2
        at = (start + end)[..., None] / 2 + half[..., None] * _NODES
        every = np.broadcast_to(np.asarray(cubics)[..., None], at.shape)
        found: np.ndarray = (self._speed(every, at) * _WEIGHTS).sum(-1) * half
        return found

    def _directions(self, cubics: np.ndarray, parameters: np.ndarray) -> np.ndarray:
        slopes = self._slopes(cubics, parameters)
        lengths = np.linalg.norm(slopes, axis=-1, keepdims=True)
        if (lengths < 1e-6).any():
            near, far = np.clip(parameters - _HAIR, 0, 1), np.clip(parameters + _HAIR, 0, 1)
            hair = self._position(cubics, far) - self._position(cubics, near)
            slopes = np.where(lengths < 1e-6, hair, slopes)
            lengths = np.linalg.norm(slopes, axis=-1, keepdims=True)
        return slopes / np.where(lengths > 0, lengths, 1.0)


@lru_cache(maxsize=32)  # a MB or two each at the most, where a path has as many parts as it may
def path_of(
    commands: PathCommands, scale: tuple[float, float], pivot: tuple[float, float]
) -> BezierPath:
    """The longest contour of an outline, scaled about a point of its plane."""
    scaled = [
        ((cubics - pivot) * scale + pivot, is_closed) for cubics, is_closed in _contours(commands)
    ]
    return BezierPath(*max(scaled, key=lambda contour: _about_as_long(contour[0])))


def _about_as_long(cubics: np.ndarray) -> float:
    """The length of cubics, as that of the polygons through some of their points."""
    powers = np.linspace(0.0, 1.0, 9)[:, None] ** np.arange(4)
    points = powers @ (_TO_POWERS @ cubics)
    return float(np.linalg.norm(np.diff(points, axis=1), axis=-1).sum())


_SAME_POINT = 1e-6  # px


def _contours(commands: PathCommands) -> list[tuple[np.ndarray, bool]]:
    """The contours of an outline as cubics (k, 4, 2), and whether each is closed."""
    contours: list[tuple[list[np.ndarray], bool]] = []
    here = first = np.zeros(2)
    for verb, numbers in commands:
        points = np.array(numbers, dtype=float).reshape(-1, 2)
        if verb == "move":
            contours.append(([], False))
            here = first = points[0]
            continue
        if verb == "close":
            contours[-1] = contours[-1][0], True
            points = first[None]
        if len(points):
            cubic = _cubic(np.vstack([here, points]))
            if np.ptp(cubic, axis=0).max() > _SAME_POINT:
                contours[-1][0].append(cubic)
            here = points[-1]
    found = []
    for cubics, is_closed in contours:
        every = np.array(cubics or [np.tile(first, (4, 1))])
        ends_meet = bool(np.abs(every[0, 0] - every[-1, 3]).max() <= _SAME_POINT)
        found.append((every, len(cubics) > 0 and (is_closed or ends_meet)))
    return found


def _cubic(points: np.ndarray) -> np.ndarray:
    """A line, a quadratic or a cubic Bezier as a cubic one, (4, 2): the same curve."""
    first, *handles, last = points
    if not handles:
        return np.array([first, first + (last - first) / 3, last - (last - first) / 3, last])
    if len(handles) == 1:
        return np.array(
            [first, first + (handles[0] - first) * 2 / 3, last + (handles[0] - last) * 2 / 3, last]
        )
    return points
