"""How the pieces of a clip are written, and made into one file.

A piece is whole at the end of its writer's context. Writers take frames in order as pixels
(height, width, 4), BGRA premultiplied, with the rows, from first to end, that differ from the frame
before (None: all may).
"""

from collections.abc import Callable, Iterable, Iterator, Sequence
from contextlib import AbstractContextManager
from pathlib import Path
from typing import NamedTuple, Protocol

import av
import numpy as np
from av.video.reformatter import VideoReformatter

from ..picture.frame import Picture
from ..raster.pixel_buffer import Edges
from .encoder import Codec, Encoder, join
from .export_settings import ExportSettings
from .videos import VideoWriter

Samples = Callable[[], list[np.ndarray]]
ToldProgress = Callable[[int], None]


class Whole(NamedTuple):
    """What is asked of a clip as a whole: some of its frames, spread over all of it; and what is
    heard, None if nothing."""

    samples: Samples
    sound: Callable[[], Iterable[np.ndarray] | None]


class Writer(Protocol):
    """Where frames go."""

    def add(self, pixels: np.ndarray, changed: Edges | None = None) -> None:
        """Adds the next frame."""


class ClipPieces(Protocol):
    """How a format's pieces are made and put together."""

    suffix: str

    def open(
        self, path: Path, settings: ExportSettings, threads: int
    ) -> AbstractContextManager[Writer]:
        """A writer of a piece; `threads` frames may be encoded at a time."""

    def put_together(
        self, pieces: Sequence[Path], path: Path, settings: ExportSettings, whole: Whole,
        progress: ToldProgress,
    ) -> None:  # fmt: skip
        """Makes the file of its pieces, in order; tells how many frames are in it so far."""


class EncodedPieces:
    """Pieces are encoded as the file will be, and joined by copying their packets."""

    def __init__(self, codec: Codec, suffix: str):
        self._codec, self.suffix = codec, suffix

    def open(self, path: Path, settings: ExportSettings, threads: int) -> VideoWriter:
        size, rate, quality = settings.size, settings.rate, settings.quality
        return VideoWriter(Encoder(path, size, rate, threads, self._codec, quality))

    def put_together(
        self, pieces: Sequence[Path], path: Path, settings: ExportSettings, whole: Whole,
        progress: ToldProgress,
    ) -> None:  # fmt: skip
        join(pieces, path, settings.rate, self._codec, whole.sound())


# All frames as they are: FFV1 (RFC 9043), every frame by itself.
LOSSLESS = Codec("matroska", "ffv1", "bgra", lambda _: {"level": "3", "g": "1", "slices": "4"})


class _LosslessWriter:
    """Writes frames as they are, premultiplied, so that they can be read back exactly."""

    def __init__(self, path: Path, settings: ExportSettings, threads: int):
        self._encoder = Encoder(path, settings.size, settings.rate, threads, LOSSLESS)

    def __enter__(self) -> "_LosslessWriter":
        return self

    def __exit__(self, kind: type | None, *_: object) -> None:
        self._encoder.end(is_whole=kind is None)

    def add(self, pixels: np.ndarray, changed: Edges | None = None) -> None:
        frame = av.VideoFrame.from_ndarray(np.ascontiguousarray(pixels), format="bgra")
        self._encoder.add(frame)


def read_lossless(pieces: Iterable[Path]) -> Iterator[np.ndarray]:
    """The frames of lossless pieces, one after another."""
    reformatter = VideoReformatter()
    for piece in pieces:
        with av.open(str(piece)) as file:
            for frame in file.decode(video=0):
                yield reformatter.reformat(frame, format="bgra").to_ndarray()


# Opens the writer of a whole file.
Opening = Callable[[Path, ExportSettings, Samples], AbstractContextManager[Writer]]


class CollectedPieces:
    """Pieces are lossless, and one writer makes the file of all their frames: for formats whose
    frames depend on all the others."""

    suffix = ".mkv"

    def __init__(self, open_whole: Opening):
        self._open_whole = open_whole

    def open(self, path: Path, settings: ExportSettings, threads: int) -> _LosslessWriter:
        return _LosslessWriter(path, settings, threads)

    def put_together(
        self, pieces: Sequence[Path], path: Path, settings: ExportSettings, whole: Whole,
        progress: ToldProgress,
    ) -> None:  # fmt: skip
        with self._open_whole(path, settings, whole.samples) as writer:
            for done, pixels in enumerate(read_lossless(pieces), start=1):
                writer.add(pixels)
                progress(done)


class StillPieces:
    """One frame, which is the whole file."""

    def __init__(self, suffix: str, write: Callable[[np.ndarray], bytes]):
        self.suffix, self._write = suffix, write

    def open(self, path: Path, settings: ExportSettings, threads: int) -> "_StillWriter":
        return _StillWriter(path, self._write)

    def put_together(
        self, pieces: Sequence[Path], path: Path, settings: ExportSettings, whole: Whole,
        progress: ToldProgress,
    ) -> None:  # fmt: skip
        path.write_bytes(pieces[0].read_bytes())


class DrawnPieces(StillPieces):
    """One frame that is no picture of pixels: `draw` writes it, from the picture and its time."""

    def __init__(self, suffix: str, draw: Callable[[Picture, float, tuple[int, int]], str]):
        super().__init__(suffix, lambda pixels: b"")
        self._draw = draw

    def write_frame(
        self, path: Path, picture: Picture, time: float, settings: ExportSettings
    ) -> None:
        """Writes the frame at a time. ClipError if it cannot be said so."""
        path.write_text(self._draw(picture, time, settings.size), encoding="utf-8")


class _StillWriter(NamedTuple):
    path: Path
    write: Callable[[np.ndarray], bytes]

    def __enter__(self) -> "_StillWriter":
        return self

    def __exit__(self, *_: object) -> None:
        pass

    def add(self, pixels: np.ndarray, changed: Edges | None = None) -> None:
        self.path.write_bytes(self.write(pixels))
