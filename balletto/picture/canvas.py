"""What a frame is drawn on: a few verbs, so that a frame can be drawn, or just noted down.

Matrices are nine numbers, rows first, from title space to picture pixels in homogeneous
coordinates; colours are "#RRGGBB", opacities 0..1.
"""

from collections.abc import Iterable
from typing import Any, Protocol

from ..lettering.layout import Glyph

Matrix = list[float]
Fill = tuple[Any, Matrix, str, float]  # a prepared outline, its matrix, colour and opacity


class Canvas(Protocol):
    """The verbs of drawing."""

    def clear(self, color: str | None) -> None:
        """Fills the picture with a colour, or with nothing at all."""

    def outline(self, glyphs: tuple[Glyph, ...]) -> Any:
        """Prepares an outline once; what comes back is for `fill`."""

    def fill(self, fills: Iterable[Fill]) -> None:
        """Fills prepared outlines one after another."""


class RecordingCanvas:
    """A canvas without pixels: keeps what was asked for in `calls`."""

    def __init__(self) -> None:
        self.calls: list[tuple[Any, ...]] = []

    def clear(self, color: str | None) -> None:
        self.calls.append(("clear", color))

    def outline(self, glyphs: tuple[Glyph, ...]) -> tuple[Glyph, ...]:
        return glyphs

    def fill(self, fills: Iterable[Fill]) -> None:
        self.calls += [("fill", *fill) for fill in fills]
