"""Titles: their letters in any frame, as moves, trails and displacements have
them."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from itertools import starmap
from typing import Any, ClassVar

import numpy as np

from ...lettering.layout import KEPT, Layout, ink_of, lay_out, unions
from ...lettering.shaping import Glyph
from ...motion.becoming import Ways, ways_of
from ...motion.evaluate import compose
from ...motion.reflow import moved_axes
from ...motion.spaces.along import text_path
from ...motion.spaces.layer_motion import moved_matrices
from ...motion.spaces.matrices import place
from ...motion.turns import caret_at
from ...scene.document import Scene
from ...scene.effects.displace import Displace
from ...scene.effects.hatch import Hatch
from ...scene.effects.shadow import Shadow
from ...scene.effects.trail import Trail
from ...scene.forms.primitives import polygon
from ...scene.layers.title import Title
from ...scene.values.tracks import changes_over_time, value_at
from ..canvases.canvas import UNSEEN, Canvas, DrawItem, SeenWindow
from ..composing.boxes import around, boxes_of, widened
from ..composing.compositing import Drawn
from ..composing.effect_values import (
    as_copies,
    displacement_at,
    further,
    shadow_at,
    trail_of,
    values_of,
    with_shadows,
)
from ..composing.look import mixed_photo
from ..letterforms.appearance import Appearance, appearance_of
from ..letterforms.becoming import becoming, fills_on_the_way, middles_on_the_way
from ..letterforms.color_glyphs import color_photo
from ..letterforms.hatched import hatched, hatching_at
from ..letterforms.outlines import Commands, displaced, of_glyphs
from ..letterforms.windows import windows_at
from ..pixels.bitmaps import Box, Photo
from .base import Prepare, PreparedLayer, RestBox

# Frames are worked out so many at a time: that costs little more than one, and as a rule the
# next frame that is asked for is the next one.
BLOCK = 16
# Outlines at moved axes, or displaced, that a title keeps: those of a few seconds, not of a clip.
MOST_MOVED = 4096
_DRESSING = (Displace, Hatch, Shadow)  # effects that are of the letters, not of what they make
_NO_COLOR = "#000000"  # of what has none of its own, where a letter has no plain fill
_NO_TINT = (0.0, _NO_COLOR)
_LARGEST = 1000.0  # times, that a copy of a trail grows


@dataclass
class _Block:
    """Times of a title worked out together: (times, n, 3, 3) and (times, n), 0 if not seen.

    axes: by tag, how far font axes are moved, (times, n)
    """

    times: np.ndarray
    ink: np.ndarray
    matrices: np.ndarray
    opacities: np.ndarray
    appearance: Appearance
    axes: dict[str, np.ndarray]
    windows: list[list[SeenWindow]] | None = None
    ways: Ways | None = None

    @cached_property
    def matrix_rows(self) -> list[list[list[float]]]:
        """The matrices as items have them, nine numbers each."""
        numbers: list[list[list[float]]] = self.matrices.reshape(*self.opacities.shape, 9).tolist()
        return numbers

    @cached_property
    def opacity_rows(self) -> list[list[float]]:
        rows: list[list[float]] = self.opacities.tolist()
        return rows

    @cached_property
    def boxes(self) -> list[Box]:
        """For each time what is drawn on."""
        return boxes_of(self._extents, self.matrices, self.opacities > 0)

    @property
    def is_still(self) -> bool:
        """Whether it is the same at all its times, but for what cannot be seen."""
        numbers = [self.matrices, self.opacities, *self.axes.values()]
        if self.ways is not None:
            numbers += [self.ways.leg, self.ways.share]
        if self.appearance.mixings is not None:
            numbers.append(self.appearance.mixings)
        if any(np.ptp(each, axis=0).max(initial=0) >= UNSEEN for each in numbers):
            return False
        look = self.appearance
        rows: list[list[Any]] = [look.fills, look.lines, look.blurs, look.shadows, look.filled]
        rows += [each for each in (look.hatched, look.tints, self.windows) if each is not None]
        # Bumps are new now and then, however strong they are.
        is_bumpy = any(map(any, look.displacements))
        return not is_bumpy and all(row == each[0] for each in rows for row in each[1:])

    @property
    def _extents(self) -> np.ndarray:
        """What is drawn on, (n, 4) or (times, n, 4): the ink, and what its
        appearance and axes add."""
        more = np.asarray(self.appearance.margin)
        if self.axes:
            # How far a letter of other axes reaches is not known before it is made: half as far
            # again as it is high is more than any does.
            more = more + (self.ink[:, 3] - self.ink[:, 1]) / 2
        return self.ink + np.expand_dims(more, -1) * np.array([-1, -1, 1, 1])


class PreparedTitle(PreparedLayer):
    """A title made ready: its layout, the prepared outlines, and the block worked out last."""

    prepares: ClassVar = Title

    def __init__(self, scene: Scene, title: Title, prepare: Prepare):
        super().__init__(scene, title, prepare)
        self._layout: Layout = lay_out(scene, title)
        self._middles = self._layout.centers["character"]
        every = enumerate(self._layout.characters)
        self._colored = [number for number, letter in every if letter.is_colored]
        self._moved: dict[Any, Any] = {}
        self._last: tuple[float, _Block] | None = None

    @classmethod
    def rest_box(cls, scene: Scene, layer: Title, frame: float) -> RestBox | None:
        layout = lay_out(scene, layer)
        box, path = layout.boxes["title"], text_path(scene, layer, layout)
        if path is not None and len(box):
            letters = path.boxes(frame, layout.boxes["character"])
            box = unions(letters, np.zeros(len(letters), dtype=int))
        return box[0].tolist() if len(box) else None

    def drawn(self, canvas: Canvas, times: np.ndarray) -> Drawn:
        """The letters at each of `times`."""
        trail = trail_of(self._layer)
        if trail is not None:
            found = [self._with_trail(canvas, float(time), trail) for time in times]
            return Drawn(
                [letters for letters, _ in found],
                lambda: around([box for _, find in found for box in find()]),
            )
        if len(times) == 1:
            block, row = self._at(float(times[0]))
            return Drawn([self._plain(canvas, block, row)], lambda: self._box(block, row))
        block = self._work_out(times)
        rows = range(1 if self._is_still(block) else len(times))
        return Drawn(
            [self._plain(canvas, block, row) for row in rows],
            lambda: around([self._box(block, row) for row in rows]),
        )

    def _is_still(self, block: _Block) -> bool:
        """Whether the letters are the same at all times of a block, but for what cannot be seen;
        False also where that would take as long to tell as to draw them."""
        return self._dress_is_still and block.is_still

    @cached_property
    def _dress_is_still(self) -> bool:
        """Whether nothing but its moves and its place changes the letters: no caret, no bumps or
        strokes that may be new, no shadow that has keys."""
        layer, dress = self._layer, [e for e in self._layer.effects if isinstance(e, _DRESSING)]
        values = [value for effect in dress for _, value in effect]
        may_be_new = any(isinstance(effect, Displace | Hatch) for effect in dress)
        return not (layer.caret or may_be_new or any(map(changes_over_time, values)))

    def _at(self, frame: float) -> tuple[_Block, int]:
        """The block that a frame is in, and its place there."""
        is_whole = frame == int(frame)
        start = frame - frame % BLOCK if is_whole else frame
        last = self._last  # taken once: another thread may draw another frame meanwhile
        if last is None or last[0] != start:
            times = start + np.arange(BLOCK if is_whole else 1, dtype=float)
            self._last = last = (start, self._work_out(times))
        return last[1], int(frame - start)

    def _work_out(self, times: np.ndarray, shrunk: np.ndarray | None = None) -> _Block:
        composites = compose(self._scene, self._layer, self._layout, times)
        ways = ways_of(self._scene, self._layer, self._layout, times)
        # Along a path, letters that become others stand where they are by then.
        middles = middles_on_the_way(self._layout, ways) if ways and self._layer.along else None
        placed = place(self._scene, self._layer, self._layout, composites, times, shrunk, middles)
        opacities = np.where(placed.before_camera, placed.opacities, 0.0)
        appearance = appearance_of(self._layout, composites, len(times), self._layer.drawn_each)
        axes = moved_axes(composites)
        windows = windows_at(self._scene, self._layer, self._layout, times)
        ink = self._layout.ink
        if ways is not None:
            ink = _ink_on_the_way(ink, ways)
        return _Block(times, ink, placed.matrices, opacities, appearance, axes, windows, ways)

    def _plain(
        self, canvas: Canvas, block: _Block, row: int, are_copies: bool = False
    ) -> list[DrawItem]:
        """What is drawn at one time of a block, from the back to the front."""
        outlines = self._outlines_at(canvas, block, row)
        if block.ways is not None:
            outlines = self._on_the_way(canvas, block, row, outlines)
        letters = self._letters(block, row, outlines, are_copies)
        order: Sequence[int] = range(len(letters))
        if self._layer.draw_order != "reading":
            order = self._order(block, row)
        seen = [number for number in order if letters[number].opacity > 0]
        dressed = self._dressed(canvas, block, row, letters, outlines)
        if dressed is None:
            items = [letters[number] for number in seen]
        else:
            items = [item for number in seen for item in dressed[number]]
        time = float(block.times[row])
        shadow = shadow_at(self._layer, time)
        if shadow is not None:
            each = block.appearance.shadows[row]
            shares = [each[n] for n in seen for _ in range(len(dressed[n]) if dressed else 1)]
            items = with_shadows(items, shadow, shares)
        return [*items, *self._caret(canvas, time)] if self._layer.caret else items

    def _letters(
        self, block: _Block, row: int, outlines: list[tuple[Commands, Any]], are_copies: bool
    ) -> list[DrawItem]:
        """The letters at one time of a block in reading order, before they are dressed."""
        appearance, fills = block.appearance, block.appearance.fills[row]
        if block.ways is not None:
            fills = fills_on_the_way(self._layout, block.ways, row, fills)
        every = zip(
            [outline for _, outline in outlines],
            block.matrix_rows[row],
            fills,
            block.opacity_rows[row],
            appearance.lines[row],
            appearance.blurs[row],
            [are_copies] * len(outlines),
            strict=True,
        )
        letters = list(starmap(DrawItem, every))
        for number in self._colored:
            letters[number] = self._in_colors(letters[number], number, block, row)
        if any(share != 1 for share in appearance.filled[row]):
            filled = zip(letters, appearance.filled[row], strict=True)
            letters = [letter._replace(filled=share) for letter, share in filled]
        if block.windows is not None:
            pairs = zip(letters, block.windows[row], strict=True)
            letters = [letter._replace(window=window) for letter, window in pairs]
        return letters

    def _dressed(
        self,
        canvas: Canvas,
        block: _Block,
        row: int,
        letters: list[DrawItem],
        outlines: list[tuple[Commands, Any]],
    ) -> list[list[DrawItem]] | None:
        """What is drawn for each letter, strokes in place of its fill, tints over its own colours;
        None, if that is just itself."""
        hatching = hatching_at(self._scene, self._layer, float(block.times[row]))
        if hatching is None and not self._colored:
            return None
        dressed = [[letter] for letter in letters]
        if hatching is not None:
            shares, commands = block.appearance.hatched[row], [own for own, _ in outlines]
            dressed = hatched(letters, commands, shares, hatching, canvas.outline)
        tints = block.appearance.tints
        for number in self._colored:
            tint = tints[row][number] if tints else _NO_TINT
            dressed[number] = [letters[number], *_tinted(letters[number], *tint)]
        return dressed

    def _in_colors(self, letter: DrawItem, number: int, block: _Block, row: int) -> DrawItem:
        """A letter that has colours of its own as a picture of them."""
        glyphs = self._layout.characters[number].glyphs
        if block.axes:
            glyphs = _moved(
                glyphs, tuple((t, float(v[row, number])) for t, v in block.axes.items())
            )
        fill = letter.fill if isinstance(letter.fill, str) else _NO_COLOR
        matrix = np.array(letter.matrix).reshape(3, 3)
        depth = max(float(matrix[2] @ (*self._middles[number], 1.0)), 1e-6)
        growth = float(np.abs(matrix[:2, :2]).sum(axis=0).max()) / depth
        photo, mixings = color_photo(glyphs, ink_of(glyphs), fill, growth), block.appearance.mixings
        if mixings is not None:
            photo = mixed_photo(photo, mixings[row, number])
        return letter._replace(fill=photo, line=None)

    def _caret(self, canvas: Canvas, time: float) -> list[DrawItem]:
        """The caret at a time, if there is one and it is seen."""
        caret = self._layer.caret
        there = caret and caret_at(self._scene, self._layer, self._layout, caret, time)
        if not caret or not there:
            return []
        (left, top, bottom), right = there, there.x + caret.width
        corners = [(left, top), (right, top), (right, bottom), (left, bottom)]
        matrix = moved_matrices(self._scene, self._layer, np.array([time]))[0]
        path = text_path(self._scene, self._layer, self._layout)
        if path is not None:
            middle = np.array([[left + right, top + bottom]]) / 2
            matrix = matrix @ path.matrices(np.array([time]), middle)[0, 0]
        opacity = float(np.clip(value_at(self._layer.transform.opacity, np.array(time)), 0, 1))
        outline = canvas.outline(polygon(corners))
        place = matrix.reshape(-1).tolist()
        return [DrawItem(outline, place, caret.color, opacity, jumps=True)]

    def _order(self, block: _Block, row: int) -> list[int]:
        """The places of the letters from the back to the front."""
        if self._layer.draw_order == "reverse":
            return list(range(len(self._layout.characters)))[::-1]
        depths = block.matrices[row][:, 2]
        away = (
            depths[:, 0] * self._middles[:, 0] + depths[:, 1] * self._middles[:, 1] + depths[:, 2]
        )
        return np.argsort(-away, kind="stable").tolist()

    def _box(self, block: _Block, row: int) -> Box:
        """The box of the letters with what shadows and displacements add."""
        shadow = shadow_at(self._layer, float(block.times[row]))
        more = shadow.margin if shadow else 0.0
        displacement = displacement_at(self._scene, self._layer, float(block.times[row]))
        if displacement is not None:
            # In the layer's own px; a letter that is drawn larger is displaced further.
            largest = np.abs(block.matrices[row, :, :2, :2]).max(initial=1.0)
            more += displacement.amount * 2 * float(largest)
        hatching = hatching_at(self._scene, self._layer, float(block.times[row]))
        if hatching is not None:
            more += hatching.margin
        box = widened(block.boxes[row], more)
        return around([box, self._line_box(float(block.times[row]))]) if self._layer.caret else box

    def _line_box(self, time: float) -> Box:
        """What the lines take up at rest, with room for a caret behind them."""
        caret = self._layer.caret
        left, top, right, bottom = self.rest_box(self._scene, self._layer, time) or [0.0] * 4
        own = widened((left, top, right, bottom), caret.width if caret else 0)
        matrices = moved_matrices(self._scene, self._layer, np.array([time]))
        return boxes_of(np.array([own]), matrices[:, None], np.ones((1, 1), dtype=bool))[0]

    def _with_trail(
        self, canvas: Canvas, time: float, trail: Trail
    ) -> tuple[list[DrawItem], Callable[[], list[Box]]]:
        """The letters after the copies of them as they were, the oldest first; and their boxes."""
        back = np.arange(trail.copies, -1, -1)
        values = values_of(trail, time)
        fade, shrink, width = (values[name] for name in ("fade", "shrink", "outline"))
        block = self._work_out(time - back * trail.gap, np.minimum(shrink**back, _LARGEST))
        block.opacities *= (fade**back)[:, None]
        letters: list[DrawItem] = []
        for row in range(trail.copies):
            letters += as_copies(self._plain(canvas, block, row, are_copies=True), width)
        letters += self._plain(canvas, block, trail.copies)
        return letters, lambda: [
            widened(self._box(block, row), width) for row in range(trail.copies + 1)
        ]

    def _outlines_at(
        self, canvas: Canvas, block: _Block, row: int, is_displaced: bool = True
    ) -> list[tuple[Commands, Any]]:
        """The outlines of all characters at a time of a block, as commands and prepared."""
        more = block.appearance.displacements[row]
        displaced_by = self._displacement(block, row) if is_displaced else None
        if not block.axes and displaced_by is None:
            return _outlines_of(self._layout, canvas.outline)
        tags = sorted(block.axes)
        changes: list[Any] = [()] * len(self._layout.characters)
        if tags:
            changes = np.stack([block.axes[tag][row] for tag in tags], axis=-1).tolist()
        return [
            self._moved_outline(
                canvas,
                number,
                tuple(zip(tags, change, strict=True)),
                further(displaced_by, more[number]),
            )
            for number, change in enumerate(changes)
        ]

    def _on_the_way(
        self, canvas: Canvas, block: _Block, row: int, outlines: list[tuple[Commands, Any]]
    ) -> list[tuple[Commands, Any]]:
        """The outlines of letters that become others, and of all others as they are."""
        assert block.ways is not None
        # Displaced is what they are on their way, not what they come from.
        plain = [own for own, _ in self._outlines_at(canvas, block, row, is_displaced=False)]
        found = becoming(self._layout, block.ways, row, plain)
        more, displacement = block.appearance.displacements[row], self._displacement(block, row)
        made = []
        for number, commands in enumerate(found):
            if commands is plain[number]:
                made.append(outlines[number])
                continue
            displaced_by = further(displacement, more[number])
            if displaced_by is not None:
                commands = displaced(commands, *displaced_by)
            made.append((commands, canvas.outline(commands)))
        return made

    def _displacement(self, block: _Block, row: int) -> Any:
        """How the layer displaces outlines at a time of a block, with what moves add to."""
        is_moved = any(block.appearance.displacements[row])
        time = float(block.times[row])
        return displacement_at(self._scene, self._layer, time, is_moved=is_moved)

    def _moved_outline(
        self, canvas: Canvas, number: int, changes: Any, displaced_by: Any
    ) -> tuple[Commands, Any]:
        moved = _moved(self._layout.characters[number].glyphs, changes)
        key = (number, *(glyph.part.axes for glyph in moved), displaced_by)
        if key not in self._moved:
            if len(self._moved) >= MOST_MOVED:
                self._moved.clear()
            commands = of_glyphs(moved)
            if displaced_by:
                commands = displaced(commands, *displaced_by)
            self._moved[key] = commands, canvas.outline(commands)
        return self._moved[key]


def _moved(glyphs: tuple[Glyph, ...], changes: Any) -> tuple[Glyph, ...]:
    """Glyphs of which the axes are moved by so much."""
    return tuple(replace(glyph, part=glyph.part.moved(changes)) for glyph in glyphs)


def _tinted(letter: DrawItem, share: float, color: str) -> list[DrawItem]:
    """What lies over a letter that has colours of its own, where a move tints it."""
    if not share or not isinstance(letter.fill, Photo):
        return []
    flat = Photo(letter.fill.bitmap, letter.fill.box, color)
    return [letter._replace(fill=flat, opacity=letter.opacity * share)]


def _ink_on_the_way(ink: np.ndarray, ways: Ways) -> np.ndarray:
    """The boxes of ink of letters that become others: around all that they may be on their way."""
    boxes = [ink, *(target.ink for target in ways.targets if len(target.ink))]
    every = np.concatenate([each.reshape(-1, 4) for each in boxes])
    if not len(every):
        return ink
    # An ease may go beyond the other text, or back beyond the own one.
    whole = np.concatenate([every[:, :2].min(axis=0), every[:, 2:].max(axis=0)])
    more = max(0.0, float(ways.share.max(initial=0.0)) - 1, -float(ways.share.min(initial=0.0)))
    size = (whole[2:] - whole[:2]) * more
    around_all: np.ndarray = whole + np.concatenate([-size, size])
    return np.broadcast_to(around_all, (len(ink), 4))


@lru_cache(maxsize=KEPT)
def _outlines_of(layout: Layout, prepare: Callable[[Commands], Any]) -> list[tuple[Commands, Any]]:
    """The commands and the prepared outlines of all characters as they are set: scenes with the
    same words, as the previews of one are, share them."""
    every = [of_glyphs(character.glyphs) for character in layout.characters]
    return [(commands, prepare(commands)) for commands in every]
