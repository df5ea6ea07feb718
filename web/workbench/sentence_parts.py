"""The words of a part of a layer whose numbers, colours and choices each stand in a sentence."""

from string import Formatter
from typing import Any

from django.utils.html import format_html
from django.utils.safestring import SafeString

from balletto.scene import measures
from balletto.scene.keyable import keyed_type
from balletto.scene.measures import Measure
from balletto.scene.tracks import Tied, Track
from balletto.scene.wording import Said, Wording

from .chips import Chip, number_chip
from .phrases import (
    NOW,
    Moment,
    color,
    ease_words,
    edit_of,
    number,
    number_keys,
    order_words,
    plain_value,
    tie_words,
    track_more,
)


class SentencePart:
    """The chips of one part, a model of the document at `path`: what is keyed says its value at
    `moment`, and what is set there becomes a keyframe."""

    def __init__(self, path: str, part: Any, wording: Wording, moment: Moment = NOW):
        self.path, self.part, self._wording, self._moment = path, part, wording, moment

    def sentence(self, **others: SafeString) -> SafeString:
        """The whole sentence; `others` are words for names that are no values of it."""
        named = (name for _, name, *_ in Formatter().parse(self._wording.words) if name)
        values = self._wording.values
        said = {name: self._said(name, values[name]) for name in named if name not in others}
        return format_html(self._wording.words, **said, **others)

    def choice(self, name: str) -> SafeString:
        """The chip of one of its values."""
        return self._said(name, self._wording.values[name])

    def more(self) -> list[SafeString]:
        """How the keyed values go from key to key, and beyond their keys."""
        return [
            track_more(f"{self.path}.{name}", value, said.label)
            for name, said in self._wording.values.items()
            if isinstance(value := self._value(name), Track)
        ]

    def _value(self, name: str) -> Any:
        """The value of that name, as it is called in the file; None if it has none."""
        fields = type(self.part).model_fields.items()
        attribute = next((key for key, each in fields if name in (key, each.alias)), "")
        return getattr(self.part, attribute, None)

    def _said(self, name: str, said: Said) -> SafeString:
        path, value = f"{self.path}.{name}", self._value(name)
        if said.options or said.parts or said.each:
            return plain_value(path, value, said)
        if said.is_order:
            return order_words(self.path, self.part, said.label)
        if said.is_ease:
            return ease_words(path, value, said.label)
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
