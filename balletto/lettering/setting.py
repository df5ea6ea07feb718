"""Settings: the style of each character of a title, resolved, with the face it is set in."""

from dataclasses import dataclass
from typing import Any

from ..scene.layers.title import Title
from ..scene.style import RunStyle, Style
from .faces import Face, face, resting_axes


@dataclass(frozen=True)
class Setting:
    """How a character is set and dressed: size and outline in px, tracking in thousandths."""

    face: Face
    size: float
    tracking: float
    fill: Any
    outline: float
    outline_color: str

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


def settings_of(title: Title, count: int) -> list[Setting]:
    """The setting of each of `count` characters; UnknownFont if a font is not shipped."""
    settings = [setting(title.style)] * count
    for run in title.runs:
        own = setting(title.style, run.style)
        settings[run.first : run.end] = [own] * len(settings[run.first : run.end])
    return settings


def setting(style: Style, own: RunStyle | None = None) -> Setting:
    """A title's style, overlaid with that of a run."""

    def said(name: str) -> Any:
        value = getattr(own, name, None)
        return getattr(style, name) if value is None else value

    size = said("size")
    axes = {**resting_axes(said("font"), size), **style.axes, **(own.axes if own else {})}
    return Setting(
        face(said("font"), tuple(sorted(axes.items()))),
        *(said(name) for name in ("size", "tracking", "fill", "outline", "outline_color")),
    )
