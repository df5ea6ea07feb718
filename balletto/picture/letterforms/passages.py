"""One outline becoming another: contours are paired, brought to common points, and these go
straight from one form to the other.

At 0 and 1 the outlines are the true ones, curves and all; between them they are polygons fine
enough that nobody sees where one takes over from the other.
"""

from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np
from scipy.optimize import linear_sum_assignment

from ..canvases.skia_canvas import SkiaCanvas
from ..canvases.skia_outlines import commands_of_path
from .contours import area_of, flattened, thinned
from .outlines import WITHOUT, Commands

_PER_POINT = 6.0  # px of a contour that one of its common points stands for
_FEWEST, _MOST = 32, 512
_MOST_CONTOURS, _MOST_POINTS = 200, 8_000  # of an outline that is taken apart
_FARTHEST = 2.0  # times of the way, that an ease may overshoot to


@dataclass(frozen=True)
class _Contour:
    """A contour that runs clockwise, or if it is a hole the other way round, (n, 2)."""

    points: np.ndarray
    is_hole: bool

    @cached_property
    def center(self) -> np.ndarray:
        return (self.points.min(axis=0) + self.points.max(axis=0)) / 2

    @cached_property
    def size(self) -> float:
        """The side of a square as large as it is."""
        return float(np.sqrt(abs(area_of(self.points))))


@dataclass(frozen=True, eq=False)
class Passage:
    """From one outline to another; `pairs` are the common points of their contours, (n, 2) each.
    Holes that have no partner are `cut` out: they open at the edge of the form that has none."""

    start: Commands
    end: Commands
    pairs: tuple[tuple[np.ndarray, np.ndarray], ...]
    cut: tuple[tuple[np.ndarray, np.ndarray], ...]

    def at(self, share: float) -> Commands:
        """The outline at a share of the way; beyond 0 and 1 the points go on straight."""
        if share in (0.0, 1.0):
            return self.end if share else self.start
        share = min(max(share, -_FARTHEST), 1 + _FARTHEST)
        outline = _polygons(self.pairs, share)
        return (*outline, WITHOUT, *_polygons(self.cut, share)) if self.cut else outline


def _polygons(pairs: tuple[tuple[np.ndarray, np.ndarray], ...], share: float) -> Commands:
    commands: list[tuple[str, tuple[float, ...]]] = []
    for start, end in pairs:
        first, *others = ((1 - share) * start + share * end).tolist()
        commands.append(("move", tuple(first)))
        commands += [("line", (x, y)) for x, y in others]
        commands.append(("close", ()))
    return tuple(commands)


@lru_cache(maxsize=1024)
def passage(starts: tuple[Commands, ...], ends: tuple[Commands, ...]) -> Passage:
    """From outlines, as those of letters, to others: in order, with some split or joined where
    there are more of one than of the other."""
    pairs: list[tuple[np.ndarray, np.ndarray]] = []
    cut: list[tuple[np.ndarray, np.ndarray]] = []
    for start, end in partners(len(starts), len(ends)):
        _pair_up(_contours(starts[start]), _contours(ends[end]), pairs, cut)
    return Passage(_together(starts), _together(ends), tuple(pairs), tuple(cut))


def _together(outlines: tuple[Commands, ...]) -> Commands:
    return tuple(command for each in outlines for command in each)


def partners(first: int, second: int) -> list[tuple[int, int]]:
    """Which of `first` things become which of `second`, in order: each has at least one partner."""
    if not first or not second:
        return []
    if first >= second:
        return [(n, n * second // first) for n in range(first)]
    return [(n * first // second, n) for n in range(second)]


@lru_cache(maxsize=1024)
def _contours(commands: Commands) -> tuple[_Contour, ...]:
    """The contours of an outline without what lies within others: letters are put together of
    contours that overlap. Of drawings of very many, the largest."""
    path = SkiaCanvas.outline(commands).edge
    polygons = [each for each in flattened(commands_of_path(path)) if len(each) > 2]
    if len(polygons) > _MOST_CONTOURS:
        polygons = sorted(polygons, key=lambda each: -abs(area_of(each)))[:_MOST_CONTOURS]
    polygons = thinned(polygons, _MOST_POINTS)
    found = []
    for number, polygon in enumerate(polygons):
        around = sum(
            _is_inside(polygon[0], other) for at, other in enumerate(polygons) if at != number
        )
        is_hole = around % 2 == 1
        is_turned = (area_of(polygon) < 0) != is_hole
        found.append(_Contour(polygon[::-1] if is_turned else polygon, is_hole))
    return tuple(found)


def _is_inside(point: np.ndarray, polygon: np.ndarray) -> bool:
    """Whether a polygon is around a point: what lies to its right is crossed by an odd number."""
    ends = np.roll(polygon, -1, axis=0)
    crosses = (polygon[:, 1] <= point[1]) != (ends[:, 1] <= point[1])
    start, end = polygon[crosses], ends[crosses]
    x = start[:, 0] + (point[1] - start[:, 1]) * (end[:, 0] - start[:, 0]) / (
        end[:, 1] - start[:, 1]
    )
    return bool((x > point[0]).sum() % 2)


def _pair_up(
    starts: tuple[_Contour, ...],
    ends: tuple[_Contour, ...],
    pairs: list[tuple[np.ndarray, np.ndarray]],
    cut: list[tuple[np.ndarray, np.ndarray]],
) -> None:
    """Pairs outer contours with outer ones and holes with holes, so that centres and sizes differ
    least; those that are left grow from, or shrink to, the nearest point of the other outline."""
    middles = [_middle(contours) for contours in (starts, ends)]
    for is_hole in (False, True):
        ones = [each for each in starts if each.is_hole == is_hole]
        others = [each for each in ends if each.is_hole == is_hole]
        cost = np.array([[_differ(a, b, *middles) for b in others] for a in ones])
        rows, columns = linear_sum_assignment(cost.reshape(len(ones), len(others)))
        for row, column in zip(rows, columns, strict=True):
            pairs.append(_common(ones[row].points, others[column].points))
        for number, one in enumerate(ones):
            if number not in rows:
                there = _nearest(one.center - middles[0] + middles[1], ends, one.center)
                (cut if is_hole else pairs).append((one.points, _at_point(one.points, there)))
        for number, other in enumerate(others):
            if number not in columns:
                here = _nearest(other.center - middles[1] + middles[0], starts, other.center)
                (cut if is_hole else pairs).append((_at_point(other.points, here), other.points))


def _middle(contours: tuple[_Contour, ...]) -> np.ndarray:
    """The middle of the box around contours."""
    if not contours:
        return np.zeros(2)
    points = np.concatenate([each.points for each in contours])
    middle: np.ndarray = (points.min(axis=0) + points.max(axis=0)) / 2
    return middle


def _differ(one: _Contour, other: _Contour, middle: np.ndarray, there: np.ndarray) -> float:
    away = (one.center - middle) - (other.center - there)
    return float(np.hypot(*away) + abs(one.size - other.size))


def _at_point(points: np.ndarray, point: np.ndarray) -> np.ndarray:
    return np.broadcast_to(point, points.shape)


def _nearest(point: np.ndarray, contours: tuple[_Contour, ...], usual: np.ndarray) -> np.ndarray:
    """The point of outer contours that is nearest to a point; another if there are none."""
    outer = [each.points for each in contours if not each.is_hole]
    if not outer:
        return usual
    points = np.concatenate(outer)
    nearest: np.ndarray = points[np.argmin(np.hypot(*(points - point).T))]
    return nearest


def _common(one: np.ndarray, other: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Two contours brought to common points: at even steps of their lengths and at all points of
    both, so that corners are kept. They begin where the sum of squared distances is least, once
    their centres are taken out."""
    count = _count(max(_along(one)[-1], _along(other)[-1]))
    even = np.arange(count) / count
    first, second = _at_shares(one, even), _at_shares(other, even)
    shift = _best_shift(first - first.mean(axis=0), second - second.mean(axis=0)) / count
    own, theirs = _along(one), _along(other)
    corners = np.concatenate([own[:-1] / own[-1], (theirs[:-1] / theirs[-1] - shift) % 1.0])
    corners = np.unique(np.round(corners, 9))
    corners = corners[corners < 1]
    # Where points of either stand close to one another, even ones would add nothing.
    after = np.searchsorted(corners, even) % len(corners)
    gaps = np.minimum((corners[after] - even) % 1.0, (even - corners[after - 1]) % 1.0)
    shares = np.sort(np.concatenate([corners, even[gaps > 0.5 / count]]))
    return _at_shares(one, shares), _at_shares(other, (shares + shift) % 1.0)


def _count(length: float) -> int:
    """How many even steps: a power of two, for the sake of the transform."""
    wanted = min(max(length / _PER_POINT, _FEWEST), _MOST)
    return 1 << int(np.ceil(np.log2(wanted)))


def _along(contour: np.ndarray) -> np.ndarray:
    """Lengths along a contour up to each of its points and back to the first."""
    ways = np.hypot(*(np.roll(contour, -1, axis=0) - contour).T)
    return np.concatenate([[0.0], np.cumsum(ways)])


def _at_shares(contour: np.ndarray, shares: np.ndarray) -> np.ndarray:
    """Points at shares of the length of a contour."""
    along = _along(contour)
    closed = np.concatenate([contour, contour[:1]])
    places = shares * along[-1]
    return np.stack([np.interp(places, along, closed[:, axis]) for axis in (0, 1)], axis=1)


def _best_shift(one: np.ndarray, other: np.ndarray) -> int:
    """By how many points another contour is to be turned so that the sum of products is greatest,
    and so that of squared distances least: the peak of their circular correlation."""
    first, second = (np.fft.fft(points[:, 0] + 1j * points[:, 1]) for points in (one, other))
    correlation = np.fft.ifft(np.conj(first) * second).real
    return int(np.argmax(np.round(correlation, 6)))
