"""How a clip is made of a scene: its format, size, fit, rate, range, quality and loops."""

from fractions import Fraction
from typing import Any, NamedTuple

from ..scene.document import Scene, rate_of
from ..scene.fits import fitted

USUAL_QUALITY = 80  # percent: looks the same as the source to the eye


class ExportSettings(NamedTuple):
    """How a clip is made.

    format: a name in FORMATS
    size: in px; fit: how the scene fills it, None: as the scene says for that shape
    rate: frames a second of the clip; frames: those of the scene that it shows
    quality: in percent; loops: how many times an animated picture plays, 0: for ever
    """

    format: str
    size: tuple[int, int]
    rate: Fraction
    frames: range
    fit: str | None = None
    quality: int = USUAL_QUALITY
    loops: int = 0

    def to_data(self) -> dict[str, Any]:
        """As plain data for JSON."""
        frames = [self.frames.start, self.frames.stop]
        return {**self._asdict(), "rate": str(self.rate), "frames": frames}


def export_settings_of(data: dict[str, Any]) -> ExportSettings:
    """What `to_data` gave, read back."""
    more = {"size": tuple(data["size"]), "rate": rate_of(data["rate"])}
    return ExportSettings(**{**data, **more, "frames": range(*data["frames"])})


def usual_settings(scene: Scene, format: str = "mp4", **more: Any) -> ExportSettings:
    """All of a scene as it is, but for `more`."""
    usual = {"size": scene.size, "rate": scene.frames_a_second, "frames": range(scene.length)}
    return ExportSettings(format, **{**usual, **more})


def clip_times(scene: Scene, settings: ExportSettings) -> list[float]:
    """The times, in frames of the scene, of the clip's frames: as many as last as long.

    At another rate than the scene's the picture is taken at the times of the clip's own frames.
    """
    step = scene.frames_a_second / settings.rate
    count = max(1, round(len(settings.frames) / step))
    return [float(settings.frames.start + number * step) for number in range(count)]


def seen_in(scene: Scene, settings: ExportSettings) -> Scene:
    """The scene as it fills the clip."""
    return fitted(scene, settings.size, settings.fit)
