"""Frames as drawings: SVG."""

from ..picture.canvases.svg_canvas import NotInSvg, SvgCanvas
from ..picture.frame import Picture
from .errors import ClipError


def svg(picture: Picture, time: float, size: tuple[int, int]) -> str:
    """A frame as the text of an SVG file. ClipError if something of it cannot be said so."""
    canvas = SvgCanvas(size, picture.scene.size)
    try:
        picture.draw(canvas, time)
    except NotInSvg as error:
        raise ClipError(str(error)) from None
    return canvas.text()
