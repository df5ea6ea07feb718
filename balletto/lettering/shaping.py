"""Shaping: from characters and their settings to glyphs and advances, by HarfBuzz.

A paragraph is shaped in runs of one setting, font file, script and direction, so that letters which
join find each other; lines are broken afterwards.
"""

from dataclasses import dataclass, replace
from functools import cached_property
from itertools import groupby

import uharfbuzz as hb
from fontTools.unicodedata import script

from .bidi import levels_of
from .faces import Command, Extents, FacePart, Found
from .setting import Setting

_JOINING = ("liga", "clig", "dlig", "hlig")
_NO_SCRIPT = ("Zyyy", "Zinh", "Zzzz")


@dataclass(frozen=True)
class Glyph:
    """A glyph of a font file, drawn at `x`, `y` px times `scale` (px for a font unit)."""

    part: FacePart
    number: int
    x: float
    y: float
    scale: float

    @cached_property
    def commands(self) -> tuple[Command, ...]:
        """The outline, in font units, y up."""
        return self.part.outline(self.number)

    @cached_property
    def extents(self) -> Extents:
        """The box of the outline, in font units, y up."""
        return self.part.extents(self.number)

    @property
    def is_colored(self) -> bool:
        """Whether it has colours of its own."""
        return self.part.color_kind(self.number) is not None

    def shifted(self, x: float, y: float) -> "Glyph":
        return replace(self, x=self.x + x, y=self.y + y)


@dataclass
class Cell:
    """A character while its line is set; x from the line's start, y from its baseline, in px."""

    text: str
    index: int
    setting: Setting
    found: Found
    level: int = 0
    script: str = "Zyyy"
    advance: float = 0.0
    x: float = 0.0
    glyphs: tuple[Glyph, ...] = ()

    @property
    def pitch(self) -> float:
        """From this character to the next: the advance and what tracking adds."""
        return self.advance + self.setting.spacing

    @property
    def scale(self) -> float:
        return self.setting.size / self.found.part.units


def shape_paragraph(cells: list[Cell], ligatures: bool) -> int:
    """Gives cells their level, glyphs and advance; returns the base level of the paragraph."""
    base, levels = levels_of("".join(cell.text for cell in cells))
    point = 0
    last = "Zyyy"
    for cell in cells:
        cell.level = levels[point]
        point += len(cell.text)
        # Signs that any script uses go with the letters before them.
        own = script(cell.text[0])
        last = cell.script = last if own in _NO_SCRIPT else own

    def run_of(cell: Cell) -> tuple[int, int, str, int]:
        return id(cell.setting), id(cell.found.part), cell.script, cell.level

    for _, run in groupby(cells, key=run_of):
        _shape(list(run), ligatures)
    return base


def _shape(run: list[Cell], ligatures: bool) -> None:
    """Shapes cells of one run, and gives each its advance and glyphs."""
    first = run[0]
    part, scale = first.found.part, first.scale
    buffer = hb.Buffer()
    buffer.add_codepoints([ord(point) for cell in run for point in cell.text])
    buffer.direction = "rtl" if first.level % 2 else "ltr"
    buffer.script = first.script
    # Not that of the machine: a scene looks the same everywhere.
    buffer.language = first.setting.language or "und"
    features = dict(first.setting.features)
    if not ligatures or first.setting.tracking != 0:
        # What stands for several letters could not move apart.
        features |= dict.fromkeys(_JOINING, False)
    hb.shape(part.font, buffer, features)
    cell_of = [number for number, cell in enumerate(run) for _ in cell.text]
    glyphs: dict[int, list[Glyph]] = {}
    pen = [0.0] * len(run)
    for info, position in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
        number = cell_of[info.cluster]
        x = (pen[number] + position.x_offset) * scale
        glyph = Glyph(part, info.codepoint, x, -position.y_offset * scale, scale)
        glyphs.setdefault(number, []).append(glyph)
        pen[number] += position.x_advance
    for number, cell in enumerate(run):
        cell.advance = pen[number] * scale
        cell.glyphs = tuple(glyphs.get(number, ()))
    _share_ligatures(run, sorted(glyphs))


def _share_ligatures(run: list[Cell], starts: list[int]) -> None:
    """A ligature is drawn with its first character; its advance is shared by all it stands for."""
    for start, end in zip(starts, [*starts[1:], len(run)], strict=True):
        count = end - start
        share = run[start].advance / count
        for cell in run[start:end]:
            cell.advance = share
        if count > 1 and run[start].level % 2:
            # Running to the left, the first character is the rightmost of them.
            first = run[start]
            first.glyphs = tuple(g.shifted(-share * (count - 1), 0) for g in first.glyphs)
