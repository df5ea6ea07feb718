"""When the turns of units come in a move, and what goes by them: clicks, and the caret."""

from typing import NamedTuple

import numpy as np

from ..lettering.layout import UNIT_KINDS, Layout, lay_out
from ..scene.document import Scene
from ..scene.layers.clicks import ClicksLayer
from ..scene.layers.title import Title
from ..scene.letters.caret import Caret
from ..scene.moving.moves import Move
from .spaces.layer_motion import units_of_move
from .stagger import delays_of
from .units import cells_among, part_of

_TOGETHER = 1e-6  # frames within which turns are at the same moment


def turns_of(scene: Scene, title: Title, layout: Layout, move: Move) -> np.ndarray:
    """The frame at which the turn of each unit comes: the start of the move and its delay, (n,)."""
    units = units_of_move(scene, title, move)
    turns: np.ndarray = move.start + delays_of(move.stagger, units)
    return turns


class Clicks(NamedTuple):
    """The clicks of a layer: frames, in order, and the first unit that each is of."""

    frames: np.ndarray
    units: np.ndarray


def clicks_of(scene: Scene, layer: ClicksLayer) -> Clicks:
    """When clicks are heard: at the turn of each unit, those at the same moment once. None if the
    title or its move is not there any more."""
    found = _title_and_move(scene, layer)
    if found is None:
        return Clicks(np.zeros(0), np.zeros(0, dtype=int))
    title, move = found
    layout = lay_out(scene, title)
    turns = turns_of(scene, title, layout, move)
    units = np.arange(len(turns))
    if move.spaces and move.unit == "character" and not layer.spaces:
        units = np.flatnonzero(np.isin(cells_among(layout, move.among), layout.visible))
    order = units[np.argsort(turns[units], kind="stable")]
    frames = turns[order]
    is_first = np.concatenate([[True], np.diff(frames) > _TOGETHER])[: len(frames)]
    return Clicks(frames[is_first], order[is_first])


def _title_and_move(scene: Scene, layer: ClicksLayer) -> tuple[Title, Move] | None:
    title = next((each for each in scene.layers if each.id == layer.of_title), None)
    if not isinstance(title, Title):
        return None
    move = next((each for each in title.moves if each.id == layer.move), None)
    return None if move is None else (title, move)


class CaretPlace(NamedTuple):
    """Where a caret stands at a time in the space of its title: across, and from top to bottom."""

    x: float
    top: float
    bottom: float


def caret_at(
    scene: Scene, title: Title, layout: Layout, caret: Caret, time: float
) -> CaretPlace | None:
    """The caret of a title at a time: behind the last unit in reading order whose turn has come, or
    at the start of the first line. None while it is not seen: after a turn it is seen for one
    blink, then for half of each."""
    move = next((each for each in title.moves if each.id == caret.move), None)
    first = title.span[0] if caret.first is None else caret.first
    is_over = caret.end is not None and time >= caret.end
    is_of_letters = move is not None and move.unit in UNIT_KINDS and len(layout.characters)
    if move is None or not is_of_letters or time < first or is_over:
        return None
    turns, letters = _letters_by_unit(scene, title, layout, move)
    has_come = turns <= time + _TOGETHER
    since = time - max(float(turns[has_come].max()) if has_come.any() else first, first)
    if not _is_on(since / float(scene.frames_a_second), caret.blink):
        return None
    if not has_come.any():
        return _beside(layout, 0, is_before=True)
    return _beside(layout, max(letters[unit] for unit in np.flatnonzero(has_come)))


def _letters_by_unit(
    scene: Scene, title: Title, layout: Layout, move: Move
) -> tuple[np.ndarray, list[int]]:
    """The turns of units, and the last letter in reading order of each; white space counts as the
    letter before it."""
    turns = turns_of(scene, title, layout, move)
    if move.spaces and move.unit == "character":
        cells = cells_among(layout, move.among)
        places = np.searchsorted(layout.visible, cells, side="right") - 1
        return turns, np.maximum(places, 0).tolist()
    part = part_of(layout, move.unit, move.among)
    last = np.zeros(len(part.boxes), dtype=int)
    np.maximum.at(last, part.member, part.letters)
    return turns, last.tolist()


def _is_on(seconds: float, blink: float) -> bool:
    """Whether a caret is seen so long after a turn."""
    return seconds < blink or (seconds - blink) % blink >= blink / 2


def _beside(layout: Layout, letter: int, is_before: bool = False) -> CaretPlace:
    """Behind a letter, or before it, as high as its line."""
    left, _, right, _ = layout.boxes["character"][letter].tolist()
    line = int(layout.member["line"][letter])
    _, top, _, bottom = layout.boxes["line"][line].tolist()
    return CaretPlace(left if is_before else right, top, bottom)
