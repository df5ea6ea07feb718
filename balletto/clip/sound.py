"""Sound as it is written: beside the pictures of a clip, or as a file of its own.

Samples are floats, (2, n), at RATE a second, and come in blocks.
"""

import wave
from collections.abc import Iterable
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import numpy as np

from ..hearing.samples import RATE

_FRAME = 1024  # samples that are encoded at a time
# What goes with the pictures in each container.
CODECS = {"mp4": "aac", "mov": "pcm_s16le", "webm": "libopus"}


def write_wav(path: Path, blocks: Iterable[np.ndarray]) -> None:
    """Writes a WAV file of 16 bits."""
    with wave.open(str(path), "wb") as writer:
        writer.setnchannels(2)
        writer.setsampwidth(2)
        writer.setframerate(RATE)
        for block in blocks:
            writer.writeframes(np.round(block.T * 32767).astype("<i2").tobytes())


class SoundTrack:
    """A track of a file that is being written, beside its pictures."""

    def __init__(self, container: Any, kind: str, blocks: Iterable[np.ndarray]):
        self._container, self._blocks = container, iter(blocks)
        self._block = np.zeros((2, 0), dtype=np.float32)  # what is left of the newest
        self._stream = container.add_stream(CODECS[kind], rate=RATE)
        self._stream.layout = "stereo"
        kind = self._stream.codec_context.format.name
        self._resampler = av.AudioResampler(format=kind, layout="stereo", rate=RATE)
        self._done = 0

    def write_until(self, seconds: float) -> None:
        """Writes what is heard until then: with the pictures, so that players need not seek."""
        while self._done < seconds * RATE and self._has_more():
            part = np.ascontiguousarray(self._block[:, :_FRAME])
            self._block = self._block[:, _FRAME:]
            frame = av.AudioFrame.from_ndarray(part, format="fltp", layout="stereo")
            frame.sample_rate, frame.pts = RATE, self._done
            frame.time_base = Fraction(1, RATE)
            self._done += part.shape[1]
            for ready in self._resampler.resample(frame):
                self._container.mux(self._stream.encode(ready))

    def _has_more(self) -> bool:
        if not self._block.shape[1]:
            self._block = next(self._blocks, self._block)
        return self._block.shape[1] > 0

    def close(self) -> None:
        """Writes the rest."""
        self.write_until(float("inf"))
        self._container.mux(self._stream.encode(None))
