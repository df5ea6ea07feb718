"""The sentence of a move as the page shows it."""

from functools import cached_property

from django.utils.safestring import SafeString

from balletto.scene.document import Scene
from balletto.scene.layers import Layer
from balletto.scene.layers.sound import SoundLayer
from balletto.scene.moving.moves import Move
from balletto.sentences.moves.wording import NO_NAMES, Names, is_plain_course, move_text, say_move
from balletto.sentences.wording.pieces import Pieces
from balletto.sentences.wording.tracks import say_track

from .phrases import NOW, Moment, shown, shown_less, shown_tracks


def names_of(scene: Scene, layer: Layer) -> Names:
    """What moves of a layer may name: sounds and markers of the scene, its copies."""
    sounds = [(layer.id, layer.called) for layer in scene.layers if isinstance(layer, SoundLayer)]
    markers = dict.fromkeys(marker.name for marker in scene.markers if marker.name)
    named = tuple((name, f"“{name}”") for name in markers)
    return Names(tuple(sounds), named, layer.formation is not None)


class MoveSentence:
    """The words of one move, as they are at a moment."""

    def __init__(self, layer: Layer, move: Move, moment: Moment = NOW, names: Names = NO_NAMES):
        self._text, self._move, self._moment = getattr(layer, "text", None), move, moment
        self._path, self._names = f"{layer.id}.moves.{move.id}", names

    @cached_property
    def pieces(self) -> Pieces:
        return say_move(self._move, self._path, self._text, self._names)

    @property
    def text(self) -> str:
        """The same as plain text, as it is copied and typed."""
        return move_text(self._move, self._text)

    def sentence(self) -> SafeString:
        """The whole sentence."""
        return shown(self.pieces, self._moment)

    def more(self) -> list[SafeString]:
        """What is used less, each a clause of its own."""
        clauses = [*shown_less(self.pieces, self._moment), *shown_tracks(self.pieces)]
        if is_plain_course(self._move.amount):
            # Its easing stands in the sentence.
            clauses.append(
                shown(say_track(f"{self._path}.amount", self._move.amount, "Amount", False))
            )
        return clauses
