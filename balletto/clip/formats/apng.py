"""Animated PNG."""

from pathlib import Path

from ..encoder import APNG, Encoder, encoder_threads
from ..export_settings import ExportSettings
from ..pieces import CollectedPieces, Samples
from ..videos import VideoWriter
from .base import Format, offered


def _apng(path: Path, settings: ExportSettings, _: Samples) -> VideoWriter:
    more = {"plays": str(settings.loops)}
    encoder = Encoder(path, settings.size, settings.rate, encoder_threads(), APNG, more=more)
    return VideoWriter(encoder)


offered(
    "apng",
    70,
    Format(
        "Animated PNG",
        "all colours, no loss",
        ".apng",
        CollectedPieces(_apng),
        0.5,
        has_alpha=True,
        has_loops=True,
    ),
)
