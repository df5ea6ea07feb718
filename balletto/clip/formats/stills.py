"""Single frames."""

from ...picture.stills import png
from ..drawings import svg
from ..pieces import DrawnPieces, StillPieces
from .base import Format, offered

offered(
    "png",
    100,
    Format(
        "PNG still",
        "one frame",
        ".png",
        StillPieces(".png", png),
        0.6,
        has_alpha=True,
        is_still=True,
    ),
)
offered(
    "svg",
    110,
    Format(
        "SVG still",
        "one frame as paths, sharp at any size",
        ".svg",
        DrawnPieces(".svg", svg),
        0.2,
        has_alpha=True,
        is_still=True,
    ),
)
