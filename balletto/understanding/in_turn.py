"""Moves that follow each other: what comes, and then does something else, or holds and goes."""

import re
from collections.abc import Callable, Mapping
from dataclasses import replace
from typing import Any

from ..sentences.language.tokens import SayingError
from ..sentences.moves.wording import move_text
from ..sentences.reader import Context, Meaning, move_of
from .changes import Around, changed, comes_home, last_frame, leaves
from .tokens import QUOTED, Measures, tokens_of
from .understand import Understood

Understand = Callable[[str], Understood]
Statements = tuple[tuple[str, Understood], ...]
WHOLE = re.compile(rf"{QUOTED.pattern}|\([^)]*\)")  # within which nothing is parted


# Each begins where a word ends: white space is gone over once, however much of it there is.
_PAUSE = re.compile(
    r"(?<![\s,;])[,;]?\s+(?:and\s+)?(?:then\s+)?(?:it\s+)?"
    r"(?:holds?|stays?|waits?|pauses?|rests?|stands?)\b"
    r"(?:\s+(?:there|still|on screen|visible|readable))?(?:\s+for)?\s+"
    r"(?P<time>(?:[\d.]+|half an?|an?|one|two|three|four|five|ten|twenty)\s*"
    r"(?:s|secs?|seconds?|f|frames?)\b)"
    r"[,;]?\s+(?:and\s+)?(?:then\s+)?",
    re.IGNORECASE,
)


def with_a_pause(line: str, understand: Understand, context: Context) -> Statements:
    """What comes, holds for a while, and goes otherwise: two moves; none, if it is not so told."""
    if (told := _PAUSE.search(line)) is None:
        return ()
    try:
        found = _both_of(line, told, understand)
        time = tokens_of(told["time"], Measures(context.rate, context.size), str).tokens[0]
    except SayingError:
        return ()
    pause = time.value * (context.rate if time.unit == "s" else 1)
    return _after_each_other(found, {1: pause}, context) if _are_moves(found) else ()


def _both_of(line: str, between: re.Match[str], understand: Understand) -> Statements:
    """What stands before and behind a part of a line; SayingError as `understand` tells it."""
    texts = line[: between.start()].strip(), leaving(line[between.end() :].strip())
    return tuple((text, understand(text)) for text in texts)


def _are_moves(found: Statements) -> bool:
    return all(each.meaning.what == "move" and not each.goes_on for _, each in found)


_OF_A_TEXT = 4  # letters by which a statement is found in its line
_THEN = re.compile(r"\bthen\b", re.IGNORECASE)


def in_turn(found: Statements, line: str, context: Context) -> Statements:
    """Statements of which those begin later that happen then: behind a "then", or after something
    that came, as a shake does in "it pops in and shakes"; what leaves without a "then" does so by
    the end of its layer."""
    pauses, at, came = dict[int, float | None](), 0, False
    for number, (text, each) in enumerate(found):
        start = max(line.find(text[:_OF_A_TEXT], at), at)
        between, at = line[at:start], start + len(text)
        if each.meaning.what == "move":
            comes = comes_home(each.meaning.data)
            if _THEN.search(between) or (came and not comes):
                is_last = leaves(each.meaning.data) and not _THEN.search(between)
                pauses[number] = None if is_last else 0
            came = came or comes
    return _after_each_other(found, pauses, context)


_FIRST_AND_THEN = re.compile(r"(?<![\s,])(?:,\s*|\s+)(?:and\s+)?then\s+", re.IGNORECASE)


def first_and_then(line: str, understand: Understand, context: Context) -> Statements:
    """Two moves: what comes, and then does something else; none, if it is not so told. What is said
    in our wording, or goes back to rest, is one move."""
    if (told := _FIRST_AND_THEN.search(line)) is None or WHOLE.search(line):
        return ()
    try:
        found = _both_of(line, told, understand)
    except SayingError:
        return ()
    (_, first), (_, then) = found
    if not _are_moves(found) or first.fault is None:
        return ()
    is_so = comes_home(first.meaning.data) and not comes_home(then.meaning.data)
    return _after_each_other(found, {1: 0}, context) if is_so else ()


_FADES = re.compile(
    r"\b(fades?|dissolves?)\b(?! (?:in|up|on|out|to|from|away|off|down)\b)", re.IGNORECASE
)


def leaving(text: str) -> str:
    """What is said of what is there already: it fades out."""
    return _FADES.sub(r"\1 out", text, count=1)


_OF_UNITS = re.compile(
    r"\b(?:letters?|characters?|chars?|words?|lines?|titles?|texts?|headlines?|each|every|whole|all)\b",
    re.IGNORECASE,
)


def _after_each_other(
    found: Statements, pauses: Mapping[int, float | None], context: Context
) -> Statements:
    """Statements of which some moves, by their numbers, begin so many frames after the one before
    them has ended, or, for None, end as their layer does; if it is not told when they do. What
    follows a new title is of that."""
    around = Around(context.text or "", context.rate, context.end)
    made, last, unit = list[tuple[str, Understood]](), None, ""
    for number, (text, each) in enumerate(found):
        if each.meaning.what == "layer":
            around = around._replace(text=each.meaning.data.get("text", ""))
        if each.meaning.what == "move" and not each.goes_on:
            if unit and not _OF_UNITS.search(text):
                text, each = _as_told(each, {**each.meaning.data, "unit": unit}, around)
            data = each.meaning.data
            unit = data.get("unit", "character")
            is_free = not (data.get("start") or data.get("marker"))
            if number in pauses and is_free:
                text, each = _moved(each, last, pauses[number], around)
            last = last_frame(each.meaning.data, around)
        made.append((text, each))
    return tuple(made)


def _moved(
    each: Understood, last: float | None, pause: float | None, around: Around
) -> tuple[str, Understood]:
    """A move that begins a while after a frame, or ends as its layer does, and its sentence; as it
    was, if that is not known."""
    if pause is None and around.end:
        data = changed(each.meaning.data, f"ends {around.end:g}", around)
    elif pause is not None and last is not None:
        data = changed(each.meaning.data, f"later {last + pause:g}", around)
    else:
        return each.sentence, each
    assumed = (*each.assumed, f"from frame {data['start']:g} on")
    return _as_told(replace(each, assumed=assumed), data, around)


def _as_told(each: Understood, data: dict[str, Any], around: Around) -> tuple[str, Understood]:
    """A move with other data, and its sentence."""
    sentence = move_text(move_of(data), around.text)
    return sentence, replace(each, meaning=Meaning("move", data), sentence=sentence)
