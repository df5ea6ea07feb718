"""The sentences of the scene itself: its background, its open shutter, how it fits other shapes."""

from typing import Any

from django.utils.html import format_html
from django.utils.safestring import SafeString

from balletto.scene.document import MAX_SIDE, Scene
from balletto.scene.fits import FIT_KINDS, Fit
from balletto.scene.moving.motion_blur import SHUTTER
from balletto.scene.starts import USUAL_SIZES
from balletto.scene.values import measures
from balletto.scene.values.measures import Measure
from balletto.sentences.scenes.wording import PICTURE, SEEN_FROM
from web.library.offered import OfferedFile

from .chips import Chip, choice_chip, color_chip, number_chip
from .media_sentences import AFTERS, file_choice, frames_of, missing_words
from .phrases import NOW, Moment, edit_of, join, shown, tight
from .sentence_parts import SentencePart

_PATH = "scene.background"
_GRADIENT = {"kind": "linear", "angle": 90, "colors": ["#101428", "#3A2150"]}
_STARTS: dict[str, tuple[Any, str]] = {
    "none": ({"kind": "none"}, "nothing"),
    "color": ({"kind": "color", "color": "#101428"}, "a colour"),
    "gradient": ({"kind": "gradient", "fill": _GRADIENT}, "a gradient"),
}
_FROM_FILES = {"still": ("still", "a picture"), "video": ("clip", "a video")}
_FILLS = [("filled", "filling it, cut off at two sides"), ("whole", "seen whole")]
_SPEED = Measure(" %", scale=100, drag=0.005, step=0.05, low=0)
_FIT_WORDS = {"whole": "seen whole", "filled": "filled", "placed": "with its own places"}
SHAPES = (("9:16", "tall"), ("1:1", "square"), ("4:5", "portrait"), ("16:9", "wide"))
_SIDE = Measure(" px", drag=1, low=16, high=MAX_SIDE)
_DISTANCE = Measure(" px", drag=4, low=1)
_SCALE = Measure(" %", scale=100, drag=0.005, step=0.01, low=0.01)


class SceneWords:
    """The sentences of a scene; `files` are those that it can lie on, the newest first."""

    def __init__(self, document: Scene, files: list[OfferedFile], moment: Moment = NOW):
        self._scene, self._files, self._moment = document, files, moment

    @property
    def background(self) -> SafeString:
        """What lies behind everything."""
        background = self._scene.background
        said = _SAID.get(background.kind)
        more = said(self) if said else ""
        return tight(format_html("Lies on {}{}.", self._kind(), more and format_html(" {}", more)))

    def _kind(self) -> SafeString:
        background = self._scene.background
        value = background.model_dump(exclude_unset=True)
        options = [
            (value if kind == background.kind else start, words)
            for kind, (start, words) in _STARTS.items()
        ]
        for file_kind, (kind, words) in _FROM_FILES.items():
            if kind == background.kind:
                options.append((value, words))
            elif file := next((each for each in self._files if each.kind == file_kind), None):
                after = {"after": "loop"} if file.ships else {}
                options.append(({"kind": kind, "file": file.name, **after}, words))
        return choice_chip(Chip("background-kind", edit_of(_PATH), "Background"), value, options)

    def _color(self) -> SafeString:
        chip = Chip("background", edit_of(f"{_PATH}.color"), "Background colour")
        return color_chip(chip, self._scene.background.color)

    def _gradient(self) -> SafeString:
        fill, path = self._scene.background.fill, f"{_PATH}.fill"
        colors = [
            color_chip(Chip(f"{path}.{n}", edit_of(f"{path}.colors.{n}"), f"Colour {n + 1}"), color)
            for n, color in enumerate(fill.colors)
        ]
        way = ""
        if fill.kind == "linear":
            chip = Chip(f"{path}.angle", edit_of(f"{path}.angle"), "Direction of the gradient")
            way = format_html(" along {}", number_chip(chip, fill.angle, measures.DEGREES, rest=90))
        else:
            way = " from the middle out"
        return format_html("from {}{}", join(colors, " to "), way)

    def _file(self, kind: str) -> SafeString:
        name = self._scene.background.file
        return shown((file_choice(f"{_PATH}.file", name, kind, self._files),))

    def _fill(self) -> SafeString:
        path = f"{_PATH}.fill"
        return choice_chip(
            Chip(path, edit_of(path), "Filling"), self._scene.background.fill, _FILLS
        )

    def _still(self) -> SafeString:
        return format_html("{}, {}", self._file("still"), self._fill())

    def _clip(self) -> SafeString:
        background = self._scene.background
        speed = Chip(f"{_PATH}.speed", edit_of(f"{_PATH}.speed"), "Speed of the background")
        after = Chip(f"{_PATH}.after", edit_of(f"{_PATH}.after"), "After its end")
        return format_html(
            "{}, {}, at {}, at its end {}",
            self._file("video"),
            self._fill(),
            number_chip(speed, background.speed, _SPEED, rest=1),
            choice_chip(after, background.after, list(AFTERS)),
        )

    @property
    def warnings(self) -> list[str]:
        """What is wrong with the background."""
        file = getattr(self._scene.background, "file", None)
        return [told] if file and (told := missing_words(self._scene, file)) else []

    @property
    def actions(self) -> list[dict[str, Any]]:
        """What else can be done with the scene as a whole."""
        background, actions = self._scene.background, []
        if background.kind == "clip" and (length := frames_of(self._scene, background)):
            edit = {"name": "set-length", "length": length}
            actions.append({"label": "as long as the video", "edit": edit})
        if background.kind == "gradient":
            actions += self._gradient_actions()
        path = "scene.motion_blur"
        if self._scene.motion_blur is None:
            edit = {"name": "set-value", "path": path, "value": {"angle": 180}}
            actions.append({"label": "motion blur for all", "edit": edit})
        else:
            edit = {"name": "clear-value", "path": path}
            actions.append({"label": "no motion blur for all", "edit": edit})
        return actions

    def _gradient_actions(self) -> list[dict[str, Any]]:
        fill = self._scene.background.fill
        colors = list(fill.colors)
        other = "round" if fill.kind == "linear" else "linear"
        changes = [(f"a {other} gradient", {"kind": other, "colors": colors})]
        plain = fill.model_dump(exclude_unset=True)
        if len(colors) < 6:
            changes.append(("one colour more", {**plain, "colors": [*colors, "#F2B705"]}))
        if len(colors) > 2:
            changes.append(("one colour less", {**plain, "colors": colors[:-1]}))
        return [
            {"label": label, "edit": {**edit_of(f"{_PATH}.fill"), "value": value}}
            for label, value in changes
        ]

    @property
    def picture(self) -> SafeString:
        """How large the picture is, and from how far it is looked at."""
        labels = ("Width of the picture", "Height of the picture")
        chips = [
            Chip(f"size.{axis}", {"name": "set-size", "axis": axis}, label)
            for axis, label in enumerate(labels)
        ]
        sizes = zip(chips, self._scene.size, strict=True)
        sides = [number_chip(chip, side, _SIDE) for chip, side in sizes]
        path = "scene.camera.distance"
        camera = Chip(path, edit_of(path), "Distance of the camera")
        distance = number_chip(camera, self._scene.camera.distance, _DISTANCE, rest=2000)
        return tight(format_html(f"{PICTURE}, {SEEN_FROM}.", *sides, distance))

    @property
    def sizes(self) -> list[dict[str, Any]]:
        """Usual sizes, as edits with their names; all layers are fitted so that they are seen."""
        return [
            {
                "label": f"{shape}, {size[0]} × {size[1]}",
                "edit": {"name": "set-size", "size": list(size), "fit": "whole"},
            }
            for size, shape in USUAL_SIZES
            if size != tuple(self._scene.size)
        ]

    @property
    def shutter(self) -> SafeString | str:
        """The shutter of the whole scene, if it is open."""
        if self._scene.motion_blur is None:
            return ""
        words = SentencePart("scene.motion_blur", self._scene.motion_blur, SHUTTER, self._moment)
        return tight(words.sentence())

    @property
    def fits(self) -> list[SafeString]:
        """How the scene fills each other shape, with the places of its layers there."""
        return [
            self._fit(shape, words)
            for shape, words in SHAPES
            if shape != _shape_of(self._scene.size)
        ]

    def _fit(self, shape: str, words: str) -> SafeString:
        fits = list(self._scene.fits)
        known = next((n for n, fit in enumerate(fits) if fit.shape == shape), None)
        fit = fits[known] if known is not None else Fit(shape=shape)
        others = [each.model_dump(exclude_unset=True) for each in fits if each.shape != shape]
        options = [
            ([*others, {**fit.model_dump(exclude_unset=True), "shape": shape, "by": by}], said)
            for by, said in _FIT_WORDS.items()
        ]
        value = options[FIT_KINDS.index(fit.by)][0]
        chip = Chip(f"fit-{shape}", edit_of("scene.fits"), f"In {words} pictures")
        said = format_html(
            "In {} pictures ({}) {}", words, shape, choice_chip(chip, value, options)
        )
        if fit.by != "placed" or known is None:
            return tight(format_html("{}.", said))
        return tight(format_html("{}: {}.", said, self._places(known, fit)))

    def _places(self, index: int, fit: Fit) -> SafeString:
        layers = [each for each in self._scene.layers if each.has_place]
        told = {place.layer: n for n, place in enumerate(fit.places)}
        parts = [
            self._place(f"scene.fits.{index}", fit, told.get(each.id), each) for each in layers
        ]
        return join(parts, "; ")

    def _place(self, path: str, fit: Fit, number: int | None, layer: Any) -> SafeString:
        name = f"“{layer.called}”"
        if number is None:
            place = {"layer": layer.id, "shift": [0, 0], "scale": 1}
            places = [*(each.model_dump(exclude_unset=True) for each in fit.places), place]
            options = [(None, "as it is"), (places, "at its own place")]
            chip = Chip(f"{path}-{layer.id}", edit_of(f"{path}.places"), f"Place of {name}")
            return format_html("{} {}", name, choice_chip(chip, None, options))
        here, place = f"{path}.places.{number}", fit.places[number]

        def part(key: str, value: float, measure: Measure, label: str, rest: float) -> SafeString:
            chip = Chip(f"{here}.{key}", edit_of(f"{here}.{key}"), f"{label} of {name}")
            return number_chip(chip, value, measure, rest=rest)

        return format_html(
            "{} {} and {}, {} large",
            name,
            part("shift.0", place.shift[0], measures.LEFT_RIGHT, "Shift across", 0),
            part("shift.1", place.shift[1], measures.ABOVE_BELOW, "Shift down", 0),
            part("scale", place.scale, _SCALE, "Size", 1),
        )


_SAID = {
    "color": SceneWords._color,
    "gradient": SceneWords._gradient,
    "still": SceneWords._still,
    "clip": SceneWords._clip,
}


def _shape_of(size: tuple[int, int]) -> str:
    """Which of the named shapes a size has; empty if none."""
    for shape, _ in SHAPES:
        across, down = map(int, shape.split(":"))
        if size[0] * down == size[1] * across:
            return shape
    return ""
