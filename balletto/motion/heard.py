"""How loud the sounds of a scene are at its frames."""

from pathlib import Path

import numpy as np

from ..hearing.loudness import Loudness, loudness
from ..hearing.samples import SoundError
from ..scene.document import Scene
from ..scene.layers.sound import SoundLayer


def loudness_in(
    scene: Scene, sound: str | None, band: str, times: np.ndarray, smooth: np.ndarray
) -> np.ndarray:
    """How loud a sound is at times in frames, 0..1, shaped as they are, each the mean over `smooth`
    frames: that of a layer by its id, of a file by its name, or of all sound layers together. What
    is not there is silent."""
    over = smooth / float(scene.frames_a_second)
    layers = [each for each in scene.layers if isinstance(each, SoundLayer)]
    named = [each for each in layers if each.id == sound]
    if sound is not None and not named:
        heard = _measured(scene.path_of(sound))
        seconds = times / float(scene.frames_a_second)
        return np.zeros(times.shape) if heard is None else heard.at(seconds, band, over)
    energy = np.zeros(times.shape)
    for layer in named or [each for each in layers if each.id in scene.shown]:
        energy += _of_layer(scene, layer, band, times, over) ** 2
    return np.sqrt(energy)


def _of_layer(
    scene: Scene, layer: SoundLayer, band: str, times: np.ndarray, over: np.ndarray
) -> np.ndarray:
    """How loud a layer is, by its gain and its fades; silent outside of its span."""
    heard = _measured(scene.path_of(layer.file))
    if heard is None:
        return np.zeros(times.shape)
    rate = float(scene.frames_a_second)
    first, end = layer.span
    since = (times - first) / rate
    lasts = min((end - first) / rate, heard.seconds - layer.start)
    loud = heard.at(layer.start + since, band, over)
    is_on = (times >= first) & (times < end)
    return np.where(is_on, loud * layer.amplitude(times) * layer.faded(since, lasts), 0.0)


def _measured(path: Path | None) -> Loudness | None:
    """A file measured; None if it is not there, or is none that can be heard."""
    if path is None:
        return None
    try:
        return loudness(path)
    except SoundError:
        return None
