"""How the letters of a title look: fills, lines along the edge, blurs, as moves change them."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Any

import numpy as np

from ..lettering.layout import Layout
from ..motion.evaluate import Composite
from ..motion.properties import Tint
from ..scene.colors import hex_of, oklab, srgb_bytes
from ..scene.style import RoundGradient
from .canvas import Gradient, Line

_GRADIENT_STEPS = 16  # between two colours, so that they mix as in OKLab
Fill = str | Gradient | None


@dataclass(frozen=True)
class Appearance:
    """How letters look in each of some frames: lists by frame, then by character.

    tints: of fills, as the share of a colour and that colour, for what has colours of its own; None
    if there are none
    displacements: px by which moves displace outlines; shadows: how much is left of a shadow;
    filled: how opaque fills are, apart from lines; hatched: the share of strokes that is drawn
    margin: px by which what is drawn reaches beyond the outline, (frames, characters) or 0
    """

    fills: list[list[Fill]]
    lines: list[list[Line | None]]
    blurs: list[list[float]]
    displacements: list[list[float]]
    shadows: list[list[float]]
    filled: list[list[float]]
    hatched: list[list[float]]
    margin: np.ndarray | float
    tints: list[list[tuple[float, str]]] | None = None


def appearance_of(
    layout: Layout, composites: dict[str, Composite], frames: int, is_each: bool = False
) -> Appearance:
    """The appearance of the letters of a title, whose moves are composed over `frames` frames;
    `is_each`: whether what is drawn of an outline is of each of its contours."""
    widths = _widths(layout, composites)
    blurs = _summed("blur", composites)
    displacements = _summed("displace", composites)
    plain_lines: list[Line | None] = [None] * len(layout.characters)
    margin = widths / 2 + 3 * blurs + 2 * displacements
    return Appearance(
        _fills(layout, composites, frames),
        _seen_lines(layout, composites, _lines(layout, composites, widths, frames), is_each)
        if np.any(widths)
        else [plain_lines] * frames,
        _rows_of(blurs, layout, frames),
        _rows_of(displacements, layout, frames),
        _rows_of(_multiplied("shadow", composites), layout, frames),
        _rows_of(_multiplied("filled", composites), layout, frames),
        _rows_of(_multiplied("hatched", composites), layout, frames),
        margin if np.any(margin) else 0.0,
        _shares_of_tints(composites) if any(c.is_colored for c in layout.characters) else None,
    )


def _summed(
    name: str, composites: dict[str, Composite], start: np.ndarray | float = 0.0
) -> np.ndarray | float:
    """A property that adds up over unit kinds, never below 0; 0 if nothing changes it."""
    found = [each.of_characters(name) for each in composites.values() if name in each.values]
    # Most titles have none of it.
    return np.maximum(sum(found, start), 0.0) if found else start


def _multiplied(name: str, composites: dict[str, Composite]) -> np.ndarray | float:
    """A share that is multiplied over unit kinds, from 0 to 1; 1 if nothing changes it."""
    found = [each.of_characters(name) for each in composites.values() if name in each.values]
    return np.clip(math.prod(found), 0.0, 1.0) if found else 1.0


def _widths(layout: Layout, composites: dict[str, Composite]) -> np.ndarray:
    own = np.array([character.setting.outline for character in layout.characters])
    return np.asarray(_summed("outline", composites, own))


def _rows_of(values: np.ndarray | float, layout: Layout, frames: int) -> list[list[float]]:
    shape = (frames, len(layout.characters))
    if np.ndim(values) == 0:
        return [[float(values)] * shape[1]] * frames
    return np.broadcast_to(values, shape).tolist()


def _tint(name: str, composites: dict[str, Composite]) -> Tint | None:
    """The tints of a colour from the outer kinds to the inner ones; None if there are none."""
    tint = None
    for composite in composites.values():  # from the outermost to the innermost
        if name in composite.values:
            inner = composite.values[name].of(composite.member)
            tint = inner if tint is None else inner.after(tint)
    return tint


def _fills(layout: Layout, composites: dict[str, Composite], frames: int) -> list[list[Fill]]:
    plain = plain_fills(layout)
    tint = _tint("fill", composites)
    if tint is None:
        return [plain] * frames
    columns: list[list[Fill]] = []
    for number, fill in enumerate(plain):
        own = Tint(tint.keep[:, number], tint.add[:, number])
        if isinstance(fill, Gradient):
            columns.append(tinted_gradients(fill, own))
        else:
            columns.append([*tinted(fill, own)] if fill else [None] * frames)
    return _by_frame(columns, frames)


def _shares_of_tints(composites: dict[str, Composite]) -> list[list[tuple[float, str]]] | None:
    """How much of which colour moves lay over what has colours of its own, (frames, characters)."""
    tint = _tint("fill", composites)
    if tint is None:
        return None
    share = np.clip(1 - np.asarray(tint.keep), 0.0, 1.0)
    added = np.asarray(tint.add) / np.maximum(share, 1e-9)[..., None]
    colors = srgb_bytes(added.reshape(-1, 3)).reshape(added.shape)
    return [
        [(part, f"#{color.tobytes().hex().upper()}") for part, color in zip(*row, strict=True)]
        for row in zip(share.tolist(), colors, strict=True)
    ]


def _by_frame(columns: list[list[Any]], frames: int) -> list[list[Any]]:
    """Lists of characters, each with a value a frame, turned into a list for each frame."""
    return [list(row) for row in zip(*columns, strict=True)] or [[] for _ in range(frames)]


def tinted(color: str, tint: Tint) -> list[str]:
    """A colour under a tint (frames,), frame by frame."""
    lab = oklab(color) * tint.keep[:, None] + tint.add
    return [f"#{row.tobytes().hex().upper()}" for row in srgb_bytes(lab)]


def tinted_gradients(gradient: Gradient, tint: Tint) -> list[Fill]:
    columns = [tinted(color, tint) for color in gradient.colors]
    return [
        Gradient(gradient.is_round, gradient.start, gradient.end, colors)
        for colors in zip(*columns, strict=True)
    ]


def _lines(
    layout: Layout, composites: dict[str, Composite], widths: np.ndarray, frames: int
) -> list[list[Line | None]]:
    tint = _tint("outline_color", composites)
    widths = np.broadcast_to(widths, (frames, len(layout.characters)))
    columns = []
    for number, character in enumerate(layout.characters):
        color = character.setting.outline_color
        colors = [color] * frames
        if tint is not None:
            colors = tinted(color, Tint(tint.keep[:, number], tint.add[:, number]))
        each = zip(widths[:, number].tolist(), colors, strict=True)
        columns.append([Line(width, color) if width > 0 else None for width, color in each])
    return _by_frame(columns, frames)


def _seen_lines(
    layout: Layout,
    composites: dict[str, Composite],
    lines: list[list[Line | None]],
    is_each: bool,
) -> list[list[Line | None]]:
    """The lines as far as moves draw them."""
    ends, starts = _multiplied("drawn", composites), _summed("drawn_from", composites)
    if np.ndim(ends) == 0 and np.ndim(starts) == 0:
        return lines
    frames = len(lines)
    rows = zip(lines, _rows_of(starts, layout, frames), _rows_of(ends, layout, frames), strict=True)
    return [
        [
            line and line._replace(each=is_each).within(first, end)
            for line, first, end in zip(*row, strict=True)
        ]
        for row in rows
    ]


def plain_fills(layout: Layout) -> list[Fill]:
    """What fills each character while no move tints it."""
    return [_plain(layout, number) for number in range(len(layout.characters))]


def _plain(layout: Layout, number: int) -> Fill:
    fill: Any = layout.characters[number].setting.fill
    if isinstance(fill, str):
        return None if fill == "none" else fill
    box = layout.boxes[fill.over][layout.member[fill.over][number]].tolist()
    return gradient_over(fill, box)


def gradient_over(fill: Any, box: Sequence[float]) -> Gradient:
    """A gradient of a style over a box: left, top, right, bottom."""
    left, top, right, bottom = box
    middle = ((left + right) / 2, (top + bottom) / 2)
    if isinstance(fill, RoundGradient):
        return Gradient(True, middle, (right, bottom), _mixed(fill.colors))
    radians = np.radians(fill.angle)
    across, down = float(np.cos(radians)), float(np.sin(radians))
    half = (abs(across) * (right - left) + abs(down) * (bottom - top)) / 2
    start = (middle[0] - across * half, middle[1] - down * half)
    end = (middle[0] + across * half, middle[1] + down * half)
    return Gradient(False, start, end, _mixed(fill.colors))


@lru_cache(maxsize=256)
def _mixed(colors: tuple[str, ...]) -> tuple[str, ...]:
    """The colours of a gradient with as many mixed in OKLab between them as hide the steps."""
    mixed = []
    for start, end in pairwise(colors):
        one, other = oklab(start), oklab(end)
        steps = np.arange(_GRADIENT_STEPS) / _GRADIENT_STEPS
        mixed += [hex_of(one * (1 - step) + other * step) for step in steps]
    return (*mixed, colors[-1].upper())
