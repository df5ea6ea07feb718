"""Values that stand alone: "pulse 105", "fade out 15", "spin 180°", "slam down from 300 %". They
belong to what was spoken of last: the topic."""

import re

from .finding import token_of
from .moves import SaidMove
from .tokens import Signs, Token
from .values import PROPERTIES, number_of

_VALUE = r"[NPASMX]s?\d+"
_CHAIN = re.compile(
    rf"(?:from )?({_VALUE})((?: (?:to|, then|then|back to|down to|up to) {_VALUE})+) "
)
_SINGLE = re.compile(rf"({_VALUE}|Ts?\d+) ")
_VALUES = re.compile(_VALUE)
# What a value belongs to, where nothing was spoken of, by the sign of its kind.
_USUAL = {"S": "scale", "X": "scale", "A": "rotation"}


def take_value(said: SaidMove, signs: Signs, at: int) -> int:
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
