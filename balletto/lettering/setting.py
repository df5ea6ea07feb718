"""Settings: the style of each character of a title, resolved, with the face it is set in."""

from dataclasses import dataclass
from typing import Any

from ..scene.layers.title import Title
from ..scene.letters.style import RunStyle, Style
from .faces import Face, face, resting_axes
from .families import Families


@dataclass(frozen=True)
class Setting:
    """How a character is set and dressed: size and outline in px, tracking in thousandths; language
    as a tag, None if it is not said."""

    face: Face
    size: float
    tracking: float
    fill: Any
    outline: float
    outline_color: str
    features: tuple[tuple[str, bool], ...] = ()
    language: str | None = None

    @property
    def ascent(self) -> float:
        return self.face.ascent * self.size

    @property
    def descent(self) -> float:
        return self.face.descent * self.size

    @property
    def spacing(self) -> float:
        """What tracking puts behind a character, in px."""
        return self.tracking / 1000 * self.size


def settings_of(title: Title, families: Families, count: int) -> list[Setting]:
    """The setting of each of `count` characters."""
    settings = [setting(families, title.style)] * count
    for run in title.runs:
        own = setting(families, title.style, run.style)
        settings[run.first : run.end] = [own] * len(settings[run.first : run.end])
    return settings


def setting(families: Families, style: Style, own: RunStyle | None = None) -> Setting:
    """A title's style, overlaid with that of a run. What stands in for a font that is not there has
    the same axes, as far as it has them."""

    def said(name: str) -> Any:
        value = getattr(own, name, None)
        return getattr(style, name) if value is None else value

    family, size = families.or_stand_in(said("font")), said("size")
    axes = {**resting_axes(family, size), **style.axes, **(own.axes if own else {})}
    features = {**style.features, **(own.features if own else {})}
    return Setting(
        face(family, tuple(sorted(axes.items()))),
        said("size"),
        said("tracking"),
        said("fill"),
        said("outline"),
        said("outline_color"),
        tuple(sorted(features.items())),
        said("language"),
    )
