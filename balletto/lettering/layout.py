"""Setting a title: from its text and style to characters with their place, box and outline.

Title space: pixels, y down. x = 0 is the edge or centre that the lines are aligned to; y = 0 is
the middle of the block, from the ascent of its first line to the descent of its last.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import groupby

import numpy as np
import uharfbuzz as hb

from ..scene.characters import characters_of
from ..scene.document import Style, Title
from .faces import Command, Extents, Face, face, resting_axes
from .units import is_blank, words_of

UNIT_KINDS = ("character", "word", "line", "title")


@dataclass(frozen=True)
class Glyph:
    """An outline and its extents, in font units (y up), drawn at `x`, `y` times `scale`."""

    commands: tuple[Command, ...]
    x: float
    y: float
    scale: float
    extents: Extents


@dataclass(frozen=True)
class Character:
    """One visible character: where it stands in the text, what it belongs to, what draws it."""

    text: str
    place: int
    word: int
    line: int
    fill: str
    glyphs: tuple[Glyph, ...]


@dataclass(frozen=True)
class Layout:
    """A title as set. Arrays are read-only.

    text: all characters of the title, white space included
    boxes: for each unit kind (n, 4): left, top, right, bottom of the rest boxes, in title space
    centers: for each unit kind (n, 2): the middles of these boxes
    ink: (characters, 4): left, top, right, bottom of what is drawn of each character
    member: for each unit kind (characters,): the index of the unit that a character belongs to
    """

    text: tuple[str, ...]
    characters: tuple[Character, ...]
    boxes: dict[str, np.ndarray]
    centers: dict[str, np.ndarray]
    ink: np.ndarray
    member: dict[str, np.ndarray]

    def count(self, kind: str) -> int:
        """How many units of a kind take part."""
        return len(self.boxes[kind])

    def texts(self, kind: str) -> list[str]:
        """The words of each unit of a kind, with the white space within it as one space."""
        places: dict[int, list[int]] = {}
        for character, unit in zip(self.characters, self.member[kind].tolist(), strict=True):
            places.setdefault(unit, []).append(character.place)
        texts = ["".join(self.text[span[0] : span[-1] + 1]) for span in places.values()]
        return [" ".join(text.split()) for text in texts]


@dataclass(frozen=True)
class _Setting:
    """The style of one character of the text, resolved."""

    face: Face
    size: float
    tracking: float
    fill: str

    @property
    def scale(self) -> float:
        return self.size / self.face.units


# A glyph on its line: outline and extents, and its place from the cell and the baseline.
_Drawn = tuple[tuple[Command, ...], Extents, float, float]


@dataclass
class _Cell:
    """A character on its line while the line is set; y is measured from the baseline."""

    place: int
    setting: _Setting
    advance: float = 0.0
    x: float = 0.0
    glyphs: tuple[_Drawn, ...] = ()


@dataclass
class _Line:
    cells: list[_Cell]
    ascent: float
    descent: float
    height: float
    baseline: float = 0.0


def lay_out(title: Title) -> Layout:
    """Sets a title. UnknownFont if a font of its style or runs is not shipped."""
    characters = characters_of(title.text)
    settings = _settings(title, len(characters))
    lines = [
        _set_line(cells, title.style, characters, _keeps_ligatures(title))
        for cells in _split_lines(characters, settings)
    ]
    _stack(lines)
    return _assemble(characters, lines)


def _settings(title: Title, count: int) -> list[_Setting]:
    plain = _setting(title.style, None)
    settings = [plain] * count
    for run in title.runs:
        own = _setting(title.style, run.style)
        settings[run.first : run.end] = [own] * len(settings[run.first : run.end])
    return settings


def _setting(style: Style, own: object) -> _Setting:
    def said(name: str) -> object:
        value = getattr(own, name, None)
        return getattr(style, name) if value is None else value

    size = said("size")
    axes = {**resting_axes(said("font"), size), **style.axes, **(own.axes if own else {})}
    return _Setting(
        face(said("font"), tuple(sorted(axes.items()))), size, said("tracking"), said("fill")
    )


def _keeps_ligatures(title: Title) -> bool:
    """Characters that move apart must not be joined."""
    return not any(move.on and move.unit == "character" for move in title.moves)


def _split_lines(characters: tuple[str, ...], settings: list[_Setting]) -> Iterator[list[_Cell]]:
    cells: list[_Cell] = []
    for place, character in enumerate(characters):
        if character in ("\n", "\r\n", "\r", "\u2028", "\u2029"):
            yield cells
            cells = []
        else:
            cells.append(_Cell(place, settings[place]))
    yield cells


def _set_line(
    cells: list[_Cell], style: Style, characters: tuple[str, ...], ligatures: bool
) -> _Line:
    def run_of(cell: _Cell) -> tuple[int, int]:
        return id(cell.setting), cell.setting.face.part_for(characters[cell.place])

    for (_, part), run in groupby(cells, key=run_of):
        _shape(list(run), characters, part, ligatures)
    x = 0.0
    for cell in cells:
        cell.x = x
        x += cell.advance + cell.setting.tracking / 1000 * cell.setting.size
    width = x - (cells[-1].setting.tracking / 1000 * cells[-1].setting.size if cells else 0)
    shift = {"left": 0.0, "center": width / 2, "right": width}[style.align]
    for cell in cells:
        cell.x -= shift
    settings = {id(cell.setting): cell.setting for cell in cells}.values() or [
        _setting(style, None)
    ]
    return _Line(
        cells,
        ascent=max(setting.face.ascent * setting.scale for setting in settings),
        descent=max(setting.face.descent * setting.scale for setting in settings),
        height=max(setting.size for setting in settings) * style.leading,
    )


def _shape(run: list[_Cell], characters: tuple[str, ...], part: int, ligatures: bool) -> None:
    """Shapes cells of one setting and font file, and gives each its advance and glyphs."""
    setting = run[0].setting
    source = setting.face.parts[part]
    buffer = hb.Buffer()
    texts = [characters[cell.place] for cell in run]
    buffer.add_codepoints([ord(point) for text in texts for point in text])
    cell_of = [number for number, text in enumerate(texts) for _ in text]
    buffer.guess_segment_properties()
    ligatures = ligatures and setting.tracking == 0
    hb.shape(source.font, buffer, {"liga": ligatures, "clig": ligatures})
    clusters: dict[int, list[_Drawn]] = {}
    pen = [0.0] * len(run)
    for info, position in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
        number = cell_of[info.cluster]
        at = pen[number] + position.x_offset
        outline, extents = source.outline(info.codepoint), source.extents(info.codepoint)
        clusters.setdefault(number, []).append((outline, extents, at, position.y_offset))
        pen[number] += position.x_advance
    _share_ligatures(pen, clusters)
    for number, cell in enumerate(run):
        cell.advance = pen[number] * setting.scale
        cell.glyphs = tuple(clusters.get(number, ()))


def _share_ligatures(pen: list[float], clusters: dict) -> None:
    """A ligature is drawn with its first character; its advance is shared by all it stands for."""
    starts = sorted(clusters)
    for start, end in zip(starts, [*starts[1:], len(pen)], strict=True):
        share = pen[start] / (end - start)
        pen[start:end] = [share] * (end - start)


def _stack(lines: list[_Line]) -> None:
    """Gives each line its baseline, the middle of the whole block at y = 0."""
    baseline = 0.0
    for line in lines[1:]:
        baseline += line.height
        line.baseline = baseline
    middle = (lines[-1].baseline + lines[-1].descent - lines[0].ascent) / 2
    for line in lines:
        line.baseline -= middle


def _assemble(characters: tuple[str, ...], lines: list[_Line]) -> Layout:
    words = words_of(characters)
    visible: list[Character] = []
    boxes: list[tuple[float, float, float, float]] = []
    numbers: list[int] = []  # of the lines that show anything
    for line in lines:
        shown = [cell for cell in line.cells if not is_blank(characters[cell.place])]
        number = len(numbers)
        numbers += [number] if shown else []
        for cell in shown:
            visible.append(
                _character(cell, line.baseline, characters[cell.place], words[cell.place], number)
            )
            boxes.append(_box(cell, line.baseline))
    member = {
        "character": np.arange(len(visible)),
        "word": np.array([character.word for character in visible], dtype=int),
        "line": np.array([character.line for character in visible], dtype=int),
        "title": np.zeros(len(visible), dtype=int),
    }
    cells = np.array(boxes, dtype=float).reshape(-1, 4)
    unions = {kind: _unions(cells, member[kind]) for kind in UNIT_KINDS}
    centers = {kind: (boxes[:, :2] + boxes[:, 2:]) / 2 for kind, boxes in unions.items()}
    ink = np.array([_ink(character) for character in visible], dtype=float).reshape(-1, 4)
    return Layout(characters, tuple(visible), unions, centers, ink, member)


def _character(cell: _Cell, baseline: float, text: str, word: int, line: int) -> Character:
    scale = cell.setting.scale
    glyphs = tuple(
        Glyph(commands, cell.x + x * scale, baseline - y * scale, scale, extents)
        for commands, extents, x, y in cell.glyphs
        if commands
    )
    return Character(text, cell.place, word, line, cell.setting.fill, glyphs)


def _ink(character: Character) -> tuple[float, float, float, float]:
    """Where a character is drawn: left, top, right, bottom; empty at (0, 0) if nothing is."""
    if not character.glyphs:
        return 0.0, 0.0, 0.0, 0.0
    boxes = [
        (g.x + left * g.scale, g.y - top * g.scale, g.x + right * g.scale, g.y - bottom * g.scale)
        for g in character.glyphs
        for left, bottom, right, top in (g.extents,)
    ]
    lefts, tops, rights, bottoms = zip(*boxes, strict=True)
    return min(lefts), min(tops), max(rights), max(bottoms)


def _box(cell: _Cell, baseline: float) -> tuple[float, float, float, float]:
    top = baseline - cell.setting.face.ascent * cell.setting.scale
    bottom = baseline + cell.setting.face.descent * cell.setting.scale
    return cell.x, top, cell.x + cell.advance, bottom


def _unions(cells: np.ndarray, member: np.ndarray) -> np.ndarray:
    count = int(member.max()) + 1 if len(member) else 0
    union = np.tile([np.inf, np.inf, -np.inf, -np.inf], (count, 1))
    np.minimum.at(union, (member, slice(0, 2)), cells[:, :2])
    np.maximum.at(union, (member, slice(2, 4)), cells[:, 2:])
    union.flags.writeable = False
    return union
