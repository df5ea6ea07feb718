"""Outlines as commands in layer space (y down): of glyphs, of shapes, and displaced ones.

A command is a verb (move, line, quad, curve, close, end) and its numbers x, y, x, y, ...; what
follows WITHOUT is cut out of what stands before it.
"""

from collections.abc import Callable, Iterable
from functools import lru_cache
from typing import Any

import numpy as np

from ...hash_random import hash_random
from ...lettering.layout import ink_of
from ...lettering.shaping import Glyph
from ...scene.forms.primitives import polygon

Commands = tuple[tuple[str, tuple[float, ...]], ...]
# Stands between what is filled and the contours that are cut out of it.
WITHOUT: tuple[str, tuple[float, ...]] = ("without", ())
_PIECES = 4  # at most, into which a curve is cut before its points are displaced
_ACROSS, _DOWN = 0, 1  # the properties x and y of the model's section 7


def of_glyphs(glyphs: Iterable[Glyph]) -> Commands:
    """The outline of glyphs, turned from font units (y up) to where they stand in layer space; of
    those that have colours of their own, the box that their picture fills."""
    commands: list[tuple[str, tuple[float, ...]]] = []
    glyphs = tuple(glyphs)
    if any(glyph.is_colored for glyph in glyphs):
        left, top, right, bottom = ink_of(glyphs)
        return polygon([(left, top), (right, top), (right, bottom), (left, bottom)])
    for glyph in glyphs:
        for verb, numbers in glyph.commands:
            placed = tuple(
                glyph.y - number * glyph.scale if axis % 2 else glyph.x + number * glyph.scale
                for axis, number in enumerate(numbers)
            )
            commands.append((verb, placed))
    return tuple(commands)


def displaced(commands: Commands, size: float, amount: float, seed: int, tick: int) -> Commands:
    """The outline with its points pushed by up to `amount` px each way, neighbours alike: the
    chances stand at the corners of squares of `size` px, smoothly joined between."""
    cut = _subdivided(commands, size)
    points = np.array([number for _, numbers in cut for number in numbers]).reshape(-1, 2)
    if not len(points):
        return commands
    pushed = (points + amount * _field(points / size, seed, tick)).reshape(-1).tolist()
    moved, at = [], 0
    for verb, numbers in cut:
        moved.append((verb, tuple(pushed[at : at + len(numbers)])))
        at += len(numbers)
    return tuple(moved)


def _field(places: np.ndarray, seed: int, tick: int) -> np.ndarray:
    """Smooth chances in [-1, 1) for both axes at places (n, 2), counted in squares."""
    corner = np.floor(places).astype(np.int64)
    within = places - corner
    share = within * within * (3 - 2 * within)
    pushes = np.zeros_like(places)
    for across in (0, 1):
        for down in (0, 1):
            near_x = share[:, 0] if across else 1 - share[:, 0]
            near_y = share[:, 1] if down else 1 - share[:, 1]
            # One number for each corner; squares repeat only after some 2,000 of them.
            number = (corner[:, 0] + across) * 2048 + corner[:, 1] + down
            for axis in (_ACROSS, _DOWN):
                drawn = 2 * hash_random(seed, number, axis, np.array(tick)) - 1
                pushes[:, axis] += near_x * near_y * drawn
    return pushes


def _subdivided(commands: Commands, size: float) -> Commands:
    """Lines and curves cut into pieces no longer than half of `size`, as far as that is sane."""
    cut: list[tuple[str, tuple[float, ...]]] = []
    here = np.zeros(2)
    start = here
    for verb, numbers in commands:
        points = np.array(numbers).reshape(-1, 2)
        if verb == "move":
            start = points[0]
        target = start if verb == "close" else points[-1] if len(points) else here
        if verb in ("line", "close") and np.abs(target - here).max() > size / 2:
            count = int(min(16, np.ceil(np.hypot(*(target - here)) / (size / 2))))
            steps = here + (target - here) * (np.arange(1, count + 1) / count)[:, None]
            cut += [("line", tuple(step)) for step in steps.tolist()]
            if verb == "close":
                cut.append(("close", ()))
        elif verb in ("quad", "curve"):
            cut += _cut_curve(verb, np.vstack([here, points]))
        else:
            cut.append((verb, numbers))
        here = target
    return tuple(cut)


def _cut_curve(verb: str, points: np.ndarray) -> list[tuple[str, tuple[float, ...]]]:
    """A curve of Bezier points, cut in even pieces (de Casteljau)."""
    pieces = []
    for left in range(_PIECES, 1, -1):
        levels = [points]
        while len(levels[-1]) > 1:
            last = levels[-1]
            levels.append(last[:-1] + (last[1:] - last[:-1]) / left)
        pieces.append(np.array([level[0] for level in levels]))
        points = np.array([level[-1] for level in reversed(levels)])
    pieces.append(points)
    return [(verb, tuple(piece[1:].reshape(-1).tolist())) for piece in pieces]


@lru_cache(maxsize=512)
def prepared(commands: Commands, prepare: Callable[[Commands], Any]) -> Any:
    """An outline that a canvas prepares, the same one for the same commands: what was prepared
    anew would be another, and what is drawn with it be drawn again."""
    return prepare(commands)
