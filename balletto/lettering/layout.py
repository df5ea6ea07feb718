"""Setting a title: from its text and style to characters with their place, box and outline.

Title space: pixels, y down. x = 0 is the edge or centre that the lines are aligned to; y = 0 is
the middle of the block, from the ascent of its first line to the descent of its last.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cached_property, lru_cache
from typing import Any

import numpy as np

from ..scene.document import Scene
from ..scene.layers.title import Title
from ..scene.letters.characters import characters_of
from .families import Families
from .fitting import fitted
from .lines import SHARES, SetLine, keeps_ligatures, set_lines
from .own_fonts import families_of
from .setting import Setting
from .shaping import Cell, Glyph
from .units import is_blank, words_of

UNIT_KINDS = ("character", "word", "line", "title")


KEPT = 128  # layouts that are kept, those asked for last


@dataclass(frozen=True)
class Character:
    """One visible character: where it stands in the text, what it belongs to, what draws it.

    family: the font it is set in, None where no font has its glyph
    """

    text: str
    index: int
    word: int
    line: int
    setting: Setting
    family: str | None
    glyphs: tuple[Glyph, ...]

    @property
    def fill(self) -> Any:
        return self.setting.fill

    @cached_property
    def is_colored(self) -> bool:
        """Whether it has colours of its own, in part at least."""
        return any(glyph.is_colored for glyph in self.glyphs)


@dataclass(frozen=True)
class Row:
    """A line that shows something, from left to right, as far as it is aligned.

    cells: (k,) the indices of its cells among all cells of the title
    pitches: (k,) px from each to the next, of the last its advance; sizes: (k,) px of type
    share: of the room beside the line that is left of it
    sign: 1 if it runs to the right, -1 if to the left
    """

    cells: np.ndarray
    pitches: np.ndarray
    sizes: np.ndarray
    share: float
    sign: int


@dataclass(frozen=True, eq=False)
class Layout:
    """A title as set, told from others by itself. Arrays are read-only.

    text: all characters of the title, white space included
    boxes: for each unit kind (n, 4): left, top, right, bottom of the rest boxes, in title space
    centers: for each unit kind (n, 2): the middles of these boxes
    ink: (characters, 4): left, top, right, bottom of what is drawn of each character
    member: for each unit kind (characters,): the index of the unit that a character belongs to
    edges: for each unit kind (n, 2): its leftmost and its rightmost character
    rows: the lines; their cells are the visible characters and the white space
    cell_centers, cell_member: the same of all cells, (cells, 2) and (cells,); white space counts to
    the word before it
    visible: (characters,): the indices of the visible characters among all cells
    baseline: y of the baseline of the first line
    """

    text: tuple[str, ...]
    characters: tuple[Character, ...]
    boxes: dict[str, np.ndarray]
    centers: dict[str, np.ndarray]
    ink: np.ndarray
    member: dict[str, np.ndarray]
    edges: dict[str, np.ndarray]
    rows: tuple[Row, ...]
    cell_centers: np.ndarray
    cell_member: dict[str, np.ndarray]
    visible: np.ndarray
    cell_indices: tuple[int, ...]
    baseline: float = 0.0

    def count(self, kind: str) -> int:
        """How many units of a kind take part."""
        return len(self.boxes[kind])

    def texts(self, kind: str, spaces: bool = False) -> list[str]:
        """The words of each unit of a kind, with the white space within it as one space."""
        if spaces and kind == "character":
            return [self.text[index] for index in self.cell_indices]
        indices: dict[int, list[int]] = {}
        for character, unit in zip(self.characters, self.member[kind].tolist(), strict=True):
            indices.setdefault(unit, []).append(character.index)
        texts = ["".join(self.text[span[0] : span[-1] + 1]) for span in indices.values()]
        return [" ".join(text.split()) for text in texts]


def lay_out(scene: Scene, title: Title) -> Layout:
    """Sets a title in the fonts at hand in a scene; others stand in for those that are not.

    A title whose words and style are those of one that was set lately is not set again.
    """
    said = title.model_dump_json(include={"text", "style", "runs"})
    families = families_of(scene)
    key = (said, keeps_ligatures(title), families.state)
    return _laid_out(_Asked(key, title, families))


@dataclass(frozen=True)
class _Asked:
    """A title, told from others by what its layout depends on."""

    key: tuple[str, bool, str]
    title: Title = field(compare=False)
    families: Families = field(compare=False)


@lru_cache(maxsize=KEPT)
def _laid_out(asked: _Asked) -> Layout:
    characters = characters_of(asked.title.text)
    title = fitted(asked.title, asked.families, characters)
    lines = [line for line in set_lines(title, asked.families, characters) if _shows(line)]
    words = words_of(characters)
    cells = [(cell, line, number) for number, line in enumerate(lines) for cell in line.cells]
    is_seen = np.array([not is_blank(cell.text) for cell, _, _ in cells], dtype=bool)
    visible = np.flatnonzero(is_seen)
    cell_boxes = np.array([_box(cell, line) for cell, line, _ in cells], float).reshape(-1, 4)
    cell_member = _members([words[cell.index] for cell, _, _ in cells], [n for _, _, n in cells])
    shown = tuple(
        _character(*cells[index], words[cells[index][0].index]) for index in visible.tolist()
    )
    member = {kind: of[visible] for kind, of in cell_member.items()}
    member["character"] = np.arange(len(shown))
    boxes = {kind: unions(cell_boxes[visible], member[kind]) for kind in UNIT_KINDS}
    return Layout(
        characters,
        shown,
        boxes,
        {kind: _centers(box) for kind, box in boxes.items()},
        np.array([ink_of(each.glyphs) for each in shown], dtype=float).reshape(-1, 4),
        member,
        {kind: edges_of(cell_boxes[visible], member[kind]) for kind in UNIT_KINDS},
        tuple(_rows(lines, SHARES[title.style.align])),
        _centers(cell_boxes),
        cell_member,
        visible,
        tuple(cell.index for cell, _, _ in cells),
        lines[0].baseline if lines else 0.0,
    )


def _shows(line: SetLine) -> bool:
    return any(not is_blank(cell.text) for cell in line.cells)


def _members(words: list[int], lines: list[int]) -> dict[str, np.ndarray]:
    """Which word and line each cell is in; white space goes with the word before it."""
    last = 0
    for index, word in enumerate(words):
        last = words[index] = last if word < 0 else word
    return {
        "character": np.arange(len(words)),
        "word": np.array(words, dtype=int),
        "line": np.array(lines, dtype=int),
        "title": np.zeros(len(words), dtype=int),
    }


def _rows(lines: list[SetLine], share: float) -> list[Row]:
    rows, start = [], 0
    for line in lines:
        cells = [line.cells[index] for index in line.order]
        pitches = [cell.pitch for cell in cells]
        rows.append(
            Row(
                start + np.array(line.order, dtype=int),
                np.array([*pitches[:-1], cells[-1].advance]),
                np.array([cell.setting.size for cell in cells]),
                share,
                -1 if line.base % 2 else 1,
            )
        )
        start += len(line.cells)
    return rows


def _character(cell: Cell, line: SetLine, number: int, word: int) -> Character:
    glyphs = tuple(
        g.shifted(cell.x, line.baseline) for g in cell.glyphs if g.commands or g.is_colored
    )
    return Character(cell.text, cell.index, word, number, cell.setting, cell.found.family, glyphs)


def ink_of(glyphs: Sequence[Glyph]) -> tuple[float, float, float, float]:
    """Where glyphs are drawn: left, top, right, bottom; empty at (0, 0) if nothing is."""
    if not glyphs:
        return 0.0, 0.0, 0.0, 0.0
    boxes = [
        (g.x + left * g.scale, g.y - top * g.scale, g.x + right * g.scale, g.y - bottom * g.scale)
        for g in glyphs
        for left, bottom, right, top in (g.extents,)
    ]
    lefts, tops, rights, bottoms = zip(*boxes, strict=True)
    return min(lefts), min(tops), max(rights), max(bottoms)


def _box(cell: Cell, line: SetLine) -> tuple[float, float, float, float]:
    top = line.baseline - cell.setting.ascent
    return cell.x, top, cell.x + cell.advance, line.baseline + cell.setting.descent


def _centers(boxes: np.ndarray) -> np.ndarray:
    return (boxes[:, :2] + boxes[:, 2:]) / 2


def unions(boxes: np.ndarray, member: np.ndarray) -> np.ndarray:
    """The boxes around those (k, 4) that belong together, (n, 4), read-only; member: (k,)."""
    count = int(member.max()) + 1 if len(member) else 0
    union = np.tile([np.inf, np.inf, -np.inf, -np.inf], (count, 1))
    np.minimum.at(union[:, :2], member, boxes[:, :2])
    np.maximum.at(union[:, 2:], member, boxes[:, 2:])
    union.flags.writeable = False
    return union


def edges_of(boxes: np.ndarray, member: np.ndarray) -> np.ndarray:
    """The leftmost and the rightmost character of each unit."""
    count = int(member.max()) + 1 if len(member) else 0
    edges = np.zeros((count, 2), dtype=int)
    # Assigned from one end to the other, the last assignment of each unit stands.
    from_right = np.argsort(-boxes[:, 0], kind="stable")
    edges[member[from_right], 0] = from_right
    from_left = np.argsort(boxes[:, 2], kind="stable")
    edges[member[from_left], 1] = from_left
    return edges
