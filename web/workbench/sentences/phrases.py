"""Sentences of the core as the page shows them: values are chips, keys stand in folds."""

import re
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from django.utils.html import format_html
from django.utils.safestring import SafeString, mark_safe

from balletto.scene.values import measures
from balletto.scene.values.colors import hex_of
from balletto.scene.values.measures import Measure
from balletto.scene.values.tracks import Tied, Track, value_at
from balletto.scene.values.value_names import value_name
from balletto.sentences.wording.pieces import (
    BEYOND,
    Aside,
    Choice,
    Color,
    FontChoice,
    Listed,
    Number,
    Numbers,
    Pieces,
    Unshown,
    Usual,
    Words,
    values_of,
)
from balletto.sentences.wording.values import ease_pieces

from .chips import Chip, choice_chip, color_chip, font_chip, number_chip


def edit_of(path: str) -> dict[str, Any]:
    return {"name": "set-value", "path": path}


def join(parts: list[SafeString], between: str = ", ", last: str | None = None) -> SafeString:
    if len(parts) > 1 and last is not None:
        parts = [*parts[:-2], format_html("{}{}{}", parts[-2], last, parts[-1])]
    return mark_safe(between.join(parts))  # noqa: S308 - the parts are escaped where they are made


def tight(sentence: SafeString) -> SafeString:
    """Keeps a comma or full stop on the line of the value before it."""
    wrapped = _BEFORE_PUNCTUATION.sub(r'<span class="tight">\1\2</span>', sentence)
    return mark_safe(wrapped)  # noqa: S308 - what is wrapped was escaped where it was made


# A whole chip, as chips.py makes them, with a comma or full stop behind it.
_BEFORE_PUNCTUATION = re.compile(
    r'(<span class="val[^>]*>[^<]*</span>'
    r"|<button[^>]* data-font-now=[^>]*>[^<]*</button>"
    r'|<span class="pick">(?:[^<]|<(?!/span>))*</span></span>'
    r"|<label[^>]*>(?:[^<]|<(?!/label>))*</label>)([,.])"
)


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


def number(
    path: str, value: Any, measure: Measure, label: str, moment: Moment = NOW, **more: Any
) -> SafeString:
    """A number, as it is now if it has keyframes, and these behind a fold; or what it follows."""
    if isinstance(value, Tied):
        return tie_words(path, value, label)
    chip = Chip(path, edit_of(path), label)
    if not isinstance(value, Track):
        return number_chip(chip, value, measure, **more)
    now = measure.within(float(moment.value_of(value)))
    said = number_chip(chip, now, measure, keys=moment.times_of(value), **more)
    return format_html("{} {}", said, number_keys(path, value, measure, label, moment))


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
        return join(chips)

    return keys_fold(path, track, label, said, moment)


def color(path: str, value: Any, label: str, moment: Moment = NOW, **more: Any) -> SafeString:
    """A colour, as it is now if it has keyframes, and these behind a fold; or what it follows."""
    if isinstance(value, Tied):
        return tie_words(path, value, label)
    chip = Chip(path, edit_of(path), label)
    if not isinstance(value, Track):
        return color_chip(chip, value, **more)

    def said(key_path: str, key: Any, name: str) -> SafeString:
        return color_chip(Chip(f"{key_path}.value", edit_of(f"{key_path}.value"), name), key.value)

    now = color_chip(chip, hex_of(moment.value_of(value)), keys=moment.times_of(value), **more)
    return format_html("{} {}", now, keys_fold(path, value, label, said, moment))


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
    return format_html('{}<span class="keys">({})</span>', button, join(parts, ", then "))


def tie_words(path: str, tied: Tied, label: str) -> SafeString:
    """What a value follows: "tied to amount of “Rise” times −0.4 plus 0, 3 frames later"."""
    tie, base = tied.tie, f"{path}.tie"

    def part(name: str, measure: Measure, said: str, rest: float) -> SafeString:
        chip = Chip(f"{base}.{name}", edit_of(f"{base}.{name}"), f"{label}, {said} of the tie")
        return number_chip(chip, getattr(tie, name), measure, rest=rest)

    return format_html(
        '<span class="tied">tied to <b>{} of “{}”</b></span>{}, {} later',
        value_name(tied.layer, tie.to),
        tied.owner,
        ""
        if tied.is_color
        else format_html(
            " times {} plus {}",
            part("gain", measures.PLAIN, "gain", 1),
            part("plus", measures.SIGNED, "offset", 0),
        ),
        part("delay", measures.FRAMES, "delay", 0),
    )


def track_more(path: str, track: Track, label: str, with_eases: bool = True) -> SafeString:
    """What is used less of a keyed value: how it goes from key to key, and beyond them."""
    keys = [
        format_html(
            "from frame {} {}",
            f"{key.at:g}",
            ease_words(f"{path}.keys.{index}.ease", key.ease, f"{label}, easing", True),
        )
        for index, key in enumerate(track.keys[:-1] if with_eases else ())
    ]
    beyond = [
        format_html("{} them {}", side, choice_chip(
            Chip(f"{path}.{side}", edit_of(f"{path}.{side}"), f"{label}, {side} its keys"),
            getattr(track, side), BEYOND,
        ))
        for side in ("before", "after")
    ]  # fmt: skip
    return tight(format_html("{}: {}.", label, join([*keys, *beyond])))


def ease_words(path: str, ease: Any, label: str, between_keys: bool = False) -> SafeString:
    """The ease, and the numbers that its kind has."""
    return shown(ease_pieces(path, ease, label, between_keys))


# Pieces of the core as chips


def shown(pieces: Pieces, moment: Moment = NOW) -> SafeString:
    """Pieces of a sentence as the page shows them; what is used less stands by itself."""
    parts = [_SHOWN[type(piece)](piece, moment) for piece in pieces]
    return mark_safe("".join(parts))  # noqa: S308 - the parts are escaped where they are made


def shown_less(pieces: Pieces, moment: Moment = NOW) -> list[SafeString]:
    """What is used less of a sentence, each a clause of its own."""
    return [
        tight(format_html("{} {}.", piece.title, shown(piece.pieces, moment)))
        for piece in pieces
        if isinstance(piece, Aside)
    ]


def shown_tracks(pieces: Pieces, but: tuple[str, ...] = ()) -> list[SafeString]:
    """How the keyed values of a sentence go from key to key, and beyond their keys; of those whose
    paths are in `but`, the eases stand elsewhere."""
    return [
        track_more(value.path, value.value, value.label, value.path not in but)
        for value in values_of(pieces)
        if isinstance(getattr(value, "value", None), Track)
    ]


def _number_shown(piece: Number, moment: Moment) -> SafeString:
    if isinstance(piece.value, Tied):
        return tie_words(piece.path, piece.value, piece.label)
    chip = Chip(piece.path, piece.setting, piece.label)
    more = {"rest": piece.rest, "clears": piece.clears, "key_path": piece.key_path}
    if not isinstance(piece.value, Track):
        return number_chip(chip, piece.value, piece.measure, **more)
    local = moment.of_move(piece.start)
    now = piece.measure.within(float(local.value_of(piece.value)))
    said = number_chip(chip, now, piece.measure, keys=local.times_of(piece.value), **more)
    fold = number_keys(piece.path, piece.value, piece.measure, piece.label, local)
    return format_html("{} {}", said, fold)


def _numbers_shown(piece: Numbers, moment: Moment) -> SafeString:
    if isinstance(piece.value, Tied):
        return tie_words(piece.path, piece.value, piece.label)
    keys = moment.times_of(piece.value) if isinstance(piece.value, Track) else ""
    chips = [
        number_chip(
            Chip(path := f"{piece.path}.{axis}", edit_of(path), f"{piece.label}, {name}"),
            piece.measure.within(float(value)),
            piece.measure,
            keys=keys,
            key_path=piece.key_path,
        )
        for axis, (name, value) in enumerate(
            zip(piece.parts, moment.value_of(piece.value), strict=True)
        )
    ]
    both = format_html(piece.words, *chips)
    if not isinstance(piece.value, Track):
        return both
    fold = number_keys(piece.path, piece.value, piece.measure, piece.label, moment)
    return format_html("{} {}", both, fold)


def _color_shown(piece: Color, moment: Moment) -> SafeString:
    if not isinstance(piece.value, Track | Tied):
        chip = Chip(piece.path, piece.setting, piece.label)
        return color_chip(chip, piece.value, key_path=piece.key_path)
    local = moment.of_move(piece.start)
    return color(piece.path, piece.value, piece.label, local, key_path=piece.key_path)


def _choice_shown(piece: Choice, moment: Moment) -> SafeString:
    chip = Chip(piece.path, piece.setting, piece.label)
    return choice_chip(chip, piece.value, piece.options, piece.other)


def _font_shown(piece: FontChoice, moment: Moment) -> SafeString:
    return font_chip(Chip(piece.path, piece.setting, piece.label), piece.value, piece.text)


_SHOWN: dict[type, Callable[[Any, Moment], SafeString]] = {
    Words: lambda piece, moment: format_html("{}", piece.words),
    Number: _number_shown,
    Numbers: _numbers_shown,
    Color: _color_shown,
    Choice: _choice_shown,
    FontChoice: _font_shown,
    Listed: lambda piece, moment: format_html("({})", shown(piece.pieces, moment)),
    Aside: lambda piece, moment: mark_safe(""),
    Unshown: lambda piece, moment: mark_safe(""),
    Usual: lambda piece, moment: shown(piece.pieces, moment),
}
