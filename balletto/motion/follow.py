"""Follow: a springy lag. The weight w is replaced by x with x'' = k^2 (w - x) - 2 z k x'.

Here z is the damping and k = 2 pi f with f the frequency. x starts at rest on w(0). The answer at a
time is exact whatever was asked before: the course of w is cut into cells, the response to each is
an integral over the cell against the oscillator's answer to a single push, and a state (x, x')
leads from cell to cell. The times that lie so far back that they are forgotten are left out.

In a cell w is taken at five places, at either end from within, so that a jump between cells stays
a jump. Where w is not smooth (a hold, a tick, a step), the cell is halved, again and again.
"""

from collections.abc import Callable, Iterator
from fractions import Fraction
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from ..scene.moving.moves import Follow

# From times (k, units) in frames of the scene to the weights there.
Weights = Callable[[np.ndarray], np.ndarray]

# Where in a cell w is taken; the ends just within.
_PLACES = np.array([1e-6, 0.25, 0.5, 0.75, 1 - 1e-6])
_SMOOTH = 2e-5  # how far w, if it is about 1, may be from the parabola through three places
_HALVINGS = 14  # a cell is then 1/16384 of the first, and a jump in it harmless
JUST_BEFORE = 1e-6  # frames
_READINGS = 16  # in a cell, of an answer that many units share
_NODES, _NODE_WEIGHTS = np.polynomial.legendre.leggauss(12)
# What is just curved is smooth in a few halvings, and a jump leaves one rough piece at each. More
# pieces than this of one cell mean that w shakes faster than can be followed: they are taken as
# they are.
_MOST_PIECES = 64
_FORGOTTEN = 1e-13  # the share of a state that is as good as nothing
_BLOCK_CELLS = 256
_MOST_SAMPLES = 2_000_000  # of w at once, to bound the memory


class _Oscillator(NamedTuple):
    """The oscillator in frames: k a frame, and the damping ratio."""

    rate: float
    damping: float

    def push(self, time: np.ndarray) -> np.ndarray:
        """The answer x at `time` to a push of speed 1 at 0, at rest before."""
        split = self.rate * np.emath.sqrt(1 - self.damping**2)
        swing = np.sinc(split * time / np.pi) if np.isrealobj(split) else _sinhc(split, time)
        return time * swing * np.exp(-self.damping * self.rate * time)

    def push_speed(self, time: np.ndarray) -> np.ndarray:
        """The speed x' of the answer to that push."""
        split = self.rate * np.emath.sqrt(1 - self.damping**2)
        fade = np.exp(-self.damping * self.rate * time)
        return np.real(np.cos(split * time)) * fade - self.damping * self.rate * self.push(time)

    def state_after(self, length: np.ndarray) -> np.ndarray:
        """The matrix (..., 2, 2) that leads (x, x') over `length` frames while w is 0."""
        push, speed = self.push(length), self.push_speed(length)
        held = speed + 2 * self.damping * self.rate * push
        return np.stack([held, push, -(self.rate**2) * push, speed], -1).reshape(
            *np.shape(length), 2, 2
        )

    @property
    def cell(self) -> float:
        """A length in frames over which it hardly swings: a whole part of a frame."""
        return 1.0 / int(np.ceil(self.rate * max(1.0, self.damping)))

    def memory(self, left: float) -> float:
        """Frames after which no more than the share `left` of a state is left."""
        slow = self.damping - np.sqrt(max(self.damping**2 - 1, 0.0))
        return float(-np.log(left) / (slow * self.rate))


def _oscillator(follow: Follow, rate: Fraction) -> _Oscillator:
    return _Oscillator(2 * np.pi * follow.frequency / float(rate), follow.damping)


def settling(follow: Follow, rate: Fraction, left: float) -> float:
    """Frames that an oscillator needs, once what it follows rests, until no more than `left` of its
    swing is left."""
    return _oscillator(follow, rate).memory(left)


def _sinhc(split: complex, time: np.ndarray) -> np.ndarray:
    """sin(split t) / (split t) for an overdamped split, which is imaginary."""
    turned = np.abs(split) * time
    return np.where(turned > 0, np.sinh(turned) / np.where(turned > 0, turned, 1.0), 1.0)


def followed(
    weights: Weights,
    follow: Follow,
    rate: Fraction,
    times: np.ndarray,
    count: int,
    start: np.ndarray | None = None,
) -> np.ndarray:
    """The weights (times, count) that follow `weights`, at `times` (t,) in frames, in any order.

    They start at rest on `start` (count,), or else on the weights at frame 0.
    """
    if not len(times):
        return np.empty((0, count))
    oscillator = _oscillator(follow, rate)
    cell = oscillator.cell
    wanted = np.maximum(times, 0.0)
    places = np.floor(wanted / cell + 1e-9).astype(int)
    first = max(0, int((wanted.min() - oscillator.memory(_FORGOTTEN)) / cell))
    rest = weights(np.full((1, 1), first * cell))[0] if first or start is None else start
    state = np.stack([np.broadcast_to(rest, (count,)), np.zeros(count)])
    followed = np.empty((len(times), count))
    sorted_rows = np.argsort(places, kind="stable")
    done = 0
    for here, states in _states(weights, oscillator, cell, first, places.max(), state):
        end = np.searchsorted(places[sorted_rows], here + len(states), side="left")
        rows = sorted_rows[done:end]
        done = int(end)
        before = states[places[rows] - here]
        followed[rows] = _within(weights, oscillator, before, places[rows] * cell, wanted[rows])
    return followed


def followed_alike(
    course: Weights, follow: Follow, rate: Fraction, since: float, local_times: np.ndarray
) -> np.ndarray:
    """Weights of units that all follow one course, each in its local time, shaped as those are.

    Up to the local time `since` the course stays as it is, so that a unit is at rest there: on what
    it is just before, since an ease may jump at its start. The answer is worked out once, at fine
    steps, and read off between them.
    """
    oscillator = _oscillator(follow, rate)
    cell = oscillator.cell
    past = local_times - since
    first = max(0, int((past.min() - oscillator.memory(_FORGOTTEN)) / cell))
    last = max(first, int(np.ceil(past.max(initial=0.0) / cell)))
    rest = course(np.full((1, 1), since - JUST_BEFORE if not first else first * cell + since))
    table = _fine_states(lambda at: course(at + since), oscillator, cell, first, last, rest[0])
    past *= _READINGS / cell
    past -= first * _READINGS
    at = np.clip(past, 0.0, len(table) - 1.001, out=past)
    step = at.astype(np.int32)
    at -= step
    x, v = table[:, 0], table[:, 1] * (cell / _READINGS)
    # The cubic that has both values and both speeds (Hermite).
    rise = x[1:] - x[:-1]
    square, cube = 3 * rise - 2 * v[:-1] - v[1:], v[:-1] + v[1:] - 2 * rise
    answer = np.take(cube, step)
    for power in (square, v, x):
        answer *= at
        answer += np.take(power, step)
    return answer


def _fine_states(
    weights: Weights, oscillator: _Oscillator, cell: float, first: int, last: int, rest: np.ndarray
) -> np.ndarray:
    """States (steps, 2) of one unit, first at `rest` (1,), at `_READINGS` steps in each of the
    cells first..last."""
    state = np.stack([rest, np.zeros(1)])
    blocks = [states for _, states in _states(weights, oscillator, cell, first, last, state)]
    starts = np.concatenate(blocks)
    fine = np.empty((len(starts), _READINGS, 2))
    fine[:, 0] = starts[..., 0]
    begins = np.arange(first, last + 1) * cell
    for step in range(1, _READINGS):
        length = cell * step / _READINGS
        over = oscillator.state_after(np.array(length))
        fine[:, step] = (over @ starts + _pushed(weights, oscillator, begins, length))[..., 0]
    return np.concatenate([fine.reshape(-1, 2), starts[-1:, :, 0]])


def _states(
    weights: Weights,
    oscillator: _Oscillator,
    cell: float,
    first: int,
    last: int,
    state: np.ndarray,
) -> Iterator[tuple[int, np.ndarray]]:
    """Blocks of states (cells, 2, units) at the starts of the cells first..last."""
    over = oscillator.state_after(np.array(cell))
    block = max(1, min(_BLOCK_CELLS, _MOST_SAMPLES // (len(_PLACES) * state.shape[1] + 1)))
    for start in range(first, last + 1, block):
        states = np.empty((min(block, last + 1 - start), *state.shape))
        # Nothing comes after the last state.
        led = np.arange(start, min(start + len(states), last))
        pushes = _pushed(weights, oscillator, led * cell, cell)
        for index in range(len(states)):
            states[index] = state
            if index < len(pushes):
                state = over @ state + pushes[index]
        yield start, states


def _within(
    weights: Weights,
    oscillator: _Oscillator,
    before: np.ndarray,
    starts: np.ndarray,
    times: np.ndarray,
) -> np.ndarray:
    """x at `times`, each from the state (2, units) at the start of the cell that it is in."""
    lengths = times - starts
    answer = before[:, 0].copy()
    for length in np.unique(lengths[lengths > 1e-9]):
        rows = np.flatnonzero(lengths == length)
        over = oscillator.state_after(np.array(length))
        pushed = _pushed(weights, oscillator, starts[rows], float(length))
        answer[rows] = (over[0] @ before[rows]) + pushed[:, 0]
    return answer


def _pushed(
    weights: Weights, oscillator: _Oscillator, starts: np.ndarray, length: float
) -> np.ndarray:
    """What w does to (x, x') over cells of one length from `starts` (c,): (c, 2, units)."""
    asked = starts + _PLACES[:, None] * length
    taken = weights(asked.reshape(-1, 1))  # all places in one go
    samples = taken.reshape(*asked.shape, taken.shape[1])
    pushed = np.einsum("sp,pcu->csu", _kernel(oscillator, length), samples, optimize=True)
    rough = _is_rough(samples, _scale(samples))
    if rough.any():
        _refine(weights, oscillator, starts, length, rough, _scale(samples), pushed)
    return pushed


@lru_cache(maxsize=256)
def _kernel(oscillator: _Oscillator, length: float) -> np.ndarray:
    """(2, places): what 1 of w at each place adds to (x, x') at the end of a cell at rest before.

    It is the integral of k^2 push(length - s) times the polynomial that is 1 at that place and 0 at
    the others, by Gauss's rule.
    """
    at = (_NODES + 1) / 2
    places = np.linspace(0, 1, len(_PLACES))
    basis = np.linalg.solve(
        np.vander(places, increasing=True).T, np.vander(at, len(places), increasing=True).T
    )
    left = length * (1 - at)
    pushes = np.stack([oscillator.push(left), oscillator.push_speed(left)])
    return oscillator.rate**2 * length / 2 * (pushes * _NODE_WEIGHTS) @ basis.T


def _scale(samples: np.ndarray) -> np.ndarray:
    """How large w is in each cell, at least 1: (cells, units)."""
    return np.maximum(np.abs(samples).max(axis=0), 1.0)


def _is_rough(samples: np.ndarray, scale: np.ndarray) -> np.ndarray:
    """Where w, taken at the places (5, ...), leaves the parabola through its ends and middle."""
    first, quarter, middle, three, last = samples
    early = quarter - (0.375 * first + 0.75 * middle - 0.125 * last)
    late = three - (-0.125 * first + 0.75 * middle + 0.375 * last)
    return np.maximum(np.abs(early), np.abs(late)) > _SMOOTH * scale


def _refine(
    weights: Weights,
    oscillator: _Oscillator,
    starts: np.ndarray,
    length: float,
    rough: np.ndarray,
    scale: np.ndarray,
    pushed: np.ndarray,
) -> None:
    """Works the rough cells out again, halved until w is smooth in each half; changes `pushed`."""
    cells, units = np.nonzero(rough)
    pushed[cells, :, units] = 0.0
    # The pieces: of which rough cell each is, and where it begins.
    whole, begin, part = np.arange(len(cells)), starts[cells], length
    ends = begin + length
    for halving in range(1, _HALVINGS + 1):
        part /= 2
        whole = np.tile(whole, 2)
        begin = np.concatenate([begin, begin + part])
        times = begin + _PLACES[:, None] * part
        samples = _asked(weights, units[whole], times, rough.shape[1])
        again = _is_rough(samples, scale[cells[whole], units[whole]]) & (halving < _HALVINGS)
        # Counted for each cell by itself: what others do is nothing to its answer.
        again &= np.bincount(whole[again], minlength=len(cells))[whole] <= _MOST_PIECES
        done = ~again
        answer = _kernel(oscillator, part) @ samples[:, done]
        left = np.maximum(ends[whole[done]] - begin[done] - part, 0.0)
        states = np.einsum("nab,bn->na", oscillator.state_after(left), answer)
        np.add.at(pushed.swapaxes(1, 2), (cells[whole[done]], units[whole[done]]), states)
        if not again.any():
            return
        whole, begin = whole[again], begin[again]


def _asked(weights: Weights, units: np.ndarray, times: np.ndarray, count: int) -> np.ndarray:
    """Weights (places, n) of single units, `units` (n,), at `times` (places, n).

    They are put into a table (depth, count) with a column for each unit, so that all are asked at
    once, each at times of its own.
    """
    order = np.argsort(units, kind="stable")
    sizes = np.bincount(units, minlength=count)
    depth = np.empty(len(units), dtype=int)
    depth[order] = np.arange(len(units)) - np.repeat(np.cumsum(sizes) - sizes, sizes)
    table = np.broadcast_to(times[:, :1, None], (len(times), sizes.max(), count)).copy()
    table[:, depth, units] = times
    asked = weights(table.reshape(-1, count)).reshape(table.shape)
    return asked[:, depth, units]
