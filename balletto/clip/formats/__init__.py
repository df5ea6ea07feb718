"""Formats: what a clip can be written as. A format is a module of this folder, with how it is
written, its suffix, its bytes a pixel and how browsers show it."""

from pathlib import Path

from ...scene.kinds import modules_in
from ..errors import ClipError
from ..export_settings import ExportSettings
from .base import FOUND, Format

__all__ = ["FORMATS", "Format", "check_settings", "format_for"]

modules_in(__name__, __path__)
FORMATS: dict[str, Format] = {
    name: made for name, (_, made) in sorted(FOUND.items(), key=lambda item: item[1][0])
}


def format_for(path: Path, name: str | None = None) -> str:
    """The name of a format, or of the first that has a file's suffix; ClipError naming all."""
    meant = (each for each, format in FORMATS.items() if format.suffix == path.suffix.lower())
    known = name or next(meant, None)
    if known not in FORMATS:
        told = ", ".join(f"{each} ({FORMATS[each].title})" for each in FORMATS)
        asked = f"“{name}”" if name else f"a file that ends in “{path.suffix}”"
        raise ClipError(f"There is no format for {asked}. There are: {told}.")
    return known


def check_settings(settings: ExportSettings) -> None:
    """ClipError if a format cannot hold a clip of that size and rate; it says what would do."""
    chosen = FORMATS[settings.format]
    width, height = settings.size
    if chosen.needs_even and (width % 2 or height % 2):
        even = f"{width + width % 2} × {height + height % 2}"
        raise ClipError(
            f"{chosen.title} needs an even width and height, and this is {width} × {height}. "
            f"Make it {even}."
        )
    if settings.rate > chosen.most_rate:
        raise ClipError(
            f"{chosen.title} plays at most {chosen.most_rate} frames a second, and this has "
            f"{float(settings.rate):g}. Choose {chosen.most_rate} or fewer."
        )
    if chosen.is_still and len(settings.frames) != 1:
        raise ClipError(f"{chosen.title} holds one frame, not {len(settings.frames)}. Choose one.")
