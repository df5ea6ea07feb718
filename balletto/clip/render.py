"""From a scene to a clip: frames are drawn, converted and encoded, piece by piece.

A clip is cut into segments. One process draws and encodes a segment while the encoder's own
threads work on the frames before; segments may be made by several processes. The pieces are then
joined without encoding again.
"""

import tempfile
import time
from collections.abc import Callable
from fractions import Fraction
from pathlib import Path

import numpy as np

from ..picture.frame import Picture, draw_frame
from ..picture.reel import Reel
from ..picture.skia_canvas import SkiaCanvas
from ..scene.document import Scene
from .convert import Converter
from .encoder import USUAL_QUALITY, Encoder, encoder_threads, join
from .errors import ClipError
from .formats import FORMATS, Format, Making, check_making

SEGMENT_FRAMES = 240
# Above this a frame is slower to draw than to encode, and drawing in several processes pays.
SLOW_FRAME_MS = 15.0

# Called after each frame with the frames done; raising from it stops the render.
Progress = Callable[[int], None]


def check(scene: Scene, frames: range) -> None:
    """Raises ClipError if the scene cannot become an MP4, or the frames are not in it."""
    width, height = scene.size
    if width % 2 or height % 2:
        even = f"{width + width % 2} × {height + height % 2}"
        raise ClipError(
            f"An MP4 needs an even width and height, and this scene is {width} × {height}. "
            f"Make it {even}."
        )
    _check_frames(scene, frames)


def _check_frames(scene: Scene, frames: range) -> None:
    if not len(frames) or frames.start < 0 or frames.stop > scene.length:
        last = scene.length - 1
        raise ClipError(f"The frames must lie within 0 to {last}, the frames of the scene.")


def segments(frames: range) -> list[range]:
    """The frames cut into segments, none of them empty."""
    return [frames[at : at + SEGMENT_FRAMES] for at in range(0, len(frames), SEGMENT_FRAMES)]


def is_slow(scene: Scene, frames: range) -> bool:
    """Whether the scene is slow to draw, measured on three of its frames.

    The time of this thread counts, not the clock: what else the machine does is not the scene's.
    """
    picture, canvas = Picture(scene), SkiaCanvas(*scene.size)
    picture.draw(canvas, frames[0])  # prepares outlines, which is paid for once
    started = time.thread_time()
    for share in (1, 2, 3):
        picture.draw(canvas, frames[len(frames) * share // 4])
    return (time.thread_time() - started) / 3 * 1000 > SLOW_FRAME_MS


def render_segment(
    scene: Scene, frames: range, path: Path, progress: Progress, threads: int
) -> None:
    """Draws and encodes `frames` into a piece of a clip at `path`, all in memory but one frame."""
    reel = Reel(Picture(scene))
    converter = Converter(*scene.size)
    with Encoder(path, scene.size, scene.frames_a_second, threads) as encoder:
        for done, frame in enumerate(frames, start=1):
            changed = reel.draw(frame)
            encoder.add(converter.convert(reel.pixels, changed))
            progress(done)


def render(scene: Scene, frames: range, path: Path, progress: Progress = lambda done: None) -> None:
    """Renders `frames` of a scene to an MP4 at `path`, which appears only when it is whole.

    ClipError if it cannot be done.
    """
    check(scene, frames)
    with tempfile.TemporaryDirectory(prefix=".balletto-", dir=path.parent) as folder:
        pieces = []
        before = 0
        for number, segment in enumerate(segments(frames)):
            piece = Path(folder) / f"{number}.mp4"
            render_segment(
                scene,
                segment,
                piece,
                lambda done, before=before: progress(before + done),
                encoder_threads(),
            )
            before += len(segment)
            pieces.append(piece)
        whole = Path(folder) / "whole.mp4"
        join(pieces, whole, scene.frames_a_second)
        whole.replace(path)


_SAMPLED = 12  # frames from which a palette is made


def export(
    scene: Scene,
    frames: range,
    path: Path,
    chosen: Format,
    making: Making,
    progress: Progress = lambda done: None,
) -> int:
    """Renders `frames` of a scene in any format, size and rate, to a file at `path` that appears
    only when it is whole; the number of frames that it has. ClipError if it cannot be done.

    At another rate than the scene's the picture is taken at the times of the clip's own frames.
    """
    _check_frames(scene, frames)
    check_making(chosen, making)
    if chosen is FORMATS["mp4"] and making.size == scene.size and _is_plain(scene, making):
        render(scene, frames, path, progress)
        return len(frames)
    picture = Picture(scene)
    times = clip_times(scene, frames, making.rate)
    making = making._replace(samples=lambda: _samples(picture, times, making.size))
    with tempfile.TemporaryDirectory(prefix=".balletto-", dir=path.parent) as folder:
        whole = Path(folder) / f"whole{path.suffix}"
        reel = Reel(picture, making.size)
        with chosen.open(whole, making) as writer:
            for done, time_ in enumerate(times, start=1):
                reel.draw(time_)
                writer.add(reel.pixels)
                progress(done)
        whole.replace(path)
    return len(times)


def _is_plain(scene: Scene, making: Making) -> bool:
    """Whether the quicker way gives the same: pieces joined, only changed rows converted."""
    return (making.rate, making.quality) == (scene.frames_a_second, USUAL_QUALITY)


def clip_times(scene: Scene, frames: range, rate: Fraction) -> list[float]:
    """The times, in frames of the scene, of a clip's frames at a rate: as many as last as long."""
    step = scene.frames_a_second / rate
    count = max(1, round(len(frames) / step))
    return [float(frames.start + number * step) for number in range(count)]


def _samples(picture: Picture, times: list[float], size: tuple[int, int]) -> list[np.ndarray]:
    step = max(1, len(times) // _SAMPLED)
    return [draw_frame(picture, time_, size) for time_ in times[step // 2 :: step]]
