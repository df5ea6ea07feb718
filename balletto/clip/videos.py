"""Videos: frames encoded by PyAV, with colours as BT.709 says and tagged so."""

import os
from collections.abc import Callable
from fractions import Fraction
from pathlib import Path
from typing import NamedTuple

import av
import numpy as np
from av.codec.context import ThreadType
from av.video.reformatter import ColorRange, Colorspace, VideoReformatter

from ..picture.stills import straight_bgra

# What the AV1 encoder says of itself is left out; its faults are not.
os.environ.setdefault("SVT_LOG", "1")

_BT709 = 1  # by the code points of ITU-T H.273
_LIMITED = 1


class Codec(NamedTuple):
    """An encoder in a container: the layout of its pixels, and its options for a quality in
    percent."""

    container: str
    name: str
    pixels: str
    options: Callable[[int], dict[str, str]]

    @property
    def has_alpha(self) -> bool:
        return "a" in self.pixels.replace("gray", "")

    @property
    def is_rgb(self) -> bool:
        return self.pixels.startswith("rgb")


def _between(best: float, worst: float, quality: int) -> str:
    """A quantiser between the one for 100 % and the one for 0 %."""
    return str(round(worst + (best - worst) * quality / 100))


H264 = Codec(
    "mp4", "libx264", "yuv420p", lambda q: {"preset": "veryfast", "crf": _between(11, 36, q)}
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
)
APNG = Codec("apng", "apng", "rgba", lambda q: {"pred": "mixed"})


class VideoWriter:
    """Writes frames to a video file. `more` are options of the container."""

    def __init__(
        self,
        path: Path,
        size: tuple[int, int],
        rate: Fraction,
        codec: Codec,
        quality: int,
        more: dict[str, str] | None = None,
    ):
        self._codec = codec
        self._container = av.open(str(path), "w", format=codec.container, options=more or {})
        options = codec.options(quality)
        self._stream = self._container.add_stream(codec.name, rate=rate, options=options)
        self._stream.width, self._stream.height = size
        self._stream.pix_fmt = codec.pixels
        context = self._stream.codec_context
        context.time_base = 1 / rate
        context.thread_count = len(os.sched_getaffinity(0)) + 1
        context.thread_type = ThreadType.AUTO
        if not codec.is_rgb:
            context.color_primaries = context.color_trc = context.colorspace = _BT709
            context.color_range = _LIMITED
        if codec.container == "webm" and codec.has_alpha:
            self._stream.metadata["alpha_mode"] = "1"
        self._reformatter = VideoReformatter()
        self._count = 0

    def __enter__(self) -> "VideoWriter":
        return self

    def __exit__(self, kind: type | None, *_: object) -> None:
        try:
            if kind is None:
                self._container.mux(self._stream.encode(None))
        finally:
            self._container.close()

    def add(self, pixels: np.ndarray) -> None:
        """Adds a frame."""
        source = straight_bgra(pixels) if self._codec.has_alpha else np.ascontiguousarray(pixels)
        frame = av.VideoFrame.from_ndarray(source, format="bgra")
        colors = {} if self._codec.is_rgb else _COLORS
        frame = self._reformatter.reformat(frame, format=self._codec.pixels, **colors)
        frame.pts = self._count
        frame.time_base = self._stream.codec_context.time_base
        self._count += 1
        self._container.mux(self._stream.encode(frame))


_COLORS = {"dst_colorspace": Colorspace.ITU709, "dst_color_range": ColorRange.MPEG}
