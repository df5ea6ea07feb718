"""Reflow: how letters shift along their lines when tracking or a font axis moves, and to keep what
is seen of a line in its middle."""

from typing import NamedTuple

import numpy as np

from ..lettering.layout import Layout, Row
from ..scene.layers.title import Title
from .evaluate import Composite


class Reflow(NamedTuple):
    """Shifts in px to the right, (times, characters): of the left edge of each character's box and
    of its right one, which is another where the letter grows."""

    left: np.ndarray
    right: np.ndarray


def reflow(title: Title, layout: Layout, composites: dict[str, Composite]) -> Reflow | None:
    """The shifts that the moves of a title cause; None if all letters keep their places."""
    if not layout.characters or not composites:
        return None
    tracks = any("tracking" in composite.values for composite in composites.values())
    growth = _growth(layout, composites)
    if not (tracks or growth is not None or title.hold_center):
        return None
    frames = next(iter(composites.values())).shape[0]
    cells = len(layout.cell_indices)
    grown = np.zeros((frames, cells))
    if growth is not None:
        grown[:, layout.visible] = growth
    spacing = _tracking(layout, composites, frames) / 1000
    seen = _seen(layout, composites, frames) if title.hold_center else None
    left = np.zeros((frames, cells))
    for row in layout.rows:
        more = spacing[:, row.cells] * row.sizes + grown[:, row.cells]
        more[:, -1] = grown[:, row.cells[-1]]  # the end of a line is spaced from nothing
        shifts = np.cumsum(more, axis=1) - more
        shifts -= more.sum(axis=1, keepdims=True) * row.share
        if seen is not None:
            shifts += _held(row, row.pitches + more, seen[:, row.cells])
        left[:, row.cells] = shifts
    left, grown = left[:, layout.visible], grown[:, layout.visible]
    return Reflow(left, left + grown)


def _tracking(layout: Layout, composites: dict[str, Composite], frames: int) -> np.ndarray:
    """The tracking that moves add up to, for all characters, (frames, cells).

    White space has what its line and title have; what characters and words have, only if it takes
    part.
    """
    total = np.zeros((frames, len(layout.cell_indices)))
    for kind, composite in composites.items():
        if composite.cell_tracking is not None:
            total += composite.cell_tracking
        elif "tracking" in composite.values and kind in ("line", "title"):
            total += composite.values["tracking"][:, layout.cell_member[kind]]
        elif "tracking" in composite.values:
            total[:, layout.visible] += composite.of_characters("tracking")
    return total


def _growth(layout: Layout, composites: dict[str, Composite]) -> np.ndarray | None:
    """How much wider each character is by its moved axes, (frames, characters) in px."""
    moved = moved_axes(composites)
    if not moved:
        return None
    tags = sorted(moved)
    stacked = np.stack([moved[tag] for tag in tags], axis=-1)
    growth = np.zeros(stacked.shape[:2])
    for number, character in enumerate(layout.characters):
        changes, index = np.unique(np.round(stacked[:, number], 3), axis=0, return_inverse=True)
        widths = [
            sum(
                (g.part.moved(tuple(zip(tags, change, strict=True))).advance(g.number)
                 - g.part.advance(g.number)) * g.scale
                for g in character.glyphs
            )
            for change in changes.tolist()
        ]  # fmt: skip
        growth[:, number] = np.array(widths)[index.reshape(-1)]
    return growth


def moved_axes(composites: dict[str, Composite]) -> dict[str, np.ndarray]:
    """By tag, how far the moves of all kinds take the axes of each character, (frames, n)."""
    moved: dict[str, np.ndarray] = {}
    for composite in reversed(composites.values()):
        for name in composite.values:
            if name.startswith("axes."):
                tag = name.removeprefix("axes.")
                moved[tag] = moved.get(tag, 0.0) + composite.of_characters(name)
    return moved


def _seen(layout: Layout, composites: dict[str, Composite], frames: int) -> np.ndarray:
    """How much is seen of each cell after the moves of characters and words, (frames, cells).

    What a whole line or title does leaves its middle where it is. White space is seen as much as
    the less seen of its neighbours, so that it does not count before what stands behind it.
    """
    seen = np.ones((frames, len(layout.characters)))
    for composite in reversed(composites.values()):
        if composite.kind in ("character", "word"):
            seen = seen * composite.of_characters("opacity")
    cells = np.ones((frames, len(layout.cell_indices)))
    cells[:, layout.visible] = seen
    blank = np.setdiff1d(np.arange(cells.shape[1]), layout.visible)
    if len(layout.visible):
        after = np.searchsorted(layout.visible, blank)
        before = np.maximum(after - 1, 0)
        after = np.minimum(after, len(layout.visible) - 1)
        cells[:, blank] = np.minimum(seen[:, before], seen[:, after])
    return cells


def _held(row: Row, pitches: np.ndarray, seen: np.ndarray) -> np.ndarray:
    """The shift that keeps what is seen of a line in its middle, (frames, 1)."""
    unseen = (pitches * (1 - seen)).sum(axis=1, keepdims=True)
    return row.sign * unseen / 2
