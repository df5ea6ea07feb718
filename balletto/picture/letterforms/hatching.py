"""Hatching: the strokes that stand for the fill of an outline, in the order in which they are
drawn.

Strokes lie on lines that are the same for all outlines of a layer, `spacing` apart, so that one
letter goes on where the one before ends, and words that are typed anew keep theirs. The share of
the outline that is covered is width / spacing, of crossed ones 1 - (1 - width / spacing)².
"""

from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from ...hash_random import hash_random
from .contours import flattened, thinned
from .outlines import Commands

MOST_LINES = 2000  # of one outline: of a larger one they are further apart
_MOST_POINTS = 40_000
_MOST_EDGES = 20_000  # of an outline
_MOST_MET = 8_000_000  # pairs of a row and an edge that are looked at together
_MOST_SPANS = 20_000
_A_BUMP = 3  # points
# At these places across a stroke it is asked what of it lies within the outline.
_ACROSS = np.array([-0.5, -0.25, 0.0, 0.25, 0.5])
_ALONG, _SIDEWAYS = 0, 1  # properties that draw their chances


class HatchValues(NamedTuple):
    """How strokes are at a time, as the effect says it; `tick` counts how often they are others."""

    style: str
    width: float
    spacing: float
    angle: float
    wobble: float
    wobble_size: float
    overshoot: float
    seed: int
    tick: int


@dataclass(frozen=True, eq=False)
class Strokes:
    """Lines of points (n, 2), one after another, and the length of each."""

    lines: tuple[np.ndarray, ...]
    lengths: np.ndarray

    @property
    def length(self) -> float:
        return float(self.lengths.sum())

    def between(self, first: float, end: float) -> Commands:
        """What lies between two lengths along all of them, as an outline."""
        commands: list[tuple[str, tuple[float, ...]]] = []
        starts = np.concatenate([[0.0], np.cumsum(self.lengths)])
        for line, start, length in zip(self.lines, starts, self.lengths, strict=False):
            low, high = max(first - start, 0.0), min(end - start, length)
            if low < high:
                points = line if high - low >= length else _part(line, low, high)
                begin, *others = points.tolist()
                commands.append(("move", tuple(begin)))
                commands += [("line", (x, y)) for x, y in others]
        return tuple(commands)


@lru_cache(maxsize=64)
def strokes_of(outlines: tuple[Commands, ...], values: HatchValues) -> tuple[Strokes, ...]:
    """The strokes for each of some outlines; those of all letters of a title take little longer
    than those of one."""
    lines: list[list[np.ndarray]] = [[] for _ in outlines]
    still = values._replace(wobble=0.0, wobble_size=1.0, seed=0, tick=0)
    for number, turn in enumerate((0.0, 90.0) if values.style == "crossed" else (0.0,)):
        angle = values.angle + turn
        found = [_lines(commands, still, angle) for commands in outlines]
        swung = iter(_swung(found, values, angle, number))
        for own, straight in zip(lines, found, strict=True):
            own += [next(swung) for _ in straight]
    lengths = iter(_lengths_of([line for own in lines for line in own]).tolist())
    return tuple(Strokes(tuple(own), np.array([next(lengths) for _ in own])) for own in lines)


def _lengths_of(lines: list[np.ndarray]) -> np.ndarray:
    """The length of each line, all at once."""
    if not lines:
        return np.zeros(0)
    first = np.cumsum([0, *map(len, lines[:-1])])
    ways = np.hypot(*np.diff(np.concatenate(lines), axis=0, append=0.0).T)
    ways[np.append(first[1:], len(ways)) - 1] = 0.0  # from one line to the next there is none
    lengths: np.ndarray = np.add.reduceat(ways, first)
    return lengths


@lru_cache(maxsize=256)
def _contours(commands: Commands) -> list[np.ndarray]:
    """The polygons that are hatched; of drawings that nobody could hatch by hand, coarser ones."""
    found = [contour for contour in flattened(commands) if len(contour) > 2]
    return thinned(found, _MOST_EDGES)


@lru_cache(maxsize=256)
def _lines(commands: Commands, values: HatchValues, angle: float) -> list[np.ndarray]:
    """The straight strokes at an angle, turned to lie along x; they stay while only the wobble is
    another."""
    contours = _contours(commands)
    if not contours:
        return []
    turned = [contour @ _turn(-angle).T for contour in contours]
    spacing = values.spacing
    spans = _spans(turned, spacing, values)
    while len(spans) > _MOST_SPANS:
        spacing *= 2
        spans = _spans(turned, spacing, values)
    if values.style != "zigzag":
        return [np.array([[a, y], [b, y]]) for _, y, a, b in spans]
    lines = _to_and_fro(spans)
    straight = values.width * sum(b - a for _, _, a, b in spans)
    if straight <= 0 or values.overshoot > 0:
        return lines
    # The ways from line to line cover some of it too: the lines stand as much further apart.
    more = _covered_by_ways(turned, lines, values.width) / straight
    return _to_and_fro(_spans(turned, spacing * (1 + more), values))


def _turn(degrees: float) -> np.ndarray:
    radians = np.radians(degrees)
    cos, sin = np.cos(radians), np.sin(radians)
    return np.array([[cos, -sin], [sin, cos]])


def _spans(
    contours: list[np.ndarray], spacing: float, values: HatchValues
) -> list[tuple[int, float, float, float]]:
    """What of each line lies within polygons: the number of the line, y, and x from where to
    where, from the top down, from left to right."""
    starts = np.concatenate(contours)
    ends = np.concatenate([np.roll(contour, -1, axis=0) for contour in contours])
    low, high = starts[:, 1].min(), starts[:, 1].max()
    most = max(1, min(MOST_LINES, _MOST_MET // (len(_ACROSS) * len(starts))))
    spacing = max(spacing, (high - low) / most)
    numbers = np.arange(np.floor(low / spacing) - 1, np.ceil(high / spacing) + 1)
    middles = (numbers + 0.5) * spacing
    across = _ACROSS * values.width if values.overshoot <= 0 else np.zeros(1)
    rows = (middles[:, None] + across).reshape(-1)
    which = np.repeat(np.arange(len(middles)), len(across))
    is_down = (starts[:, 1] <= rows[:, None]) & (ends[:, 1] > rows[:, None])
    is_up = (ends[:, 1] <= rows[:, None]) & (starts[:, 1] > rows[:, None])
    row, edge = np.nonzero(is_down | is_up)
    share = (rows[row] - starts[edge, 1]) / (ends[edge, 1] - starts[edge, 1])
    x = starts[edge, 0] + share * (ends[edge, 0] - starts[edge, 0])
    order = np.lexsort((x, row))
    row, x = row[order], x[order]
    # Contours that overlap are one form: what is wound round at all is within.
    winding = np.cumsum(np.where(is_down[row, edge[order]], 1, -1))
    before = winding - np.where(is_down[row, edge[order]], 1, -1)
    first, last = np.flatnonzero(before == 0), np.flatnonzero(winding == 0)
    return _joined(which[row[first]], x[first], x[last], middles, values.overshoot)


def _joined(
    line: np.ndarray, first: np.ndarray, last: np.ndarray, middles: np.ndarray, more: float
) -> list[tuple[int, float, float, float]]:
    """Spans of x on each line, those that overlap as one, and `more` px longer at both ends."""
    if not len(line):
        return []
    far = float(np.abs([first, last]).max()) * 4 + 4 * more + 1
    low, high = first - more + line * far, last + more + line * far
    order = np.argsort(low, kind="stable")
    low, high, line = low[order], np.maximum.accumulate(high[order]), line[order]
    begins = np.concatenate([[True], low[1:] > high[:-1]])
    at = np.flatnonzero(begins)
    ends = high[np.concatenate([at[1:] - 1, [len(high) - 1]])]
    own = line[at]
    found = zip(
        own.tolist(), middles[own].tolist(), (low[at] - own * far).tolist(),
        (ends - own * far).tolist(), strict=True,
    )  # fmt: skip
    return list(found)


def _to_and_fro(spans: list[tuple[int, float, float, float]]) -> list[np.ndarray]:
    """One line to and fro, as far as spans below one another overlap; then the next."""
    chains: list[list[tuple[int, float, float, float]]] = []
    open_chains: list[list[tuple[int, float, float, float]]] = []
    for span in spans:
        number, _, low, high = span
        open_chains = [chain for chain in open_chains if chain[-1][0] >= number - 1]
        above = (c for c in open_chains if c[-1][0] == number - 1 and _overlap(c[-1], low, high))
        chain = next(above, None)
        if chain is None:
            chain = []
            chains.append(chain)
            open_chains.append(chain)
        chain.append(span)
    return [
        np.array(
            [
                (x, y)
                for turn, (_, y, low, high) in enumerate(chain)
                for x in ((high, low) if turn % 2 else (low, high))
            ]
        )
        for chain in chains
    ]


def _overlap(span: tuple[int, float, float, float], low: float, high: float) -> bool:
    return span[2] < high and low < span[3]


# Where across and along a way from one line to the next it is asked whether that is within.
_WAY_ACROSS = (np.arange(4) + 0.5) / 4 - 0.5
_WAY_ALONG = (np.arange(6) + 0.5) / 6


def _covered_by_ways(contours: list[np.ndarray], lines: list[np.ndarray], width: float) -> float:
    """The area within polygons that the ways from one line to the next cover, besides what the
    lines cover that they join; by samples."""
    ways = [np.stack([line[1:-1:2], line[2::2]], axis=1) for line in lines if len(line) > 2]
    if not ways:
        return 0.0
    every = np.concatenate(ways)
    points_of_one = len(_WAY_ACROSS) * len(_WAY_ALONG)
    most = max(1, _MOST_MET // 4 // (points_of_one * sum(map(len, contours))))
    sampled = every[:: -(-len(every) // most)]
    starts, ends = np.moveaxis(sampled, 1, 0)
    lengths = np.hypot(*(ends - starts).T)
    normals = np.stack([starts[:, 1] - ends[:, 1], ends[:, 0] - starts[:, 0]], axis=1)
    normals = normals / np.maximum(lengths, 1e-9)[:, None] * width
    along = starts[:, None] + (ends - starts)[:, None] * _WAY_ALONG[:, None]
    points = along[:, :, None] + normals[:, None, None] * _WAY_ACROSS[:, None]
    low, high = starts[:, 1, None, None], ends[:, 1, None, None]
    is_new = (points[..., 1] > low + width / 2) & (points[..., 1] < high - width / 2)
    inside = is_new & _is_within(contours, points.reshape(-1, 2)).reshape(is_new.shape)
    covered = (inside.mean(axis=(1, 2)) * lengths).sum() * width
    return float(covered * len(every) / len(sampled))


def _is_within(contours: list[np.ndarray], points: np.ndarray) -> np.ndarray:
    """Whether polygons wind round points (n, 2)."""
    starts = np.concatenate(contours)
    ends = np.concatenate([np.roll(contour, -1, axis=0) for contour in contours])
    x, y = points[:, :1], points[:, 1:]
    low, high = starts[:, 1], ends[:, 1]
    is_down, is_up = (low <= y) & (high > y), (high <= y) & (low > y)
    with np.errstate(divide="ignore", invalid="ignore"):
        share = (y - low) / (high - low)
        is_right = starts[:, 0] + share * (ends[:, 0] - starts[:, 0]) > x
    wound: np.ndarray = ((is_down & is_right).sum(axis=1) - (is_up & is_right).sum(axis=1)) != 0
    return wound


def _swung(
    lines: list[list[np.ndarray]], values: HatchValues, angle: float, number: int
) -> list[np.ndarray]:
    """Strokes of several outlines that lie along x as they are drawn: swinging, at their angle."""
    turn = _turn(angle)
    every = [line for own in lines for line in own]
    if values.wobble <= 0 or not every:
        return [line @ turn.T for line in every]
    numbers = np.concatenate([np.arange(len(own)) for own in lines])
    seed = values.seed * 2 + number
    points, counts = _wobbling(every, numbers, values._replace(seed=seed))
    turned, ends = points @ turn.T, np.cumsum(counts).tolist()
    return [turned[first:end] for first, end in pairwise([0, *ends])]


def _wobbling(
    lines: list[np.ndarray], numbers: np.ndarray, values: HatchValues
) -> tuple[np.ndarray, np.ndarray]:
    """Strokes with points every few px, each pushed by chances that stand every bump of it and are
    smoothly joined between, and are drawn by the number of the stroke: all points, (n, 2), and how
    many each stroke has."""
    starts = np.concatenate([line[:-1] for line in lines])
    ways = np.concatenate([line[1:] for line in lines]) - starts
    lengths = np.hypot(*ways.T)
    step = max(values.wobble_size / _A_BUMP, float(lengths.sum()) / _MOST_POINTS, 0.5)
    # Each straight piece has its first point and those on it; the last one of a stroke its end too.
    sizes = np.array([len(line) - 1 for line in lines])
    ends = np.cumsum(sizes) - 1
    pieces = np.maximum(np.ceil(lengths / step).astype(int), 1)
    counts = pieces.copy()
    counts[ends] += 1
    of = np.repeat(np.arange(len(counts)), counts)
    share = (np.arange(len(of)) - np.repeat(np.cumsum(counts) - counts, counts)) / pieces[of]
    stroke = np.repeat(np.arange(len(lines)), sizes)
    before = np.cumsum(lengths) - lengths
    first_of = np.concatenate([[0], ends[:-1] + 1])
    along = (before - before[first_of][stroke])[of] + share * lengths[of]
    points = starts[of] + ways[of] * share[:, None]
    bumps = along / values.wobble_size
    corner = np.floor(bumps).astype(np.int64)
    smooth = (bumps - corner) ** 2 * (3 - 2 * (bumps - corner))
    keys = numbers[stroke][of] * 4096 + corner
    tick = np.array(values.tick)
    for axis, number in ((0, _ALONG), (1, _SIDEWAYS)):
        near = 2 * hash_random(values.seed, keys, number, tick) - 1
        far = 2 * hash_random(values.seed, keys + 1, number, tick) - 1
        points[:, axis] += values.wobble * (near + (far - near) * smooth)
    return points, np.add.reduceat(counts, first_of)


def _part(line: np.ndarray, first: float, end: float) -> np.ndarray:
    """What lies between two lengths along a line."""
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(line, axis=0).T))])
    places = np.concatenate([[first], along[(along > first) & (along < end)], [end]])
    return np.stack([np.interp(places, along, line[:, axis]) for axis in (0, 1)], axis=1)
