"""What is asked to be done with layers, effects and keys: "duplicate it twice", "all keys +5".

Each is one of a list, in our words with its values: those that stand on the right in the table
"asks". These words themselves mean the same.
"""

import re
from functools import cache
from typing import Any

from ..sentences.language.tokens import SayingError
from ..sentences.reader import Context, Meaning
from .looks import in_words_of
from .tokens import QUOTED, Signs
from .ways import table

SURE, SEVERAL, ALONE = "asks.sure", "asks.several", "asks.alone"
_SLOT = re.compile(r"\{(\w)[^}]*\}")
_DIGITS = r"−?\d{1,9}(?:\.\d{1,9})?"
_NUMBER = rf"({_DIGITS})"
_VALUES = {
    "q": r"“([^”]*)”", "t": rf"({_DIGITS}(?: s)?)(?: frames)?", "p": rf"({_DIGITS})(?: px)?",
}  # fmt: skip


_OF_NUMBERS = {"x": "n", "s": "n"}


@cache
def asks() -> dict[str, re.Pattern[str]]:
    """All that can be asked, in our words, with what finds it: "split the layer at {t}"."""
    ways = (way for name in (SURE, SEVERAL, ALONE) for way in table(name))
    templates = dict.fromkeys(_template(way.means[0]) for way in ways)
    return {template: _pattern(template) for template in templates}


def _template(means: str) -> str:
    """What is meant, without its values: "2 times the reach" is "{n} times the reach". A layer is
    told by its name or by what it is."""
    means = means.replace("{q}{o}", "{q}").replace("“{y}”", "{q}")
    slots = _SLOT.sub(lambda slot: f"{{{_OF_NUMBERS.get(slot[1], slot[1])}}}", means)
    return re.sub(r"\b\d[\d.]*", "{n}", re.sub(r"\b\d+ px", "{p}", slots))


def _pattern(template: str) -> re.Pattern[str]:
    parts = re.split(r"\{(\w)\}", template)
    whole = "".join(
        _VALUES.get(part, _NUMBER) if number % 2 else re.escape(part)
        for number, part in enumerate(parts)
    )
    return re.compile(whole, re.IGNORECASE)


def asked(
    text: str, signs: Signs, title: frozenset[str], context: Context, is_alone: bool
) -> tuple[Meaning, str] | None:
    """What a line asks for, and that in our words; None if it asks for nothing. SayingError, if it
    says too many things. `is_alone`: there is no move that it may be about."""
    if "ask" not in context.may_say:
        return None
    if found := _in_our_words(text.strip().removesuffix("."), context.rate):
        return found, text.strip()
    tables = [*([SEVERAL] if context.several else []), SURE, *([ALONE] if is_alone else [])]
    for name in tables:
        if ways := in_words_of(signs, title, (name,)):
            if len(ways) > 1:
                told = "ask for one thing at a time"
                raise SayingError(told, signs.tokens[ways[1].first].start, len(text))
            sentence = ways[0].means[0]
            if meant := _in_our_words(sentence, context.rate):
                return meant, sentence
    return None


def _in_our_words(text: str, rate: float) -> Meaning | None:
    for template, pattern in asks().items():
        if match := pattern.fullmatch(text):
            slots = _SLOT.findall(template)
            values = [
                _value(kind, told, rate) for kind, told in zip(slots, match.groups(), strict=True)
            ]
            return Meaning("ask", {"ask": template, "values": values})
    return None


def _value(kind: str, told: str, rate: float) -> Any:
    """A value as an ask has it: times in frames."""
    if kind == "q":
        return told
    number = float(told.removesuffix(" s").replace("−", "-"))
    return number * rate if told.endswith(" s") else number


_ASKED = re.compile(
    r"\s*(?:how|where|what|why|which|is there|are there|do i|does|help)\b"
    r"|.*\bhow (?:do|can|could|to) ",
    re.IGNORECASE,
)
_MAYBE_ASKED = re.compile(r"\s*(?:can|could|who|when|did)\b|.*\?\s*$", re.IGNORECASE)


def is_question(text: str, is_refused: bool = False) -> bool:
    """Whether a text asks how something is done, and does not say what is to be done. What may be
    either ("can you make it red?") asks only if it is not understood."""
    plain = QUOTED.sub("“”", text)  # what a title asks is no question
    is_asked = _ASKED.match(plain) or (is_refused and _MAYBE_ASKED.match(plain))
    return len(plain) > 3 and bool(is_asked)
