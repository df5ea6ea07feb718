"""The words of a part of a layer whose numbers, colours and choices each stand in a sentence."""

from dataclasses import dataclass, field
from typing import Any

from django.utils.html import format_html
from django.utils.safestring import SafeString

from balletto.scene.tracks import Tied, Track

from . import chips
from .chips import Chip, Measure, choice_chip, number_chip
from .words import color, edit_of, number, point_words, tie_words, track_more


@dataclass(frozen=True)
class Said:
    """How a value stands in a sentence: a number by its measure, a colour, or one of `options`.

    label: its full name; rest: what a double click sets
    """

    label: str
    measure: Measure | None = None
    rest: float | None = None
    options: tuple[tuple[Any, str], ...] = ()
    is_color: bool = False
    is_point: bool = False
    is_pair: bool = False


@dataclass(frozen=True)
class Sentence:
    """A template with the names of values in braces, and how each is said."""

    title: str
    words: str
    values: dict[str, Said] = field(default_factory=dict)


class PartWords:
    """The chips of one part, a model of the document at `path`."""

    def __init__(self, path: str, part: Any, sentence: Sentence):
        self.path, self.part, self._sentence = path, part, sentence

    def sentence(self) -> SafeString:
        """The whole sentence."""
        said = {name: self._said(name, each) for name, each in self._sentence.values.items()}
        return format_html(self._sentence.words, **said)

    def more(self) -> list[SafeString]:
        """How the keyed values go from key to key, and beyond their keys."""
        return [
            track_more(f"{self.path}.{name}", self._value(name), said.label)
            for name, said in self._sentence.values.items()
            if isinstance(self._value(name), Track)
        ]

    def _value(self, name: str) -> Any:
        """The value of that name, as it is called in the file."""
        fields = type(self.part).model_fields
        attribute = next(key for key, each in fields.items() if name in (key, each.alias))
        return getattr(self.part, attribute)

    def _said(self, name: str, said: Said) -> SafeString:
        path, value = f"{self.path}.{name}", self._value(name)
        if said.options:
            return choice_chip(Chip(path, edit_of(path), said.label), value, list(said.options))
        if said.is_color:
            return color(path, value, said.label)
        if said.is_point:
            return point_words(path, value, said.label)
        if said.is_pair:
            return _pair_words(path, value, said.label)
        return number(path, value, said.measure, said.label, rest=said.rest, key_path=path)


def _pair_words(path: str, value: Any, label: str) -> SafeString:
    """A width and a height: "400 px by 200 px"; keyed ones by their keys."""
    if isinstance(value, Tied):
        return tie_words(path, value, label)
    if isinstance(value, Track):
        parts = [
            format_html(
                "{} at {}",
                _pair_words(f"{path}.keys.{index}.value", key.value, label),
                number_chip(
                    Chip(f"{path}.keys.{index}.at", edit_of(f"{path}.keys.{index}.at"), label),
                    key.at,
                    chips.FRAME,
                ),
            )
            for index, key in enumerate(value.keys)
        ]
        return format_html(", then ".join(["{}"] * len(parts)), *parts)
    wide, high = (
        number_chip(
            Chip(f"{path}.{axis}", edit_of(f"{path}.{axis}"), f"{label}, {said}"),
            value[axis],
            LENGTH_PX,
            key_path=path,
        )
        for axis, said in enumerate(("width", "height"))
    )
    return format_html("{} by {}", wide, high)


LENGTH_PX = Measure(" px", drag=1, low=0)
