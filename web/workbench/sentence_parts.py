"""The words of a part of a layer whose numbers, colours and choices each stand in a sentence."""

from dataclasses import dataclass, field
from typing import Any

from django.utils.html import format_html
from django.utils.safestring import SafeString

from balletto.scene import measures
from balletto.scene.keyable import keyed_type
from balletto.scene.measures import Measure
from balletto.scene.tracks import Tied, Track

from .chips import Chip, choice_chip, number_chip
from .phrases import NOW, Moment, color, edit_of, number, number_keys, tie_words, track_more


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


class SentencePart:
    """The chips of one part, a model of the document at `path`: what is keyed says its value at
    `moment`, and what is set there becomes a keyframe."""

    def __init__(self, path: str, part: Any, sentence: Sentence, moment: Moment = NOW):
        self.path, self.part, self._sentence, self._moment = path, part, sentence, moment

    def sentence(self, **others: SafeString) -> SafeString:
        """The whole sentence; `others` are words for names that are no values of it."""
        said = {name: self._said(name, each) for name, each in self._sentence.values.items()}
        return format_html(self._sentence.words, **said, **others)

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
        if isinstance(value, Tied):
            return tie_words(path, value, said.label)
        if said.is_color:
            return color(path, value, said.label, self._moment, key_path=path)
        if said.is_pair or said.is_point:
            words, names, measure = _POINT if said.is_point else _PAIR
            now = self._moment.value_of(value)
            parts = [
                self._part(f"{path}.{axis}", path, value, float(now[axis]), measure, name)
                for axis, name in enumerate(f"{said.label}, {name}" for name in names)
            ]
            both = format_html(words, *parts)
            if not isinstance(value, Track):
                return both
            fold = number_keys(path, value, measure, said.label, self._moment)
            return format_html("{} {}", both, fold)
        more = {"rest": said.rest, "key_path": path if keyed_type(self.part, name) else ""}
        return number(path, value, said.measure, said.label, self._moment, **more)

    def _part(
        self, path: str, key_path: str, value: Any, now: float, measure: Measure, label: str
    ) -> SafeString:
        keys = self._moment.times_of(value) if isinstance(value, Track) else ""
        chip = Chip(path, edit_of(path), label)
        return number_chip(chip, measure.within(now), measure, keys=keys, key_path=key_path)


# How two numbers are said, how each is called, and their measure.
_POINT = ("{} across, {} down", ("across", "down"), measures.PIXELS)
_PAIR = ("{} by {}", ("width", "height"), measures.LENGTH_PX)
