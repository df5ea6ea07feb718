"""Formats: what a clip can be written as. Each is a line in FORMATS with how it is written."""

from dataclasses import dataclass
from pathlib import Path

from ..picture.stills import png
from .animations import GifWriter, WebpWriter
from .drawings import svg
from .encoder import APNG, AV1, H264, PRORES, VP9, VP9_ALPHA, Codec, Encoder, encoder_threads
from .errors import ClipError
from .export_settings import ExportSettings
from .numbered import NumberedWriter
from .pieces import CollectedPieces, DrawnPieces, EncodedPieces, Pieces, Samples, StillPieces
from .videos import VideoWriter


@dataclass(frozen=True)
class Format:
    """A kind of file.

    title, about: its name, and what it is good for, for people
    needs_even: whether its sides must be even; most_rate: the most frames a second that it plays
    bytes_a_pixel: of a frame in the file, as a rule, on a moving title at the usual quality
    shown_as: how browsers show it: "video", "picture", or "" if they do not
    bytes_kept: of each pixel of all frames in memory, until the file is written
    has_sound: whether sound layers are heard
    has_alpha: whether it keeps what is transparent; else that is on black
    """

    title: str
    about: str
    suffix: str
    pieces: Pieces
    bytes_a_pixel: float
    shown_as: str = "picture"
    needs_even: bool = False
    most_rate: int = 240
    has_alpha: bool = False
    has_quality: bool = False
    has_loops: bool = False
    has_sound: bool = False
    is_still: bool = False
    bytes_kept: int = 0


def _apng(path: Path, settings: ExportSettings, _: Samples) -> VideoWriter:
    more = {"plays": str(settings.loops)}
    encoder = Encoder(path, settings.size, settings.rate, encoder_threads(), APNG, more=more)
    return VideoWriter(encoder)


def _gif(path: Path, settings: ExportSettings, samples: Samples) -> GifWriter:
    return GifWriter(path, settings.rate, settings.loops, samples())


def _webp(path: Path, settings: ExportSettings, _: Samples) -> WebpWriter:
    return WebpWriter(path, settings.rate, settings.loops, settings.quality)


def _video(
    title: str, about: str, codec: Codec, suffix: str, bytes_a_pixel: float, shown_as: str = "video"
) -> Format:
    return Format(
        title,
        about,
        suffix,
        EncodedPieces(codec, suffix),
        bytes_a_pixel,
        shown_as,
        needs_even=True,
        has_alpha=codec.has_alpha,
        has_quality=True,
        has_sound=True,
    )


FORMATS: dict[str, Format] = {
    "mp4": _video("MP4, H.264", "plays everywhere", H264, ".mp4", 0.06),
    "webm": _video("WebM, VP9", "for web pages, smaller", VP9, ".webm", 0.04),
    "webm-alpha": _video(
        "WebM, VP9 with transparency", "to lie over a web page", VP9_ALPHA, ".webm", 0.05
    ),
    "webm-av1": _video("WebM, AV1", "the smallest, for new browsers", AV1, ".webm", 0.03),
    "prores": _video(
        "MOV, ProRes 4444 with transparency", "for cutting and compositing", PRORES, ".mov", 0.6, ""
    ),
    "gif": Format(
        "GIF",
        "moves in chats and mails",
        ".gif",
        CollectedPieces(_gif),
        0.25,
        bytes_kept=1,
        most_rate=50,
        has_alpha=True,
        has_loops=True,
    ),
    "apng": Format(
        "Animated PNG",
        "all colours, no loss",
        ".apng",
        CollectedPieces(_apng),
        0.5,
        has_alpha=True,
        has_loops=True,
    ),
    "webp": Format(
        "Animated WebP",
        "small, with transparency",
        ".webp",
        CollectedPieces(_webp),
        0.06,
        bytes_kept=4,
        has_alpha=True,
        has_quality=True,
        has_loops=True,
    ),
    "pngs": Format(
        "Numbered PNGs in a ZIP",
        "a still for each frame",
        ".zip",
        CollectedPieces(lambda path, *_: NumberedWriter(path)),
        0.6,
        shown_as="",
        has_alpha=True,
    ),
    "png": Format(
        "PNG still",
        "one frame",
        ".png",
        StillPieces(".png", png),
        0.6,
        has_alpha=True,
        is_still=True,
    ),
    "svg": Format(
        "SVG still",
        "one frame as paths, sharp at any size",
        ".svg",
        DrawnPieces(".svg", svg),
        0.2,
        has_alpha=True,
        is_still=True,
    ),
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
