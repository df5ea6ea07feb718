"""Values of properties as people tell them: the property first or last, from one to another, at
times."""

import re
from dataclasses import dataclass
from typing import Any

from .finding import token_of
from .tokens import Signs, Token

_WAYS = (
    r"above|below|under|up|down|upwards|downwards|left|right|(?:of|its|own|height|from|the|line)"
)
_GO = (
    r"(?:slide|move|rise|drop|fall|float|come|shift|push)s? (?:in )?(?:up|down)?|rise|translatey|y"
)
_BY_LETTERS = re.compile(
    rf"(?<= )(?:(?P<em>M\d+) (?=(?:{_WAYS}) )|(?P<share>S\d+) (?=(?:of its (?:own )?height )?"
    rf"(?:above|below|under|upwards|downwards) )|(?:{_GO})(?: (?:in|from|by|up|down|:|\())*"
    rf" (?P<gone>[MS]s?\d+) (?:of its (?:own )?height )?)"
)


def by_letters(row: Signs, size: float) -> Signs:
    """A row in which lengths that are told by the letters' size ("1 em below", "translateY(100%)")
    are told in px."""
    found = {match[match.lastgroup or 0] for match in _BY_LETTERS.finditer(row.signs)}
    signs = {sign for sign in found if sign[0] != "M" or token_of(sign, row).unit == "em"}
    return Signs(tuple(
        token if token.sign not in signs else _in_px(token, size) for token in row.tokens
    ))  # fmt: skip


def _in_px(token: Token, size: float) -> Token:
    value = round(token.value / (100 if token.sign[0] == "S" else 1000) * size, 1)
    return token._replace(sign=f"P{token.sign[1:]}", text=f"{value:g} px", value=value, unit="px")


@dataclass(frozen=True)
class SaidProperty:
    """A property of a pose: its names, how it is said, and what is rest.

    unit: of its numbers; signed: the words for below and above nothing; is_share: whether 0.5 may
    mean 50 %
    """

    names: tuple[str, ...]
    words: str
    rest: float = 0.0
    unit: str = ""
    signed: tuple[str, str] | None = None
    is_share: bool = False

    def takes(self, token: Token) -> bool:
        """Whether a value can be of it: 110° are no depth, 40 px no opacity."""
        return token.sign[0] in "N" + _KINDS[self.unit]


_KINDS = {" %": "SX", " px": "PM", "°": "A", " ‰": "MSP"}  # signs of values, by the unit
_SHARE: dict[str, Any] = {"rest": 100, "unit": " %", "is_share": True}

PROPERTIES: dict[str, SaidProperty] = {
    "opacity": SaidProperty(
        ("opacity", "alpha", "opaque", "transparency", "visibility"), "{} opaque", **_SHARE
    ),
    "y": SaidProperty(
        ("y", "translatey", "y position", "position y", "vertical position", "y offset"),
        "{}", unit=" px", signed=("above", "below"),
    ),
    "x": SaidProperty(
        ("x", "translatex", "x position", "position x", "horizontal position"),
        "{}", unit=" px", signed=("left", "right"),
    ),
    "z": SaidProperty(
        ("z", "translatez", "depth"), "{}", unit=" px", signed=("deeper", "nearer")
    ),
    "scale": SaidProperty(
        ("scale", "size", "scaling", "scaled", "scales"), "{} of its size", **_SHARE
    ),
    "scale_x": SaidProperty(
        ("scalex", "scale x", "x scale", "width"), "{} of its width", **_SHARE
    ),
    "scale_y": SaidProperty(
        ("scaley", "scale y", "y scale", "height", "stretch tall", "tall"),
        "{} of its height", **_SHARE,
    ),
    "rotation": SaidProperty(
        ("rotate", "rotation", "rot", "rotatez", "rotates", "rotated", "rotating", "turn",
         "turned", "spin", "angle", "turns"),
        "turned {}", unit="°",
    ),
    "rotation_x": SaidProperty(
        ("rotatex", "x rotation", "tip", "tipped", "tilt x", "rotation x"), "tipped {}", unit="°"
    ),
    "rotation_y": SaidProperty(
        ("rotatey", "y rotation", "swung", "rotation y"), "swung {}", unit="°"
    ),
    "skew": SaidProperty(("skew", "skewx", "lean", "leaning", "slant"), "leaning {}", unit="°"),
    "blur": SaidProperty(
        ("blur", "blurred", "gaussian blur", "filter blur", "defocus"), "blurred by {}", unit=" px"
    ),
    "tracking": SaidProperty(
        ("tracking", "letter spacing", "letterspacing", "letter - spacing", "spacing"),
        "spread by {}", unit=" ‰",
    ),
    "outline": SaidProperty(("outline width", "stroke width"), "its outline {} wider", unit=" px"),
    "drawn": SaidProperty(("drawn", "stroke end"), "{} drawn", **_SHARE),
}  # fmt: skip


def number_of(name: str, token: Token) -> float:
    """The number of a property that a token tells, in the property's own unit."""
    known, value = PROPERTIES[name], token.value
    if known.is_share and token.unit not in ("%",) and abs(value) <= 3 and token.unit != "frames":
        is_plain = token.unit in ("", "×")
        if is_plain and (value not in (2, 3) or token.unit == "×"):
            return value * 100
    if name == "tracking" and token.unit == "%":
        return value * 10
    return value


def said_value(name: str, number: float) -> str:
    """One value of a property, in our wording."""
    known = PROPERTIES[name]
    if known.signed:
        side = known.signed[0] if number < 0 else known.signed[1]
        return f"{abs(number):g}{known.unit} {side}"
    return f"{number:g}{known.unit}".replace("-", "−")


def pose_of(name: str, values: list[Any], move: Any) -> tuple[str, str]:
    """Where a property leads and its pose: from values in turn, or from values at times."""
    known = PROPERTIES[name]
    if values and isinstance(values[0], tuple):
        at = ", ".join(f"{said_value(name, v)} at {t}" for v, t in values)
        if len(values) == 1:
            return "home", known.words.format(said_value(name, values[0][0]))
        move.marks["timed"] = "yes"
        if known.signed:
            return "stay", f"({at})"
        return "stay", known.words.format(f"({at})")
    if len(values) == 1:
        return "", known.words.format(said_value(name, values[0]))
    if len(values) == 2:
        first, last = values
        if last == known.rest:
            return "home", known.words.format(said_value(name, first))
        if first == known.rest:
            return "away", known.words.format(said_value(name, last))
    length = frames(move.length, move.rate) or 20
    step = length / (len(values) - 1)
    at = ", ".join(f"{said_value(name, v)} at {round(n * step, 3):g}" for n, v in enumerate(values))
    move.length = ""
    if known.signed:
        return "stay", f"({at})"
    return "stay", known.words.format(f"({at})")


def frames(length: str, rate: float) -> float:
    """A time as it is said, in frames."""
    number = float(re.sub(r"[^\d.]", "", length) or 0)
    return number * rate if length.endswith(" s") else number


_NAMES = sorted(
    ((alias, name) for name, known in PROPERTIES.items() for alias in known.names),
    key=lambda pair: -len(pair[0]),
)
NAMES_OF_PROPERTIES = frozenset(alias for alias, _ in _NAMES)
_VALUE = r"[NPASMX]s?\d+"
_TIME = r"[TN]s?\d+"
_AT = rf"(?:at|@) (?:frame )?({_TIME})"
_PAIRS = re.compile(
    rf"(?:: |from |goes |is |of |\( )?({_VALUE}) (?:\) )?{_AT}"
    rf"(?: (?:, |and |then |to )*({_VALUE}) {_AT})*"
)
_ONE_PAIR = re.compile(rf"({_VALUE}) (?:\) )?{_AT}")
_CHAIN = re.compile(
    rf"(?:: |from |is |goes |of |= |up |\( )*({_VALUE})(?: \))?"
    r"((?: (?:to|, then|, back to|then|down to|up to|- to)"
    rf"(?: (?:y|x|scale|blur|opacity|rotate|\())? {_VALUE}(?: \))?)+)"
)
_SINGLE = re.compile(rf"(?:: |of |by |is |to |at |from |= |\( )*({_VALUE})(?: \))?")
_VALUES = re.compile(_VALUE)


def property_at(row: Signs, at: int) -> tuple[int, str, list[Any]] | None:
    """A property with its values that begins at a token: where it ends, its name and its values."""
    signs, start = row.signs, row.starts[at]
    for alias, name in _NAMES:
        if not signs.startswith(f"{alias} ", start):
            continue
        begin = start + len(alias) + 1
        found = _values_behind(row, name, signs, begin)
        if found is not None and all(map(PROPERTIES[name].takes, _tokens(row, begin, found[0]))):
            end, values = found
            if alias in _OTHER_WAY_ROUND:
                values = [_negated(value) for value in values]
            return at + signs[start:end].strip().count(" ") + 1, name, values
    return _value_first(row, at, signs, start)


# Style sheets turn the other way round about these axes.
_OTHER_WAY_ROUND = ("rotatex", "rotatey")


def _negated(value: Any) -> Any:
    return (-value[0], value[1]) if isinstance(value, tuple) else -value


def _tokens(row: Signs, begin: int, end: int) -> list[Token]:
    """The values that stand in a part of a row, without times."""
    return [token_of(sign, row) for sign in re.findall(r"[NPASMX]s?\d+", row.signs[begin:end])]


def _values_behind(row: Signs, name: str, signs: str, begin: int) -> tuple[int, list[Any]] | None:
    if match := _PAIRS.match(signs, begin):
        pairs = [
            (number_of(name, token_of(value, row)), _said_time(token_of(time, row)))
            for value, time in _ONE_PAIR.findall(match.group())
        ]
        return match.end(), [*pairs]
    if match := _CHAIN.match(signs, begin):
        return match.end(), [
            number_of(name, token_of(sign, row)) for sign in _VALUES.findall(match.group())
        ]
    match = _SINGLE.match(signs, begin)
    if match and token_of(match[1], row).unit not in ("frames", "s"):
        return match.end(), [number_of(name, token_of(match[1], row))]
    return None


def _said_time(token: Token) -> str:
    return f"{token.value:g} s" if token.unit == "s" else f"{token.value:g}"


def _value_first(row: Signs, at: int, signs: str, start: int) -> tuple[int, str, list[Any]] | None:
    """A value before the name of its property: "0 opacity", "20 px blur"."""
    match = re.compile(rf"({_VALUE}) ").match(signs, start)
    if match is None:
        return None
    for alias, name in _NAMES:
        if signs.startswith(f"{alias} ", match.end()) and name not in ("x", "y", "z"):
            token = token_of(match[1], row)
            if not PROPERTIES[name].takes(token):
                return None
            return at + 2 + alias.count(" "), name, [number_of(name, token)]
    return None
