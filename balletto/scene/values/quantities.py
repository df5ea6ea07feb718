"""Reading what is typed where a value stands: `read_quantity`, the one reader for all of them.

    quantity = spread | course | change | value
    spread   = ["random"] value "to" value           with several layers selected
    course   = point {("," | "then") point}          where keyframes may stand
    point    = (value | "home" | "hold") ["at" value] [ease]
    change   = ("+" | "*" | "/") sum | sum ("less" | "more")
    value    = [direction] sum [direction]
    sum      = term {("+" | "-") term}
    term     = factor {("*" | "/") factor}
    factor   = "-" factor | "(" sum ")" | number [unit] | clock

A number may carry the unit of its measure; another one is refused, but for times, which may be
told in seconds, frames or by the clock (seconds:frames, minutes:seconds:frames), and shares of a
side of the picture in percent where px are measured. Nothing that is typed is dropped: what is not
understood is a QuantityError, which says where and what would do.
"""

import re
from dataclasses import replace
from typing import Any, NamedTuple

from ..moving.ease_words import read_ease
from .measures import FRAME, Measure
from .quantity_reader import (
    DIRECTIONS,
    FILLERS,
    LARGEST,
    QuantityContext,
    QuantityError,
    QuantityReader,
    would_do,
)

MOST_LETTERS = 400
_POINT = re.compile(r"\s*(?:,|;|\bthen\b)\s*", re.IGNORECASE)
_SPREAD = re.compile(r"\s*(random\s+)?(.+?)\s+to\s+(.+?)\s*", re.IGNORECASE)
_SIGNS = {"−": "-", "–": "-", "÷": "/", "\u00a0": " ", "\u202f": " ", "\u2009": " "}


class Course(NamedTuple):
    """Keyframes that are typed: plain data as they stand in a scene, frames counted from where
    the value's are."""

    keys: list[dict[str, Any]]


def number_of(value: Any) -> float | None:
    """A number that was sent, itself or as a text; None if it is none that can be worked with."""
    if isinstance(value, bool) or not isinstance(value, int | float | str):
        return None
    try:
        number = float(value)
    except (ValueError, OverflowError):
        return None
    return number if abs(number) < LARGEST else None


def read_quantity(
    text: str, measure: Measure, context: QuantityContext | None = None
) -> float | Course:
    """The value of a typed text, as it stands in a file; or, where it may, a course of keyframes.

    QuantityError if it is not understood, or is out of the limits of the measure.
    """
    context = context or QuantityContext()
    if len(text) > MOST_LETTERS:
        raise QuantityError(f"at most {MOST_LETTERS} letters can be read here")
    for sign, plain in _SIGNS.items():
        text = text.replace(sign, plain)
    if not text.strip():
        raise QuantityError(f"nothing is typed: {would_do(measure, context)}")
    if re.search(r"\b(?:at|then|home)\b|[;]", text, re.IGNORECASE) or _is_list(text):
        return _course(text, measure, context)
    found = _SPREAD.fullmatch(text)
    if found and found[3].split()[0].lower() not in DIRECTIONS | FILLERS:
        return _spread(found, measure, context)
    return QuantityReader(text, measure, context).whole()


def _is_list(text: str) -> bool:
    """Whether values stand in a row: "100, 60"."""
    return bool(re.search(r"\d\s*,\s+\S|,\s*[A-Za-z]", text))


# Spreads over several layers


def _spread(found: re.Match[str], measure: Measure, context: QuantityContext) -> float:
    if context.count < 2:
        told = "“10 to 90” spreads values over several layers: select more than one"
        raise QuantityError(told, found.start(2))
    low, high = (QuantityReader(found[n], measure, context, found.start(n)).whole() for n in (2, 3))
    share = context.chance if found[1] else context.index / (context.count - 1)
    return low + (high - low) * share


# Courses


def _course(text: str, measure: Measure, context: QuantityContext) -> Course:
    if not context.may_change:
        told = "this value holds for the whole time, so it takes no keyframes: one value would do"
        raise QuantityError(told)
    pieces, start = [], 0
    for mark in [*_marks(text), None]:
        end = len(text) if mark is None else mark.start()
        pieces.append((text[start:end], start))
        start = end if mark is None else mark.end()
    keys: list[dict[str, Any]] = []
    eases: list[Any] = []
    for piece, index in pieces:
        key, ease = _point(piece, index, measure, context, keys)
        if keys and key["at"] <= keys[-1]["at"]:
            told = f"times in order are needed: {key['at']:g} comes after {keys[-1]['at']:g}"
            raise QuantityError(told, index)
        keys.append(key)
        eases.append(ease)
    common = eases[-1] if not any(eases[:-1]) else None
    for key, ease in zip(keys[:-1], eases, strict=False):
        if (ease or common or "linear") != "linear":
            key["ease"] = ease or common
    if eases[-1] and common is None and len(keys) > 1:
        keys[-1]["ease"] = eases[-1]
    return Course(keys)


def _marks(text: str) -> list[re.Match[str]]:
    """What stands between the points; a comma in parentheses or in a number is none."""
    marks = []
    for mark in _POINT.finditer(text):
        inside = text.count("(", 0, mark.start()) > text.count(")", 0, mark.start())
        in_number = mark[0] == "," and text[mark.end() : mark.end() + 1].isdecimal()
        in_number = in_number and mark.start() > 0 and text[mark.start() - 1].isdecimal()
        # "0,60 at 5": the comma parts two points if the first of them has its time already.
        before = text[: mark.start()].rpartition(",")[2]
        if not inside and not (in_number and " at " not in f" {before} "):
            marks.append(mark)
    return marks


_PARTS = re.compile(
    r"\s*(?P<value>.*?)(?:\s+at\s+(?:frame\s+)?(?P<at>.*?))?\s*", re.IGNORECASE | re.DOTALL
)


def _point(
    piece: str, index: int, measure: Measure, context: QuantityContext, before: list[dict[str, Any]]
) -> tuple[dict[str, Any], Any]:
    """A key without its ease, and the ease that stands behind it."""
    if not piece.strip():
        raise QuantityError("a value and its time are needed here: “60 at 5”", index)
    plain, ease = _without_ease(piece)
    found = _PARTS.fullmatch(plain)
    said, time = (found["value"], found["at"]) if found else (plain, None)
    if time is None and before:
        raise QuantityError(f"“{piece.strip()}” has no time: say “{piece.strip()} at 20”", index)
    name = said.strip().lower()
    if name == "home":
        if context.rest is None:
            raise QuantityError("this value has no place of rest: say a number for “home”", index)
        value: float = context.rest
    elif name == "hold":
        if not before:
            raise QuantityError("“hold” holds the value before it: begin with a value", index)
        value = before[-1]["value"]
    else:
        value = QuantityReader(said, measure, context, index).whole()
    at = 0.0 if time is None else _time(time, index + plain.find(time), context)
    return {"at": _whole(at), "value": value}, ease


def _time(text: str, index: int, context: QuantityContext) -> float:
    return QuantityReader(text, FRAME, replace(context, now=None, side=None), index).whole()


def _without_ease(piece: str) -> tuple[str, Any]:
    """A piece without the name of the ease at its end, and that ease; None if there is none."""
    words = [match.start() for match in re.finditer(r"\S+", piece)]
    for start in words[1:]:
        ease = read_ease(piece[start:])
        if ease is not None:
            return piece[:start].rstrip(), ease
    return piece, None


def _whole(number: float) -> float | int:
    rounded = round(number, 6)
    return int(rounded) if rounded == int(rounded) else rounded
