"""How the letters of a title look: fills, lines along the edge, blurs, as moves change them."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Any

import numpy as np

from ...lettering.layout import Layout
from ...motion.evaluate import Composite
from ...raster.coloring import mixed_colors
from ...scene.letters.style import RoundGradient
from ...scene.values.colors import hex_of, hex_of_bytes, oklab, srgb_bytes
from ..canvases.canvas import DrawnLine, Gradient
from ..composing.look import Fill, JoinedLooks

_GRADIENT_STEPS = 16  # between two colours, so that they mix as in OKLab


@dataclass(frozen=True)
class Appearance:
    """How letters look in each of some frames: lists by frame, then by character.

    displacements: px by which moves displace outlines; shadows: how much is left of a shadow;
    filled: how opaque fills are, apart from lines; hatched: the share of strokes that is drawn
    margin: px by which what is drawn reaches beyond the outline, (frames, characters) or 0
    tints: of fills, as the share of a colour and that colour, for what has colours of its own;
    mixings: the matrices that those go through, (frames, characters, 3, 3); None if there are none
    """

    fills: list[list[Fill]]
    lines: list[list[DrawnLine | None]]
    blurs: list[list[float]]
    displacements: list[list[float]]
    shadows: list[list[float]]
    filled: list[list[float]]
    hatched: list[list[float]]
    margin: np.ndarray | float
    tints: list[list[tuple[float, str]]] | None = None
    mixings: np.ndarray | None = None


def appearance_of(
    layout: Layout, composites: dict[str, Composite], frames: int, is_each: bool = False
) -> Appearance:
    """The appearance of the letters of a title, whose moves are composed over `frames` frames;
    `is_each`: whether what is drawn of an outline is of each of its contours."""
    looks = JoinedLooks(composites.values())
    widths = _widths(layout, looks)
    blurs, displacements = looks.number("blur"), looks.number("displace")
    plain_lines: list[DrawnLine | None] = [None] * len(layout.characters)
    margin = widths / 2 + 3 * blurs + 2 * displacements
    is_colored = any(character.is_colored for character in layout.characters)
    return Appearance(
        _fills(layout, looks, frames),
        _lines(layout, looks, widths, frames, is_each)
        if np.any(widths)
        else [plain_lines] * frames,
        _rows_of(blurs, layout, frames),
        _rows_of(displacements, layout, frames),
        _rows_of(looks.number("shadow"), layout, frames),
        _rows_of(looks.number("filled"), layout, frames),
        _rows_of(looks.number("hatched"), layout, frames),
        margin if np.any(margin) else 0.0,
        _shares_of_tints(looks) if is_colored else None,
        looks.mixing if is_colored else None,
    )


def _widths(layout: Layout, looks: JoinedLooks) -> np.ndarray:
    own = np.array([character.setting.outline for character in layout.characters])
    return np.maximum(own + looks.number("outline"), 0.0)


def _rows_of(values: np.ndarray | float, layout: Layout, frames: int) -> list[list[float]]:
    shape = (frames, len(layout.characters))
    if np.ndim(values) == 0:
        return [[float(values)] * shape[1]] * frames
    return np.broadcast_to(values, shape).tolist()


def _fills(layout: Layout, looks: JoinedLooks, frames: int) -> list[list[Fill]]:
    plain = plain_fills(layout)
    changes = looks.changes("fill")
    if changes is None:
        return [plain] * frames
    columns = [
        [None] * frames if fill is None else change.fills(fill)
        for fill, change in zip(plain, changes, strict=True)
    ]
    return _by_frame(columns, frames)


def _shares_of_tints(looks: JoinedLooks) -> list[list[tuple[float, str]]] | None:
    """How much of which colour moves lay over what has colours of its own, (frames, characters)."""
    tint, mixing = looks.value("fill"), looks.mixing
    if tint is None:
        return None
    share = np.clip(1 - np.asarray(tint.keep), 0.0, 1.0)
    added = np.asarray(tint.add) / np.maximum(share, 1e-9)[..., None]
    colors = srgb_bytes(added)
    if mixing is not None:
        colors = mixed_colors(colors, mixing)
    return [
        [(part, hex_of_bytes(color)) for part, color in zip(*row, strict=True)]
        for row in zip(share.tolist(), colors, strict=True)
    ]


def _by_frame(columns: list[list[Any]], frames: int) -> list[list[Any]]:
    """Lists of characters, each with a value a frame, turned into a list for each frame."""
    return [list(row) for row in zip(*columns, strict=True)] or [[] for _ in range(frames)]


def _lines(
    layout: Layout, looks: JoinedLooks, widths: np.ndarray, frames: int, is_each: bool
) -> list[list[DrawnLine | None]]:
    """The lines of letters, as far as moves draw them."""
    changes = looks.changes("outline_color")
    widths = np.broadcast_to(widths, (frames, len(layout.characters)))
    columns = []
    for number, character in enumerate(layout.characters):
        color = character.setting.outline_color
        colors = [color] * frames if changes is None else changes[number].colors(color)
        each = zip(widths[:, number].tolist(), colors, strict=True)
        columns.append([DrawnLine(width, color) if width > 0 else None for width, color in each])
    return _drawn_lines(layout, looks, _by_frame(columns, frames), is_each)


def _drawn_lines(
    layout: Layout, looks: JoinedLooks, lines: list[list[DrawnLine | None]], is_each: bool
) -> list[list[DrawnLine | None]]:
    ends, starts = looks.number("drawn"), looks.number("drawn_from")
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
