"""Mixing: what is heard in a scene, of its sounds, clicks and nested scenes.

Samples are floats, (2, n), at RATE a second. They come in blocks, one after another: of a scene of
hours no more is in memory than of one of seconds.
"""

from collections.abc import Iterator
from functools import lru_cache
from pathlib import Path
from typing import Protocol

import numpy as np

from ..hash_random import hash_random
from ..hearing.samples import RATE, SoundError, parts, read
from ..motion.turns import clicks_of
from ..scene.document import Scene
from ..scene.layers.clicks import ClicksLayer
from ..scene.layers.nested import NestedLayer
from ..scene.layers.sound import SoundLayer
from ..stock import click_file
from .errors import ClipError

BLOCK = 4 * RATE  # samples that are mixed at a time
_LONGEST_CLICK = 2  # seconds of a file that is heard as one
_GAIN, _PITCH = 40, 41  # the numbers with which clicks draw their chances

Parts = Iterator[np.ndarray]  # samples of one source in turn, (2, n) each


def has_sound(scene: Scene) -> bool:
    """Whether anything is heard in a scene."""
    return any(
        isinstance(layer, SoundLayer | ClicksLayer)
        or (isinstance(layer, NestedLayer) and has_sound(scene.used(layer)))
        for layer in scene.layers
        if layer.id in scene.shown
    )


def mixed(scene: Scene, frames: range | None = None) -> Parts:
    """All that is heard in a scene during some of its frames, or all: in turn, in blocks of a few
    seconds. ClipError if a file of sound cannot be read."""
    frames = frames or range(scene.length)
    first, end = (_sample_at(scene, frame) for frame in (frames.start, frames.stop))
    for at, block in _summed(scene, end):
        heard = block[:, max(first - at, 0) :]
        if heard.shape[1]:
            yield np.clip(heard, -1, 1)


def _summed(scene: Scene, end: int) -> Iterator[tuple[int, np.ndarray]]:
    """Blocks from the first sample of a scene on, up to `end`, each with where it begins."""
    voices = _voices(scene)
    for at in range(0, end, BLOCK):
        block = np.zeros((2, min(BLOCK, end - at)), dtype=np.float32)
        for voice in voices:
            voice.add_to(block, at)
        yield at, block


def _sample_at(scene: Scene, frame: float) -> int:
    return round(frame / float(scene.frames_a_second) * RATE)


class _Voice(Protocol):
    """Something that is heard in a scene."""

    def add_to(self, block: np.ndarray, at: int) -> None:
        """Adds what is heard of it to a block that begins so many samples after the scene does.
        Blocks follow one another."""


def _voices(scene: Scene) -> list[_Voice]:
    found: list[_Voice] = []
    for layer in scene.layers:
        if layer.id not in scene.shown:
            continue
        if isinstance(layer, SoundLayer):
            found.append(_InTurn(_sample_at(scene, layer.span[0]), _heard(scene, layer)))
        elif isinstance(layer, ClicksLayer):
            found.append(_Clicks(scene, layer))
        elif isinstance(layer, NestedLayer) and has_sound(scene.used(layer)):
            found.append(_InTurn(_sample_at(scene, layer.span[0]), _nested(scene, layer)))
    return found


class _InTurn:
    """A voice whose samples come in turn, from the sample `start` of the scene on."""

    def __init__(self, start: int, samples: Parts):
        self._at, self._samples = start, samples  # where what is left begins
        self._left = np.zeros((2, 0), dtype=np.float32)

    def add_to(self, block: np.ndarray, at: int) -> None:
        end = at + block.shape[1]
        while self._at < end:
            if not self._left.shape[1]:
                more = next(self._samples, None)
                if more is None:
                    return
                self._left = more
            # What comes before the scene is not heard.
            first = max(self._at, at)
            taken = min(self._left.shape[1], end - self._at)
            heard = self._left[:, first - self._at : taken]
            if heard.shape[1]:
                block[:, first - at : first - at + heard.shape[1]] += heard
            self._left, self._at = self._left[:, taken:], self._at + taken


class _Clicks:
    """The clicks of a layer that fall into its span, each at its very moment."""

    def __init__(self, scene: Scene, layer: ClicksLayer):
        path = scene.path_of(layer.file) if layer.file else click_file(layer.sound)
        self._sound = _read(path, _LONGEST_CLICK * RATE) if path else np.zeros((2, 0))
        frames, units = clicks_of(scene, layer)
        there = (frames >= layer.span[0]) & (frames < layer.span[1])
        self._starts = np.array([_sample_at(scene, frame) for frame in frames[there].tolist()])
        self._units, self._layer = units[there], layer
        # The lowest click is the longest.
        self._longest = self._sound.shape[1] / (1 - layer.pitch_chance)
        # No more than a click or two of each pitch is heard at a time.
        self._click = lru_cache(maxsize=64)(self._of_unit)

    def add_to(self, block: np.ndarray, at: int) -> None:
        end = at + block.shape[1]
        heard = np.flatnonzero((self._starts < end) & (self._starts + self._longest > at))
        for number in heard.tolist():
            start, click = int(self._starts[number]), self._click(int(self._units[number]))
            first, last = max(start, at), min(start + click.shape[1], end)
            if first < last:
                block[:, first - at : last - at] += click[:, first - start : last - start]

    def _of_unit(self, unit: int) -> np.ndarray:
        layer = self._layer
        either = [2 * float(hash_random(layer.seed, unit, p, 0)) - 1 for p in (_GAIN, _PITCH)]
        gain = 10 ** ((layer.gain + layer.gain_chance * either[0]) / 20)
        return _at_pitch(self._sound, 1 + layer.pitch_chance * either[1]) * gain


def _at_pitch(sound: np.ndarray, pitch: float) -> np.ndarray:
    """A sound that is so many times as high, and as much shorter."""
    places = np.arange(int(sound.shape[1] / pitch)) * pitch
    known = np.arange(sound.shape[1])
    return np.stack([np.interp(places, known, channel) for channel in sound])


def _heard(scene: Scene, layer: SoundLayer) -> Parts:
    """What is heard of a sound layer, from the first frame of its span on."""
    path = scene.path_of(layer.file)
    if path is None:
        return
    rate = float(scene.frames_a_second)
    first, longest = round(layer.start * RATE), _lasts(scene, layer)
    # It fades out where it ends, which is not known before it is read.
    count = sum(part.shape[1] for part in _parts(path, first, longest)) if layer.fade_out else 0
    # The gain is worked out at each frame of the scene, and is even between them.
    times = np.arange(layer.span[0], layer.span[1] + 1.0)
    amplitude, at = layer.amplitude(times), 0
    for part in _parts(path, first, longest):
        since = (at + np.arange(part.shape[1])) / RATE
        gains = np.interp(layer.span[0] + since * rate, times, amplitude)
        yield (part * gains * layer.faded(since, count / RATE)).astype(np.float32)
        at += part.shape[1]


def _nested(scene: Scene, layer: NestedLayer) -> Parts:
    """What is heard of a nested scene, from the first frame of the layer's span on."""
    inner = scene.used(layer)
    lasts, shift = _lasts(scene, layer), _sample_at(inner, layer.shift)
    if layer.after == "loop":
        return _some(_again_and_again(inner), shift % _sample_at(inner, inner.length), lasts)
    if shift < 0:
        return _some(_after_silence(-shift, mixed(inner)), 0, lasts)
    return _some(mixed(inner), shift, lasts)


def _lasts(scene: Scene, layer: SoundLayer | NestedLayer) -> int:
    return _sample_at(scene, layer.span[1] - layer.span[0])


def _again_and_again(scene: Scene) -> Parts:
    while True:
        yield from mixed(scene)


def _after_silence(count: int, samples: Parts) -> Parts:
    for at in range(0, count, BLOCK):
        yield np.zeros((2, min(BLOCK, count - at)), dtype=np.float32)
    yield from samples


def _some(samples: Parts, first: int, most: int) -> Parts:
    """Samples from one on, at most so many."""
    at = -first
    for part in samples:
        heard = part[:, max(-at, 0) : max(most - at, 0)]
        if heard.shape[1]:
            yield heard
        at += part.shape[1]
        if at >= most:
            return


def _parts(path: Path, first: int, most: int) -> Parts:
    try:
        yield from parts(path, first, most)
    except SoundError as error:
        raise ClipError(str(error)) from None


def _read(path: Path, most: int) -> np.ndarray:
    """The first samples of a file, in stereo. ClipError if it cannot be read."""
    try:
        return read(path, 0, most)
    except SoundError as error:
        raise ClipError(str(error)) from None
