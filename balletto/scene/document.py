"""The scene: size, rate, length, background, camera and layers, as in a `.balletto.json` file."""

import re
from collections.abc import Iterator
from fractions import Fraction
from functools import cached_property
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any, Literal, TypeAlias

from pydantic import AfterValidator, Field, PrivateAttr
from pydantic_core import PydanticCustomError

from ..stock import stock_path
from .fits import Fit, View
from .layers import AnyLayer, Layer
from .layers.flurry import FlurryLayer
from .layers.nested import NestedLayer
from .layers.title import Title
from .letters.style import AnyGradient
from .media import FileName, Filling, Played
from .model import (
    Color,
    Counts,
    Frames,
    Identifier,
    Model,
    Name,
    Number,
    kind_of,
    one_of,
    shown,
)
from .moving.motion_blur import MotionBlur

FORMAT = "balletto-scene"
VERSION = 1
MAX_SIDE = 8192  # the widest picture that common H.264 decoders take
FONTS_FOLDER = "fonts"  # beside a scene, where its fonts lie if nowhere else
MAX_LENGTH = 4 * 60 * 60 * 60  # four hours at 60 frames a second


# Not more, as a number like 1e999999 takes seconds to be made.
_RATE_WORDS = re.compile(r"\d{1,7}(\.\d{1,9})?(/\d{1,7})?", re.ASCII)


def rate_of(text: str) -> Fraction:
    """Frames a second of a rate as text, "30" or "30000/1001"; ValueError if it is neither."""
    if not _RATE_WORDS.fullmatch(text):
        raise ValueError(text)
    numerator, _, denominator = text.partition("/")
    rate = Fraction(numerator) / int(denominator or 1)
    if not 1 <= rate <= 240:
        raise ValueError(text)
    return rate


def _known_rate(text: str) -> str:
    try:
        rate_of(text)
    except (ValueError, ZeroDivisionError):
        raise PydanticCustomError(
            "needs",
            'a rate from 1 to 240 frames a second is needed, as "30" or "30000/1001", got {got}',
            {"got": shown(text)},
        ) from None
    return text


_RATE = Field(json_schema_extra={"pattern": r"^[0-9.]+(/[0-9]+)?$"})
Rate = Annotated[str, _RATE, AfterValidator(_known_rate)]
Side = Annotated[int, Number("a whole number of pixels", Counts.PICTURE_LENGTH, ge=16, le=MAX_SIDE)]


class NoBackground(Model):
    """Transparent."""

    kind: Literal["none"]


class ColorBackground(Model):
    """One colour behind everything."""

    kind: Literal["color"]
    color: Color


class GradientBackground(Model):
    """A gradient over the whole picture."""

    kind: Literal["gradient"]
    fill: AnyGradient


class StillBackground(Filling):
    """A picture from a file (PNG, JPEG, WebP, SVG) behind everything."""

    kind: Literal["still"]
    file: FileName


class ClipBackground(Played, Filling):
    """A video from a file behind everything, from the first frame of the scene on."""

    kind: Literal["clip"]


BACKGROUND_KINDS: dict[str, type[Model]] = {
    "none": NoBackground,
    "color": ColorBackground,
    "gradient": GradientBackground,
    "still": StillBackground,
    "clip": ClipBackground,
}
if TYPE_CHECKING:
    Background: TypeAlias = (
        NoBackground | ColorBackground | GradientBackground | StillBackground | ClipBackground
    )
else:
    Background = one_of(
        kind_of,
        f"a background of one of the kinds {', '.join(BACKGROUND_KINDS)}",
        **BACKGROUND_KINDS,
    )


class Marker(Model):
    """A moment with a name."""

    at: Frames
    name: Name = ""


EyeDistance = Annotated[
    float, Number("a distance in pixels", Counts.PICTURE_LENGTH, gt=1, le=1_000_000)
]


class Camera(Model):
    """The eye before the picture's centre, `distance` px from the plane z = 0."""

    distance: EyeDistance = 2000


class Scene(Model):
    """A whole scene; layers from the back to the front."""

    format: Literal["balletto-scene"]
    version: Literal[1]
    name: Name = ""
    size: Annotated[tuple[Side, Side], Field(description="width and height in px")]
    rate: Rate
    length: Annotated[int, Number("a whole number of frames", Counts.DURATION, ge=1, le=MAX_LENGTH)]
    background: Background = NoBackground(kind="none")
    camera: Camera = Camera()
    motion_blur: MotionBlur | None = None
    layers: tuple[AnyLayer, ...] = Field((), max_length=1000)
    markers: tuple[Marker, ...] = Field((), max_length=1000)
    fits: tuple[Fit, ...] = Field((), max_length=20)
    scenes: tuple["UsedScene", ...] = Field((), max_length=100)
    _view: View = PrivateAttr(default=View())
    _folder: Path | None = PrivateAttr(default=None)
    _fonts_folder: Path | None = PrivateAttr(default=None)

    @property
    def folder(self) -> Path | None:
        """Where the files lie that it names; None if nowhere."""
        return self._folder

    @property
    def fonts_folder(self) -> Path | None:
        """Where font files lie that it may name besides those that ship; None if nowhere."""
        return self._fonts_folder

    def in_folder(self, folder: Path | None, fonts_folder: Path | None = None) -> "Scene":
        """The same, and the scenes in it, with files that lie in a folder, and fonts in another, or
        in its folder "fonts"; gives itself."""
        self._folder = folder
        self._fonts_folder = fonts_folder or (folder and folder / FONTS_FOLDER)
        for used in self.scenes:
            used.scene.in_folder(folder, fonts_folder)
        return self

    def path_of(self, file: str) -> Path | None:
        """Where a file lies that the scene names, beside it or among those that ship; None if it is
        not there."""
        path = self._folder / file if self._folder else None
        return path if path and path.is_file() else stock_path(file)

    def files(self) -> Iterator[tuple[str, str]]:
        """The files that are named: what shows or sounds it, and the name."""
        if isinstance(self.background, StillBackground | ClipBackground):
            yield "the background", self.background.file
        for layer in self.layers:
            named = [getattr(layer, "file", None)]
            if isinstance(layer, FlurryLayer):
                named += [getattr(source, "file", None) for source in layer.flurry.source]
            named += [
                getattr(selector, "sound", None)
                for move in getattr(layer, "moves", ())
                for selector in move.reach
            ]
            named = [file for file in named if file not in self._by_id]
            for file in filter(None, named):
                yield f"“{layer.name or layer.words}”", file
        for used in self.scenes:
            yield from used.scene.files()

    def used(self, layer: NestedLayer) -> "Scene":
        """The scene that a layer shows."""
        return next(used.scene for used in self.scenes if used.id == layer.scene)

    @property
    def view(self) -> View:
        """Where it is seen from: as it is, unless it was fitted into another shape."""
        return self._view

    def see_from(self, view: View) -> None:
        """Has a new copy of a scene seen from elsewhere."""
        self._view = view

    @cached_property
    def frames_a_second(self) -> Fraction:
        return rate_of(self.rate)

    @cached_property
    def shown(self) -> frozenset[str]:
        """The ids of the layers that are drawn while their time is."""
        solo = any(layer.solo for layer in self.layers)
        own = {layer.id: layer.on and (not solo or self._is_solo(layer)) for layer in self.layers}
        return frozenset(
            layer.id
            for layer in self.layers
            if own[layer.id] and all(group.on for group in self.groups_of(layer))
        )

    def _is_solo(self, layer: Layer) -> bool:
        """Whether a layer, a group that it is in, or for a group a layer in it, is solo."""
        around = any(each.solo for each in (layer, *self.groups_of(layer)))
        return around or any(each.solo for each in self.members_of(layer.id))

    @cached_property
    def titles(self) -> tuple[Title, ...]:
        """The layers that are titles."""
        return tuple(layer for layer in self.layers if isinstance(layer, Title))

    @cached_property
    def _by_id(self) -> dict[str, Layer]:
        return {layer.id: layer for layer in self.layers}

    def groups_of(self, layer: Layer) -> list[Layer]:
        """The groups that a layer is in, from the inner to the outer."""
        groups = []
        while layer.group is not None:
            layer = self._by_id[layer.group]
            groups.append(layer)
        return groups

    def members_of(self, group: str) -> list[Layer]:
        """All layers in a group, those of groups in it too."""
        return [
            layer
            for layer in self.layers
            if any(each.id == group for each in self.groups_of(layer))
        ]

    def shows(self, layer: Layer, frame: float) -> bool:
        """Whether a layer is drawn in a frame, by its own span and those of its groups."""
        spans = [each.span for each in (layer, *self.groups_of(layer))]
        return layer.id in self.shown and all(first <= frame < end for first, end in spans)

    def layer(self, layer_id: str) -> Any:
        """The layer of that id; KeyError, naming those there are, if there is none."""
        for layer in self.layers:
            if layer.id == layer_id:
                return layer
        known = ", ".join(layer.id for layer in self.layers) or "none"
        raise KeyError(f"there is no layer {layer_id!r}; the layers are: {known}")


class UsedScene(Model):
    """A scene that layers of another show: a copy of it, so that a scene is whole by itself.

    `source` says where it was copied from, for whoever brings it up to date.
    """

    id: Identifier
    source: Annotated[str, Field(max_length=100)] | None = None
    scene: Scene


Scene.model_rebuild()
