"""Sentences of the core as the page shows them: values are chips, keys stand in folds."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from django.utils.html import format_html
from django.utils.safestring import SafeString, mark_safe

from balletto.scene.values import measures
from balletto.scene.values.colors import hex_of
from balletto.scene.values.measures import Measure
from balletto.scene.values.tracks import Tied, Track, value_at
from balletto.sentences.wording.pieces import (
    Aside,
    Choice,
    ColorPiece,
    Component,
    Followed,
    FontChoice,
    Keys,
    Link,
    Listed,
    NumberPiece,
    Numbers,
    Piece,
    Pieces,
    Unshown,
    Usual,
    Value,
    Words,
    said,
    values_of,
)
from balletto.sentences.wording.texts import font_text
from balletto.sentences.wording.tracks import say_tie, say_track

from .chips import Chip, choice_chip, color_chip, font_chip, number_chip


def edit_of(path: str) -> dict[str, Any]:
    return {"name": "set-value", "path": path}


@dataclass(frozen=True)
class Moment:
    """When sentences are told: at a frame of the scene, from which keyed values say what they are;
    `start` is the frame that their own frames count from, `opened` are the parts that are open."""

    frame: float = 0.0
    start: float = 0.0
    opened: frozenset[str] = frozenset()

    def of_move(self, start: float) -> "Moment":
        """The same moment for values whose frames count from the start of a move."""
        return replace(self, start=start)

    def value_of(self, track: Any) -> np.ndarray:
        """What a value is now, plain or keyed."""
        return value_at(track, np.array(float(self.frame - self.start)))

    def times_of(self, track: Track) -> str:
        """The frames of the scene at which its keyframes stand."""
        return " ".join(f"{round(key.at + self.start, 4):g}" for key in track.keys)


NOW = Moment()


def _in_a_row(parts: list[SafeString], between: str = ", ") -> SafeString:
    return mark_safe(between.join(parts))  # noqa: S308 - the parts are escaped where they are made


def number_keys(
    path: str, track: Track, measure: Measure, label: str, moment: Moment
) -> SafeString:
    """The keyframes of a number, or of several with one measure, behind a fold."""

    def said(key_path: str, key: Any, name: str) -> SafeString:
        parts = key.value if isinstance(key.value, tuple) else (key.value,)
        names = [f"{key_path}.value"]
        if isinstance(key.value, tuple):
            names = [f"{key_path}.value.{n}" for n in range(len(parts))]
        remove = {"name": "remove-key", "path": path, "at": key.at + moment.start}
        chips = [
            number_chip(Chip(here, edit_of(here), name), value, measure, clears=remove)
            for here, value in zip(names, parts, strict=True)
        ]
        return _in_a_row(chips)

    return keys_fold(path, track, label, said, moment)


def keys_fold(
    path: str,
    track: Track,
    label: str,
    say: Callable[[str, Any, str], SafeString],
    moment: Moment,
) -> SafeString:
    """A fold with the keyframes of a value one by one: "60 px below at frame 0, then ..."."""
    fold, count = f"fold-{path}", len(track.keys)
    is_open = fold in moment.opened
    button = format_html(
        '<button type="button" class="fold" data-fold="{}" aria-expanded="{}" '
        'aria-label="{} of {}">{}</button>',
        fold,
        "true" if is_open else "false",
        "Keyframe" if count == 1 else "Keyframes",
        label,
        "1 key" if count == 1 else f"{count} keys",
    )
    if not is_open:
        return button
    parts = []
    for index, key in enumerate(track.keys):
        here = f"{path}.keys.{index}"
        at = Chip(f"{here}.at", edit_of(f"{here}.at"), f"{label}, frame of key {index + 1}")
        value = say(here, key, f"{label}, key {index + 1}")
        parts.append(format_html("{} at {}", value, number_chip(at, key.at, measures.FRAME)))
    return format_html('{}<span class="keys">({})</span>', button, _in_a_row(parts, ", then "))


# Pieces of the core as chips


def shown(pieces: Pieces, moment: Moment = NOW) -> SafeString:
    """Pieces of a sentence as the page shows them; what is used less stands by itself. A comma or
    full stop stays on the line of the value before it."""
    parts: list[SafeString | str] = []
    is_chip = False
    for piece in _flat(pieces):
        if isinstance(piece, Words) and piece.words[:1] in _PUNCTUATION and parts and is_chip:
            parts[-1] = format_html('<span class="tight">{}{}</span>', parts[-1], piece.words[0])
            piece = Words(piece.words[1:])
        part = _SHOWN[type(piece)](piece, moment)
        if part:
            parts.append(part)
            is_chip = isinstance(piece, Value) and not is_changing(piece)
    return mark_safe("".join(parts))  # noqa: S308 - the parts are escaped where they are made


_PUNCTUATION = (",", ".")


def _flat(pieces: Pieces) -> Iterator[Piece]:
    """Pieces with those that pages show as well in their places."""
    for piece in pieces:
        if isinstance(piece, Usual):
            yield from _flat(piece.pieces)
        else:
            yield piece


def is_changing(piece: Value) -> bool:
    """Whether what is shown of a value ends with its keys, or with what it follows."""
    return isinstance(piece, NumberPiece | Numbers | ColorPiece | Keys) and isinstance(
        piece.value, Track | Tied
    )


def shown_less(pieces: Pieces, moment: Moment = NOW) -> list[SafeString]:
    """What is used less of a sentence, each a clause of its own."""
    return [
        shown(said("{} {}.", piece.title, piece.pieces), moment)
        for piece in pieces
        if isinstance(piece, Aside)
    ]


def shown_tracks(pieces: Pieces, but: tuple[str, ...] = ()) -> list[SafeString]:
    """How the keyed values of a sentence go from key to key, and beyond their keys; of those whose
    paths are in `but`, the eases stand elsewhere."""
    return [
        shown(say_track(value.path, value.value, value.label, value.path not in but))
        for value in values_of(pieces)
        if isinstance(getattr(value, "value", None), Track)
    ]


def _number_shown(piece: NumberPiece, moment: Moment) -> SafeString:
    if isinstance(piece.value, Tied):
        return _tied_shown(piece)
    chip = Chip(piece.path, piece.setting, piece.label)
    more = {"rest": piece.rest, "clears": piece.clears, "key_path": piece.key_path}
    if not isinstance(piece.value, Track):
        return number_chip(chip, piece.value, piece.measure, **more)
    local = moment.of_move(piece.start)
    now = piece.measure.within(float(local.value_of(piece.value)))
    chipped = number_chip(chip, now, piece.measure, keys=local.times_of(piece.value), **more)
    fold = number_keys(piece.path, piece.value, piece.measure, piece.label, local)
    return format_html("{} {}", chipped, fold)


def _tied_shown(piece: Any) -> SafeString:
    return shown(say_tie(piece.path, piece.value, piece.label))


def _part_shown(piece: Component, moment: Moment) -> SafeString:
    """A number of several, as it is now; the keys of all stand behind the last."""
    path = f"{piece.path}.{piece.index}"
    now = piece.measure.within(float(moment.value_of(piece.value)[piece.index]))
    keys = moment.times_of(piece.value) if isinstance(piece.value, Track) else ""
    chip = Chip(path, edit_of(path), piece.label)
    return number_chip(
        chip, now, piece.measure, rest=piece.rest, keys=keys, key_path=piece.key_path
    )


def _keys_shown(piece: Keys, moment: Moment) -> SafeString | str:
    if not isinstance(piece.value, Track):
        return ""
    fold = number_keys(piece.path, piece.value, piece.measure, piece.label, moment)
    return format_html(" {}", fold)


def _numbers_shown(piece: Numbers, moment: Moment) -> SafeString:
    if isinstance(piece.value, Tied):
        return _tied_shown(piece)
    parts = [
        Component(
            piece.path,
            f"{piece.label}, {name}",
            piece.key_path,
            value=piece.value,
            index=index,
            measure=piece.measure,
        )
        for index, name in enumerate(piece.parts)
    ]
    keys = Keys(piece.path, piece.label, value=piece.value, measure=piece.measure)
    return shown(said(f"{piece.words}{{}}", *parts, keys), moment)


def _color_shown(piece: ColorPiece, moment: Moment) -> SafeString:
    if isinstance(piece.value, Tied):
        return _tied_shown(piece)
    chip = Chip(piece.path, piece.setting, piece.label)
    if not isinstance(piece.value, Track):
        return color_chip(chip, piece.value, key_path=piece.key_path)
    local = moment.of_move(piece.start)

    def key(key_path: str, key: Any, name: str) -> SafeString:
        return color_chip(Chip(f"{key_path}.value", edit_of(f"{key_path}.value"), name), key.value)

    now, keys = hex_of(local.value_of(piece.value)), local.times_of(piece.value)
    chipped = color_chip(chip, now, keys=keys, key_path=piece.key_path)
    return format_html(
        "{} {}", chipped, keys_fold(piece.path, piece.value, piece.label, key, local)
    )


def _choice_shown(piece: Choice, moment: Moment) -> SafeString:
    chip = Chip(piece.path, piece.setting, piece.label)
    return choice_chip(chip, piece.value, piece.options, piece.other)


def _font_shown(piece: FontChoice, moment: Moment) -> SafeString:
    return font_chip(Chip(piece.path, piece.setting, piece.label), piece.value, font_text(piece))


_LINK = mark_safe(
    '<button type="button" class="link-sides" data-link-sides aria-pressed="true" '
    'aria-label="Width and height change together" title="Width and height change together">'
    "</button>"
)
_SHOWN: dict[type, Callable[[Any, Moment], SafeString | str]] = {
    Words: lambda piece, moment: format_html("{}", piece.words),
    NumberPiece: _number_shown,
    Numbers: _numbers_shown,
    Component: _part_shown,
    Keys: _keys_shown,
    Link: lambda piece, moment: _LINK,
    Followed: lambda piece, moment: format_html(
        '<span class="tied">tied to <b>{}</b></span>', piece.words
    ),
    ColorPiece: _color_shown,
    Choice: _choice_shown,
    FontChoice: _font_shown,
    Listed: lambda piece, moment: format_html("({})", shown(piece.pieces, moment)),
    Aside: lambda piece, moment: "",
    Unshown: lambda piece, moment: "",
}
