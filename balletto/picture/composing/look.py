"""What moves make of how things look: how opaque and soft they are, their colours, their lines. One
reading of the values of moves, for letters and for all else that is drawn."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

import numpy as np

from ...raster.coloring import mixed_colors, mixed_pixels
from ...scene.pose import PROPERTIES, ColorTint, join_of, limited
from ...scene.values.colors import hex_of_bytes, oklab, srgb_bytes
from ..canvases.canvas import DrawItem, DrawnLine, Gradient
from ..pixels.bitmap_store import BITMAPS
from ..pixels.bitmaps import Bitmap, Photo

Fill = str | Gradient | Photo | None

_NUMBERS = ("opacity", "blur", "shadow", "outline", "drawn", "drawn_from", "filled", "hatched")
_TINTS = ("fill", "outline_color")
_MIXES = tuple(name for name, each in PROPERTIES.items() if each.mixes)
# What moves make of a form besides its place and how opaque it is.
LOOKS = (*_NUMBERS[1:], *_TINTS, *_MIXES)
_STEPS = 256  # of a factor of a matrix, by which pictures in other colours are told apart


@dataclass(frozen=True)
class ColorChange:
    """What moves make of colours at some times: a tint, (times,) and (times, 3), and then a matrix
    on red, green and blue, (times, 3, 3). None changes nothing."""

    tint: ColorTint | None = None
    mixing: np.ndarray | None = None

    @property
    def is_nothing(self) -> bool:
        return self.tint is None and self.mixing is None

    def colors(self, color: str) -> list[str]:
        """A colour at each of the times."""
        if self.tint is None:
            assert self.mixing is not None
            start = np.array([int(color[at : at + 2], 16) for at in (1, 3, 5)], dtype=np.uint8)
            srgb = np.broadcast_to(start, (len(self.mixing), 3))
        else:
            srgb = srgb_bytes(oklab(color) * self.tint.keep[:, None] + self.tint.add)
        if self.mixing is not None:
            srgb = mixed_colors(srgb, self.mixing)
        return [hex_of_bytes(row) for row in srgb]

    def fills(self, fill: Fill) -> list[Fill]:
        """What fills a form at each of the times. Photos have no tint, but what is mixed."""
        if isinstance(fill, str):
            return [*self.colors(fill)]
        if isinstance(fill, Gradient):
            columns = [self.colors(color) for color in fill.colors]
            return [
                Gradient(fill.is_round, fill.start, fill.end, colors)
                for colors in zip(*columns, strict=True)
            ]
        count = len(self.mixing if self.tint is None else self.tint.keep)  # type: ignore[arg-type]
        if self.mixing is None or fill is None:
            return [fill] * count
        return [mixed_photo(fill, matrix) for matrix in self.mixing]


def mixed_photo(photo: Photo, mixing: np.ndarray) -> Photo:
    """A photo of which red, green and blue went through a matrix (3, 3)."""
    told = np.round(mixing * _STEPS)
    if photo.color is not None or np.array_equal(told, np.eye(3) * _STEPS):
        return photo
    own = photo.bitmap
    key = f"{own.key} mixed by {told.astype(int).tolist()}"

    def mixed() -> Bitmap:
        return Bitmap(key, mixed_pixels(own.pixels, mixing), own.own_size)

    return Photo(BITMAPS.get(key, mixed), photo.box)


def mixing_of(values: dict[str, Any]) -> np.ndarray | None:
    """The matrices (..., 3, 3) that values (...) of moves make of hues and the like, one after
    another; None if there are none."""
    mixing = None
    for name in _MIXES:
        if name in values:
            mixes = PROPERTIES[name].mixes
            assert mixes is not None
            own = mixes(limited(name, values[name]))
            mixing = own if mixing is None else own @ mixing
    return mixing


@dataclass(frozen=True)
class Look:
    """How moves have one thing at a time: `blur` is a deviation in px, `outline` px that a line is
    wider by; `drawn_from` and `drawn` are shares of the line, `filled` is how opaque the fill is,
    `hatched` the share of a hatching that is drawn. `fill` and `line` change their colours."""

    opacity: float = 1.0
    blur: float = 0.0
    shadow: float = 1.0
    outline: float = 0.0
    drawn: float = 1.0
    drawn_from: float = 0.0
    filled: float = 1.0
    hatched: float = 1.0
    fill: ColorChange = ColorChange()
    line: ColorChange = ColorChange()

    @classmethod
    def of(cls, values: dict[str, Any], row: int = 0) -> "Look":
        """From the values (times,) of moves, of which `row` is the number of one."""
        if not values:
            return _PLAIN
        at = {name: _row(name, value, row) for name, value in values.items() if name in _SEEN}
        numbers = {n: float(limited(n, at[n])[0]) for n in _NUMBERS if n in at}
        mixing = mixing_of(at)
        fill, line = (ColorChange(at.get(name), mixing) for name in _TINTS)
        return cls(**numbers, fill=fill, line=line)

    def filled_with(self, fill: Fill) -> Fill:
        """What fills a form."""
        return fill if fill is None or self.fill.is_nothing else self.fill.fills(fill)[0]

    def lined(self, line: DrawnLine | None) -> DrawnLine | None:
        """The line of a form, wider, in its colour, as far as it is drawn."""
        if line is None:
            return None
        color = line.color if self.line.is_nothing else self.line.colors(line.color)[0]
        dressed = line._replace(width=max(line.width + self.outline, 0.0), color=color)
        return dressed.within(self.drawn_from, self.drawn)

    def dressed(self, item: DrawItem) -> DrawItem:
        """An item as moves have it, but for how opaque it is."""
        if self is _PLAIN:
            return item
        return item._replace(
            fill=self.filled_with(item.fill),
            line=self.lined(item.line),
            blur=item.blur + self.blur,
            filled=item.filled * self.filled,
        )


_SEEN = frozenset((*_NUMBERS, *_TINTS, *_MIXES))
_PLAIN = Look()


def plain_looks(count: int) -> list[Look]:
    """The looks of things that no move changes."""
    return [_PLAIN] * count


def _row(name: str, values: Any, row: int) -> Any:
    """The values of one of some times, (1,); one for all times is that at each."""
    if isinstance(values, ColorTint):
        keep, add = np.asarray(values.keep).reshape(-1), np.asarray(values.add).reshape(-1, 3)
        return ColorTint(keep[_within(row, keep)], add[_within(row, add)])
    values = np.asarray(values).reshape(-1)
    return values[_within(row, values)]


def _within(row: int, values: np.ndarray) -> slice:
    row = min(row, len(values) - 1)
    return slice(row, row + 1)


class JoinedLooks:
    """What several kinds of units make of the look of each of some letters together, outermost
    first: (times, letters) by property, worked out as it is asked for."""

    def __init__(self, composites: Iterable[Any]):
        self._composites = list(composites)

    def value(self, name: str) -> Any:
        """The values of a property, kept within its limits; None if no move touches it."""
        found = None
        for composite in self._composites:
            if name in composite.values:
                inner = composite.of_units(name, composite.member)
                found = inner if found is None else join_of(name).both(found, inner)
        return None if found is None else limited(name, found)

    def number(self, name: str) -> Any:
        """The values of a property that is a number, or what it is at rest."""
        found = self.value(name)
        return join_of(name).rest if found is None else found

    def changes(self, name: str) -> list[ColorChange] | None:
        """What becomes of a colour of each letter; None if nothing does."""
        tint, mixing = self.value(name), self.mixing
        if tint is None and mixing is None:
            return None
        count = (tint.keep if mixing is None else mixing).shape[1]
        return [
            ColorChange(
                tint and ColorTint(tint.keep[:, number], tint.add[:, number]),
                None if mixing is None else mixing[:, number],
            )
            for number in range(count)
        ]

    @property
    def mixing(self) -> np.ndarray | None:
        """The matrices of hues and the like, (times, letters, 3, 3)."""
        return mixing_of({n: v for n in _MIXES if (v := self.value(n)) is not None})
