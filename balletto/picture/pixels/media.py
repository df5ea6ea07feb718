"""Pictures and videos from files, as pixels to draw: BGRA, premultiplied.

MediaError     a file cannot be read as what it should be; the message says what would do
"""

import threading
from functools import cached_property, lru_cache
from pathlib import Path
from typing import Any, NamedTuple

import av
import numpy as np
import skia
from av.video.reformatter import ColorRange, Colorspace, VideoReformatter
from PIL import Image, ImageOps, UnidentifiedImageError

from ...scene.forms.svg_bounds import MOST_BYTES, svg_root
from .bitmap_store import BITMAPS
from .bitmaps import Bitmap

STILLS = (".png", ".jpg", ".jpeg", ".webp", ".svg")
VIDEOS = (".mp4", ".mov", ".m4v", ".webm", ".mkv", ".gif")
SOUNDS = (".wav", ".flac", ".mp3", ".ogg", ".oga", ".opus")
MOST_PIXELS = 64_000_000
MOST_VIDEO_PIXELS = 8192 * 4608
_ROWS = 512  # of a picture, that are worked out at a time
# Drawings without pixels of their own are drawn once, so that they stay sharp when they grow.
_SVG_SIDE = 2160
_UNKNOWN_SPACE = 2  # "unspecified" in ITU-T H.273
_NEAR_S = 2.0  # so far ahead a video is decoded on rather than sought in
_HAIR_S = 1e-3  # a frame that begins so soon has begun


class MediaError(ValueError):
    """The file cannot be used."""


class About(NamedTuple):
    """What a file holds. kind: still, video or sound; size in px; how long it lasts."""

    kind: str
    size: tuple[float, float] = (0, 0)
    seconds: float = 0.0
    rate: float = 0.0


def about(path: Path) -> About:
    """What a file holds; MediaError if it is none of what is read, or broken."""
    suffix = path.suffix.lower()
    try:
        if suffix in STILLS:
            return About("still", still(path).size)
        if suffix in VIDEOS:
            return _about_video(path)
        if suffix in SOUNDS:
            return _about_sound(path)
    except (av.FFmpegError, IndexError, OSError, SyntaxError, ValueError) as error:
        if isinstance(error, MediaError):
            raise
        told = f"{path.name} cannot be read: it seems to be broken ({_told(error, path)})."
        raise MediaError(told) from None
    known = ", ".join(ending[1:].upper() for ending in (*STILLS, *VIDEOS, *SOUNDS))
    raise MediaError(f"{path.name} is of no kind that is read here. These are: {known}.")


def _told(error: Exception, path: Path) -> str:
    """What went wrong, without where the file lies."""
    return str(getattr(error, "strerror", None) or error).replace(str(path), path.name)


def _about_video(path: Path) -> About:
    first = Video(path).at(0.0)
    with av.open(str(path)) as file:
        stream = file.streams.video[0]
        rate = float(stream.average_rate or 0)
        return About("video", first.size, _seconds(file, stream), rate)


def _about_sound(path: Path) -> About:
    with av.open(str(path)) as file:
        stream = file.streams.audio[0]
        next(file.decode(stream))
        return About("sound", seconds=_seconds(file, stream))


def _seconds(file: Any, stream: Any) -> float:
    if stream.duration:
        return float(stream.duration * stream.time_base)
    return float((file.duration or 0) / av.time_base)


def still(path: Path) -> Bitmap:
    """The picture of a file, kept as long as there is room. MediaError if it cannot be read."""
    try:
        key = _as_it_is(path)
        return BITMAPS.get(key, lambda: _still(path, key))
    except (OSError, UnidentifiedImageError, Image.DecompressionBombError, SyntaxError) as error:
        raise MediaError(f"{path.name} cannot be read as a picture: {_told(error, path)}") from None


def _as_it_is(path: Path) -> str:
    """What tells a file from others, and from what it was before. OSError if it is not there."""
    state = path.stat()
    return f"{path} of {state.st_mtime_ns}, {state.st_size} bytes"


def _still(path: Path, key: str) -> Bitmap:
    return _drawing(path, key) if path.suffix.lower() == ".svg" else _photo(path, key)


def _photo(path: Path, key: str) -> Bitmap:
    with Image.open(path) as image:
        if image.width * image.height > MOST_PIXELS:
            raise MediaError(f"{path.name} has more than {MOST_PIXELS // 1_000_000} megapixels.")
        straight = np.asarray(ImageOps.exif_transpose(image).convert("RGBA"))
    return Bitmap(key, premultiplied(straight[..., [2, 1, 0, 3]]))


def premultiplied(straight: np.ndarray) -> np.ndarray:
    """Pixels (height, width, 4) with straight alpha as new premultiplied ones."""
    made = np.ascontiguousarray(straight).copy()
    for first in range(0, len(made), _ROWS):  # a large picture has no second one of twice its size
        rows = made[first : first + _ROWS]
        color = rows[..., :3].astype(np.uint16) * rows[..., 3:] + 127
        rows[..., :3] = color // 255
    return made


def _drawing(path: Path, key: str) -> Bitmap:
    """An SVG, drawn so large that it stays sharp. It reads nothing from elsewhere."""
    with path.open("rb") as file:
        content = file.read(MOST_BYTES + 1)
    try:
        svg_root(content)
    except ValueError as error:
        raise MediaError(f"{path.name}: {error}.") from None
    drawing = skia.SVGDOM.MakeFromStream(skia.MemoryStream.MakeCopy(content))
    if drawing is None:
        raise MediaError(f"{path.name} cannot be read as an SVG.")
    size = drawing.containerSize()
    width, height = size.width(), size.height()
    if width <= 0 or height <= 0:
        told = f"{path.name} does not say how large it is: give its svg a width and a height."
        raise MediaError(told)
    scale = _SVG_SIDE / max(width, height)
    pixels = np.zeros((max(1, round(height * scale)), max(1, round(width * scale)), 4), np.uint8)
    info = skia.ImageInfo.Make(
        pixels.shape[1], pixels.shape[0], skia.kBGRA_8888_ColorType, skia.kPremul_AlphaType
    )
    canvas = skia.Surface.MakeRasterDirect(info, pixels).getCanvas()
    canvas.scale(scale, scale)
    drawing.render(canvas)
    return Bitmap(key, pixels, (width, height))


class Video:
    """The frames of a video file, by their time. Reading on is quick, going back seeks."""

    def __init__(self, path: Path):
        self._path, self._key = path, _as_it_is(path)
        self._lock = threading.Lock()
        self._reformatter = VideoReformatter()
        self._container = av.open(str(path))
        self._stream = self._container.streams.video[0]
        context = self._stream.codec_context
        if context is None:
            raise MediaError(f"{path.name} is of a kind that is not read here: try it as an MP4.")
        if context.width * context.height > MOST_VIDEO_PIXELS:
            told = f"{context.width:,} x {context.height:,} px"
            raise MediaError(f"{path.name} is too large: {told}; 8192 x 4608 is the most.")
        self._stream.thread_type = "AUTO"
        self._frames = self._decoded()
        self._current: Any = None
        self._next: Any = None

    @cached_property
    def size(self) -> tuple[float, float]:
        """Of its frames."""
        return self.at(0.0).size

    @property
    def seconds(self) -> float:
        """How long it lasts."""
        return _seconds(self._container, self._stream)

    def at(self, seconds: float) -> Bitmap:
        """The frame that is seen at a time; the first before, the last after all."""
        with self._lock:
            self._go_to(seconds + _HAIR_S)
            return self._bitmap(self._current)

    def _decoded(self) -> Any:
        # The decoder that is chosen by itself leaves the transparency of VP9 out.
        if "alpha_mode" in {key.lower() for key in self._stream.metadata}:
            decoder = av.CodecContext.create("libvpx-vp9", "r")
            for packet in self._container.demux(self._stream):
                yield from decoder.decode(packet)
            return
        yield from self._container.decode(self._stream)

    def _go_to(self, seconds: float) -> None:
        if self._current is None or not self._is_near(seconds):
            self._seek(seconds)
        while self._next is not None and _time(self._next) <= seconds:
            self._current, self._next = self._next, next(self._frames, None)

    def _is_near(self, seconds: float) -> bool:
        ahead = seconds - _time(self._current)
        return 0 <= ahead <= _NEAR_S or (ahead > 0 and self._next is None)

    def _seek(self, seconds: float) -> None:
        start = self._stream.start_time or 0
        target = start + int(max(seconds, 0.0) / (self._stream.time_base or 1))
        self._container.seek(target, stream=self._stream, backward=True)
        self._frames = self._decoded()
        self._current = next(self._frames, None)
        if self._current is None:  # sought beyond the last frame that can be decoded by itself
            self._container.seek(start, stream=self._stream, backward=True)
            self._frames = self._decoded()
            self._current = next(self._frames, None)
        if self._current is None:
            raise MediaError(f"{self._path.name} has no picture that can be read.")
        self._next = next(self._frames, None)

    def _bitmap(self, frame: Any) -> Bitmap:
        key = f"{self._key} at {frame.pts}"
        return BITMAPS.get(key, lambda: Bitmap(key, self._straightened(frame)))

    def _straightened(self, frame: Any) -> np.ndarray:
        space = frame.colorspace
        if space == _UNKNOWN_SPACE:
            space = Colorspace.ITU709 if frame.height >= 720 else Colorspace.ITU601
        made = self._reformatter.reformat(
            frame,
            format="bgra",
            src_colorspace=space,
            dst_colorspace=space,
            dst_color_range=ColorRange.JPEG,
        ).to_ndarray()
        has_alpha = frame.format.name.startswith(("yuva", "rgba", "bgra", "argb", "pal"))
        if has_alpha:
            made = premultiplied(made)
        turned = int(getattr(frame, "rotation", 0)) // 90
        return np.ascontiguousarray(np.rot90(made, turned)) if turned else made


def _time(frame: Any) -> float:
    return float(frame.time or 0.0)


def video(path: Path) -> Video:
    """The video of a file, which is kept open. MediaError if it cannot be read."""
    try:
        return _video(path, _as_it_is(path))
    except (av.FFmpegError, IndexError, OSError) as error:
        raise MediaError(f"{path.name} cannot be read as a video: {_told(error, path)}") from None


@lru_cache(maxsize=8)
def _video(path: Path, key: str) -> Video:
    return Video(path)
