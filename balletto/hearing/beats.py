"""Where the beats of a sound are: moments at which much new energy comes at once.

Onsets are peaks of the spectral flux that stand out of what is about them: S. Dixon, "Onset
detection revisited" (2006), section 2.6, with a mean and a threshold over the neighbourhood.
"""

from pathlib import Path

import numpy as np
from scipy.ndimage import maximum_filter1d, uniform_filter1d

from .loudness import STEP, loudness

MOST_BEATS = 900  # a scene has room for a thousand markers
_NEIGHBOURS = 3  # moments on either side that a peak is highest of
_ABOUT = 25  # moments on either side that it is compared with
_OVER_MEAN = 1.6  # times the flux about it
_OVER_REST = 0.2  # of the highest peak: softer ones are no beats
_CLOSEST = 0.12  # seconds from beat to beat


def beats(path: Path) -> np.ndarray:
    """The moments of the beats of a file in seconds, in order, at most MOST_BEATS: the strongest.
    SoundError if it cannot be read."""
    flux = loudness(path).flux.astype(float)
    if not flux.size:
        return np.zeros(0)
    # The loudest of all is no measure: one crash would silence the rest.
    high = np.percentile(flux, 99.5)
    about = uniform_filter1d(flux, 2 * _ABOUT + 1, mode="constant")
    is_peak = flux == maximum_filter1d(flux, 2 * _NEIGHBOURS + 1, mode="constant")
    is_beat = is_peak & (flux > _OVER_MEAN * about) & (flux > _OVER_REST * high) & (flux > 0)
    return _far_apart(np.flatnonzero(is_beat), flux) * STEP


def _far_apart(peaks: np.ndarray, flux: np.ndarray) -> np.ndarray:
    """The strongest peaks of which none is too close to a stronger one, in order."""
    closest = round(_CLOSEST / STEP)
    taken: list[int] = []
    free = np.ones(len(flux) + closest, dtype=bool)
    for peak in peaks[np.argsort(-flux[peaks], kind="stable")].tolist():
        if free[peak] and len(taken) < MOST_BEATS:
            taken.append(peak)
            free[max(peak - closest + 1, 0) : peak + closest] = False
    return np.array(sorted(taken), dtype=float)
