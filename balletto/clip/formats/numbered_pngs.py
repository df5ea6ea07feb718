"""Stills of all frames."""

from ..numbered import NumberedWriter
from ..pieces import CollectedPieces
from .base import Format, offered

offered(
    "pngs",
    90,
    Format(
        "Numbered PNGs in a ZIP",
        "a still for each frame",
        ".zip",
        CollectedPieces(lambda path, *_: NumberedWriter(path)),
        0.6,
        shown_as="",
        has_alpha=True,
    ),
)
