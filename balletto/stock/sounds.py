"""The sounds that ship, from nothing but numbers: small mono files of 16 bits, the same at every
run."""

import io
import wave
from collections.abc import Callable

import numpy as np

from ..hash_random import hash_random

RATE = 22_050
_LOUDEST = 0.9


def _time(seconds: float) -> np.ndarray:
    return np.arange(round(seconds * RATE)) / RATE


def _noise(count: int, seed: int) -> np.ndarray:
    """White noise from -1 to 1, the same for the same seed."""
    return 2 * hash_random(seed, np.arange(count), 0, 0) - 1


def _fading(time: np.ndarray, half: float) -> np.ndarray:
    """What halves every `half` seconds, after a rise that is too short to be heard."""
    return np.exp2(-time / half) * np.clip(time / 0.0006, 0, 1)


def _key() -> np.ndarray:
    """A flat key: a soft thud with a little click on top."""
    time = _time(0.09)
    thud = np.sin(2 * np.pi * 190 * time) * _fading(time, 0.012)
    return thud + 0.5 * _noise(len(time), 1) * _fading(time, 0.004)


def _typewriter() -> np.ndarray:
    """A type bar: it strikes, and the carriage answers."""
    time = _time(0.12)
    strike = _noise(len(time), 2) * _fading(time, 0.006)
    ring = np.sin(2 * np.pi * 2300 * time) * _fading(time, 0.014)
    late = np.maximum(time - 0.034, 0)
    answer = _noise(len(time), 3) * _fading(late, 0.005) * (time >= 0.034)
    return strike + 0.25 * ring + 0.35 * answer


def _tick() -> np.ndarray:
    """A clock: two high tones that are gone at once."""
    time = _time(0.05)
    tones = np.sin(2 * np.pi * 3400 * time) + 0.6 * np.sin(2 * np.pi * 5100 * time)
    return tones * _fading(time, 0.004)


def _wood() -> np.ndarray:
    """A block of wood."""
    time = _time(0.1)
    tones = np.sin(2 * np.pi * 820 * time) + 0.4 * np.sin(2 * np.pi * 1930 * time)
    return tones * _fading(time, 0.011) + 0.2 * _noise(len(time), 4) * _fading(time, 0.002)


def _drop() -> np.ndarray:
    """A drop of water: a tone that rises as it fades."""
    time = _time(0.12)
    pitch = 520 + 5200 * time
    return np.sin(2 * np.pi * np.cumsum(pitch) / RATE) * _fading(time, 0.02)


def _band(count: int, seed: int, centers: np.ndarray, width: float) -> np.ndarray:
    """Noise about a pitch that changes: `centers` in hertz for each sample, `width` in shares of
    it. White noise through a resonator of two poles whose pitch is moved along."""
    noise, out = _noise(count, seed), np.zeros(count)
    radius = np.exp(-np.pi * centers * width / RATE)
    turn = 2 * radius * np.cos(2 * np.pi * centers / RATE)
    fall, level = radius**2, 1 - radius
    one = two = 0.0
    for index in range(count):
        one, two = level[index] * noise[index] + turn[index] * one - fall[index] * two, one
        out[index] = one
    return out


def _passing(seconds: float, low: float, high: float, seed: int, peak: float) -> np.ndarray:
    """Something that rushes by: its pitch and its loudness swell up to `peak`, a share of it, and
    sink again."""
    time = _time(seconds) / seconds
    swell = np.where(time < peak, time / peak, (1 - time) / (1 - peak))
    swell = swell * swell * (3 - 2 * swell)
    rush = _band(len(time), seed, low + (high - low) * swell, 0.7)
    return rush / np.abs(rush).max() * swell**1.5


def _whoosh() -> np.ndarray:
    """A large thing that passes."""
    return _passing(1.1, 180, 1900, 5, 0.55)


def _swish() -> np.ndarray:
    """A small thing that passes."""
    return _passing(0.38, 900, 5200, 6, 0.4)


# The partials of a struck bar, free at both ends, and how loud and how long each rings.
_PARTIALS = ((1.0, 1.0, 0.42), (2.756, 0.45, 0.2), (5.404, 0.22, 0.09), (8.933, 0.08, 0.04))


def _struck(pitch: float, seconds: float) -> np.ndarray:
    """A bar that is struck."""
    time = _time(seconds)
    ring = sum(
        level * np.sin(2 * np.pi * pitch * share * time) * _fading(time, half)
        for share, level, half in _PARTIALS
        if pitch * share < RATE / 2
    )
    return np.asarray(ring) * np.clip((seconds - time) / 0.2, 0, 1)


def _chime() -> np.ndarray:
    """One bar."""
    return _struck(880, 2.2)


def _chimes() -> np.ndarray:
    """Five bars, one after another, rising."""
    chime = np.zeros(round(2.6 * RATE))
    for number, pitch in enumerate((523.25, 659.25, 783.99, 1046.5, 1318.5)):
        first = round(0.14 * number * RATE)
        bar = _struck(pitch, 1.9)
        chime[first : first + len(bar)] += bar * (0.7 + 0.06 * number)
    return chime


_STEPS, _STEP_SECONDS = 16, 0.125  # of a bar: sixteenths at 120 a minute


def _beat() -> np.ndarray:
    """Two bars that come round without a seam: a drum, a clap, a shaker, a bass."""
    bar = _STEPS * _STEP_SECONDS
    count = round(2 * bar * RATE)
    beat = np.zeros(count)

    def put(part: np.ndarray, step: float, level: float) -> None:
        first = round(step * _STEP_SECONDS * RATE)
        places = (first + np.arange(len(part))) % count  # what rings on rings into the beginning
        np.add.at(beat, places, level * part)

    time = _time(0.32)
    drum = np.sin(2 * np.pi * (48 * time + 7 * (1 - np.exp(-time * 30)))) * _fading(time, 0.06)
    clap = _band(len(_time(0.2)), 7, np.full(len(_time(0.2)), 1500.0), 0.6)
    clap = clap / np.abs(clap).max() * _fading(_time(0.2), 0.03)
    shaker = np.diff(_noise(len(_time(0.07)) + 1, 8)) * _fading(_time(0.07), 0.012)
    for step in range(0, 2 * _STEPS, 4):
        put(drum, step, 1.0)
    put(drum, 2 * _STEPS - 1, 0.5)
    for step in range(4, 2 * _STEPS, 8):
        put(clap, step, 0.6)
    for step in range(2 * _STEPS):
        put(shaker, step + (0.12 if step % 2 else 0), (0.05, 0.08, 0.16, 0.08)[step % 4])
    for step, pitch in ((0, 55), (3, 55), (6, 65.4), (10, 82.4), (16, 55), (19, 55), (22, 49),
                        (26, 41.2)):  # fmt: skip
        time = _time(0.3)
        tone = np.sin(2 * np.pi * pitch * time) + 0.3 * np.sin(4 * np.pi * pitch * time)
        put(tone * np.clip(time / 0.01, 0, 1) * np.clip((0.3 - time) / 0.1, 0, 1), step, 0.35)
    return beat


MADE: dict[str, Callable[[], np.ndarray]] = {
    "click-key": _key, "click-typewriter": _typewriter, "click-tick": _tick, "click-wood": _wood,
    "click-drop": _drop, "stock-whoosh": _whoosh, "stock-swish": _swish, "stock-chime": _chime,
    "stock-chimes": _chimes, "stock-beat": _beat,
}  # fmt: skip


def made(name: str) -> bytes:
    """A sound as a WAV file, by the name of its file without the ending."""
    samples = MADE[name]()
    level = np.round(samples / np.abs(samples).max() * _LOUDEST * 32767).astype("<i2")
    file = io.BytesIO()
    with wave.open(file, "wb") as writer:
        writer.setnchannels(1)
        writer.setsampwidth(2)
        writer.setframerate(RATE)
        writer.writeframes(level.tobytes())
    return file.getvalue()
