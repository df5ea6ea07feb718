"""Outlines as Skia has them: paths, and what is made of them once."""

import math
from itertools import accumulate

import numpy as np
import skia

from ..letterforms.outlines import WITHOUT, Commands
from .canvas import DrawnLine


class Outline:
    """A path, and its edge: the same without the pieces of contours that lie inside others.

    extent: the box around what it fills; middle, radius: of the circle around that
    """

    __slots__ = ("_edge", "_length", "_points", "extent", "middle", "path", "radius")

    def __init__(self, path: skia.Path):
        self.path = path
        self._edge: skia.Path | None = None
        self._length: float | None = None
        self._points: np.ndarray | None = None
        bounds = path.computeTightBounds()
        self.extent = (bounds.left(), bounds.top(), bounds.right(), bounds.bottom())
        self.middle = (bounds.centerX(), bounds.centerY())
        self.radius = math.hypot(bounds.width(), bounds.height()) / 2

    @classmethod
    def of(cls, commands: Commands) -> "Outline":
        """The outline of commands; of those after WITHOUT is what is cut out of the others."""
        if WITHOUT in commands:
            at = commands.index(WITHOUT)
            return cls.of(commands[:at]).without(cls.of(commands[at + 1 :]))
        builder = skia.PathBuilder()
        verbs = {
            "move": builder.moveTo,
            "line": builder.lineTo,
            "quad": builder.quadTo,
            "curve": builder.cubicTo,
            "close": builder.close,
        }
        for verb, numbers in commands:
            if verb != "end":
                verbs[verb](*numbers)
        return cls(builder.detach())

    @property
    def edge(self) -> skia.Path:
        if self._edge is None:
            # Glyphs of variable fonts are put together of contours that overlap.
            self._edge = skia.Simplify(self.path) or self.path
        return self._edge

    @property
    def length(self) -> float:
        """Of all its contours together."""
        if self._length is None:
            self._length = sum(_lengths_of(self.path))
        return self._length

    @property
    def points(self) -> np.ndarray:
        """All points of its contours, those that bend them as well, (n, 2)."""
        if self._points is None:
            points = self.path.getPoints(self.path.countPoints())
            numbers = [number for point in points for number in (point.x(), point.y())]
            self._points = np.array(numbers).reshape(-1, 2)
        return self._points

    def is_of_one_build(self, other: "Outline") -> bool:
        """Whether another has the same contours but for where their points are."""
        one, two = self.path, other.path
        count = one.countVerbs()
        return count == two.countVerbs() and one.getVerbs(count) == two.getVerbs(count)

    def without(self, holes: "Outline") -> "Outline":
        """What is left of it if others are cut out."""
        try:
            left = skia.Op(self.path, holes.path, skia.PathOp.kDifference_PathOp)
        except RuntimeError:  # forms too tangled for it: they stay whole
            left = None
        return self if left is None else Outline(left)

    def along(self, line: DrawnLine) -> skia.Path:
        """What a line runs along: all contours or the edge, as far as it is seen."""
        path = self.path if line.whole else self.edge
        if line.seen is None:
            return path
        builder = skia.PathBuilder()
        lengths = _lengths_of(path)
        for first, end in line.seen:
            if line.each:
                shares = [(first * length, end * length) for length in lengths]
            else:
                whole = sum(lengths)
                before = [0.0, *accumulate(lengths)]
                shares = [(first * whole - at, end * whole - at) for at in before[:-1]]
            _add_parts(builder, path, lengths, shares)
        return builder.detach()


def _add_path(builder: skia.PathBuilder, path: skia.Path) -> None:
    """Adds the contours of a path, which are made of moves, lines, quadratics and cubics."""
    verbs = {
        skia.Path.kMove_Verb: builder.moveTo,
        skia.Path.kLine_Verb: builder.lineTo,
        skia.Path.kQuad_Verb: builder.quadTo,
        skia.Path.kCubic_Verb: builder.cubicTo,
    }
    for verb, points in path:
        if verb in verbs:
            # All but a move tell where they come from too.
            new = points if verb == skia.Path.kMove_Verb else points[1:]
            verbs[verb](*(number for point in new for number in (point.x(), point.y())))


def commands_of_path(path: skia.Path) -> Commands:
    """A path of moves, lines, quadratics and cubics as commands."""
    verbs = {
        skia.Path.kMove_Verb: "move",
        skia.Path.kLine_Verb: "line",
        skia.Path.kQuad_Verb: "quad",
        skia.Path.kCubic_Verb: "curve",
        skia.Path.kClose_Verb: "close",
    }
    commands = []
    for verb, points in path:
        if verb in verbs:
            new = (
                points[1:] if verb not in (skia.Path.kMove_Verb, skia.Path.kClose_Verb) else points
            )
            numbers = tuple(number for point in new for number in (point.x(), point.y()))
            commands.append((verbs[verb], () if verbs[verb] == "close" else numbers))
    return tuple(commands)


def _lengths_of(path: skia.Path) -> list[float]:
    """The length of each contour."""
    measure = skia.PathMeasure(path, False)
    lengths = [measure.getLength()]
    while measure.nextContour():
        lengths.append(measure.getLength())
    return lengths


def _add_parts(
    builder: skia.PathBuilder,
    path: skia.Path,
    lengths: list[float],
    parts: list[tuple[float, float]],
) -> None:
    """Adds of each contour of a path what lies between two lengths along it."""
    measure = skia.PathMeasure(path, False)
    for length, (first, end) in zip(lengths, parts, strict=True):
        low, high = max(first, 0.0), min(end, length)
        if low < high:
            part = skia.Path()
            measure.getSegment(low, high, part, True)
            _add_path(builder, part)
        measure.nextContour()
