"""Paths as text: the path data of SVG 2, checked when a scene is read."""

from functools import lru_cache
from typing import Annotated

from fontTools.pens.recordingPen import RecordingPen
from fontTools.pens.svgPathPen import SVGPathPen
from fontTools.pens.transformPen import TransformPen
from fontTools.svgLib.path import parse_path
from pydantic import AfterValidator, StringConstraints
from pydantic_core import PydanticCustomError

from ..model import needs, shown

MAX_DRAWING = 200_000
_WORDS = {
    "moveTo": "move", "lineTo": "line", "qCurveTo": "quad", "curveTo": "curve",
    "closePath": "close", "endPath": "end",
}  # fmt: skip

Command = tuple[str, tuple[float, ...]]
PathCommands = tuple[Command, ...]


@lru_cache(maxsize=512)
def commands_of(drawing: str) -> PathCommands:
    """The commands (move, line, quad, curve, close, end) of SVG path data, with their numbers
    x, y, x, y, ...; arcs come as curves. ValueError if it is none.

    >>> commands_of("M0 0H10")
    (('move', (0.0, 0.0)), ('line', (10.0, 0.0)), ('end', ()))
    """
    pen = RecordingPen()
    try:
        parse_path(drawing, pen)
    except (ValueError, IndexError, TypeError, AttributeError) as error:
        raise ValueError(f"no path data of SVG: {error}") from None
    return tuple(
        (_WORDS[verb], tuple(float(number) for point in points for number in point))
        for verb, points in pen.value
    )


def scaled_drawing(drawing: str, scale: float) -> str:
    """Path data with all its lengths so many times as long."""
    pen = RecordingPen()
    parse_path(drawing, pen)
    return written(pen, (scale, 0, 0, scale, 0, 0))


def written(pen: RecordingPen, matrix: tuple[float, ...]) -> str:
    """What a pen has drawn, through a map, as path data."""
    writer = SVGPathPen(
        None, ntos=lambda number: f"{number:.4g}" if number % 1 else str(int(number))
    )
    pen.replay(TransformPen(writer, matrix))
    return writer.getCommands()


def _known_drawing(text: str) -> str:
    try:
        if not commands_of(text):
            raise ValueError
    except ValueError:
        raise PydanticCustomError(
            "needs",
            'the path data of an SVG path as "M0 0L100 0L50 80Z" is needed, got {got}',
            {"got": shown(text)},
        ) from None
    return text


Drawing = Annotated[
    str,
    StringConstraints(max_length=MAX_DRAWING),
    needs("a text of path data, 200,000 signs at most"),
    AfterValidator(_known_drawing),
]
