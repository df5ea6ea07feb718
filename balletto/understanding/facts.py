"""What a line tells of a move, fact by fact."""

import re

from ..sentences.language.tokens import SayingError
from ..sentences.reader import Context
from .finding import longest_at, token_of
from .moves import SaidMove, take
from .tokens import Signs, Token
from .values import PROPERTIES, number_of, property_at
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
    said, at = SaidMove(rate=context.rate, text=context.text or "", end=context.end), 0
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
    if end := _take_value(said, signs, at):
        return end
    token = signs.tokens[at]
    is_before = token.sign in _BEFORE_VALUES and at + 1 < len(signs.tokens)
    if is_before and token.sign == "by" and (more := _by_share(said, signs, at)):
        said.marks["share"] = more
        return at + 2
    if is_before and (end := _take_value(said, signs, at + 1)):
        said.lead = said.lead or _BEFORE_VALUES[token.sign]
        return end
    if token.sign in noise():
        return at + 1
    told = token.text.strip("“”")
    raise SayingError(f"“{told}” is not understood here", token.start, token.end)


# Values that stand alone: "pulse 105", "fade out 15", "spin 180°", "slam down from 300 %". They
# belong to what was spoken of last: the topic.

_VALUE = r"[NPASMX]s?\d+"
_CHAIN = re.compile(
    rf"(?:from )?({_VALUE})((?: (?:to|, then|then|back to|down to|up to) {_VALUE})+) "
)
_SINGLE = re.compile(rf"({_VALUE}|Ts?\d+) ")
_VALUES = re.compile(_VALUE)
# What a value belongs to, where nothing was spoken of, by the sign of its kind.
_USUAL = {"S": "scale", "X": "scale", "A": "rotation"}


def _take_value(said: SaidMove, signs: Signs, at: int) -> int:
    """Takes a value, or several in turn, that begin at a token; where it goes on, 0 if none do."""
    row, start = signs.signs, signs.starts[at]
    if match := _CHAIN.match(row, start):
        return _take_chain(said, signs, at, match)
    match = _SINGLE.match(row, start)
    return at + 1 if match and _take_one(said, token_of(match[1], signs)) else 0


def _take_chain(said: SaidMove, signs: Signs, at: int, match: re.Match[str]) -> int:
    tokens = [token_of(sign, signs) for sign in _VALUES.findall(match.group())]
    kinds = {_USUAL[token.sign[0]] for token in tokens if token.sign[0] in _USUAL}
    topic = said.topic if said.topic in PROPERTIES else next(iter(kinds), "")
    if not topic:
        return 0
    said.props.append((topic, [number_of(topic, token) for token in tokens]))
    return at + match.group().count(" ")


def _take_one(said: SaidMove, token: Token) -> bool:
    kind = token.sign[0]
    if kind == "T":
        return _take_time(said, token.text.removesuffix(" frames"))
    if kind == "N":
        return _take_plain(said, token)
    if kind == "P" and said.ways and not said.ways[-1][2]:
        said.ways[-1] = (*said.ways[-1][:2], token.text.replace("−", ""))
    elif kind == "P" and said.topic == "blur":
        said.props.append(("blur", [token.value]))
    elif kind == "P":
        said.marks["far"] = token.text.replace("−", "")
    elif kind == "A":
        said.marks["angle"] = token.text.replace("−", "")
    elif kind in "SX" and "loud" not in said.marks:
        topic = said.topic if said.topic in PROPERTIES else "scale"
        said.props.append((topic, [number_of(topic, token)]))
    elif kind in "SX":
        said.marks["share"] = f"{100 + token.value:g} %" if token.value < 80 else token.text
    else:
        return False
    return True


def _take_time(said: SaidMove, text: str) -> bool:
    if said.length:
        return False
    said.length = text
    return True


def _take_plain(said: SaidMove, token: Token) -> bool:
    """A number alone: of the way that was named, of the topic, or frames behind a fade."""
    number = f"{abs(token.value):g}"
    if said.ways and not said.ways[-1][2] and said.topic in ("", "way"):
        said.ways[-1] = (*said.ways[-1][:2], f"{number} px")
    elif said.topic.startswith("rotation"):
        said.marks["angle"] = f"{number}°"
    elif said.topic in ("scale", "scale_x", "scale_y", "blur"):
        said.props.append((said.topic, [number_of(said.topic, token)]))
    elif said.topic == "opacity" and not said.length:
        said.length = number
    elif said.marks.get("shake") or said.marks.get("wave"):
        said.marks["far"] = f"{number} px"
    else:
        return False
    return True
