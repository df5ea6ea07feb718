"""Formats: what a clip can be written as. Each is a line in FORMATS with what opens its writer.

A writer is a context: the file is whole at its end. It takes frames in order as pixels
(height, width, 4), BGRA premultiplied.
"""

from collections.abc import Callable
from contextlib import AbstractContextManager
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path
from typing import NamedTuple, Protocol

import numpy as np

from .animations import GifWriter, WebpWriter
from .encoder import (
    APNG,
    AV1,
    H264,
    PRORES,
    USUAL_QUALITY,
    VP9,
    VP9_ALPHA,
    Codec,
    encoder_threads,
)
from .errors import ClipError
from .numbered import NumberedWriter
from .videos import VideoWriter


class Making(NamedTuple):
    """How a clip is made: its size in px, frames a second, quality in percent, how many times an
    animated picture plays (0: for ever), and some of its frames, spread over all of it."""

    size: tuple[int, int]
    rate: Fraction
    quality: int = USUAL_QUALITY
    loops: int = 0
    samples: Callable[[], list[np.ndarray]] = list


class Writer(Protocol):
    """Where frames go."""

    def add(self, pixels: np.ndarray) -> None:
        """Adds the next frame."""


Opening = Callable[[Path, Making], AbstractContextManager[Writer]]


@dataclass(frozen=True)
class Format:
    """A kind of file: its name for people, its suffix, whether its sides must be even, and the most
    frames a second that it plays."""

    title: str
    suffix: str
    needs_even: bool
    open: Opening
    most_rate: int = 240


def _video(codec: Codec) -> Opening:
    def opened(path: Path, making: Making) -> VideoWriter:
        more = {"plays": str(making.loops)} if codec is APNG else None
        size, rate, quality = making.size, making.rate, making.quality
        return VideoWriter(path, size, rate, encoder_threads(), codec, quality, more)

    return opened


FORMATS: dict[str, Format] = {
    "mp4": Format("MP4, H.264", ".mp4", True, _video(H264)),
    "webm": Format("WebM, VP9", ".webm", True, _video(VP9)),
    "webm-alpha": Format("WebM, VP9 with transparency", ".webm", True, _video(VP9_ALPHA)),
    "webm-av1": Format("WebM, AV1", ".webm", True, _video(AV1)),
    "prores": Format("MOV, ProRes 4444 with transparency", ".mov", True, _video(PRORES)),
    "gif": Format(
        "GIF",
        ".gif",
        False,
        lambda path, making: GifWriter(path, making.rate, making.loops, making.samples()),
        most_rate=50,
    ),
    "apng": Format("Animated PNG", ".apng", False, _video(APNG)),
    "webp": Format(
        "Animated WebP",
        ".webp",
        False,
        lambda path, making: WebpWriter(path, making.rate, making.loops, making.quality),
    ),
    "pngs": Format(
        "Numbered PNGs in a ZIP",
        ".zip",
        False,
        lambda path, _: NumberedWriter(path),
    ),
}
_BY_SUFFIX = {".mp4": "mp4", ".webm": "webm", ".mov": "prores", ".gif": "gif", ".apng": "apng",
              ".png": "apng", ".webp": "webp", ".zip": "pngs"}  # fmt: skip


def format_for(path: Path, name: str | None = None) -> Format:
    """The format of that name, or the one that a file's suffix means; ClipError naming all."""
    known = name or _BY_SUFFIX.get(path.suffix.lower())
    if known not in FORMATS:
        told = ", ".join(f"{each} ({FORMATS[each].title})" for each in FORMATS)
        asked = f"“{name}”" if name else f"a file that ends in “{path.suffix}”"
        raise ClipError(f"There is no format for {asked}. There are: {told}.")
    return FORMATS[known]


def check_making(chosen: Format, making: Making) -> None:
    """ClipError if a format cannot hold a clip of that size and rate; it says what would do."""
    width, height = making.size
    if chosen.needs_even and (width % 2 or height % 2):
        even = f"{width + width % 2} × {height + height % 2}"
        raise ClipError(
            f"{chosen.title} needs an even width and height, and this is {width} × {height}. "
            f"Make it {even}."
        )
    if making.rate > chosen.most_rate:
        raise ClipError(
            f"{chosen.title} plays at most {chosen.most_rate} frames a second, and this has "
            f"{float(making.rate):g}. Choose {chosen.most_rate} or fewer."
        )
