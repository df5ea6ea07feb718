"""Animated WebP."""

from pathlib import Path

from ..animations import WebpWriter
from ..export_settings import ExportSettings
from ..pieces import CollectedPieces, Samples
from .base import Format, offered


def _webp(path: Path, settings: ExportSettings, _: Samples) -> WebpWriter:
    return WebpWriter(path, settings.rate, settings.loops, settings.quality)


offered(
    "webp",
    80,
    Format(
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
)
