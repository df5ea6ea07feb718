"""A part of a layer whose numbers, colours and choices each stand in a sentence, on the page."""

from typing import Any

from django.utils.safestring import SafeString

from balletto.scene.values.wording import Wording
from balletto.sentences.wording.parts import say_part, value_pieces
from balletto.sentences.wording.pieces import Pieces

from .phrases import NOW, Moment, shown, shown_tracks


class SentencePart:
    """The chips of one part, a model of the document at `path`: what is keyed says its value at
    `moment`, and what is set there becomes a keyframe."""

    def __init__(self, path: str, part: Any, wording: Wording, moment: Moment = NOW):
        self.path, self.part, self._wording, self._moment = path, part, wording, moment

    @property
    def pieces(self) -> Pieces:
        return say_part(self.path, self.part, self._wording)

    def sentence(self, **others: Pieces) -> SafeString:
        """The whole sentence; `others` are pieces for names that are no values of it."""
        return shown(say_part(self.path, self.part, self._wording, **others), self._moment)

    def choice(self, name: str) -> SafeString:
        """The chip of one of its values."""
        said = self._wording.values[name]
        return shown(value_pieces(self.path, self.part, name, said), self._moment)

    def more(self) -> list[SafeString]:
        """How the keyed values go from key to key, and beyond their keys."""
        return shown_tracks(self.pieces)
