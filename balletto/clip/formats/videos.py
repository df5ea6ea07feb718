"""Videos, which can carry sound."""

from ..encoder import AV1, H264, PRORES, VP9, VP9_ALPHA, Codec
from ..pieces import EncodedPieces
from .base import Format, offered


def encoded(
    title: str, about: str, codec: Codec, suffix: str, bytes_a_pixel: float, shown_as: str = "video"
) -> Format:
    """A format of what a codec encodes."""
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


offered("mp4", 10, encoded("MP4, H.264", "plays everywhere", H264, ".mp4", 0.06))
offered("webm", 20, encoded("WebM, VP9", "for web pages, smaller", VP9, ".webm", 0.04))
offered(
    "webm-alpha",
    30,
    encoded("WebM, VP9 with transparency", "to lie over a web page", VP9_ALPHA, ".webm", 0.05),
)
offered("webm-av1", 40, encoded("WebM, AV1", "the smallest, for new browsers", AV1, ".webm", 0.03))
offered(
    "prores",
    50,
    encoded(
        "MOV, ProRes 4444 with transparency", "for cutting and compositing", PRORES, ".mov", 0.6, ""
    ),
)
