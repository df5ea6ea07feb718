"""How loud a file of sound is over time: measured once, by short spectra, and kept.

A spectrum is taken every STEP seconds, of a window of WINDOW samples about that moment (Hann). The
loudness of a band is the root of the energy in it, in shares of the loudest moment of the file in
that band: 0 is silence, 1 the loudest.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property, lru_cache
from pathlib import Path

import numpy as np
from numpy.lib.stride_tricks import sliding_window_view

from .samples import SoundError, blocks

STEP = 0.01  # seconds
LONGEST = 3600  # seconds of a file that are measured
_RATE = 24_000
_HOP = round(STEP * _RATE)
_WINDOW = 1024
_AT_ONCE = 2048  # spectra that are worked out together
# From and to how many hertz each band reaches; the low one holds the drum, the high one cymbals.
BANDS: dict[str, tuple[float, float]] = {
    "all": (20, 12_000),
    "low": (20, 200),
    "middle": (200, 2_000),
    "high": (2_000, 12_000),
}
_HANN = (np.hanning(_WINDOW) * 2 / _WINDOW).astype(np.float32)
_FELT = 100.0  # how much the logarithm brings up what is soft
_SILENCE = 1e-6  # a file that is never louder than this has nothing to go by


@dataclass(frozen=True)
class Loudness:
    """A file measured.

    bands: by the names of BANDS, (n,) in 0..1, every STEP seconds
    flux: (n,) how much energy each spectrum has more than the one before, over all it rises in
    """

    bands: dict[str, np.ndarray]
    flux: np.ndarray

    @property
    def seconds(self) -> float:
        """How long the file is heard."""
        return len(self.flux) * STEP

    def at(self, seconds: np.ndarray, band: str, over: np.ndarray | float) -> np.ndarray:
        """The loudness of a band at times, each the mean `over` so many seconds about it; silence
        before and after."""
        width = np.maximum(over, STEP)
        area = self._area(seconds + width / 2, band) - self._area(seconds - width / 2, band)
        mean: np.ndarray = area / width
        return mean

    def _area(self, seconds: np.ndarray, band: str) -> np.ndarray:
        """The area under the loudness up to times."""
        areas = self._areas[band]
        area: np.ndarray = np.interp(seconds, (np.arange(len(areas)) - 0.5) * STEP, areas)
        return area

    @cached_property
    def _areas(self) -> dict[str, np.ndarray]:
        return {
            name: np.concatenate([[0.0], np.cumsum(values)]) * STEP
            for name, values in self.bands.items()
        }


def loudness(path: Path) -> Loudness:
    """The loudness of a file. SoundError if it cannot be read."""
    try:
        state = path.stat()
    except OSError as error:
        raise SoundError(f"The sound {path.name} cannot be read: {error}") from None
    return _measured(path, state.st_mtime_ns, state.st_size)


@lru_cache(maxsize=8)
def _measured(path: Path, changed: int, size: int) -> Loudness:
    """As it is measured, for a file in one state: at most 15 MB for an hour."""
    frequencies = np.fft.rfftfreq(_WINDOW, 1 / _RATE)
    inside = {
        name: (frequencies >= low) & (frequencies < high) for name, (low, high) in BANDS.items()
    }
    bands: dict[str, list[np.ndarray]] = {name: [] for name in BANDS}
    flux = []
    before = np.zeros((1, len(frequencies)), dtype=np.float32)
    for windows in _windows(path):
        strengths = np.abs(np.fft.rfft(windows * _HANN, axis=1)).astype(np.float32)
        for name, these in inside.items():
            bands[name].append(np.sqrt((strengths[:, these] ** 2).sum(axis=1)))
        # Of logarithms: a soft beat counts among soft sounds as a loud one among loud ones.
        felt = np.log1p(_FELT * strengths)
        rises = np.diff(np.concatenate([before, felt]), axis=0)
        flux.append(np.maximum(rises, 0)[:, inside["all"]].sum(axis=1))
        before = felt[-1:]
    return Loudness({name: _in_shares(_joined(parts)) for name, parts in bands.items()},
                    _joined(flux))  # fmt: skip


def _joined(parts: list[np.ndarray]) -> np.ndarray:
    return np.concatenate(parts) if parts else np.zeros(0, dtype=np.float32)


def _in_shares(values: np.ndarray) -> np.ndarray:
    loudest = values.max(initial=0.0)
    return values / loudest if loudest > _SILENCE else np.zeros_like(values)


def _windows(path: Path) -> Iterator[np.ndarray]:
    """The samples about every moment, (m, WINDOW), so many moments together."""
    half = np.zeros(_WINDOW // 2, dtype=np.float32)
    waiting, count, left = [half], len(half), LONGEST * _RATE
    for block in blocks(path, _RATE, "mono"):
        waiting.append(block[0, :left])
        count += waiting[-1].size
        left -= waiting[-1].size
        if count >= _AT_ONCE * _HOP + _WINDOW:
            samples = np.concatenate(waiting)
            views = sliding_window_view(samples, _WINDOW)[::_HOP]
            yield views
            waiting = [samples[len(views) * _HOP :]]
            count = waiting[0].size
        if not left:
            break
    samples = np.concatenate(waiting)
    samples = np.concatenate([samples, samples[: -half.size - 1 : -1]])  # its end is no beat
    if samples.size > _WINDOW:
        yield sliding_window_view(samples, _WINDOW)[::_HOP]
