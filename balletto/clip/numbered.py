"""Numbered stills: a PNG for each frame, in one ZIP."""

import zipfile
from pathlib import Path

import numpy as np

from ..picture.stills import png
from ..raster.pixel_buffer import Edges


class NumberedWriter:
    """Writes frames as frame-00000.png, frame-00001.png, ... into a ZIP, which does not compress
    them once more."""

    def __init__(self, path: Path):
        self._zip = zipfile.ZipFile(path, "w", zipfile.ZIP_STORED)
        self._count = 0

    def __enter__(self) -> "NumberedWriter":
        return self

    def __exit__(self, *_: object) -> None:
        self._zip.close()

    def add(self, pixels: np.ndarray, changed: Edges | None = None) -> None:
        """Adds a frame."""
        self._zip.writestr(f"frame-{self._count:05d}.png", png(pixels))
        self._count += 1
