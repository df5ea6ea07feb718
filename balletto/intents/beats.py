"""Markers at the beats of a sound."""

from ..hearing.beats import beats
from ..hearing.samples import SoundError
from ..scene.document import Scene
from ..scene.edits.paths import name_of
from ..scene.errors import SceneError
from ..scene.layers.sound import SoundLayer
from .situation import Data, Situation


def mark_beats(situation: Situation, wanted: Data) -> Data:
    """A marker at each beat of a sound layer that falls into its span."""
    data = situation.layer(wanted.get("layer"))
    layer = situation.document.layer(data["id"])
    if not isinstance(layer, SoundLayer):
        raise SceneError.at(name_of(data), "beats are found in sounds alone")
    times = _beats_of(situation.document, layer)
    if not times:
        raise SceneError.at(name_of(data), "no beats are heard in it: set markers with M instead")
    return {"name": "set-beats", "times": times}


def _beats_of(scene: Scene, layer: SoundLayer) -> list[float]:
    """The frames of the scene at which beats of a layer are heard."""
    path = scene.path_of(layer.file)
    if path is None:
        raise SceneError.at(layer.name or layer.file, "its file is not there: add it again first")
    try:
        seconds = beats(path) - layer.start
    except SoundError as error:
        raise SceneError.at(layer.name or layer.file, str(error)) from None
    frames = layer.span[0] + seconds * float(scene.frames_a_second)
    inside = (frames >= layer.span[0]) & (frames < min(layer.span[1], scene.length))
    return [round(float(frame), 2) for frame in frames[inside]]
