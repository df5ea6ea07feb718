"""Encoding frames into video files, and joining pieces without encoding again."""

import os
from collections.abc import Callable, Iterable, Iterator, Sequence
from fractions import Fraction
from pathlib import Path
from typing import Any, NamedTuple

import av
import numpy as np
from av.codec.context import ThreadType

from .export_settings import USUAL_QUALITY
from .sound import SoundTrack

# What the AV1 encoder says of itself is left out; its faults are not.
os.environ.setdefault("SVT_LOG", "1")

# BT.709 throughout, by the code points of ITU-T H.273.
_BT709 = 1
_LIMITED = 1


class Codec(NamedTuple):
    """An encoder in a container: the layout of its pixels, its options for a quality in percent,
    and the label of the stream where the container would choose another."""

    container: str
    name: str
    pixels: str
    options: Callable[[int], dict[str, str]]
    threads: ThreadType = ThreadType.AUTO
    tag: str = ""

    @property
    def has_alpha(self) -> bool:
        return "a" in self.pixels

    @property
    def is_rgb(self) -> bool:
        return self.pixels.startswith(("rgb", "bgr"))


def _between(best: float, worst: float, quality: int) -> str:
    """A quantiser between the one for 100 % and the one for 0 %."""
    return str(round(worst + (best - worst) * quality / 100))


# "veryfast" is where drawing and encoding balance.
H264 = Codec(
    "mp4",
    "libx264",
    "yuv420p",
    lambda q: {"preset": "veryfast", "crf": _between(11, 36, q)},
    ThreadType.FRAME,
)
VP9 = Codec(
    "webm",
    "libvpx-vp9",
    "yuv420p",
    lambda q: {"crf": _between(8, 56, q), "b": "0", "cpu-used": "5", "row-mt": "1"},
)
VP9_ALPHA = VP9._replace(pixels="yuva420p")
AV1 = Codec("webm", "libsvtav1", "yuv420p", lambda q: {"crf": _between(12, 58, q), "preset": "9"})
# With a fixed quantiser it is five times as fast as when the encoder looks for one.
PRORES = Codec(
    "mov",
    "prores_ks",
    "yuva444p10le",
    lambda q: {"profile": "4444", "qscale": _between(2, 12, q)},
    # Left to itself the container calls any ProRes 422 HQ, which has no transparency.
    tag="ap4h",
)
APNG = Codec("apng", "apng", "rgba", lambda q: {"pred": "mixed"})


def encoder_threads() -> int:
    """Frames encoded at a time when one process has the machine: one more than it has cores."""
    return len(os.sched_getaffinity(0)) + 1


class Encoder:
    """Writes frames to a video file, H.264 in MP4 unless it is told another codec. Use as a
    context: the file is whole at its end.

    `threads` frames are encoded at a time, where the codec can. Memory does not depend on the
    number of frames. `more` are options of the container.
    """

    def __init__(
        self,
        path: Path,
        size: tuple[int, int],
        rate: Fraction,
        threads: int,
        codec: Codec = H264,
        quality: int = USUAL_QUALITY,
        more: dict[str, str] | None = None,
    ):
        self.codec, self.size = codec, size
        self._container = av.open(str(path), "w", format=codec.container, options=more or {})
        options = codec.options(quality)
        # The library does not tell streams of pictures from others by their type.
        stream: Any = self._container.add_stream(codec.name, rate=rate, options=options)
        self._stream = stream
        stream.width, stream.height = size
        stream.pix_fmt = codec.pixels
        context = stream.codec_context
        context.time_base = 1 / rate
        context.thread_count = threads
        context.thread_type = codec.threads
        if codec.tag:
            context.codec_tag = codec.tag
        if not codec.is_rgb:
            context.color_primaries = context.color_trc = context.colorspace = _BT709
            context.color_range = _LIMITED
        if codec.container == "webm" and codec.has_alpha:
            self._stream.metadata["alpha_mode"] = "1"
        self._count = 0

    def __enter__(self) -> "Encoder":
        return self

    def __exit__(self, kind: type | None, *_: object) -> None:
        self.end(is_whole=kind is None)

    def end(self, is_whole: bool) -> None:
        """Ends the file, after what is still to come of it if it is to be whole."""
        try:
            if is_whole:
                self._container.mux(self._stream.encode(None))
        finally:
            self._container.close()

    def add(self, frame: av.VideoFrame) -> None:
        """Adds a frame, in the layout of the codec, which is copied at once (x264 does so on
        taking it in)."""
        frame.pts = self._count
        frame.time_base = self._stream.codec_context.time_base
        if not self.codec.is_rgb:
            # Some encoders write what the picture says of its colours, not what the stream does.
            frame.color_primaries = frame.color_trc = _BT709
        self._count += 1
        self._container.mux(self._stream.encode(frame))


def join(
    pieces: Sequence[Path],
    path: Path,
    rate: Fraction,
    codec: Codec = H264,
    sound: Iterable[np.ndarray] | None = None,
) -> None:
    """Writes the pieces one after another into one file that starts playing as it loads.

    The packets are copied. Pieces are written by Encoder, each opening with a picture of its own.
    `sound`: blocks of samples, as balletto.clip.mixing gives them, heard with the pictures.
    """
    early = {} if codec.container == "webm" else {"movflags": "faststart"}
    with av.open(str(path), "w", format=codec.container, options=early) as whole:
        stream = _stream_like(whole, pieces[0])
        track = SoundTrack(whole, codec.container, sound) if sound is not None else None
        start = done = 0
        for piece in pieces:
            count = 0
            for packet in _packets(piece):
                packet.pts = (packet.pts or 0) + start
                packet.dts = (packet.dts or 0) + start
                packet.stream = stream
                if track:
                    track.write_until(float((done + count) / rate))
                whole.mux(packet)
                count += 1
            done += count
            # Times in WebM are whole milliseconds: counted from the start, they add up.
            start = round(done / (rate * stream.time_base))
        if track:
            track.close()


def _stream_like(whole: Any, piece: Path) -> Any:
    """A stream for the pictures of pieces as this one."""
    with av.open(str(piece)) as part:
        source = part.streams.video[0]
        # Opaque: what decodes it may not be what encodes it.
        stream = whole.add_stream_from_template(source, opaque=True)
        stream.time_base = source.time_base
        stream.metadata.update(source.metadata)
        stream.codec_context.codec_tag = source.codec_context.codec_tag
        return stream


def _packets(piece: Path) -> Iterator[Any]:
    with av.open(str(piece)) as part:
        for packet in part.demux(part.streams.video[0]):
            if packet.pts is not None:  # it is in the empty packet at the end
                yield packet
