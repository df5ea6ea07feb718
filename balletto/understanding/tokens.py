"""What is typed, brought to one spelling: numbers with their units, colours, strings and words.

The text becomes a row of signs: a word as it is, in lower case and one spelling, and a letter with
a number for each value (`P3` is the value 3, a length), so that ways of speaking can be looked for
by regular expressions.
"""

import colorsys
import re
from collections.abc import Callable
from dataclasses import dataclass
from functools import cache, cached_property
from itertools import accumulate
from typing import NamedTuple

import webcolors

from ..sentences.language.tokens import SayingError

MOST_LETTERS = 4000
QUOTED = re.compile(r"“[^”]*”|\"[^\"]*\"")  # words that are quoted, with their marks
UNKNOWN = "Z"  # the sign of what is no word, number or mark
MOST = 1e9  # of any number: more is not understood


def check_length(text: str) -> None:
    """Before anything is looked for in a text; SayingError if it is too long."""
    if len(text) > MOST_LETTERS:
        raise SayingError(f"at most {MOST_LETTERS} letters can be understood at once", 0, 1)


class Measures(NamedTuple):
    """What values are measured by: the frames a second, and the size of the picture in px."""

    rate: float
    size: tuple[float, float]


class Token(NamedTuple):
    """One thing that was typed: `sign` stands for it in the row; `start` and `end` in the text.

    value, unit: of a number; text: as it is in our wording
    """

    sign: str
    start: int
    end: int
    text: str
    value: float = 0.0
    unit: str = ""


@dataclass(frozen=True)
class Signs:
    """The tokens of a text, and their signs as one string, each between spaces."""

    tokens: tuple[Token, ...]

    @cached_property
    def signs(self) -> str:
        """The signs, each with a space behind it."""
        return " " + " ".join(token.sign for token in self.tokens) + " "

    @cached_property
    def starts(self) -> tuple[int, ...]:
        """Where each token begins among the signs."""
        lengths = (len(token.sign) + 1 for token in self.tokens)
        return tuple(accumulate(lengths, initial=1))


# Units, the letter of their kind, and how they are told; with a factor for those told otherwise.
_UNITS: dict[str, tuple[str, str, float]] = {
    **dict.fromkeys(("px", "pixel", "pixels", "pt"), ("P", "px", 1)),
    **dict.fromkeys(("deg", "degree", "degrees", "degs", "°"), ("A", "°", 1)),
    **dict.fromkeys(("turn", "turns", "rev", "revs", "revolution", "revolutions"), ("A", "°", 360)),
    **dict.fromkeys(("f", "fr", "frm", "frs", "frame", "frames"), ("T", "frames", 1)),
    **dict.fromkeys(("s", "sec", "secs", "second", "seconds"), ("T", "s", 1)),
    **dict.fromkeys(("ms", "millisecond", "milliseconds"), ("T", "s", 0.001)),
    **dict.fromkeys(("min", "minute", "minutes"), ("T", "s", 60)),
    **dict.fromkeys(("%", "percent", "pct", "per cent", "prozent"), ("S", "%", 1)),
    **dict.fromkeys(("em", "ems"), ("M", "‰", 1000)),
    "‰": ("M", "‰", 1),
    **dict.fromkeys(("vw", "vh"), ("P", "px", 0.01)),  # of the picture's width and height
    **dict.fromkeys(("x", "×", "times", "fold"), ("X", "×", 1)),
    **dict.fromkeys(("hz", "fps", "cps"), ("H", "", 1)),
}
_WORDED = {
    "zero": 0, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7,
    "eight": 8, "nine": 9, "ten": 10, "eleven": 11, "twelve": 12, "thirteen": 13, "fourteen": 14,
    "fifteen": 15, "sixteen": 16, "seventeen": 17, "eighteen": 18, "nineteen": 19, "twenty": 20,
    "thirty": 30, "forty": 40, "fifty": 50, "sixty": 60, "seventy": 70, "eighty": 80, "ninety": 90,
    "hundred": 100, "couple": 2, "dozen": 12,
}  # fmt: skip
_TENS = {word: number for word, number in _WORDED.items() if number >= 20 and number < 100}
_NUMBER = r"[-+−–±]?(?:\d+(?:[.,]\d+)?|\.\d+)"
_UNIT = "|".join(sorted((re.escape(unit) for unit in _UNITS if unit != "x"), key=len, reverse=True))
_TOKEN = re.compile(
    rf"""\s*(?:
    (?P<string>“[^”]*”|"[^"]*"|‘[^’]*’|'[^']{{2,}}'(?!\w))
    |(?P<color>\#[0-9a-f]{{3,8}}\b|(?:rgb|hsl)a?\([^)]*\))
    |(?P<bezier>cubic-?\s?bezier\s*\(?\s*{_NUMBER}\s*,\s*{_NUMBER}\s*,\s*{_NUMBER}\s*,\s*{_NUMBER}\s*\)?)
    |(?P<code>\d\d:\d\d:\d\d:\d\d|\d\d:\d\d:\d\d|\d{{1,4}}:\d\d)(?!\d)
    |(?P<half>½|1/2|1/4|¾|3/4)
    |(?P<sized>\d+(?:[x×]|\s[x×]\s)\d+(?=\D|$))
    |(?P<number>{_NUMBER})(?:\s?-?\s?(?P<unit>{_UNIT})(?![\w(])|(?P<times>x)(?!\w))?
    |(?P<word>[^\W\d_][\w’]*(?:'\w+)?)
    |(?P<arrow>→|->|=>|–>|—>)
    |(?P<sign>[,;:.(){{}}/+&!?\n]|-|–|—|…)
    |(?P<other>\S))""",
    re.VERBOSE | re.IGNORECASE,
)


@cache
def color_names() -> dict[str, str]:
    """The colours of style sheets, by their names without spaces."""
    return {name: webcolors.name_to_hex(name).upper() for name in webcolors.names("css3")}


def tokens_of(text: str, around: Measures, known: Callable[[str], str]) -> Signs:
    """The tokens of a text; `known` gives the one spelling of a word."""
    found: list[Token] = []
    for match in _TOKEN.finditer(text):
        kind = match.lastgroup or ""
        if kind in ("unit", "times"):
            kind = "number"
        start = match.end() - len(match.group().lstrip())
        try:
            found.append(_MADE[kind](match, start, around))
        except ValueError:  # a number beyond all sense, a colour that is none
            found.append(Token(UNKNOWN, start, match.end(), match.group().strip()))
    return Signs(tuple(_mended(_counted(_with_names(found)), known)))


# What the words of a title stand behind, without marks: "a subtitle that says Winter Season".
_BEFORE_NAMES = frozenset((
    "says", "say", "saying", "reads", "reading", "write", "called", "named", "title", "subtitle",
    "headline", "caption", "credit", "strapline", "text",
))  # fmt: skip
_NAME = re.compile(r"[A-ZÀ-Þ][\w’'!?]*")
_CAPITALS = re.compile(r"[A-ZÀ-Þ][A-ZÀ-Þ’'!?\d]+")


def _with_names(found: list[Token]) -> list[Token]:
    """Words that are meant as they are written, without marks around them, as one string: with
    capitals behind "says" and the like, or at least two in capitals alone. Where all words have
    capitals, none is meant so."""
    made: list[Token] = []
    is_mixed = any(token.text.islower() and token.text.isalpha() for token in found)
    at = 0
    while at < len(found):
        is_said = bool(made) and made[-1].sign in _BEFORE_NAMES
        pattern, least = (_NAME, 1) if is_said else (_CAPITALS, 2)
        end = at
        while end < len(found) and _is_name(found[end], pattern, at < end):
            end += 1
        if is_mixed and end - at >= least and pattern.fullmatch(found[at].text):
            words = " ".join(token.text for token in found[at:end])
            made.append(Token("Q", found[at].start, found[end - 1].end, f"“{words}”"))
            at = end
        else:
            made.append(found[at])
            at += 1
    return made


def _is_name(token: Token, pattern: re.Pattern[str], is_behind: bool) -> bool:
    """Whether a word can be one of a name; behind another a number can."""
    is_number = is_behind and pattern is _NAME and token.sign == "N"
    return is_number or (token.sign.islower() and bool(pattern.fullmatch(token.text)))


def _number(value: float, unit: str, start: int, end: int) -> Token:
    if not unit:
        return Token("N", start, end, _said(value), value)
    kind, told, factor = _UNITS[unit.lower()]
    value = value * factor
    between = "" if told == "°" else " "
    text = f"{_said(value)}{between}{told}".strip()
    return Token(kind, start, end, text, value, "em" if unit.lower().startswith("em") else told)


def _said(value: float) -> str:
    return f"{round(value, 4):g}".replace("-", "−") if abs(value) < 1e6 else str(value)


def _plain(text: str) -> float:
    """The number that digits say; ValueError if it is beyond all sense."""
    number = float(text.replace("−", "-").replace("–", "-").replace("±", "").replace(",", "."))
    if abs(number) > MOST:
        raise ValueError(text)
    return number


def _of_number(match: re.Match[str], start: int, around: Measures) -> Token:
    unit, value = match["unit"] or match["times"] or "", _plain(match["number"])
    if unit.lower() in ("vw", "vh"):
        value *= around.size[unit.lower() == "vh"]
    token = _number(value, unit, start, match.end())
    is_signed = match["number"][0] in "+-−–"
    return token._replace(sign=token.sign + ("s" if is_signed else ""))


def _of_code(match: re.Match[str], start: int, around: Measures) -> Token:
    parts = [int(part) for part in match["code"].split(":")]
    if len(parts) == 4:
        *clock, frames = parts
    elif len(parts) == 3:
        clock, frames = parts, 0
    else:
        clock, frames = [0, 0, parts[0]], parts[1]
    seconds = clock[0] * 3600 + clock[1] * 60 + clock[2]
    value = seconds * round(around.rate) + frames
    return Token("T", start, match.end(), f"{value} frames", value, "frames")


_HALVES = {"½": 0.5, "1/2": 0.5, "1/4": 0.25, "¾": 0.75, "3/4": 0.75}


def _of_half(match: re.Match[str], start: int, around: Measures) -> Token:
    value = _HALVES[match["half"]]
    return Token("N", start, match.end(), _said(value), value)


def _of_size(match: re.Match[str], start: int, around: Measures) -> Token:
    first, second = re.split(r"\s?[x×]\s?", match["sized"])
    return Token("D", start, match.end(), f"{first} by {second}", float(first), second)


def _of_color(match: re.Match[str], start: int, around: Measures) -> Token:
    text = match["color"]
    digits = text if text.startswith("#") else _from_function(text)
    if len(digits) in (4, 5):
        digits = "#" + "".join(digit * 2 for digit in digits[1:4])
    return Token("C", start, match.end(), digits[:7].upper())


def _from_function(text: str) -> str:
    numbers = [_plain(number) for number in re.findall(r"-?[\d.]+", text)]
    if len(numbers) < 3:
        raise ValueError(text)
    if text.lower().startswith("rgb"):
        return "#" + "".join(f"{min(max(round(number), 0), 255):02X}" for number in numbers[:3])
    hue, full, light = numbers[:3]
    parts = colorsys.hls_to_rgb(hue / 360 % 1, light / 100, full / 100)
    return "#" + "".join(f"{round(part * 255):02X}" for part in parts)


def _of_bezier(match: re.Match[str], start: int, around: Measures) -> Token:
    numbers = [
        _plain(number) for number in re.findall(_NUMBER, match["bezier"].split("bezier")[-1])
    ]
    told = ", ".join(_said(number) for number in numbers)
    return Token("E", start, match.end(), f"a curve of its own ({told})")


def _of_string(match: re.Match[str], start: int, around: Measures) -> Token:
    return Token("Q", start, match.end(), f"“{match['string'][1:-1]}”")


def _of_word(match: re.Match[str], start: int, around: Measures) -> Token:
    word = match["word"].lower()
    return Token("and" if word == "n" else word, start, match.end(), match["word"])


def _of_sign(match: re.Match[str], start: int, around: Measures) -> Token:
    sign = {"–": "-", "—": "-", "…": ".", "&": "and", "\n": ";"}.get(match["sign"], match["sign"])
    return Token(sign, start, match.end(), match["sign"])


def _of_arrow(match: re.Match[str], start: int, around: Measures) -> Token:
    return Token("to", start, match.end(), "to")


_MADE: dict[str, Callable[[re.Match[str], int, Measures], Token]] = {
    "string": _of_string,
    "color": _of_color,
    "bezier": _of_bezier,
    "code": _of_code,
    "half": _of_half,
    "sized": _of_size,
    "number": _of_number,
    "word": _of_word,
    "sign": _of_sign,
    "arrow": _of_arrow,
    "other": lambda match, start, around: Token(UNKNOWN, start, match.end(), match["other"]),
}


def _counted(found: list[Token]) -> list[Token]:
    """Numbers that are written out, with the units behind them: "two and a half seconds", "a
    quarter turn", "minus 20", "one point two"."""
    made: list[Token] = []
    at = 0
    while at < len(found):
        token, used = _written(found, at)
        made.append(token)
        at += used
    return made


_WITH_UNITS = ("P", "A", "S", "T", "M")  # signs of numbers


def _word(found: list[Token], at: int) -> str:
    return found[at].sign if at < len(found) else ""


def _written(found: list[Token], at: int) -> tuple[Token, int]:
    """The token at a place, a number if that is written out, and how many it is made of."""
    first = found[at]
    if first.sign == "minus" and _word(found, at + 1) in _WITH_UNITS:
        number = found[at + 1]
        text = f"−{number.text}"
        return number._replace(start=first.start, value=-number.value, text=text), 2
    used, value = _value_at(found, at)
    if value is None:
        return first, 1
    ahead = at + used
    if (_word(found, ahead), _word(found, ahead + 1)) == ("of", "a"):  # "a third of a second"
        ahead += 1
    while _word(found, ahead) in ("-", "of", "a") and _is_unit(found, ahead + 1) and used:
        ahead += 1
    if _is_unit(found, ahead):
        unit = found[ahead]
        return _number(value, unit.text, first.start, unit.end), ahead + 1 - at
    if first.sign[:1] in "NPTASMXH" and used == 1:
        return first, 1
    return Token("N", first.start, found[at + used - 1].end, _said(value), value), used


def _is_unit(found: list[Token], at: int) -> bool:
    return at < len(found) and found[at].sign in _UNITS and found[at].sign not in ("x",)


def _value_at(found: list[Token], at: int) -> tuple[int, float | None]:
    """How many tokens make the number that is written at a place, and that."""
    word = _word(found, at)
    if word == "minus" and _word(found, at + 1):
        used, value = _value_at(found, at + 1)
        return used + 1, None if value is None else -value
    if word == "a" and _is_one(found, at):
        return 1, 1.0
    if (
        word in ("a", "one")
        and _word(found, at + 1) in ("full", "whole")
        and _is_unit(found, at + 2)
    ):
        return 2, 1.0
    if word in _PARTS or (word in ("a", "one") and _word(found, at + 1) in _PARTS):
        return _part_at(found, at, 0 if word in _PARTS else 1)
    if (word not in _WORDED and word != "N") or (word == "one" and not _counts(found, at)):
        return 1, None
    used, value = _whole_at(found, at)
    return _and_more(found, at, used, value)


_PARTS = {"half": 0.5, "quarter": 0.25, "third": 0.3333}
_MORE_PARTS = {"halves": 0.5, "quarters": 0.25, "thirds": 0.3333}
# Before and behind "a second" as long as that; "per second" and "20 a second" are none.
_LASTING = ("over", "in", "for", "within", "after", "lasting", "of", "during", "takes", "wait")
_APART = ("later", "apart", "each", "long", "earlier", "between", "delay")


def _is_one(found: list[Token], at: int) -> bool:
    """Whether "a" is a number: "a frame later", "over a second"."""
    unit, behind = _word(found, at + 1), _word(found, at + 2)
    if unit in ("frame", "pixel", "degree"):
        return behind in _APART or unit != "frame" or _word(found, at - 1) in _LASTING[:-1]
    is_time = unit in ("second", "minute")
    return is_time and (behind in _APART or (at > 0 and _word(found, at - 1) in _LASTING))


def _part_at(found: list[Token], at: int, skipped: int) -> tuple[int, float | None]:
    """ "half a second", "a quarter turn": a number only where a unit stands behind."""
    after = _word(found, at + skipped + 1)
    behind = at + skipped + (3 if after == "of" else 2)
    has_unit = after in _UNITS or (after in ("a", "-", "of") and _is_unit(found, behind))
    return (skipped + 1, _PARTS[_word(found, at + skipped)]) if has_unit else (1, None)


def _whole_at(found: list[Token], at: int) -> tuple[int, float]:
    """A number in digits or words: "20", "twenty five", "twenty-five", "two hundred"."""
    word, behind = _word(found, at), _word(found, at + 1)
    if word == "N":
        return 1, found[at].value
    value = float(_WORDED[word])
    if word in _TENS and _WORDED.get(behind, 99) < 10:
        return 2, value + _WORDED[behind]
    if word in _TENS and behind == "-" and _WORDED.get(_word(found, at + 2), 99) < 10:
        return 3, value + _WORDED[_word(found, at + 2)]
    return (2, value * 100) if behind == "hundred" else (1, value)


def _and_more(found: list[Token], at: int, used: int, value: float) -> tuple[int, float]:
    """What stands behind the whole of a number: "point two", "and a half"."""
    words = [_word(found, at + used + number) for number in range(3)]
    if words[0] in _MORE_PARTS:
        return used + 1, value * _MORE_PARTS[words[0]]
    if words[0] == "point" and words[1] in _WORDED:
        return used + 2, value + _WORDED[words[1]] / 10
    return (used + 3, value + 0.5) if words == ["and", "a", "half"] else (used, value)


def _counts(found: list[Token], at: int) -> bool:
    """Whether "one" is a number: with a unit behind it, or as "one point two"."""
    behind = _word(found, at + 1)
    if behind == "and" and _word(found, at + 3) == "half":
        return True
    is_decimal = behind == "point" and _word(found, at + 2) in _WORDED
    return is_decimal or behind in _UNITS or (behind == "-" and _is_unit(found, at + 2))


def _mended(found: list[Token], known: Callable[[str], str]) -> list[Token]:
    """Tokens with colours by their names, words in one spelling, and values told by their places in
    the row."""
    made: list[Token] = []
    at = 0
    while at < len(found):
        if [token.sign for token in found[at : at + 3]] == ["black", "and", "white"]:
            last = found[at + 2]
            made.append(Token("grayscale", found[at].start, last.end, "black and white"))
            at += 3
            continue
        color = _named_color(found, at)
        if color is not None:
            token, used = color
            made.append(token)
            at += used
            continue
        token = found[at]
        if token.sign.islower() and token.sign[0].isalpha():
            token = token._replace(sign=known(token.sign))
        made.append(token)
        at += 1
    return [
        token._replace(sign=f"{token.sign}{number}") if token.sign[0].isupper() else token
        for number, token in enumerate(made)
    ]


_NO_COLORS = {"snow", "tan", "linen"}


def _named_color(found: list[Token], at: int) -> tuple[Token, int] | None:
    for used in (3, 2, 1):
        words = [token.sign for token in found[at : at + used]]
        if len(words) < used or not all(word.isalpha() and word.islower() for word in words):
            continue
        name = "".join("dark" if word == "deep" else word for word in words)
        if used == 1 and name in _NO_COLORS:
            continue
        if name in color_names():
            last = found[at + used - 1]
            return Token("C", found[at].start, last.end, color_names()[name]), used
    return None
