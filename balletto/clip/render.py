"""From a scene to a clip: frames are drawn, converted and encoded, piece by piece.

A clip is cut into segments. One process draws and encodes a segment while the encoder's own
threads work on the frames before; segments may be made by several processes. The pieces are then
put together.
"""

import os
import tempfile
import time
from collections.abc import Iterable, Sequence
from concurrent.futures import ProcessPoolExecutor, as_completed
from functools import partial
from multiprocessing import get_context
from pathlib import Path
from typing import Any

import numpy as np

from ..picture.frame import Picture, draw_frame
from ..picture.incremental_renderer import IncrementalRenderer
from ..scene.document import Scene
from ..scene.files import from_data, to_data
from .encoder import encoder_threads
from .errors import ClipError
from .export_settings import ExportSettings, clip_times, seen_in
from .formats import FORMATS, check_settings
from .memory import give_back, keep_at_hand
from .mixing import has_sound, mixed
from .pieces import DrawnPieces, ToldProgress, Whole

SEGMENT_FRAMES = 240
_SEGMENTS_A_WORKER, _FEWEST_FRAMES = 4, 8
# Above this a frame is slower to draw than to encode, and drawing in several processes pays.
SLOW_FRAME_MS = 15.0
_MOST_KEPT = 2 * 1024**3  # bytes of frames in memory
_SAMPLED = 12  # frames that stand for all of a clip


def check(scene: Scene, settings: ExportSettings) -> None:
    """Raises ClipError if the format cannot hold the clip, or the frames are not in the scene."""
    frames = settings.frames
    if not len(frames) or frames.start < 0 or frames.stop > scene.length:
        last = scene.length - 1
        raise ClipError(f"The frames must lie within 0 to {last}, the frames of the scene.")
    for what, file in scene.files():
        if scene.path_of(file) is None:
            told = (
                f"The file “{file}” of {what} is not there. Add it again, or remove what shows it."
            )
            raise ClipError(told)
    check_settings(settings)
    _check_memory(settings, len(clip_times(scene, settings)))


def _check_memory(settings: ExportSettings, count: int) -> None:
    """ClipError if the format would keep more than there may be in memory."""
    chosen, (width, height) = FORMATS[settings.format], settings.size
    a_frame = width * height * chosen.bytes_kept
    if a_frame * count > _MOST_KEPT:
        raise ClipError(
            f"{chosen.title} is made in memory, which has room for {_MOST_KEPT // a_frame} frames "
            f"of {width} × {height}; this has {count}. Choose fewer frames, a smaller size or a "
            "video format."
        )


def segments(count: int, workers: int = 1) -> list[range]:
    """The numbers of a clip's frames cut into segments, none of them empty; for several workers
    into so many that all have enough to do until the end."""
    most = SEGMENT_FRAMES
    if workers > 1:
        most = min(most, max(_FEWEST_FRAMES, -(-count // (workers * _SEGMENTS_A_WORKER))))
    return [range(count)[at : at + most] for at in range(0, count, most)]


def is_slow(scene: Scene, settings: ExportSettings) -> bool:
    """Whether the clip is slow to draw, measured on three of its frames.

    The time of this thread counts, not the clock: what else the machine does is not the scene's.
    """
    renderer, times = (
        IncrementalRenderer(Picture(seen_in(scene, settings)), settings.size),
        clip_times(scene, settings),
    )
    renderer.draw(times[0])  # prepares outlines, which is paid for once
    started = time.thread_time()
    for share in (1, 2, 3):
        renderer.draw(times[len(times) * share // 4])
    return (time.thread_time() - started) / 3 * 1000 > SLOW_FRAME_MS


def render_segment(
    scene: Scene,
    settings: ExportSettings,
    part: range,
    path: Path,
    progress: ToldProgress,
    threads: int,
) -> None:
    """Draws and encodes the clip's frames of those numbers into a piece at `path`, all in memory
    but one frame. `progress` is told the frames done; raising from it stops."""
    picture, pieces = Picture(seen_in(scene, settings)), FORMATS[settings.format].pieces
    times = clip_times(scene, settings)[part.start : part.stop]
    if isinstance(pieces, DrawnPieces):
        pieces.write_frame(path, picture, times[0], settings)
        return
    renderer = IncrementalRenderer(picture, settings.size)
    with pieces.open(path, settings, threads) as writer:
        for done, time_ in enumerate(times, start=1):
            changed = renderer.draw(time_)
            writer.add(renderer.pixels, changed)
            progress(done)


def put_together(
    scene: Scene,
    settings: ExportSettings,
    pieces: Sequence[Path],
    path: Path,
    progress: ToldProgress,
) -> None:
    """Makes the clip of its pieces."""
    whole = Whole(partial(_samples, scene, settings), partial(_sound, scene, settings))
    FORMATS[settings.format].pieces.put_together(pieces, path, settings, whole, progress)


def _sound(scene: Scene, settings: ExportSettings) -> Iterable[np.ndarray] | None:
    return mixed(scene, settings.frames) if has_sound(scene) else None


def _samples(scene: Scene, settings: ExportSettings) -> list[np.ndarray]:
    picture, times = Picture(seen_in(scene, settings)), clip_times(scene, settings)
    step = max(1, len(times) // _SAMPLED)
    return [draw_frame(picture, time_, settings.size) for time_ in times[step // 2 :: step]]


def render(
    scene: Scene, settings: ExportSettings, path: Path, progress: ToldProgress = lambda done: None
) -> int:
    """Renders a clip to a file at `path`, which appears only when it is whole; the number of
    frames that it has. ClipError if it cannot be done."""
    keep_at_hand()
    check(scene, settings)
    count = len(clip_times(scene, settings))
    workers = len(os.sched_getaffinity(0)) if is_slow(scene, settings) else 1
    parts = segments(count, workers)
    suffix = FORMATS[settings.format].pieces.suffix
    with tempfile.TemporaryDirectory(prefix=".balletto-", dir=path.parent) as folder:
        pieces = [Path(folder) / f"{number}{suffix}" for number in range(len(parts))]
        render_parts = _render_side_by_side if workers > 1 else _render_in_turn
        render_parts(scene, settings, parts, pieces, progress)
        whole = Path(folder) / f"whole{path.suffix}"
        put_together(scene, settings, pieces, whole, lambda done: None)
        whole.replace(path)
    return count


def _render_in_turn(
    scene: Scene,
    settings: ExportSettings,
    parts: list[range],
    pieces: list[Path],
    progress: ToldProgress,
) -> None:
    for part, piece in zip(parts, pieces, strict=True):
        if part.start:
            give_back()
        told = partial(_told_from, part.start, progress)
        render_segment(scene, settings, part, piece, told, encoder_threads())


def _told_from(before: int, progress: ToldProgress, done: int) -> None:
    progress(before + done)


def _render_side_by_side(
    scene: Scene,
    settings: ExportSettings,
    parts: list[range],
    pieces: list[Path],
    progress: ToldProgress,
) -> None:
    """Segments in several processes, one for each core; progress goes on with each of them."""
    data, folders, done = to_data(scene), (scene.folder, scene.fonts_folder), 0
    # Not of this process: what it has open is not theirs. One imports all of this, once for all.
    context = get_context("forkserver")
    context.set_forkserver_preload([__name__])
    pool = ProcessPoolExecutor(len(os.sched_getaffinity(0)), context)
    try:
        jobs = [
            pool.submit(_render_apart, data, folders, settings, part, piece)
            for part, piece in zip(parts, pieces, strict=True)
        ]
        for job in as_completed(jobs):
            done += job.result()
            progress(done)
    finally:
        pool.shutdown(cancel_futures=True)


def _render_apart(
    data: dict[str, Any],
    folders: tuple[Path | None, Path | None],
    settings: ExportSettings,
    part: range,
    piece: Path,
) -> int:
    keep_at_hand()
    scene = from_data(data).in_folder(*folders)
    render_segment(scene, settings, part, piece, lambda done: None, 1)
    return len(part)
