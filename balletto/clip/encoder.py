"""Encoding frames to H.264, and joining pieces of a clip without encoding again."""

from collections.abc import Sequence
from fractions import Fraction
from pathlib import Path

import av
from av.codec.context import ThreadType

# BT.709 throughout, by the code points of ITU-T H.273.
_BT709 = 1
# Looks the same as the source to the eye; "veryfast" is where drawing and encoding balance.
_OPTIONS = {"preset": "veryfast", "crf": "16"}


class Encoder:
    """Writes frames to an MP4 file with H.264. Use as a context: the file is whole at its end.

    `threads` frames are encoded at a time. Memory does not depend on the number of frames.
    """

    def __init__(self, path: Path, size: tuple[int, int], rate: Fraction, threads: int):
        self._container = av.open(str(path), "w", format="mp4")
        self._stream = self._container.add_stream("libx264", rate=rate, options=dict(_OPTIONS))
        self._stream.width, self._stream.height = size
        self._stream.pix_fmt = "yuv420p"
        context = self._stream.codec_context
        context.time_base = 1 / rate
        context.thread_count = threads
        context.thread_type = ThreadType.FRAME
        context.color_primaries = context.color_trc = context.colorspace = _BT709
        context.color_range = 1  # limited
        self._count = 0

    def __enter__(self) -> "Encoder":
        return self

    def __exit__(self, kind: type | None, *_: object) -> None:
        try:
            if kind is None:
                self._container.mux(self._stream.encode(None))
        finally:
            self._container.close()

    def add(self, frame: av.VideoFrame) -> None:
        """Adds a frame, which is copied at once (x264 does so on taking it in)."""
        frame.pts = self._count
        frame.time_base = self._stream.codec_context.time_base
        self._count += 1
        self._container.mux(self._stream.encode(frame))


def join(pieces: Sequence[Path], path: Path, rate: Fraction) -> None:
    """Writes the pieces one after another into one MP4 that starts playing as it loads.

    The packets are copied. Pieces are written by Encoder, each opening with a picture of its own.
    """
    with av.open(str(path), "w", format="mp4", options={"movflags": "faststart"}) as whole:
        stream = None
        start = 0
        for piece in pieces:
            with av.open(str(piece)) as part:
                source = part.streams.video[0]
                if stream is None:
                    stream = whole.add_stream_from_template(source)
                    stream.time_base = source.time_base
                ticks = round(1 / (rate * source.time_base))
                for packet in part.demux(source):
                    if packet.pts is None:  # the empty packet at the end
                        continue
                    packet.pts += start
                    packet.dts += start
                    packet.stream = stream
                    whole.mux(packet)
                start += source.frames * ticks
