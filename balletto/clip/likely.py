"""How large a clip will be, told before it is made: by a few stretches that are made as it will."""

import tempfile
import time
from pathlib import Path

import av
import numpy as np

from ..scene.document import Scene
from .export_settings import ExportSettings, clip_times
from .formats import FORMATS
from .mixing import has_sound
from .pieces import ClipPieces, CollectedPieces, EncodedPieces, Whole, read_lossless
from .render import is_slow, render_segment, segments

_STRETCHES, _FRAMES = 5, 6  # that are made, and how many frames each has
_MOST_SECONDS = 8.0  # of this thread: no further stretch is begun after
_SOUND_BYTES_A_SECOND = 16_000  # 128 kbit, as sound tracks are encoded
_WORKERS = 2  # between which a slow scene is cut into pieces, each with a whole picture first


def likely_bytes(scene: Scene, settings: ExportSettings) -> float:
    """About how many bytes the clip will have: within half as much again or less.

    The scene must be one that the format can hold (`balletto.clip.render.check`).
    """
    pieces = FORMATS[settings.format].pieces
    count = len(clip_times(scene, settings))
    with tempfile.TemporaryDirectory() as folder:
        if not isinstance(pieces, EncodedPieces | CollectedPieces):
            path = Path(folder) / "still"
            render_segment(scene, settings, range(1), path, lambda _: None, 1)
            return float(path.stat().st_size)
        if count <= _STRETCHES * _FRAMES:
            return _whole(scene, settings, pieces, range(count), Path(folder)) + _sound(
                scene, settings
            )
        first, more = _sampled(scene, settings, pieces, count, Path(folder))
    firsts = _whole_pictures(scene, settings, pieces, count)
    return firsts * first + (count - firsts) * more + _sound(scene, settings)


def _stretches(count: int) -> list[range]:
    starts = np.linspace(0, count - _FRAMES, _STRETCHES).astype(int).tolist()
    # From the outer ends in: where there is no time for all, those taken still stand for the whole.
    order = [_STRETCHES // 2, 0, _STRETCHES - 1, *range(1, _STRETCHES // 2)]
    order += [n for n in range(_STRETCHES) if n not in order]
    return [range(starts[n], starts[n] + _FRAMES) for n in order]


def _sampled(
    scene: Scene, settings: ExportSettings, pieces: ClipPieces, count: int, folder: Path
) -> tuple[float, float]:
    """The bytes of a frame that stands alone, and of one that follows another: their means."""
    began = time.thread_time()
    firsts: list[float] = []
    others: list[float] = []
    for stretch in _stretches(count):
        if isinstance(pieces, EncodedPieces):
            sizes = _packets(scene, settings, stretch, folder / f"piece{pieces.suffix}")
            firsts.append(sizes[0])
            others.append(sum(sizes[1:]) / max(1, len(sizes) - 1))
        else:
            alone = _whole(scene, settings, pieces, stretch[:1], folder)
            together = _whole(scene, settings, pieces, stretch, folder)
            firsts.append(alone)
            others.append((together - alone) / (len(stretch) - 1))
        if time.thread_time() - began > _MOST_SECONDS:
            break
    return float(np.mean(firsts)), float(np.mean(others))


def _packets(scene: Scene, settings: ExportSettings, part: range, path: Path) -> list[int]:
    """The bytes of each packet of a stretch, the whole picture first."""
    render_segment(scene, settings, part, path, lambda _: None, 1)
    with av.open(str(path)) as file:
        return [packet.size for packet in file.demux(file.streams.video[0]) if packet.size]


def _whole(
    scene: Scene, settings: ExportSettings, pieces: ClipPieces, part: range, folder: Path
) -> float:
    """The bytes of a file of some frames of the clip."""
    piece, path = folder / f"piece{pieces.suffix}", folder / "whole"
    path = path.with_suffix(FORMATS[settings.format].suffix)
    render_segment(scene, settings, part, piece, lambda _: None, 1)
    whole = Whole(lambda: list(read_lossless([piece])), lambda: None)
    pieces.put_together([piece], path, settings, whole, lambda _: None)
    return float(path.stat().st_size)


def _whole_pictures(scene: Scene, settings: ExportSettings, pieces: ClipPieces, count: int) -> int:
    """How many frames of the clip do not build on others: the first of each piece, at least."""
    if not isinstance(pieces, EncodedPieces):
        return 1
    return len(segments(count, _WORKERS if is_slow(scene, settings) else 1))


def _sound(scene: Scene, settings: ExportSettings) -> float:
    if not (FORMATS[settings.format].has_sound and has_sound(scene)):
        return 0.0
    return len(clip_times(scene, settings)) / float(settings.rate) * _SOUND_BYTES_A_SECOND
