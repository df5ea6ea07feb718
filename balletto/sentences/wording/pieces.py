"""Pieces: what a sentence is made of. Words, and values with their path, their measure and the edit
that they are changed by.

The pages make chips of the pieces; plain text is the pieces joined (`texts`).
"""

import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any

from ...scene.values.measures import PLAIN, Measure

BEYOND = (
    ("hold", "it holds"),
    ("cycle", "the keys come again"),
    ("mirror", "the keys go back and forth"),
    ("continue", "it goes straight on"),
)


@dataclass(frozen=True)
class Words:
    """Plain words."""

    words: str


@dataclass(frozen=True)
class Value:
    """What all values have: the path that they stand at, what they are called, the edit that sets
    them (with the path alone if it is not told), and the path that keyframes are set for.

    start: the frame of the scene that the frames of keys count from
    """

    path: str
    label: str
    key_path: str = ""
    start: float = 0.0
    edit: dict[str, Any] | None = None
    clears: dict[str, Any] | None = None

    @property
    def setting(self) -> dict[str, Any]:
        """The edit that sets it, without its value."""
        return self.edit or {"name": "set-value", "path": self.path}


@dataclass(frozen=True)
class NumberPiece(Value):
    """A number, plain, keyed or tied; `rest` is what a double click sets."""

    value: Any = 0.0
    measure: Measure = PLAIN
    rest: float | None = None


@dataclass(frozen=True)
class Numbers(Value):
    """Two numbers of one value, plain, keyed or tied: a point, or a size.

    words: how they stand, with "{}" for each; parts: what each is called
    """

    value: Any = (0.0, 0.0)
    words: str = "{} across, {} down"
    parts: tuple[str, ...] = ("across", "down")
    measure: Measure = PLAIN


@dataclass(frozen=True)
class Component(Value):
    """The number at `index` of a value of several, plain or keyed: where a layer stands across. It
    says its own course in the text; on pages the keys of all numbers stand in `Keys`."""

    value: Any = (0.0, 0.0)
    index: int = 0
    measure: Measure = PLAIN
    rest: float | None = None


@dataclass(frozen=True)
class Keys(Value):
    """The keys of a value of several numbers, on pages alone; nothing if it has none."""

    value: Any = (0.0, 0.0)
    measure: Measure = PLAIN


@dataclass(frozen=True)
class Link:
    """Whether width and height change together, which is for hands to say: on pages alone."""


@dataclass(frozen=True)
class Followed:
    """What a value follows, in words, where pages show that."""

    words: str


@dataclass(frozen=True)
class ColorPiece(Value):
    """A colour, plain, keyed or tied."""

    value: Any = "#FFFFFF"


@dataclass(frozen=True)
class Choice(Value):
    """One of `options`, each a value with its words; `other` are the words of one that is none."""

    value: Any = None
    options: tuple[tuple[Any, str], ...] = ()
    other: str = "own"


@dataclass(frozen=True)
class FontChoice(Value):
    """A font by its name; one that does not ship stands within marks, as names do."""

    value: str = ""
    is_shipped: bool = True


@dataclass(frozen=True)
class Listed:
    """Several values in a row, in parentheses in the text: "(0, 2 and 4)"."""

    pieces: tuple["Piece", ...]


@dataclass(frozen=True)
class Aside:
    """What is used less: on pages it stands by itself, after `title`; in the text behind a comma,
    and only if it is not as usual."""

    title: str
    pieces: tuple["Piece", ...]
    is_usual: bool


@dataclass(frozen=True)
class Usual:
    """What pages show though it is as usual, so that a hand can change it; the text leaves it
    out."""

    pieces: tuple["Piece", ...]


@dataclass(frozen=True)
class Unshown:
    """What the text tells and pages show elsewhere."""

    text: str


Piece = (
    Words
    | NumberPiece
    | Numbers
    | Component
    | Keys
    | Link
    | Followed
    | ColorPiece
    | Choice
    | FontChoice
    | Listed
    | Aside
    | Usual
    | Unshown
)
Pieces = tuple[Piece, ...]


@dataclass
class Sentence:
    """Pieces that are put together one after another."""

    pieces: list[Piece] = field(default_factory=list)

    def add(self, *parts: "str | Piece | Pieces") -> None:
        """Words, pieces, or several."""
        for part in parts:
            if isinstance(part, str):
                if part:
                    self.pieces.append(Words(part))
            elif isinstance(part, tuple):
                self.pieces += part
            else:
                self.pieces.append(part)


def said(template: str, *parts: "str | Piece | Pieces", **named: "str | Piece | Pieces") -> Pieces:
    """A template with pieces in its braces, in turn or by name."""
    made, turn = Sentence(), iter(parts)
    for index, text in enumerate(_BRACES.split(template)):
        made.add(text if index % 2 == 0 else named[text] if text else next(turn))
    return tuple(made.pieces)


_BRACES = re.compile(r"\{(\w*)\}")


def joined(parts: list[Pieces], between: str = ", ", last: str | None = None) -> Pieces:
    """Parts with words between them, and other words before the last."""
    made = Sentence()
    for index, part in enumerate(parts):
        if index:
            made.add(last if last is not None and index == len(parts) - 1 else between)
        made.add(part)
    return tuple(made.pieces)


def values_of(pieces: Pieces) -> Iterator[Value]:
    """All values among pieces, those of asides too."""
    for piece in pieces:
        if isinstance(piece, Value):
            yield piece
        elif isinstance(piece, Aside | Listed | Usual):
            yield from values_of(piece.pieces)
