"""The samples of files of sound, as floats; 1.0 is as loud as can be."""

from collections.abc import Iterator
from pathlib import Path

import av
import numpy as np

RATE = 48_000  # samples a second of what is heard


class SoundError(Exception):
    """A file of sound cannot be read; the message says which and why."""


def read(path: Path, first: int = 0, most: int | None = None) -> np.ndarray:
    """Samples of a file in stereo at RATE, (2, n): from one on at most so many, or all. No more of
    it is in memory. SoundError if it cannot be read."""
    return np.concatenate([np.zeros((2, 0), np.float32), *parts(path, first, most)], axis=1)


def parts(path: Path, first: int = 0, most: int | None = None) -> Iterator[np.ndarray]:
    """The same in turn, (2, n) each, none of them empty."""
    at = 0
    for block in blocks(path, RATE, "stereo"):
        end = None if most is None else max(first + most - at, 0)
        part = block[:, max(first - at, 0) : end]
        if part.shape[1]:
            yield part
        at += block.shape[1]
        if most is not None and at >= first + most:
            return


def blocks(path: Path, rate: int, layout: str) -> Iterator[np.ndarray]:
    """The samples of a file in turn, each block (channels, n): a long file need not fit into
    memory. SoundError if it cannot be read."""
    resampler = av.AudioResampler(format="fltp", layout=layout, rate=rate)
    try:
        with av.open(str(path)) as file:
            for frame in file.decode(audio=0):
                yield from (each.to_ndarray() for each in resampler.resample(frame))
        yield from (each.to_ndarray() for each in resampler.resample(None))
    except (av.FFmpegError, IndexError, OSError) as error:
        raise SoundError(f"The sound {path.name} cannot be read: {error}") from None
