"""GIF."""

from pathlib import Path

from ..animations import GifWriter
from ..export_settings import ExportSettings
from ..pieces import CollectedPieces, Samples
from .base import Format, offered


def _gif(path: Path, settings: ExportSettings, samples: Samples) -> GifWriter:
    return GifWriter(path, settings.rate, settings.loops, samples())


offered(
    "gif",
    60,
    Format(
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
)
