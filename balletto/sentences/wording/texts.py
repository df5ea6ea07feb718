"""Pieces as plain text. What keys say stands in parentheses. Numbers are told to nine decimals, so
that nothing is lost; pages show two."""

from collections.abc import Callable
from typing import Any

from ...scene.values.measures import FRAME, FRAMES, PLAIN, SIGNED
from ...scene.values.tracks import Tied, Track
from ..language.letters import quoted
from .pieces import (
    BEYOND,
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
    Pieces,
    Unshown,
    Usual,
    Words,
)
from .values import ease_pieces


def text_of(pieces: Pieces) -> str:
    """Pieces as plain text."""
    return "".join(_TEXTS[type(piece)](piece) for piece in pieces)


def font_text(piece: FontChoice) -> str:
    """A font by its name; one that does not ship stands within marks, as names do."""
    return piece.value if piece.is_shipped else quoted(piece.value)


def _choice_text(piece: Choice) -> str:
    return next((told for option, told in piece.options if option == piece.value), piece.other)


def _number_text(piece: NumberPiece) -> str:
    return course_text(piece.value, lambda value: piece.measure.say(value, 9))


def _numbers_text(piece: Numbers) -> str:
    def told(value: Any) -> str:
        return piece.words.format(*(piece.measure.say(number, 9) for number in value))

    return course_text(piece.value, told)


def _part_text(piece: Component) -> str:
    return course_text(piece.value, lambda value: piece.measure.say(value[piece.index], 9))


def _nothing(piece: Any) -> str:
    return ""


_TEXTS: dict[type, Callable[[Any], str]] = {
    Words: lambda piece: piece.words,
    NumberPiece: _number_text,
    Numbers: _numbers_text,
    Component: _part_text,
    Keys: _nothing,
    Link: _nothing,
    Followed: lambda piece: f"tied to {piece.words}",
    ColorPiece: lambda piece: course_text(piece.value, str),
    Choice: _choice_text,
    FontChoice: font_text,
    Listed: lambda piece: f"({text_of(piece.pieces)})",
    Aside: lambda piece: "" if piece.is_usual else f", {text_of(piece.pieces)}",
    Usual: _nothing,
    Unshown: lambda piece: piece.text,
}


# What keys and ties say


def course_text(value: Any, say: Any) -> str:
    """A value in words: plainly, or what it is at its keys, or what it follows."""
    if isinstance(value, Tied):
        return f"({_tie_text(value)})"
    if not isinstance(value, Track):
        return str(say(value))
    keys = [f"{say(key.value)} at {FRAME.say(key.at, 9)}{_leaving(key.ease)}" for key in value.keys]
    beyond = [
        f"{side} them {dict(BEYOND)[how]}"
        for side, how in (("before", value.before), ("after", value.after))
        if how != "hold"
    ]
    return f"({', then '.join(keys)}{''.join(f', {each}' for each in beyond)})"


def _leaving(ease: Any) -> str:
    return "" if ease == "linear" else f" with {ease_text(ease)}"


def _tie_text(tied: Tied[Any]) -> str:
    tie = tied.tie
    parts = [f"tied to “{tie.to}”"]
    if tie.gain != 1:
        parts.append(f"times {PLAIN.say(tie.gain, 9)}")
    if tie.plus != 0:
        parts.append(f"plus {SIGNED.say(tie.plus, 9)}")
    if tie.delay != 0:
        parts.append(f"{FRAMES.say(tie.delay, 9)} later")
    return ", ".join(parts)


def ease_text(ease: Any) -> str:
    """An ease in words: "soft landing", "spring damping 0.4"."""
    return text_of(ease_pieces("", ease, "", between_keys=True))
