"""What people say in words of their own, brought to our wording, and read by `read`.

`read` is asked first: what is said in our wording means what it always meant. What it does not know
is looked for in tables of ways of speaking; the sentence that comes of it is read in turn, so that
nothing is meant that cannot be said.
"""

import re
from dataclasses import dataclass, replace
from functools import cache
from typing import Any

from ..sentences.language.tokens import SayingError
from ..sentences.moves.wording import move_text
from ..sentences.reader import Context, Meaning, move_of, read
from .bare_values import take_value
from .changes import Around, changed, is_change
from .composing import sentence_of
from .looks import DOMAINS, in_words_of, sentences_of
from .moves import SaidMove, take
from .tokens import MOST_LETTERS, Signs, Token, near_spelling, tokens_of
from .values import NAMES_OF_PROPERTIES, property_at
from .ways import longest_at, noise, table, words_of

# What our wording takes for a unit alone, and is an order as well; and for a start, and is an end.
_OTHERWISE = re.compile(
    r"\b(letter|character|char|word|line)\b (by|after) \b\1\b|\bends? (exactly )?(on|at|by)\b",
    re.IGNORECASE,
)
# "filter: ...", which is no name.
_NAMED = re.compile(r"\s*([^\W\d_]+)[\w-]*\s*:")
_STYLE_SHEETS = frozenset(
    ("background", "bottom", "color", "delay", "duration", "filter", "font", "left", "letter",
     "line", "overflow", "right", "text", "top", "transform")
)  # fmt: skip
TABLES = ("moves", "times", "eases")


@dataclass(frozen=True)
class Understood:
    """What a text means: `sentence` in our wording, in full; `assumed`: what of it was not said."""

    meaning: Meaning
    sentence: str
    assumed: tuple[str, ...] = ()
    is_ours: bool = False  # it was said in our wording


def understand(text: str, context: Context, move: str = "") -> tuple[Understood, ...]:
    """What the lines of a text mean, for a layer and, with `move`, for a move that they may change,
    whose sentence that is: then that move as a whole. SayingError tells what is not understood, and
    where."""
    if len(text) > MOST_LETTERS:
        raise SayingError(f"at most {MOST_LETTERS} letters can be understood at once", 0, 1)
    parts, start = [], 0
    for line in text.split("\n"):
        if line.strip():
            try:
                parts.append(understand_line(line, context, move))
            except SayingError as fault:
                places = fault.start + start, fault.end + start
                raise SayingError(str(fault), *places, fault.suggestions) from None
        start += len(line) + 1
    if not parts:
        raise SayingError("say something first, as “letters rise 100”", 0, 0)
    return tuple(parts)


def understand_line(line: str, context: Context, move: str = "") -> Understood:
    """What one line means; SayingError tells what is not understood."""
    try:
        return _in_our_wording(line, context, move)
    except SayingError as fault:
        return in_other_words(line, context, move, fault)


def is_in_other_words(text: str) -> bool:
    """Whether a text is better understood otherwise, though our wording would take it: "letter by
    letter" says an order, and what stands before the colon of "filter: ..." is no name."""
    named = _NAMED.match(text)
    is_property = named is not None and named[1].lower() in (_STYLE_SHEETS | NAMES_OF_PROPERTIES)
    return is_property or bool(_OTHERWISE.search(text))


def _in_our_wording(text: str, context: Context, move: str) -> Understood:
    if is_in_other_words(text):
        raise SayingError("this is said in other words", 0, len(text))
    if move:
        whole = f"{move.removesuffix('.')}, {text}"
        try:
            return _understood(read(whole, replace(context, may_say=("move",))), whole, context)
        except SayingError:
            pass
    return replace(_understood(read(text, context), text, context), is_ours=True)


def changed_in_other_words(text: str, context: Context, move: str) -> Understood | None:
    """A move as changes of it make it, which mean nothing by themselves: "twice as slow"; None if
    other things are said."""
    title = frozenset(title_words(context.text))
    signs = tokens_of(text, context.rate, _spelling(title))
    return _changed(signs, title, context, move)


def in_other_words(text: str, context: Context, move: str, fault: SayingError) -> Understood:
    """What is said in no words of ours; with `move`, of that. SayingError, of which `fault` is one,
    where that is not understood either."""
    if "move" not in context.may_say or len(text) > MOST_LETTERS:
        raise fault
    title = frozenset(title_words(context.text))
    signs = tokens_of(text, context.rate, _spelling(title))
    if not move and (look := _look(signs, title, context)):
        return look
    if move and (made := _changed(signs, title, context, move)):
        return made
    said = facts_of(signs, title, context.rate, fault)
    if {"both", "held"} & set(said.marks):
        told = (
            "this comes, and it goes: say each in a sentence of its own, as “fade out from 70 on”"
        )
        raise SayingError(told, 0, len(text))
    sentence = sentence_of(said, going_on=bool(move))
    if sentence is None:
        raise fault
    whole = f"{move.removesuffix('.')}, {sentence}" if move else sentence
    try:
        meaning = read(whole, replace(context, may_say=("move",)))
    except SayingError:
        raise fault from None
    return replace(_understood(meaning, whole, context), assumed=tuple(said.assumed))


def _changed(signs: Signs, title: frozenset[str], context: Context, move: str) -> Understood | None:
    """A move as changes of it that are said make it; None if other things are said."""
    ways = in_words_of(signs, title, ("changes", "times", "eases"))
    if not ways:
        return None
    context = replace(context, may_say=("move",))
    data = read(move, context).data
    said = SaidMove(rate=context.rate)
    for way in ways:
        for fact in way.means:
            if is_change(fact):
                data = _with_change(data, fact[1:], signs, context)
            else:
                take(said, (fact,))
    whole = move_text(move_of(data), context.text).removesuffix(".")
    if more := sentence_of(said, going_on=True):
        whole = f"{whole}, {more}"
    return _understood(read(whole, context), whole, context)


def _with_change(data: dict[str, Any], change: str, signs: Signs, context: Context) -> Any:
    try:
        return changed(data, change, Around(context.text or "", context.rate))
    except SayingError as fault:  # all of it was understood: it is known by its last word
        last = signs.tokens[-1]
        raise SayingError(str(fault), last.start, last.end) from None


def _look(signs: Signs, title: frozenset[str], context: Context) -> Understood | None:
    """What is said of how things look and where they are; None if nothing is."""
    may_say = tuple(what for what in context.may_say if what != "move")
    for sentence in sentences_of(signs, title):
        try:
            meaning = read(sentence, replace(context, may_say=may_say))
        except SayingError:
            continue
        return _understood(meaning, sentence, context)
    return None


def _understood(meaning: Meaning, text: str, context: Context) -> Understood:
    if meaning.what == "move":
        text = move_text(move_of(meaning.data), context.text)
    return Understood(meaning, text)


def title_words(text: str | None) -> list[str]:
    """The words of a title, as tokens have them."""
    return [word.strip(".,;:!?").lower() for word in (text or "").split()]


def facts_of(signs: Signs, title: frozenset[str], rate: float, fault: SayingError) -> SaidMove:
    """All that ways of speaking say, one after another. What is neither one of them nor without
    meaning is a fault at its place."""
    said, at = SaidMove(rate=rate), 0
    while at < len(signs.tokens):
        at = _step(signs, at, title, said, fault)
    return said


def _step(signs: Signs, at: int, title: frozenset[str], said: SaidMove, fault: SayingError) -> int:
    """Takes what begins at a token; where it goes on."""
    way = longest_at(signs, at, TABLES, title)
    of_property = property_at(signs, at)
    if of_property and (way is None or of_property[0] >= way.end):
        end, name, values = of_property
        said.props.append((name, values))
        said.topic = name
        return end
    if way is None and (end := take_value(said, signs, at)):
        return end
    token = signs.tokens[at]
    if way is not None and not (way.end == at + 1 and token.sign in noise() and not way.means):
        take(said, way.means)
        return way.end
    if token.sign in noise():
        return at + 1
    raise _not_understood(token, fault)


def _not_understood(token: Token, fault: SayingError) -> SayingError:
    """A fault at a token; the one that is known, if it is there: it says what may be meant."""
    if token.start == fault.start:
        return fault
    return SayingError(f"“{token.text}” is not understood here", token.start, token.end)


@cache
def vocabulary() -> frozenset[str]:
    """All words that some way of speaking is made of."""
    names = ("changes", *TABLES, *(name for tables in DOMAINS for name in tables))
    return (
        frozenset(word for name in names for way in table(name) for word in words_of(way)) | noise()
    )


@cache
def _spelling(title: frozenset[str]) -> Any:
    """What gives the one spelling of a word: itself if it is known, else one that is near."""
    known = sorted(word for word in vocabulary() | title if word.isalpha())

    @cache
    def spelled(word: str) -> str:
        if word in vocabulary() or word in title:
            return word
        return near_spelling(word, known)

    return spelled
