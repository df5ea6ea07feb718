"""Looks, places, layers and the like as people say them: each way of speaking is a piece of our
wording, and all of them in a row are a sentence of ours.

What a piece begins with tells where it stands: "^glow" at the head, "+40 %" behind the head without
a comma, "@clock 9 3" is worked out first; one that ends with "?" stands only where no other is the
same but for its numbers. What no table knows is taken for our own wording, as the name of a font
is: whether it is that is for `read` to say.
"""

import math
import re
from collections.abc import Callable, Iterator
from functools import partial
from operator import attrgetter
from typing import NamedTuple

from ..sentences.reader import Context, all_words
from .finding import FoundWay, longest_at
from .tokens import Signs, Token
from .ways import LOOK_TABLES, noise

_NOTHING = ("note", "")
_COLOR, _PARTING = re.compile(r"#[0-9A-F]{6}"), (",", ";", "and", "with", "then")
_WORD = re.compile(r"[^\W\d_]\w*")
_OF_PICTURE = re.compile(r"\[(−?[\d.]+) % of the (width|height)\]")


class SaidLook(NamedTuple):
    """A sentence of ours that a text may mean, what of it was assumed, how many words of the text
    were taken for our wording, and of how many nothing was made."""

    sentence: str
    assumed: tuple[str, ...]
    as_ours: int
    unused: int


def looks_of(signs: Signs, title: frozenset[str], context: Context) -> list[SaidLook]:
    """What a text may mean: what is in the words of one table before what is taken for our wording
    in part, then that in which the fewest words mean nothing."""
    told = (_look_of(signs, title, tables, context) for tables in LOOK_TABLES)
    return sorted((each for each in told if each), key=attrgetter("as_ours", "unused"))


def _look_of(
    signs: Signs, title: frozenset[str], tables: tuple[str, ...], context: Context
) -> SaidLook | None:
    """What is said in words of some tables; None if no word of them is said."""
    found = list(_found(signs, title, tables))
    used = [way for way in found if isinstance(way, FoundWay)]
    if not any(_is_word(t.sign) for way in used for t in signs.tokens[way.first : way.end]):
        return None
    if _is_of_something_else(signs, used):
        return None
    pieces = [
        _computed(piece, context.text or "")
        for way in found
        for piece in (way.means if isinstance(way, FoundWay) else (way,))
        if piece not in _NOTHING
    ]
    if not pieces:
        return None
    as_ours = [_WORD.findall(way.lower()) for way in found if isinstance(way, str)]
    ours = [word for words in as_ours for word in words]
    # A number alone is none of our wording: "101 stars" is no star with 101 corners.
    if not all(as_ours) or not all(word in all_words() for word in ours):
        return None
    needed = _needed(list(dict.fromkeys(pieces)))
    sentence = _OF_PICTURE.sub(partial(_of_picture, context), _joined(needed))
    assumed = tuple(piece.strip("+?") for piece in needed if piece.endswith("?"))
    meant = (way for way in used if way.means[0] not in _NOTHING)
    taken = sum(way.end - way.first for way in meant) + len(ours)
    words = sum(token.sign[0].isalnum() for token in signs.tokens)
    return SaidLook(sentence, assumed, len(ours), words - taken)


def _is_of_something_else(signs: Signs, ways: list[FoundWay]) -> bool:
    """Whether a colour stands apart before the head: in "make it gold, with a hard shadow" it is
    that of the title, not of the shadow."""
    head = next((way for way in ways if way.means[0].startswith("^")), None)
    return head is not None and any(
        _COLOR.fullmatch(way.means[0])
        and any(token.sign in _PARTING for token in signs.tokens[way.end : head.first])
        for way in ways[: ways.index(head)]
    )


def _found(
    signs: Signs, title: frozenset[str], tables: tuple[str, ...]
) -> Iterator[FoundWay | str]:
    """The ways of some tables in a text, and what stands between them."""
    at, between = 0, list[Token]()
    while at < len(signs.tokens):
        way, token = longest_at(signs, at, tables, title), signs.tokens[at]
        if way is None and (token.sign[0].isalnum() and (between or token.sign not in noise())):
            between.append(token)
        elif between:
            yield _as_typed(between)
            between = []
        if way is not None:
            yield way
        at = way.end if way else at + 1
    if between:
        yield _as_typed(between)


def _as_typed(tokens: list[Token]) -> str:
    """Words that no table knows, without those at their end that mean nothing."""
    while tokens[-1].sign in noise():
        tokens = tokens[:-1]
    return " ".join(token.text for token in tokens)


def _needed(pieces: list[str]) -> list[str]:
    """Pieces without those that are only likely ("?") where another is said."""
    sure = {_plain(piece) for piece in pieces if not piece.endswith("?")}
    return [p for p in pieces if not (p.endswith("?") and _plain(p) in sure)]


def _plain(piece: str) -> str:
    """A piece without its numbers and sides."""
    return re.sub(r"[\d.]+|\b(left|right|above|below)\b", "#", piece.removesuffix("?"))


_RADIUS, _SQUARE = re.compile(r"@radius (.*) px"), re.compile(r"\+of (.* px) by \1")


def _fitted(pieces: list[str]) -> Iterator[str]:
    """Pieces by what they are of: a radius is that of a ring, if there is one, or else of the
    shape; a line is as long as it is wide."""
    radius = next(filter(None, map(_RADIUS.fullmatch, pieces)), None)
    is_line, is_ring = "^a line" in pieces, any(each.endswith("in a ring") for each in pieces)
    for piece in pieces:
        if radius and piece.endswith("in a ring"):
            yield f"{piece} of {radius[1]} px"
        elif radius and piece == radius[0]:
            yield (
                "" if is_ring else f"+of {float(radius[1]) * 2:g} px by {float(radius[1]) * 2:g} px"
            )
        elif is_line and (square := _SQUARE.fullmatch(piece)):
            yield f"+of {square[1]}"
        else:
            yield piece


def _joined(pieces: list[str]) -> str:
    """Pieces in the order in which our wording has them."""
    pieces = [piece for piece in _fitted([each.removesuffix("?") for each in pieces]) if piece]
    heads = [piece[1:] for piece in pieces if piece[0] == "^"]
    behind = [piece[1:] for piece in pieces if piece[0] == "+"]
    rest = [piece for piece in pieces if piece[0] not in "^+"]
    return ", ".join(filter(None, [" ".join([*dict.fromkeys(heads), *behind]), *rest]))


def _thrown(_: str, angle: float, far: float) -> str:
    """A place by an angle, clockwise from straight up, and how far."""
    across, up = math.sin(math.radians(angle)) * far, math.cos(math.radians(angle)) * far
    side, height = ("right", "left")[across < 0], ("above", "below")[up < 0]
    return f"+{round(abs(across), 2):g} px {side} and {round(abs(up), 2):g} px {height}"


def _clock(_: str, first: float, last: float) -> str:
    """A part of a ring, by the hours of a clock."""
    angle = (first * 30 + 90) % 360 - 90
    return f"from {angle:g}° on over {(last - first) * 30 % 360:g}°".replace("-", "−")


def _word(text: str, place: float) -> str:
    """A word of the title by its place, from 1 on; from its end by -1."""
    words = text.split()
    at = int(place) - (place > 0)
    return f"^“{words[at] if -len(words) <= at < len(words) else ''}”"


_COMPUTED: dict[str, Callable[..., str]] = {"@thrown": _thrown, "@clock": _clock, "@word": _word}


def _computed(piece: str, text: str) -> str:
    """A piece, worked out if it has to be: "@clock 9 3"."""
    name, *numbers = piece.split()
    if name not in _COMPUTED:
        return piece
    values = (float(re.sub(r"[^\d.-]", "", each.replace("−", "-")) or 0) for each in numbers)
    return _COMPUTED[name](text, *values)


def _of_picture(context: Context, found: re.Match[str]) -> str:
    """A share of the picture's width or height, in pixels."""
    side = context.size[["width", "height"].index(found[2])]
    return f"{round(float(found[1].replace('−', '-')) / 100 * side, 2):g} px"


def in_words_of(
    signs: Signs, title: frozenset[str], tables: tuple[str, ...]
) -> list[FoundWay] | None:
    """The ways of some tables that make up a text; None if anything else is said in it."""
    found, at = [], 0
    while at < len(signs.tokens):
        if way := longest_at(signs, at, tables, title):
            found.append(way)
            at = way.end
        elif signs.tokens[at].sign in noise():
            at += 1
        else:
            return None
    return found


def _is_word(sign: str) -> bool:
    return bool(re.match(r"[a-z]|[CD]\d", sign))
