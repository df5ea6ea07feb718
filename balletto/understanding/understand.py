"""What people say in words of their own, brought to our wording, and read by `read`.

`read` is asked first: what is said in our wording means what it always meant. What it does not know
is looked for in tables of ways of speaking; the sentence that comes of it is read in turn, so that
nothing is meant that cannot be said.
"""

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import NamedTuple

from pydantic import ValidationError

from ..sentences.language.tokens import SayingError
from ..sentences.moves.clauses import COMES_AND_GOES
from ..sentences.moves.wording import move_text
from ..sentences.reader import Context, Meaning, move_of, read
from .asked import asked
from .changes import Around, UnfitError, changed, is_change
from .composing import sentence_of
from .facts import facts_of, without_floating
from .looks import in_words_of, looks_of
from .moves import SaidMove, take
from .spelling import spelled
from .tokens import QUOTED, Measures, Signs, check_length, tokens_of
from .values import NAMES_OF_PROPERTIES, by_letters
from .ways import CHANGE_TABLES

# What our wording takes for a unit alone, and is an order as well; and for a start, and is an end.
_OTHERWISE = re.compile(
    r"\b(letter|character|char|word|line)\b (by|after) \b\1\b|\bends? (exactly )?(on|at|by)\b",
    re.IGNORECASE,
)
# "filter: blur(8px)" and "y: 60" have no name in front, as "Spin: letters turn 90" has.
_STYLE_SHEETS = r"filter|overflow|transform|color|font|[a-z]+(?:-[a-z]+)+"
_NAMES = "|".join(map(re.escape, sorted(NAMES_OF_PROPERTIES, key=len, reverse=True)))
_PROPERTY = re.compile(
    rf"\s*(?:(?:{_STYLE_SHEETS})\s*:|(?:{_NAMES}|left|right|top|bottom|duration|delay)\s*:\s*[-+−.\d])",
    re.IGNORECASE,
)


@dataclass(frozen=True)
class Understood:
    """What a text means: `sentence` in our wording, in full; `assumed`: what of it was not said;
    `goes_on`: it is a move that was there, as a whole, with what is said of it; `fault`: why our
    wording does not take it, where it is said in other words."""

    meaning: Meaning
    sentence: str
    assumed: tuple[str, ...] = ()
    goes_on: bool = False
    fault: SayingError | None = None


@dataclass(frozen=True)
class _Typed:
    """A line as it is typed, what it is read for, and the move that it may be about."""

    text: str
    context: Context
    move: str

    @cached_property
    def title(self) -> frozenset[str]:
        """The words of the title."""
        return frozenset(title_words(self.context.text))

    @cached_property
    def signs(self) -> Signs:
        """The line in tokens, small slips mended."""
        around = Measures(self.context.rate, self.context.size)
        row = tokens_of(self.text, around, lambda word: spelled(word, self.title))
        return by_letters(row, self.context.letter_size)

    @cached_property
    def is_otherwise(self) -> bool:
        """Whether it is better understood otherwise, though our wording would take it: "letter by
        letter" says an order, and what stands before the colon of "filter: ..." is no name."""
        plain = QUOTED.sub("", self.text)
        return bool(_PROPERTY.match(plain) or _OTHERWISE.search(plain))

    @property
    def around(self) -> Around:
        """What changes of a move go by."""
        return Around(self.context.text or "", self.context.rate, self.context.end)

    @property
    def last_frame(self) -> float:
        """The frame at which its layer ends; UnfitError if there is none."""
        if not self.context.end:
            raise UnfitError(len(self.text), "say at which frame, as “from frame 100”")
        return self.context.end

    def read(self, sentence: str, only_moves: bool = True) -> Understood:
        """What a sentence of ours says; SayingError if it says nothing."""
        context = replace(self.context, may_say=("move",)) if only_moves else self.context
        meaning = read(sentence, context)
        if meaning.what == "move":
            sentence = move_text(move_of(meaning.data), self.context.text)
        return Understood(meaning, sentence)

    def after_move(self, more: str) -> str:
        """The move's sentence with more behind it: what is said twice counts the second time."""
        return f"{self.move.removesuffix('.')}, {more}"


def understand_line(line: str, context: Context, move: str = "") -> Understood:
    """What one line means; with the sentence of a move, what it says of that, or else by itself.
    SayingError tells what is not understood: where the reading that came farthest stops."""
    return _first_of(_OF_A_MOVE if move else _ALONE, _Typed(line, context, move))


def understand_beside(line: str, context: Context, move: str) -> Understood:
    """What one line means by itself; or else what it says of a move. SayingError as above."""
    return _first_of(_BESIDE_A_MOVE if move else _ALONE, _Typed(line, context, move))


def _first_of(order: Sequence["_Attempt"], typed: _Typed) -> Understood:
    """What the first of some attempts makes of a line."""
    faults: list[SayingError] = []
    check_length(typed.text)
    if not typed.text.strip():
        order = (_by_itself,)
    for attempt in (*order, _as_it_stands):
        try:
            found = attempt(typed)
        except UnfitError:
            raise
        except SayingError as fault:
            faults.append(fault)
        else:
            if found is not None:
                is_ours = attempt in (_by_itself, _going_on, _as_it_stands)
                fault_of_ours = faults[0] if faults else _said_otherwise(typed)
                return found if is_ours else replace(found, fault=fault_of_ours)
    raise max(faults or [_said_otherwise(typed)], key=lambda fault: fault.start)


def _said_otherwise(typed: _Typed) -> SayingError:
    return SayingError("this is not understood", 0, len(typed.text))


# Attempts: None where they are not asked; SayingError where they do not understand.
_Attempt = Callable[[_Typed], Understood | None]


def _as_ask(typed: _Typed) -> Understood | None:
    """What is asked to be done with layers, effects and keys."""
    found = asked(typed.text, typed.signs, typed.title, typed.context, not typed.move)
    return found and Understood(*found)


def _sooner_as_change(typed: _Typed) -> Understood | None:
    """What our wording would take otherwise, and is a change: "drop the fade" is no fall."""
    is_meant = in_words_of(typed.signs, typed.title, ("sooner.changes",))
    return _as_change(typed) if is_meant else None


def _sooner_as_look(typed: _Typed) -> Understood | None:
    """What our wording would take for a move: "rotate it 10 degrees" is how the layer stands."""
    is_meant = in_words_of(typed.signs, typed.title, ("sooner.looks",))
    return _as_look(typed) if is_meant else None


def _by_itself(typed: _Typed) -> Understood | None:
    return None if typed.is_otherwise else typed.read(typed.text, only_moves=False)


def _going_on(typed: _Typed) -> Understood | None:
    if typed.is_otherwise:
        return None
    before = len(typed.after_move(""))
    try:
        return replace(typed.read(typed.after_move(typed.text)), goes_on=True)
    except SayingError as fault:  # its place is one in the line
        places = max(fault.start - before, 0), max(fault.end - before, 0)
        raise SayingError(str(fault), *places, fault.suggestions) from None


def _as_it_stands(typed: _Typed) -> Understood | None:
    """What is said otherwise, but in no words that are known: as our wording takes it."""
    return typed.read(typed.text, only_moves=False) if typed.is_otherwise else None


def _as_change(typed: _Typed) -> Understood | None:
    """The move as changes of it make it, which mean nothing by themselves: "twice as slow"."""
    ways = in_words_of(typed.signs, typed.title, CHANGE_TABLES)
    if not ways:
        return None
    facts = [fact for way in ways for fact in way.means]
    said = SaidMove(rate=typed.context.rate, text=typed.context.text or "")
    take(said, tuple(fact for fact in facts if not is_change(fact)))
    is_another = said.marks.pop("another", "") != ""
    is_last = said.marks.pop("last", "") != "" and not said.has_start
    more = sentence_of(said, going_on=True)
    data = typed.read(typed.after_move(more) if more else typed.move).meaning.data
    around = typed.around
    for fact in filter(is_change, facts):
        data = changed(data, fact[1:], around)
    if is_last:
        data = changed(data, f"ends {typed.last_frame:g}", around)
    try:
        whole = move_text(move_of(data), typed.context.text)
    except ValidationError:
        raise UnfitError(len(typed.text)) from None
    return Understood(Meaning("move", data), whole, goes_on=not is_another)


def _as_look(typed: _Typed) -> Understood | None:
    """What is said of how things look and where they are."""
    may_say = tuple(what for what in typed.context.may_say if what != "move")
    looks = replace(typed, context=replace(typed.context, may_say=may_say))
    for look in looks_of(typed.signs, typed.title, typed.context) if may_say else ():
        try:
            found = looks.read(look.sentence, only_moves=False)
            return replace(found, assumed=look.assumed)
        except SayingError:
            continue
    return None


def _as_move(typed: _Typed) -> Understood | None:
    told = _told_of_move(typed, going_on=False)
    found = _read_of(typed, told.sentence, told.assumed) if told else None
    return _at_the_end(typed, found) if found and told and told.is_last else found


def _as_more(typed: _Typed) -> Understood | None:
    told = _told_of_move(typed, going_on=True)
    if told is None or told.is_last:
        return None
    found = _read_of(typed, typed.after_move(told.sentence), told.assumed)
    return found and replace(found, goes_on=True)


def _at_the_end(typed: _Typed, found: Understood) -> Understood:
    """A move that is done as its layer ends."""
    data = changed(found.meaning.data, f"ends {typed.last_frame:g}", typed.around)
    whole, start = move_text(move_of(data), typed.context.text), data["start"]
    assumed = (*found.assumed, f"from frame {start:g} on")
    return replace(found, meaning=Meaning("move", data), sentence=whole, assumed=assumed)


def _read_of(typed: _Typed, sentence: str, assumed: tuple[str, ...]) -> Understood | None:
    """What a sentence says that was made of a line. If it says nothing, where it went wrong is no
    place in the line: None."""
    try:
        return replace(typed.read(sentence), assumed=assumed)
    except SayingError:
        return None


_ALONE = (_as_ask, _sooner_as_look, _by_itself, _as_look, _as_move)
_OF_A_MOVE = (_sooner_as_change, _going_on, _by_itself, _as_change, _as_more)
_BESIDE_A_MOVE = (
    _as_ask, _sooner_as_change, _sooner_as_look, _by_itself, _going_on, _as_change, _as_look,
    _as_move, _as_more,
)  # fmt: skip


class _Told(NamedTuple):
    """A move in a sentence of ours, what of it was assumed, whether it is meant for the end."""

    sentence: str
    assumed: tuple[str, ...]
    is_last: bool


def _told_of_move(typed: _Typed, going_on: bool) -> _Told | None:
    """What is told of a move; None if nothing moves."""
    if "move" not in typed.context.may_say:
        return None
    fault = None
    for signs, floating in (typed.signs, ()), without_floating(typed.signs, typed.title):
        try:
            said = facts_of(signs, typed.title, typed.context, floating)
        except SayingError as refused:
            fault = fault or refused
            continue
        is_last = said.marks.pop("last", "") != "" and not said.has_start
        sentence = sentence_of(said, going_on)
        if {"both", "held"} & set(said.marks):
            fault = fault or UnfitError(len(typed.text), COMES_AND_GOES)
        elif sentence:
            return _Told(sentence, tuple(said.assumed), is_last)
    if fault:
        raise fault
    return None


def title_words(text: str | None) -> list[str]:
    """The words of a title, as tokens have them."""
    return [word.strip(".,;:!?").lower() for word in (text or "").split()]
