"""What a frame is drawn on: a few verbs, so that a frame can be drawn, or just noted down.

Matrices are nine numbers, rows first, from title space to picture pixels in homogeneous
coordinates; colours are "#RRGGBB", opacities 0..1. Widths and blurs are in pixels of title space.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any, NamedTuple, Protocol

from ..lettering.shaping import Glyph

Matrix = list[float]


@dataclass(frozen=True)
class Gradient:
    """Colours at even steps in title space, from `start` to `end` or round `start` up to `end`."""

    is_round: bool
    start: tuple[float, float]
    end: tuple[float, float]
    colors: tuple[str, ...]


class Letter(NamedTuple):
    """A prepared outline as it is drawn: what fills it (None: nothing), and how opaque it is.

    line: width and colour of the line along its edge; blur: the deviation of a Gaussian
    """

    outline: Any
    matrix: Matrix
    fill: str | Gradient | None
    opacity: float
    line: tuple[float, str] | None = None
    blur: float = 0.0


class Canvas(Protocol):
    """The verbs of drawing."""

    def clear(self, color: str | None) -> None:
        """Fills the picture with a colour, or with nothing at all."""

    def outline(self, glyphs: tuple[Glyph, ...]) -> Any:
        """Prepares an outline once; what comes back is for `draw`."""

    def draw(self, letters: Iterable[Letter], blend: str = "normal") -> None:
        """Draws letters one after another, and blends what they make with what is there."""


class RecordingCanvas:
    """A canvas without pixels: keeps what was asked for in `calls`."""

    def __init__(self) -> None:
        self.calls: list[tuple[Any, ...]] = []

    def clear(self, color: str | None) -> None:
        self.calls.append(("clear", color))

    def outline(self, glyphs: tuple[Glyph, ...]) -> tuple[Glyph, ...]:
        return glyphs

    def draw(self, letters: Iterable[Letter], blend: str = "normal") -> None:
        if blend != "normal":
            self.calls.append(("blend", blend))
        self.calls += [("draw", *letter) for letter in letters]
