"""Reading one value as it is typed, with its unit, its direction and its sums: what `quantities`
puts courses and spreads together from."""

import re
from collections.abc import Callable
from dataclasses import dataclass
from typing import NamedTuple

from .measures import Measure

MOST_NESTED = 40  # parentheses in parentheses
LARGEST = 1e9

# Words for units as they are typed, by the unit that they mean.
_UNIT_WORDS = {
    "px": ("px", "pixel", "pixels"),
    "°": ("°", "deg", "degs", "degree", "degrees"),
    "%": ("%", "percent"),
    "‰": ("‰", "permille", "thousandths", "thousandth"),
    "s": ("s", "sec", "secs", "second", "seconds"),
    "ms": ("ms", "millisecond", "milliseconds"),
    "frames": ("f", "fr", "frame", "frames"),
    "Hz": ("hz", "hertz"),
    "dB": ("db", "decibel", "decibels"),
    "×": ("×", "x", "times"),
}
_UNITS = {word: unit for unit, words in _UNIT_WORDS.items() for word in words}
# Other words for the directions that measures have.
_ALSO = {
    "up": "above", "over": "above", "down": "below", "under": "below", "near": "nearer",
    "closer": "nearer", "farther": "deeper", "further": "deeper", "away": "deeper",
    "behind": "deeper", "quieter": "softer",
}  # fmt: skip
DIRECTIONS = frozenset(
    {"left", "right", "above", "below", "nearer", "deeper", "louder", "softer", *_ALSO}
)
FILLERS = frozenset({"to", "the"})  # "20 to the left"

_TOKEN = re.compile(
    r"\s*(?:(?P<clock>\d+(?::\d+){1,2})|(?P<number>\d+(?:[.,]\d+)?|[.,]\d+)"
    r"|(?P<word>[^\W\d_]+)|(?P<sign>[-+*/()×÷%‰°]))"
)


class QuantityError(ValueError):
    """What is typed is not understood, from the letter at `index` on; the message says what would
    do."""

    def __init__(self, message: str, index: int = 0):
        super().__init__(message)
        self.index = index


@dataclass(frozen=True)
class QuantityContext:
    """What a reader knows of where a value stands; numbers are as they stand in a file.

    rate: frames a second; side: px that 100 % mean, None where no share of a side is meant;
    now: what stands there; rest: what `home` means; count, index: how many layers are changed
    together, and which of them is meant; chance: 0..1, of that layer; may_change: whether keyframes
    may stand there.
    """

    rate: float = 30.0
    side: float | None = None
    now: float | None = None
    rest: float | None = None
    count: int = 1
    index: int = 0
    chance: float = 0.0
    may_change: bool = False


def would_do(measure: Measure, context: QuantityContext) -> str:
    """Examples of what can be typed, in words."""
    said = [f"“{measure.say(_example(measure))}”"]
    if _is_time(measure):
        said += ["“1.5 s”", "“1:12”"]
    if measure.below:
        said.append(f"“40 {measure.below}”")
    if context.side is not None:
        said.append("“50 %”")
    said.append("“+5”")
    if context.may_change:
        said.append("“100 at 0, 0 at 20”")
    return f"{', '.join(said[:-1])} or {said[-1]} would do"


def _example(measure: Measure) -> float:
    number = 20 / measure.scale
    low = number if measure.low is None else max(number, measure.low)
    return low if measure.high is None else min(low, measure.high)


def _is_time(measure: Measure) -> bool:
    return measure.unit.strip() in ("frames", "s") or measure.before == "frame"


class _Token(NamedTuple):
    kind: str
    text: str
    at: int


class QuantityReader:
    """Reads one value; `index` is where its text begins in what was typed."""

    def __init__(self, text: str, measure: Measure, context: QuantityContext, index: int = 0):
        self._measure, self._context = measure, context
        self._tokens = self._found(_without_name(text, measure), index)
        self._next = 0
        self._depth = 0
        self._end = index + len(text)

    def _found(self, text: str, index: int) -> list[_Token]:
        tokens, at = [], 0
        text = text.rstrip()
        while at < len(text):
            found = _TOKEN.match(text, at)
            if found is None:
                raise self._fault(f"“{text[at:].strip()}” is not understood", index + at)
            kind = found.lastgroup or ""
            tokens.append(_Token(kind, found[kind].lower(), index + found.start(kind)))
            at = found.end()
        return tokens

    def _fault(self, told: str, index: int) -> QuantityError:
        return QuantityError(f"{told}: {would_do(self._measure, self._context)}", index)

    def whole(self) -> float:
        """The value of all of the text, as it stands in a file."""
        change = self._taken("sign", "+", "*", "×", "/") if len(self._tokens) > 1 else None
        if change is None:
            change, number = None, self._directed()
        else:
            number = self._sum()
        if change is None and (word := self._taken("word", "less", "more")):
            return self._limited(self._toward(number, word))
        if (left := self._token()) is not None:
            raise self._fault(f"“{left.text}” is not understood", left.at)
        if change is not None:
            return self._limited(self._changed(change, number))
        return self._limited(number)

    # What changes what stands there

    def _now(self, token: _Token) -> float:
        if self._context.now is None:
            raise QuantityError(f"there is no value here yet for “{token.text}” to change: say one",
                                token.at)  # fmt: skip
        return self._context.now * self._measure.scale

    def _changed(self, sign: _Token, number: float) -> float:
        now = self._now(sign)
        if sign.text == "+":
            return now + number
        if sign.text == "/":
            return now / self._divisor(number, sign)
        return now * number

    def _toward(self, number: float, word: _Token) -> float:
        """So much less or more; where there are directions, of what is said without a sign."""
        now = self._now(word)
        by = number if word.text == "more" else -number
        return now - by if self._measure.below and now < 0 else now + by

    # Sums

    def _directed(self) -> float:
        """A sum with the word for its direction before or behind it."""
        first = self._direction()
        start = self._token()
        number = self._sum()
        second = self._direction()
        if first and second:
            raise self._fault(f"one direction is enough, got “{second.text}” too", second.at)
        said = first or second
        if said is None:
            return number
        word = _ALSO.get(said.text, said.text)
        if word not in (self._measure.below, self._measure.above):
            raise self._fault(f"this value does not go “{said.text}”", said.at)
        if number < 0:
            index = start.at if start else said.at
            raise self._fault("a sign and a direction do not go together", index)
        return -number if word == self._measure.below else number

    def _direction(self) -> _Token | None:
        mark = self._next
        while (token := self._token()) and token.kind == "word" and token.text in FILLERS:
            self._next += 1
        token = self._token()
        if token is not None and token.kind == "word" and token.text in DIRECTIONS:
            self._next += 1
            return token
        self._next = mark
        return None

    def _sum(self) -> float:
        number = self._term()
        while sign := self._taken("sign", "+", "-"):
            number = number + self._term() if sign.text == "+" else number - self._term()
        return number

    def _term(self) -> float:
        number = self._factor()
        while sign := self._taken("sign", "*", "×", "/"):
            other = self._factor()
            number = number / self._divisor(other, sign) if sign.text == "/" else number * other
        return number

    def _divisor(self, number: float, sign: _Token) -> float:
        if number == 0:
            raise QuantityError("nothing can be divided by 0", sign.at)
        return number

    def _factor(self) -> float:
        if self._taken("sign", "-"):
            return -self._factor()
        if opened := self._taken("sign", "("):
            return self._inside(opened)
        if clock := self._taken("clock"):
            return self._clock(clock)
        if number := self._taken("number"):
            return self._measured(number)
        token = self._token()
        got = f", got “{token.text}”" if token else ""
        raise self._fault(f"a number is needed{got}", token.at if token else self._end)

    def _inside(self, opened: _Token) -> float:
        self._depth += 1
        if self._depth > MOST_NESTED:
            raise QuantityError("too many parentheses in one another", opened.at)
        number = self._sum()
        if self._taken("sign", ")") is None:
            raise QuantityError("a “)” is missing", self._end)
        self._depth -= 1
        return number

    # Numbers and their units

    def _measured(self, token: _Token) -> float:
        if re.fullmatch(r"\d{1,3},\d{3}", token.text):
            plain, point = token.text.replace(",", ""), token.text.replace(",", ".")
            raise QuantityError(f"is {plain} or {point} meant? type it so", token.at)
        number = float(token.text.replace(",", "."))
        if not abs(number) < LARGEST:
            raise self._fault("this number is too large", token.at)
        unit = self._unit()
        return number if unit is None else self._in_measure(number, *unit)

    def _unit(self) -> tuple[str, _Token] | None:
        token = self._token()
        own = self._measure.unit.strip()
        if token is None or token.kind == "number":
            return None
        is_own = token.text in (own.lower(), self._measure.one.strip().lower(), own.lower()[:-1])
        unit = own if is_own and own else _UNITS.get(token.text)
        if unit is None:
            return None
        following = self._tokens[self._next + 1] if self._next + 1 < len(self._tokens) else None
        if token.text == "×" and following is not None and following.kind in ("number", "clock"):
            return None  # with a number behind it, it multiplies
        self._next += 1
        return unit, token

    def _in_measure(self, number: float, unit: str, token: _Token) -> float:
        measure = self._measure
        own = measure.unit.strip() or ("frames" if measure.before == "frame" else "")
        if unit == own:
            return number
        if convert := _TIMES.get((unit, own)):
            return convert(number, self._context.rate)
        if unit == "%" and own == "px" and self._context.side is not None:
            return number / 100 * self._context.side
        if own in _UNIT_WORDS or not own:
            what = f"is measured in {own}" if own else "has no unit"
        else:
            what = f"counts {own}"
        raise self._fault(f"“{token.text}” does not fit here, this value {what}", token.at)

    def _clock(self, token: _Token) -> float:
        own = self._measure.unit.strip() or ("frames" if self._measure.before == "frame" else "")
        if own not in ("frames", "s"):
            raise self._fault(f"“{token.text}” is a time, and this value is none", token.at)
        *minutes, seconds, frames = (int(part) for part in token.text.split(":"))
        base = round(self._context.rate)
        if frames >= base:
            told = f"there are {base} frames in a second, so “:{frames}” is none of them"
            raise QuantityError(told, token.at)
        count = ((minutes[0] if minutes else 0) * 60 + seconds) * base + frames
        if not count < LARGEST:
            raise self._fault("this time is too long", token.at)
        return count if own == "frames" else count / self._context.rate

    # Tokens

    def _token(self) -> _Token | None:
        return self._tokens[self._next] if self._next < len(self._tokens) else None

    def _taken(self, kind: str, *texts: str) -> _Token | None:
        token = self._token()
        if token is None or token.kind != kind or (texts and token.text not in texts):
            return None
        self._next += 1
        return token

    def _limited(self, shown: float) -> float:
        """The number as it stands in a file, within the limits of its measure."""
        measure = self._measure
        if not abs(shown) < LARGEST:
            raise self._fault("this number is too large", self._end)
        value = shown / measure.scale
        for limit, is_out, said in (
            (measure.low, value < (measure.low or 0), "at least"),
            (measure.high, value > (measure.high or 0), "at most"),
        ):
            if limit is not None and is_out:
                told = f"{said} {measure.say(limit)} is needed, got {measure.say(value)}"
                raise QuantityError(told)
        return round(value, 9) + 0.0  # + 0: no -0


def _without_name(text: str, measure: Measure) -> str:
    """A text without the word that stands in front of the number: "frame 20", "weight 700"."""
    if not measure.before:
        return text
    plain = re.sub(rf"^\s*{re.escape(measure.before)}\b", "", text, flags=re.IGNORECASE)
    return " " * (len(text) - len(plain)) + plain


# From a unit that is typed to the one of the measure; the rate is in frames a second.
_TIMES: dict[tuple[str, str], Callable[[float, float], float]] = {
    ("s", "frames"): lambda number, rate: number * rate,
    ("ms", "frames"): lambda number, rate: number * rate / 1000,
    ("frames", "s"): lambda number, rate: number / rate,
    ("ms", "s"): lambda number, rate: number / 1000,
}
