"""Outlines as polygons: curves cut into straight pieces, and lengths along them."""

import numpy as np

from .outlines import Commands

_FEWEST, _MOST = 3, 48  # pieces into which a curve is cut


def flattened(commands: Commands) -> list[np.ndarray]:
    """The contours of an outline as polygons (n, 2), the last point joined to the first."""
    contours: list[list[np.ndarray]] = []
    here = np.zeros(2)
    for verb, numbers in commands:
        points = np.array(numbers, dtype=float).reshape(-1, 2)
        if verb == "move":
            contours.append([points])
        elif verb == "line":
            contours[-1].append(points)
        elif verb in ("quad", "curve"):
            contours[-1].append(_curve(np.vstack([here, points])))
        if len(points):
            here = points[-1]
    return [_closed(np.concatenate(parts)) for parts in contours]


def _curve(points: np.ndarray) -> np.ndarray:
    """Points along a Bezier curve after its first one (de Casteljau): so many that a quarter of a
    circle is nowhere further off than a tenth of a px."""
    length = np.hypot(*np.diff(points, axis=0).T).sum()
    pieces = int(np.clip(np.ceil(np.sqrt(2 * length)), _FEWEST, _MOST))
    levels = np.broadcast_to(points, (pieces, *points.shape))
    share = (np.arange(1, pieces + 1) / pieces)[:, None, None]
    while levels.shape[1] > 1:
        levels = levels[:, :-1] + (levels[:, 1:] - levels[:, :-1]) * share
    return levels[:, 0]


def _closed(points: np.ndarray) -> np.ndarray:
    """A polygon without points that stand where the one before stands."""
    away = np.abs(points - np.roll(points, 1, axis=0)).max(axis=1) > 1e-9
    return points[away] if away.any() else points[:1]


def area_of(contour: np.ndarray) -> float:
    """The signed area of a polygon: positive if it runs clockwise as it is seen."""
    x, y = contour[:, 0], contour[:, 1]
    return float(np.dot(x, np.roll(y, -1)) - np.dot(y, np.roll(x, -1))) / 2


def thinned(contours: list[np.ndarray], most: int) -> list[np.ndarray]:
    """Polygons with at most so many points together, each with at least three: as they are, or
    with every so manieth of theirs. Of too many polygons the first are left."""
    contours = contours[: most // 3]
    step = -(-sum(map(len, contours)) // most) if contours else 1
    if step <= 1:
        return contours
    return [each[:: max(1, min(step, len(each) // 3))] for each in contours]
