"""What a line tells of a move, fact by fact."""

import re

from ..sentences.language.tokens import SayingError
from ..sentences.reader import Context
from .bare_values import take_value
from .finding import longest_at
from .moves import SaidMove, take
from .tokens import Signs
from .values import property_at
from .ways import FLOATING, MOVE_TABLES, noise


def without_floating(signs: Signs, title: frozenset[str]) -> tuple[Signs, tuple[str, ...]]:
    """A line without who moves and how fast, where that stands between a verb and what belongs to
    it, and what that says: "scale the words slowly from zero" is "scale from zero", of words."""
    kept, facts, at = list(signs.tokens[:1]), list[str](), 1
    while at < len(signs.tokens):
        if way := longest_at(signs, at, FLOATING, title):
            facts += way.means
            at = way.end
        else:
            kept.append(signs.tokens[at])
            at += 1
    return Signs(tuple(kept)), tuple(facts)


def facts_of(
    signs: Signs, title: frozenset[str], context: Context, floating: tuple[str, ...] = ()
) -> SaidMove:
    """All that ways of speaking say, one after another, behind some facts. SayingError at what is
    neither a way of speaking nor without meaning."""
    said, at = SaidMove(rate=context.rate, text=context.text or ""), 0
    take(said, floating)
    while at < len(signs.tokens):
        at = _step(signs, at, title, said)
    return said


# What may stand before a value that belongs to what was spoken of, and where that leads.
_BEFORE_VALUES = {"from": "home", "to": "away", "by": "", "at": ""}


def _turns_by(signs: Signs, at: int, name: str) -> bool:
    """Whether it is told how far something turns ("spin 360"), which is no value of its rotation:
    it comes home clockwise."""
    behind = signs.tokens[at + 1].sign if at + 1 < len(signs.tokens) else ""
    return name == "rotation" and bool(re.fullmatch(r"[AN]\d+", behind))


def _by_share(said: SaidMove, signs: Signs, at: int) -> str:
    """How large something becomes that grows "by 5 %"; empty if it is not told so."""
    token = signs.tokens[at + 1]
    is_told = said.topic == "scale" and token.sign[0] == "S"
    return f"{100 + token.value:g} %" if is_told else ""


def _step(signs: Signs, at: int, title: frozenset[str], said: SaidMove) -> int:
    """Takes what begins at a token; where it goes on."""
    way = longest_at(signs, at, MOVE_TABLES, title)
    is_named = signs.tokens[at].sign in _BEFORE_VALUES and at + 1 < len(signs.tokens)
    of_property = property_at(signs, at) or (property_at(signs, at + 1) if is_named else None)
    if of_property and way is not None and _turns_by(signs, at, of_property[1]):
        of_property = None
    if of_property and (way is None or of_property[0] >= way.end):
        end, name, values = of_property
        said.props.append((name, values))
        said.topic = name
        return end
    if way is not None:
        take(said, way.means)
        return way.end
    if end := take_value(said, signs, at):
        return end
    token = signs.tokens[at]
    is_before = token.sign in _BEFORE_VALUES and at + 1 < len(signs.tokens)
    if is_before and token.sign == "by" and (more := _by_share(said, signs, at)):
        said.marks["share"] = more
        return at + 2
    if is_before and (end := take_value(said, signs, at + 1)):
        said.lead = said.lead or _BEFORE_VALUES[token.sign]
        return end
    if token.sign in noise():
        return at + 1
    raise SayingError(f"“{token.text}” is not understood here", token.start, token.end)
