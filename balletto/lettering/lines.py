"""Lines: where a title is broken, and where each character stands on its line."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

from uniseg.linebreak import line_break_units

from ..scene.layers.title import Title
from .bidi import visual_order
from .faces import likely_language
from .families import Families
from .setting import Setting, setting, settings_of
from .shaping import Cell, shape_paragraph
from .units import is_blank

_LINE_ENDS = ("\n", "\r\n", "\r", "\u2028", "\u2029")
# Where in the room beside a line its start lies.
SHARES = {"left": 0.0, "center": 0.5, "right": 1.0}


@dataclass
class SetLine:
    """A line as set: its cells in reading order, and the indices from left to right of those that
    are aligned."""

    cells: list[Cell]
    order: list[int]
    base: int
    ascent: float
    descent: float
    height: float
    baseline: float = 0.0


def set_lines(title: Title, families: Families, characters: tuple[str, ...]) -> list[SetLine]:
    """The lines of a title."""
    settings = settings_of(title, families, len(characters))
    lines = []
    for cells in _paragraphs(characters, settings):
        base = shape_paragraph(cells, keeps_ligatures(title)) if cells else 0
        for part in _broken(cells, title.style.wrap):
            lines.append(_line(part, base, title, setting(families, title.style)))
    _stack(lines)
    return lines


def _paragraphs(characters: tuple[str, ...], settings: list[Setting]) -> Iterator[list[Cell]]:
    cells: list[Cell] = []
    usual = likely_language("".join(characters))
    for index, character in enumerate(characters):
        if character in _LINE_ENDS:
            yield cells
            cells = []
        else:
            own = settings[index]
            found = own.face.part_for(character, own.language or usual)
            cells.append(Cell(character, index, own, found))
    yield cells


def keeps_ligatures(title: Title) -> bool:
    """Characters that move apart must not be joined."""
    return not any(
        move.on and (move.unit == "character" or "tracking" in move.pose.given)
        for move in title.moves
    )


def _broken(cells: list[Cell], width: float | None) -> Iterator[list[Cell]]:
    """A paragraph as lines no wider than `width` px, broken where UAX 14 allows it.

    White space at the end of a line may stand out; what is too wide for a line of its own is
    broken between characters.
    """
    if width is None or not cells:
        yield cells
        return
    line: list[Cell] = []
    taken = 0.0  # the pitches of the line so far
    for unit in _break_units(cells):
        needed = _width(unit)
        if line and needed and taken + needed > width:
            yield line
            line, taken = [], 0.0
        for cell in unit:
            if line and not is_blank(cell.text) and taken + cell.advance > width:
                yield line
                line, taken = [], 0.0
            line.append(cell)
            taken += cell.pitch
    yield line


def _break_units(cells: list[Cell]) -> Iterator[list[Cell]]:
    index = 0
    for unit in _units_of("".join(cell.text for cell in cells)):
        start, length = index, 0
        while length < len(unit) and index < len(cells):
            length += len(cells[index].text)
            index += 1
        yield cells[start:index]


@lru_cache(maxsize=256)
def _units_of(text: str) -> tuple[str, ...]:
    """What a text may be broken into; finding it takes longer than all the rest of a line."""
    return tuple(line_break_units(text))


def _width(cells: list[Cell]) -> float:
    """The width of cells: without the white space at their end and what follows the last letter."""
    end = len(cells)
    while end and is_blank(cells[end - 1].text):
        end -= 1
    if not end:
        return 0.0
    return sum(cell.pitch for cell in cells[:end]) - cells[end - 1].setting.spacing


def _line(cells: list[Cell], base: int, title: Title, own: Setting) -> SetLine:
    order = visual_order(_line_levels(cells, base))
    x = 0.0
    for index in order:
        cells[index].x = x
        x += cells[index].pitch
    order = _aligned(cells, order, title.style.wrap is not None)
    if order:
        left = cells[order[0]].x
        right = cells[order[-1]].x + cells[order[-1]].advance
        shift = left + (right - left) * SHARES[title.style.align]
        for cell in cells:
            cell.x -= shift
    settings = {id(cell.setting): cell.setting for cell in cells}.values() or [own]
    return SetLine(
        cells,
        order,
        base,
        ascent=max(setting.ascent for setting in settings),
        descent=max(setting.descent for setting in settings),
        height=max(setting.size for setting in settings) * title.style.leading,
    )


def _line_levels(cells: list[Cell], base: int) -> list[int]:
    """Levels on a line: white space at its end runs the way of the paragraph (rule L1)."""
    levels = [cell.level for cell in cells]
    for index in range(len(cells) - 1, -1, -1):
        if not is_blank(cells[index].text):
            break
        levels[index] = base
    return levels


def _aligned(cells: list[Cell], order: list[int], is_wrapped: bool) -> list[int]:
    """The indices that are aligned: where lines are broken, not the white space at either end."""
    if not is_wrapped:
        return order
    inked = [number for number, index in enumerate(order) if not is_blank(cells[index].text)]
    return order[inked[0] : inked[-1] + 1] if inked else order


def _stack(lines: list[SetLine]) -> None:
    """Gives each line its baseline, the middle of the whole block at y = 0."""
    baseline = 0.0
    for line in lines[1:]:
        baseline += line.height
        line.baseline = baseline
    middle = (lines[-1].baseline + lines[-1].descent - lines[0].ascent) / 2
    for line in lines:
        line.baseline -= middle
