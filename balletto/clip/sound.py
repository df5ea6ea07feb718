"""Sound: the sound layers of a scene mixed to one track, and written beside the pictures.

Samples are floats, (2, n), at RATE a second.
"""

import io
import wave
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import numpy as np

from ..hearing.samples import RATE, SoundError, read
from ..motion.turns import clicks_of
from ..scene.document import Scene
from ..scene.hash_random import hash_random
from ..scene.layers.clicks import ClicksLayer
from ..scene.layers.nested import NestedLayer
from ..scene.layers.sound import SoundLayer
from ..stock import click_file
from .errors import ClipError

_LONGEST_CLICK = 2  # seconds of a file that is heard as one
_BLOCK = 1024  # samples that are encoded at a time
# What goes with the pictures in each container.
CODECS = {"mp4": "aac", "mov": "pcm_s16le", "webm": "libopus"}


def has_sound(scene: Scene) -> bool:
    """Whether anything is heard in a scene."""
    return any(
        isinstance(layer, SoundLayer | ClicksLayer)
        or (isinstance(layer, NestedLayer) and has_sound(scene.used(layer)))
        for layer in scene.layers
        if layer.id in scene.shown
    )


def mix(scene: Scene, frames: range | None = None) -> np.ndarray:
    """All that is heard in a scene during some of its frames, or all. ClipError if a file of sound
    cannot be read."""
    frames = frames or range(scene.length)
    rate = float(scene.frames_a_second)
    whole = np.zeros((2, round(scene.length / rate * RATE)), dtype=np.float32)
    for layer in scene.layers:
        if layer.id not in scene.shown:
            continue
        if isinstance(layer, SoundLayer):
            _add(whole, _heard(scene, layer), layer.span[0] / rate)
        elif isinstance(layer, ClicksLayer):
            _add_clicks(whole, scene, layer)
        elif isinstance(layer, NestedLayer):
            _add(whole, _nested(scene, layer), layer.span[0] / rate)
    first, end = (round(frame / rate * RATE) for frame in (frames.start, frames.stop))
    return np.clip(whole[:, first:end], -1, 1)


def _add(whole: np.ndarray, part: np.ndarray, seconds: float) -> None:
    """Adds a part to the whole from a time on; what lies outside of it is left out."""
    at = round(seconds * RATE)
    first, end = max(at, 0), min(at + part.shape[1], whole.shape[1])
    if first < end:
        whole[:, first:end] += part[:, first - at : end - at]


_GAIN, _PITCH = 40, 41  # the numbers with which they draw their chances


def _add_clicks(whole: np.ndarray, scene: Scene, layer: ClicksLayer) -> None:
    """Adds the clicks of a layer that fall into its span, each at its very moment."""
    path = scene.path_of(layer.file) if layer.file else click_file(layer.sound)
    if path is None:
        return
    sound = _read(path, 0, _LONGEST_CLICK * RATE)
    frames, units = clicks_of(scene, layer)
    for frame, unit in zip(frames.tolist(), units.tolist(), strict=True):
        if layer.span[0] <= frame < layer.span[1]:
            either = [2 * float(hash_random(layer.seed, unit, p, 0)) - 1 for p in (_GAIN, _PITCH)]
            gain = 10 ** ((layer.gain + layer.gain_chance * either[0]) / 20)
            one = _at_pitch(sound, 1 + layer.pitch_chance * either[1]) * gain
            _add(whole, one, frame / float(scene.frames_a_second))


def _at_pitch(sound: np.ndarray, pitch: float) -> np.ndarray:
    """A sound that is so many times as high, and as much shorter."""
    places = np.arange(int(sound.shape[1] / pitch)) * pitch
    known = np.arange(sound.shape[1])
    return np.stack([np.interp(places, known, channel) for channel in sound])


def _heard(scene: Scene, layer: SoundLayer) -> np.ndarray:
    """What is heard of a sound layer, from the first frame of its span on."""
    path = scene.path_of(layer.file)
    if path is None:
        return np.zeros((2, 0), dtype=np.float32)
    rate = float(scene.frames_a_second)
    longest = round((layer.span[1] - layer.span[0]) / rate * RATE)
    part = _read(path, round(layer.start * RATE), longest)
    count = part.shape[1]
    # The gain is worked out at each frame of the scene, and is even between them.
    times = np.arange(layer.span[0], layer.span[1] + 1.0)
    since = np.arange(count) / RATE
    gains = np.interp(layer.span[0] + since * rate, times, layer.amplitude(times))
    return (part * gains * layer.faded(since, count / RATE)).astype(np.float32)


def _nested(scene: Scene, layer: NestedLayer) -> np.ndarray:
    """What is heard of a nested scene, from the first frame of the layer's span on."""
    inner = scene.used(layer)
    longest = round((layer.span[1] - layer.span[0]) / float(scene.frames_a_second) * RATE)
    if not has_sound(inner):
        return np.zeros((2, 0), dtype=np.float32)
    sound = mix(inner)
    shift = round(layer.shift / float(inner.frames_a_second) * RATE)
    if layer.after == "loop":
        return np.take(sound, (np.arange(longest) + shift) % sound.shape[1], axis=1)
    before = np.zeros((2, max(-shift, 0)), dtype=np.float32)
    return np.concatenate([before, sound[:, max(shift, 0) :]], axis=1)[:, :longest]


def _read(path: Path, first: int, most: int) -> np.ndarray:
    """Some samples of a file, in stereo. ClipError if it cannot be read."""
    try:
        return read(path, first, most)
    except SoundError as error:
        raise ClipError(str(error)) from None


def wav(samples: np.ndarray) -> bytes:
    """Samples as a WAV file of 16 bits."""
    file = io.BytesIO()
    with wave.open(file, "wb") as writer:
        writer.setnchannels(2)
        writer.setsampwidth(2)
        writer.setframerate(RATE)
        writer.writeframes(np.round(samples.T * 32767).astype("<i2").tobytes())
    return file.getvalue()


class SoundTrack:
    """A track of a file that is being written, beside its pictures."""

    def __init__(self, container: Any, kind: str, samples: np.ndarray):
        self._container, self._samples = container, samples
        self._stream = container.add_stream(CODECS[kind], rate=RATE)
        self._stream.layout = "stereo"
        kind = self._stream.codec_context.format.name
        self._resampler = av.AudioResampler(format=kind, layout="stereo", rate=RATE)
        self._done = 0

    def write_until(self, seconds: float) -> None:
        """Writes what is heard until then: with the pictures, so that players need not seek."""
        while self._done < min(seconds * RATE, self._samples.shape[1]):
            part = np.ascontiguousarray(self._samples[:, self._done : self._done + _BLOCK])
            frame = av.AudioFrame.from_ndarray(part, format="fltp", layout="stereo")
            frame.sample_rate, frame.pts = RATE, self._done
            frame.time_base = Fraction(1, RATE)
            self._done += part.shape[1]
            for ready in self._resampler.resample(frame):
                self._container.mux(self._stream.encode(ready))

    def close(self) -> None:
        """Writes the rest."""
        self.write_until(float("inf"))
        self._container.mux(self._stream.encode(None))
