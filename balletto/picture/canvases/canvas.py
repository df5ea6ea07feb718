"""What a frame is drawn on: a few verbs, so that a frame can be drawn, or just noted down.

Matrices are nine numbers, rows first, from a layer's space to picture pixels in homogeneous
coordinates; colours are "#RRGGBB", opacities 0..1. Widths and blurs are in px of the layer's space.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple, Protocol

from ...raster.pixel_buffer import PixelBuffer, Scale
from ...scene.effects import EFFECT_KINDS, Effect
from ..letterforms.outlines import Commands
from ..pixels.bitmaps import Box, Photo

Matrix = list[float]

UNSEEN = 1e-6  # of px, of shares: what rounding leaves of a move that has come to rest


@dataclass(frozen=True)
class Gradient:
    """Colours at even steps in layer space, from `start` to `end` or round `start` up to `end`."""

    is_round: bool
    start: tuple[float, float]
    end: tuple[float, float]
    colors: tuple[str, ...]


class DrawnLine(NamedTuple):
    """A line along an outline: around what it fills, or if it is `whole` along all its contours.

    dashes: lengths on and off, and how far they are moved along
    seen: the parts of its length that show, as shares (from, to); all of it if there are none
    each: whether that is of each contour; or else of all, one after another
    """

    width: float
    color: str
    ends: str = "flat"
    joins: str = "round"
    dashes: tuple[tuple[float, ...], float] | None = None
    seen: tuple[tuple[float, float], ...] | None = None
    whole: bool = False
    each: bool = False

    def within(self, first: float, end: float) -> "DrawnLine | None":
        """What of it lies between two shares of what is seen of it; None if that is nothing."""
        if min(first, end) <= 0 and max(first, end) >= 1:
            return self
        parts = self.seen or ((0.0, 1.0),)
        left = list(_between_shares(parts, min(first, end), max(first, end)))
        return self._replace(seen=tuple(left)) if left else None


def _between_shares(
    parts: Iterable[tuple[float, float]], first: float, end: float
) -> Iterator[tuple[float, float]]:
    """What lies between two shares of the length of parts together."""
    parts = tuple(parts)
    whole = sum(last - low for low, last in parts)
    passed = 0.0
    for low, last in parts:
        begins = max(low, low + first * whole - passed)
        ends = min(last, low + end * whole - passed)
        if begins < ends:
            yield begins, ends
        passed += last - low


class DrawItem(NamedTuple):
    """One thing to draw, a letter, a shape or a photo: a prepared outline, what fills it (None:
    nothing), and how opaque it is.

    blur: the deviation of a Gaussian
    is_copy: whether it is one of many alike, whose place need not be exact to less than a pixel
    window: what it is seen within
    filled: how opaque the fill is, apart from the line
    within: a prepared outline in the same space outside of which nothing is drawn
    jumps: whether it goes from place to place at once, as a caret does: no shutter sees it between
    """

    outline: Any
    matrix: Matrix
    fill: str | Gradient | Photo | None
    opacity: float
    line: DrawnLine | None = None
    blur: float = 0.0
    is_copy: bool = False
    window: "SeenWindow | None" = None
    filled: float = 1.0
    within: Any = None
    jumps: bool = False

    def moved(self, matrix: Matrix, opacity: float) -> "DrawItem":
        """The same elsewhere, more or less opaque, seen through no window."""
        # By their places: replacing them by their names takes three times as long, for each piece.
        return DrawItem(self[0], matrix, self[2], opacity, *self[4:7], None, *self[8:])

    def as_copy(self) -> "DrawItem":
        """The same as a copy."""
        return DrawItem(*self[:6], True, *self[7:])

    def looks_like(self, other: "DrawItem") -> bool:
        """Whether it draws the same as another, but for less than can be seen."""
        if self == other:
            return True
        placed = self._replace(matrix=other.matrix, blur=other.blur, opacity=other.opacity)
        return (
            placed == other
            and abs(self.blur - other.blur) < UNSEEN
            and abs(self.opacity - other.opacity) < UNSEEN
            and all(abs(a - b) < UNSEEN for a, b in zip(self.matrix, other.matrix, strict=True))
        )


class SeenWindow(NamedTuple):
    """A window at a time: a box in the space of a layer, left, top, right, bottom, over how many px
    it fades in from each of these sides, and the way from there to the picture."""

    box: tuple[float, float, float, float]
    soft: tuple[float, float, float, float]
    matrix: Matrix


class EffectValues(NamedTuple):
    """An effect with its numbers at a time: its kind, and its values by name in order."""

    kind: str
    values: tuple[tuple[str, Any], ...]

    @property
    def model(self) -> type[Effect]:
        """What knows how it works."""
        return EFFECT_KINDS[self.kind]

    @property
    def margin(self) -> float:
        """How far it reaches beyond what it is given, in px of the picture."""
        return self.model.margin(dict(self.values))

    def applied(self, buffer: PixelBuffer, scale: Scale) -> PixelBuffer:
        """The buffer with the effect on it."""
        return self.model.apply(buffer, dict(self.values), scale)


class MaskCut(NamedTuple):
    """A mask at a time: a form in the picture, softened, and how it is joined to those before."""

    outline: Any
    matrix: Matrix
    mode: str
    invert: bool
    feather: float
    expand: float
    opacity: float


class Canvas(Protocol):
    """The verbs of drawing."""

    def clear(self, color: str | None) -> None:
        """Fills the picture with a colour, or with nothing at all."""

    def lay_background(self, background: DrawItem, color: str | None) -> None:
        """Fills the picture with a colour, or with nothing at all, and with what lies over all of
        that."""

    @staticmethod
    def outline(commands: Commands) -> Any:
        """Prepares an outline once; what comes back is for `draw`."""

    def draw(self, items: Iterable[DrawItem], blend: str = "normal") -> None:
        """Draws items one after another, and blends what they make with what is there."""

    def open(self, box: Box | None, margin: float) -> None:
        """Starts an empty buffer, on which all is drawn until it is closed: at least as large as
        `box`, as far as that lies within `margin` px of the picture; None: all of that."""

    def average(self, samples: Sequence[Sequence[DrawItem]]) -> None:
        """Draws on the open buffer the mean, in linear light, of what samples of items make."""

    def apply(self, effects: Sequence[EffectValues]) -> None:
        """Does effects to the open buffer, one after another."""

    def cut(self, cuts: Sequence[MaskCut]) -> None:
        """Leaves of the open buffer what its masks let through."""

    def close(self, blend: str, opacity: float) -> None:
        """Ends a buffer and blends it with what it was opened on."""

    def close_as_matte(self, by: str, invert: bool) -> None:
        """Ends a buffer, which is not drawn: it says what is left of the one it was opened on."""

    def adjust(
        self, effects: Sequence[EffectValues], cuts: Sequence[MaskCut], opacity: float
    ) -> None:
        """Does effects to all that has been drawn, where masks let them."""


class RecordingCanvas:
    """A canvas without pixels: keeps what was asked for in `calls`."""

    def __init__(self) -> None:
        self.calls: list[tuple[Any, ...]] = []

    def clear(self, color: str | None) -> None:
        self.calls.append(("clear", color))

    def lay_background(self, background: DrawItem, color: str | None) -> None:
        self.clear(color)
        self.calls.append(("background", *background))

    @staticmethod
    def outline(commands: Commands) -> Commands:
        return commands

    def draw(self, items: Iterable[DrawItem], blend: str = "normal") -> None:
        if blend != "normal":
            self.calls.append(("blend", blend))
        self.calls += [("draw", *item) for item in items]

    def open(self, box: Box | None, margin: float) -> None:
        self.calls.append(("open", box, margin))

    def average(self, samples: Sequence[Sequence[DrawItem]]) -> None:
        self.calls.append(("average", [list(items) for items in samples]))

    def apply(self, effects: Sequence[EffectValues]) -> None:
        self.calls += [("apply", effect.kind, dict(effect.values)) for effect in effects]

    def cut(self, cuts: Sequence[MaskCut]) -> None:
        self.calls.append(("cut", list(cuts)))

    def close(self, blend: str, opacity: float) -> None:
        self.calls.append(("close", blend, opacity))

    def close_as_matte(self, by: str, invert: bool) -> None:
        self.calls.append(("matte", by, invert))

    def adjust(
        self, effects: Sequence[EffectValues], cuts: Sequence[MaskCut], opacity: float
    ) -> None:
        self.calls.append(("adjust", [effect.kind for effect in effects], list(cuts), opacity))
