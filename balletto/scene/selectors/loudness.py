"""As loud as a sound is at the time."""

from typing import Annotated, Any, ClassVar, Literal

import numpy as np

from ..media import FileName
from ..model import Counts, Factor, Number
from ..pose import Asked
from ..values.measures import Measure
from ..values.tracks import Changing, value_at
from ..values.wording import Said
from .base import SelectedUnits, Selector, values_of

_SMOOTH = Measure(" frames", drag=0.125, low=0, one=" frame")
_BANDS = (
    ("all", "in all tones"),
    ("low", "in low tones"),
    ("middle", "in middle tones"),
    ("high", "in high tones"),
)
Smoothing = Annotated[float, Number("a number of frames", Counts.DURATION, ge=0, le=100_000)]


class LoudnessSelector(Selector):
    """How loud a sound is at the time, from 0 in silence to 1 at its loudest, times `gain`.

    `sound` is a layer, heard as its gain and its fades say, or a file, heard from frame 0 on;
    without it all sound layers are heard together. `band` are the tones that count: low below
    200 Hz, high above 2000 Hz. It is the mean over `smooth` frames about the time.
    """

    rank: ClassVar = 60
    says_when: ClassVar = True
    title: ClassVar = "loudness"
    also: ClassVar = ("loudness of the music", "the music", "the sound", "the beat", "beat")
    values: ClassVar = {
        **values_of(
            "loudness",
            sound=Said("Sound", options=((None, "what is heard"),), is_name=True),
            smooth=Said("Smoothing", _SMOOTH, 3),
            gain=Said("Gain", Measure(" %", scale=100, drag=0.005, step=0.1, low=0), 1),
        ),
        "band": Said("Tones", options=_BANDS),
    }

    kind: Literal["loudness"]
    sound: FileName | None = None  # the ids of layers are such names too
    band: Literal["all", "low", "middle", "high"] = "all"
    smooth: Changing[Smoothing] = 3
    gain: Changing[Factor] = 1

    @property
    def words(self) -> str:
        return "the loudness of {sound}, {band}, smoothed over {smooth}"

    @property
    def less_used(self) -> str:
        return "strength {strength}, taken {gain}"

    @classmethod
    def starts(cls, size: tuple[int, int]) -> list[tuple[str, dict[str, Any]]]:
        return [("the loudness of a sound", {"kind": "loudness"})]

    def weights(self, units: SelectedUnits, times: np.ndarray, asked: Asked) -> np.ndarray:
        """Weights (times, units) in 0..1, the same for all units that are asked at one time."""
        heard = units.loudness(self.sound, self.band, times, value_at(self.smooth, times))
        loud = np.clip(heard * value_at(self.gain, times), 0.0, 1.0)
        return np.broadcast_to(loud, (len(times), len(units)))
