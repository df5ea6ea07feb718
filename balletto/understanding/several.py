"""Several statements in one line: "bold, 90 px, in the middle and with a glow, then fade in"."""

import re
from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from ..sentences.language.tokens import SayingError
from ..sentences.reader import Context
from .changes import comes_home
from .composing import USUAL_WAY
from .in_turn import (
    WHOLE,
    Statements,
    Understand,
    first_and_then,
    in_turn,
    leaving,
    with_a_pause,
)
from .tokens import check_length
from .understand import Understood, understand_line

MOST_STATEMENTS, MOST_ATTEMPTS = 4, 12
# What parts statements, the clearest first.
_PARTED = tuple(
    re.compile(words, re.IGNORECASE)
    for words in (
        r"\s*;\s*|\.\s+(?=\S)", r",?\s+(?:and\s+)?then\s+",
        r",\s+and\s+|,?\s+(?:plus|as well as)\s+", r"\s*,\s*", r"\s+and\s+|\s+with\s+",
        r"\s+(?=on (?:an? )?(?:(?:dark|light|deep|pale) )?(?:black|white|gr[ea]y|navy|red|blue|"
        r"green|yellow|purple|pink|orange|brown|beige|teal|gold|silver|#[0-9a-f]{3,8})\b)",
    )
)  # fmt: skip


def understand(text: str, context: Context, move: str = "") -> tuple[Understood, ...]:
    """What the lines of a text mean, for a layer and, with `move`, for a move that they may change,
    whose sentence that is: then that move as a whole. SayingError tells what is not understood, and
    where."""
    check_length(text)
    parts, start = list[Understood](), 0
    for line in text.split("\n"):
        if line.strip():
            try:
                found = statements_in(
                    line, lambda each: understand_line(each, context, move), context
                )
                parts += [meant for _, meant in found]
            except SayingError as fault:
                places = fault.start + start, fault.end + start
                raise SayingError(str(fault), *places, fault.suggestions) from None
        start += len(line) + 1
    if not parts:
        raise SayingError("say something first, as “letters rise 100”", 0, 0)
    return tuple(parts)


def statements_in(line: str, understand: Understand, context: Context) -> Statements:
    """The statements of a line, each with what it means: one, if the line is understood as one.
    What happens then begins as what comes before it is done. SayingError, if neither the line nor
    what it is parted to is understood: that of the line."""
    check_length(line)
    hiding, both = _HIDING.search(line), _IN_AND_OUT.match(line)
    if both:
        return tuple((each, understand(each)) for each in _comes_and_goes(both))
    if found := first_and_then(line, understand, context):
        return found
    out = _out_of_hiding(line, hiding, understand, context.letter_size) if hiding else ()
    try:
        whole = understand(line)
        return ((line, whole),) if whole.fault is None else out or ((line, whole),)
    except SayingError as fault:
        found = out or with_a_pause(line, understand, context)
        found = found or in_turn(_Parting(understand, line).parts_of(line), line, context)
        if len(found) < 2 or not _go_together(found):
            raise fault from None
        return found


_IN_AND_OUT = re.compile(
    r"(?P<verb>(?!eas|slow)[\w\s]+?) (?P<come>in|on) (?:and|&|then) (?P=verb)? ?"
    r"(?P<go>out|off)(?: again)?"
    r"(?P<rest>| (?:over|in|one|by|letter|word|every|line)\b.*)$",
    re.IGNORECASE,
)


def _comes_and_goes(both: re.Match[str]) -> tuple[str, str]:
    """What comes and goes in one breath: the way in, and the way out by the layer's end."""
    verb, rest = both["verb"], both["rest"]
    return f"{verb} {both['come']}{rest}", f"{verb} {both['go']}{rest} at the end"


# What is said of a move and means that letters are seen within their line alone.
_HIDING = re.compile(
    r",?\s*\b(?:(?:from |out )?(?:behind|under|underneath) (?:(?:an?|the|its|their) )?"
    r"(?:(?:own|invisible|hidden|straight) )?(?:masks?|edges?|base ?lines?|line|window|slot)"
    r"|(?:from|out of|through) (?:(?:a|its|their) )?(?:line )?(?:masks?|window|slot)"
    r"|out of (?:its|their|the) (?:base)?lines?"
    r"|(?:in|with|using|by|inside) (?:(?:a|an|its|their) )?(?:line )?masks?"
    r"|mask(?:ed)?(?= reveal\b))(?![\w-]| of| [“\"])",
    re.IGNORECASE,
)
_SEEN_WITHIN = "seen within its line"
_UNCOVERED = re.compile(r"^(?:the )?reveal\b|\bcomes? up\b", re.IGNORECASE)
_FULL_WAY = 1.3  # of the letters' size: out of a line of the usual leading


def _out_of_hiding(
    line: str, hiding: re.Match[str], understand: Understand, letter_size: float
) -> Statements:
    """A move from behind an edge, and the edge: "rises from behind the baseline"; none, if nothing
    else is understood. It goes as far as it must to be out of sight, if that is not said."""
    rest = f"{line[: hiding.start()]} {line[hiding.end() :]}".strip(" ,")
    rest = _UNCOVERED.sub("slide up", rest)
    try:
        found = understand(rest)
        if USUAL_WAY in found.assumed:
            far = f"{round(_FULL_WAY * letter_size)} px"
            whole = understand(found.sentence.replace(f" {USUAL_WAY} ", f" {far} "))
            others = (each for each in found.assumed if each != USUAL_WAY)
            found = replace(
                found, meaning=whole.meaning, sentence=whole.sentence, assumed=(far, *others)
            )
        return ((rest, found), (_SEEN_WITHIN, understand(_SEEN_WITHIN)))
    except SayingError:
        return ()


def _go_together(found: Statements) -> bool:
    """Whether all of them can be made: of several moves all but the first say when they start, and
    no change of a move stands beside others."""
    moves = [each.meaning.data for _, each in found if each.meaning.what == "move"]
    others = {_who_moves(move) for move in moves}
    later = all(move.get("start") or move.get("marker") for move in moves[1:])
    later = later or (None not in others and len(others) == len(moves))
    # What begins with a number belongs to what stands before it: "a shadow 4 px right, 8 px below".
    bare = (text for text, each in found[1:] if each.meaning.what == "move")
    is_apart = not any(text.lstrip("+-−").lstrip()[:1].isdigit() for text in bare)
    return later and is_apart and not any(each.goes_on for _, each in found)


def _who_moves(move: dict[str, Any]) -> str | None:
    """Which part of the title takes part in a move; None if all of it does."""
    shares = [each for each in move.get("reach", ()) if each["kind"] == "alternation"]
    return repr((move.get("among"), shares)) if move.get("among") or shares else None


class _Parting:
    """Looks for the parts of a line, with a bound on how often it may ask what one means."""

    def __init__(self, understand: Understand, line: str) -> None:
        self._understand, self._left = understand, MOST_ATTEMPTS
        self._known: dict[str, Understood | None] = {line: None}

    def parts_of(self, line: str, most: int = MOST_STATEMENTS) -> Statements:
        """The parts of a line, all of them understood; none, if it cannot be parted so."""
        if found := self._understood(line):
            return ((line, found),)
        if most < 2:
            return ()
        for first, rest in _halves(line):
            found = self._understood(first)
            if found and found.meaning.what == "move" and comes_home(found.meaning.data):
                rest = leaving(rest)
            if found and (others := self.parts_of(rest, most - 1)):
                return ((first, found), *others)
        return ()

    def _understood(self, text: str) -> Understood | None:
        if text not in self._known:
            if self._left < 1:
                return None
            self._left -= 1
            try:
                self._known[text] = self._understand(text)
            except SayingError:
                self._known[text] = None
        return self._known[text]


def _halves(line: str) -> Iterator[tuple[str, str]]:
    """A line parted in two, by the clearest mark first; as much as can be before it."""
    wholes = [match.span() for match in WHOLE.finditer(line)]
    for mark in _PARTED:
        for match in reversed(list(mark.finditer(line))):
            first, rest = line[: match.start()], line[match.end() :].strip()
            is_within = any(start < match.start() < end for start, end in wholes)
            if first.strip() and rest and not is_within:
                yield first, rest
