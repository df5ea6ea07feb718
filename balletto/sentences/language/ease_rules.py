"""What is read of eases that have values of their own: a rule of the grammar for each kind."""

import json
import re
from typing import Any

from lark import Tree

from ...scene.eases import EASE_KINDS
from ...scene.values.measures import PLAIN
from ...scene.values.wording import Said
from .lexicon import Lexicon, spelt
from .numbers import number_in


def units_of_eases() -> set[str]:
    """What stands behind their numbers."""
    found = [how.measure for kind in EASE_KINDS.values() for how in kind.values.values()]
    return {
        unit.strip() for measure in found if measure for unit in (measure.unit, measure.one)
    } - {""}


def _parts_of(words: str) -> list[tuple[str, bool]]:
    """A template as its words and, marked, its names."""
    return [
        (text, index % 2 == 1)
        for index, text in enumerate(re.split(r"\{(\w+)\}", words))
        if text.strip(" ()")
    ]


def ease_literals() -> list[str]:
    """All words of eases that have values."""
    found: list[str] = []
    for kind in EASE_KINDS.values():
        found.append(kind.title)
        for text, is_name in _parts_of(kind.words):
            if not is_name:
                found.append(text)
                continue
            how = kind.values[text]
            found += [words for _, words in how.options]
            found += [how.measure.before] if how.measure and how.measure.before else []
    return [words for words in found if spelt(words)]


def ease_rules(lexicon: Lexicon) -> list[str]:
    """A rule for each kind: its title, alone or with its values."""
    rules = []
    for key, kind in EASE_KINDS.items():
        title = lexicon.phrases[spelt(kind.title)]
        said = [
            _value_rule(kind.values[text], lexicon) if is_name else lexicon.phrases[spelt(text)]
            for text, is_name in _parts_of(kind.words)
        ]
        rules.append(f"{title} -> {key}")
        rules += [f"{title} {' '.join(said[:count])} -> {key}" for count in (1, len(said))]
    return list(dict.fromkeys(rules))


def _value_rule(how: Said, lexicon: Lexicon) -> str:
    if how.options:
        return f"({' | '.join(lexicon.phrases[spelt(words)] for _, words in how.options)})"
    if how.parts:
        return "listed"
    if how.each:
        return "course"
    before = how.measure.before if how.measure else ""
    return f"[{lexicon.phrases[spelt(before)]}] NUMBER" if before else "NUMBER"


def ease_of_kind(tree: Any) -> dict[str, Any]:
    """An ease with its values, as plain data; those that are not said are the usual."""
    kind = EASE_KINDS[str(tree.data)]
    names = [text for text, is_name in _parts_of(kind.words) if is_name]
    made: dict[str, Any] = json.loads(json.dumps(kind.start))
    given = iter(part for part in tree.children[1:] if _is_value(part, kind))
    for name, part in zip(names, given, strict=False):
        made[name] = _ease_value(kind.values[name], part)
    return made


def _is_value(part: Any, kind: Any) -> bool:
    """Whether a part of the rule of an ease is a value, not a word beside it."""
    options = {spelt(words) for how in kind.values.values() for _, words in how.options}
    return isinstance(part, Tree) or part.type == "NUMBER" or spelt(part) in options


def _ease_value(how: Said, part: Any) -> Any:
    if how.options:
        return next(value for value, words in how.options if spelt(words) == spelt(part))
    if how.parts:
        numbers = [token for token in part.children if token.type == "NUMBER"]
        return [
            number_in(token, how.parts[min(n, len(how.parts) - 1)].measure or PLAIN, 30)
            for n, token in enumerate(numbers)
        ]
    if how.each:
        return [_point(key, how) for key in part.children if isinstance(key, Tree)]
    return number_in(part, how.measure or PLAIN, 30)


def _point(key: Any, how: Said) -> list[float | int]:
    """A point of an ease: "0.8 at 0.5" is the value 0.8 at the place 0.5."""
    value, _, place = key.children
    texts = (str(place.children[-1]), str(value.children[0]))
    return [
        number_in(text, part.measure or PLAIN, 30)
        for text, part in zip(texts, how.each, strict=True)
    ]
