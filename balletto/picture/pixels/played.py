"""Where what is played stands at a time, and what is seen of it then."""

from ...scene.document import Scene
from ...scene.media import Played
from .bitmaps import Bitmap
from .media import video


def time_in(shown: float, length: float, after: str) -> float | None:
    """Where what is played stands after so long: held at its end, begun again, or gone.

    shown and length in the same unit; None if nothing is shown
    """
    if length <= 0:
        return 0.0 if after != "gone" else None
    if after == "loop":
        return shown % length
    if after == "gone" and not 0 <= shown < length:
        return None
    return min(max(shown, 0.0), length)


def frame_of(scene: Scene, played: Played, since: float) -> Bitmap | None:
    """What is seen of a video `since` frames of the scene after it began; None if nothing is."""
    path = scene.path_of(played.file)
    if path is None:
        return None
    source = video(path)
    end = min(played.end or source.seconds, source.seconds)
    shown = since / float(scene.frames_a_second) * played.speed
    within = time_in(shown, max(end - played.start, 0.0), played.after)
    return None if within is None else source.at(played.start + within)
