"""Settings of a layer: what is said of it in a sentence of its own besides what it is and where it
stands. One table for what is said and for what is read."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import cache
from typing import Any

from ...scene.layers import LAYER_KINDS, Layer
from ...scene.layers.base import BLENDS
from ...scene.layers.title import Title
from ...scene.values.measures import FRAME, PIXELS
from ..language.letters import quoted
from ..language.rules import Pattern, PatternReader, elements_of
from ..language.terms import Element, NumberOf, Option, Reading, StringOf, TimeOf
from ..wording.pieces import Choice, NumberPiece, Pieces, said

SettingOptions = tuple[tuple[Any, str], ...]


@dataclass(frozen=True)
class LayerSetting:
    """A value of a layer, or several.

    words: how it is said, with "{}" for each value; paths, labels: of each, below the layer
    options: of a choice; for numbers none: pixels, or if they are `frames` these; what `is_name`
        stands within marks
    usual: what a new layer has, of which the text says nothing
    """

    words: str
    paths: tuple[str, ...]
    labels: tuple[str, ...]
    usual: Any
    options: SettingOptions = ()
    frames: bool = False
    is_name: bool = False
    edit: Callable[[Layer, int], dict[str, Any]] | None = None
    suits: Callable[[type[Layer]], bool] = lambda kind: True

    def values(self, layer: Layer) -> list[Any]:
        return [_value_at(layer, path) for path in self.paths]

    def is_usual(self, layer: Layer) -> bool:
        return self.values(layer) == [self.usual] * len(self.paths)

    def say(self, layer: Layer) -> Pieces:
        """Its sentence."""
        named = enumerate(zip(self.paths, self.labels, self.values(layer), strict=True))
        return said(f"{self.words}.", *(self._piece(layer, *each) for each in named))

    def _piece(self, layer: Layer, index: int, named: tuple[str, str, Any]) -> Choice | NumberPiece:
        path, label, value = f"{layer.id}.{named[0]}", named[1], named[2]
        if self.options or self.is_name:
            other = quoted(value) if self.is_name else "own"
            return Choice(path, label, value=value, options=self.options, other=other)
        edit = self.edit(layer, index) if self.edit else None
        measure, rest = (FRAME, None) if self.frames else (PIXELS, 0)
        return NumberPiece(path, label, edit=edit, value=value, measure=measure, rest=rest)

    def pattern(self) -> Pattern:
        """What reads it."""
        values: dict[str, Element] = {}
        template = self.words
        for index, path in enumerate(self.paths):
            values[f"v{index}"] = self._element(path)
            template = template.replace("{}", f"{{v{index}}}", 1)
        return Pattern(tuple(elements_of(template, values)), is_rare=True)

    def _element(self, path: str) -> Element:
        if self.options:
            return Option(path, self.options)
        if self.is_name:
            return StringOf(path)
        return TimeOf(path) if self.frames else NumberOf(path, PIXELS, is_plain=True)


def _value_at(layer: Layer, path: str) -> Any:
    value: Any = layer
    for name in path.split("."):
        value = value[int(name)] if name.isdecimal() else getattr(value, name)
    return value


def _pivot_edit(layer: Layer, axis: int) -> dict[str, Any]:
    return {"name": "set-pivot", "layer": layer.id, "axis": axis}


def _is_title(kind: type[Layer]) -> bool:
    return issubclass(kind, Title)


SPAN = LayerSetting(
    "Shown from {} to {}",
    ("span.0", "span.1"),
    ("First frame", "Frame where it has gone"),
    None,
    frames=True,
)
BLEND = LayerSetting(
    "Blended {} with what lies behind",
    ("blend",),
    ("Blend",),
    "normal",
    tuple((name, name.replace("-", " ")) for name in BLENDS),
)
PIVOT = LayerSetting(
    "Turns and grows about {} across, {} down",
    ("transform.pivot.0", "transform.pivot.1"),
    ("Pivot across", "Pivot down"),
    0,
    edit=_pivot_edit,
    suits=lambda kind: kind.has_place,
)
DRAW_ORDER = LayerSetting(
    "Where letters overlap, {} is in front",
    ("draw_order",),
    ("Draw order",),
    "reading",
    (("reading", "the last"), ("reverse", "the first"), ("depth", "the nearest")),
    suits=_is_title,
)
WORDS = LayerSetting("Reads {}", ("text",), ("Words",), None, is_name=True, suits=_is_title)
# What else a layer is, where it is not as usual: each a choice of two.
SWITCHES = tuple(
    LayerSetting("{}", (path,), (label,), False, ((False, no), (True, yes)), suits=suits)
    for path, label, no, yes, suits in (
        ("hold_center", "Centre of its lines", "Lets the centre go", "Holds the centre", _is_title),
        ("drawn_each", "Contours that are drawn", "Draws contours one by one",
         "Draws contours at once", _is_title),
        ("solo", "Solo", "Shown with all others", "Shown alone", lambda kind: True),
        ("locked", "Lock", "Not locked", "Locked", lambda kind: True),
    )
)  # fmt: skip
ON = LayerSetting("{}", ("on",), ("Layer",), True, ((True, "Switched on"), (False, "Switched off")))
SETTINGS = (SPAN, WORDS, BLEND, PIVOT, DRAW_ORDER, *SWITCHES, ON)


def settings_of(kind: str) -> list[LayerSetting]:
    """The settings that a kind of layer has; all, if it is not known."""
    model = LAYER_KINDS.get(kind)
    return [setting for setting in SETTINGS if model is None or setting.suits(model)]


def said_settings(layer: Layer) -> list[Pieces]:
    """What is said of a layer besides its time: all that is not as usual."""
    return [
        setting.say(layer)
        for setting in settings_of(layer.kind)
        if setting not in (SPAN, WORDS) and not setting.is_usual(layer)
    ]


@cache
def setting_patterns(kind: str = "") -> tuple[Pattern, ...]:
    """What may be said of the settings of a kind of layer."""
    # When it is shown is read with the layer itself, also in part.
    return tuple(setting.pattern() for setting in settings_of(kind) if setting is not SPAN)


def is_setting(path: str) -> bool:
    """Whether a path below a layer is that of a setting."""
    return any(path in setting.paths for setting in SETTINGS)


class SwitchReader(PatternReader):
    """Reads settings of a kind of layer: values by their paths below it."""

    def __init__(self, reading: Reading, kind: str = ""):
        super().__init__(reading)
        self._kind = kind

    @property
    def patterns(self) -> tuple[Pattern, ...]:
        return setting_patterns(self._kind)
