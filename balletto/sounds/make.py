"""Makes the sounds that ship, from nothing but numbers: `python -m balletto.sounds.make`.

They are small mono files of 16 bits, the same at every run.
"""

import io
import wave
from collections.abc import Callable

import numpy as np

from ..scene.hash_random import hash_random
from . import CLICKS, click_file

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


_MADE: dict[str, Callable[[], np.ndarray]] = {
    "key": _key, "typewriter": _typewriter, "tick": _tick, "wood": _wood, "drop": _drop,
}  # fmt: skip


def made(name: str) -> bytes:
    """A click as a WAV file."""
    samples = _MADE[name]()
    level = np.round(samples / np.abs(samples).max() * _LOUDEST * 32767).astype("<i2")
    file = io.BytesIO()
    with wave.open(file, "wb") as writer:
        writer.setnchannels(1)
        writer.setsampwidth(2)
        writer.setframerate(RATE)
        writer.writeframes(level.tobytes())
    return file.getvalue()


if __name__ == "__main__":
    for each in CLICKS:
        click_file(each).write_bytes(made(each))
