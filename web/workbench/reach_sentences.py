"""Sentences about reach: the words of each kind of selector, with their values."""

from itertools import combinations
from typing import Any

import numpy as np
from django.utils.safestring import SafeString

from balletto.scene.edits.keyframes import handles_of, turned_round
from balletto.scene.selectors import SELECTOR_KINDS
from balletto.scene.tracks import Track, value_at
from balletto.scene.value_names import PROPERTY_NOUNS, property_name

from .chips import Chip, choice_chip
from .phrases import EASES, NOW, Moment, ease_words, edit_of, join, tight
from .sentence_parts import SentencePart


def _part(path: str, index: int, selector: Any, words: str, moment: Moment = NOW) -> SentencePart:
    return SentencePart(f"{path}.reach.{index}", selector, selector.wording(words), moment)


def reach_words(
    path: str, reach: tuple[Any, ...], moment: Moment = NOW, given: tuple[str, ...] = ()
) -> SafeString:
    """All selectors of a move, joined: "by chance 5, either way, times a sweep from ...". `given`
    are the properties of its pose."""
    parts = []
    for index, selector in enumerate(reach):
        words = f"{{combine}} {selector.words}" if index else selector.words
        part = _part(path, index, selector, words, moment)
        parts.append(part.sentence(**_of_properties(part, given)))
    return join(parts, ", ")


def reach_more(
    path: str, reach: tuple[Any, ...], moment: Moment = NOW, given: tuple[str, ...] = ()
) -> list[SafeString]:
    """What is used less of each selector."""
    clauses = []
    for index, selector in enumerate(reach):
        words = f"The {selector.title}: {selector.less_used}."
        part = _part(path, index, selector, words, moment)
        others = _of_properties(part, given)
        if hasattr(selector, "edge"):
            others["edge"] = _edge_words(f"{part.path}.edge", selector)
        clauses += [tight(part.sentence(**others)), *part.more()]
    return clauses


def _of_properties(part: SentencePart, given: tuple[str, ...]) -> dict[str, SafeString]:
    """What holds for some of the properties that a pose has: for all or none of them, for one, for
    any two, or as it is."""
    said = {}
    some = [*combinations(given, 1), *combinations(given, 2)]
    for name, value in part.part.said.items():
        if value.of_properties:
            path, now = f"{part.path}.{name}", getattr(part.part, name)
            lists = dict.fromkeys([*some, now] if isinstance(now, tuple) else some)
            more = [(list(names), _PROPERTY_WORDS[name].format(_named(names))) for names in lists]
            options = [*value.options, *more]
            now = list(now) if isinstance(now, tuple) else now
            said[name] = choice_chip(Chip(path, edit_of(path), value.label), now, options)
    return said


_PROPERTY_WORDS = {"only": "{} alone", "one_sided": "one way in {}"}


def _named(names: tuple[str, ...]) -> str:
    """Properties in words: "height and depth"."""
    said = [PROPERTY_NOUNS.get(name) or property_name(name) for name in names]
    return " and ".join([", ".join(said[:-1]), said[-1]] if said[:-1] else said)


def _edge_words(path: str, selector: Any) -> SafeString:
    """The ease of the edges as the units feel it: those that a band leaves come home on it, from
    whole to none, so that theirs is the ease that is kept turned round."""
    is_plain = isinstance(selector.edge, str)
    edge = selector.edge if is_plain else selector.edge.model_dump(exclude_unset=True)
    if not _leaves(selector) or not isinstance(turned_round(edge), str):
        return ease_words(path, selector.edge, "Edges")
    felt = [(turned_round(ease), said) for ease, said in EASES if handles_of(ease)]
    return choice_chip(Chip(path, edit_of(path), "Edges"), edge, felt)


def _leaves(selector: Any) -> bool:
    """Whether a sweep covers less of its title at the end of its travel than at the beginning."""
    if selector.kind != "sweep":
        return False
    tracks = [
        value
        for value in (selector.low, selector.high, selector.travel)
        if isinstance(value, Track)
    ]
    if not tracks:
        return False
    times = np.array([key.at for track in tracks for key in track.keys])
    ends = np.array([times.min(), times.max()], dtype=float)
    edges = [value_at(value, ends) for value in (selector.low, selector.high)]
    low, high = np.sort(edges, axis=0) + value_at(selector.travel, ends)
    covered = np.clip(high, 0, 100) - np.clip(low, 0, 100)
    return bool(covered[0] > covered[1])


def new_selectors(size: tuple[int, int]) -> list[tuple[str, dict[str, Any]]]:
    """A selector of each kind to begin with, and what the button for it says."""
    return [start for kind in SELECTOR_KINDS.values() for start in kind.starts(size)]


def reach_actions(path: str, reach: tuple[Any, ...]) -> list[dict[str, Any]]:
    """Other ways to say the same of a selector, as edits with their names."""
    actions = []
    for index, selector in enumerate(reach):
        for label, field, value in selector.other_ways:
            here = f"{path}.reach.{index}.{field}"
            edit = {"name": "clear-value", "path": here}
            if value is not None:
                edit = {"name": "set-value", "path": here, "value": value}
            actions.append({"label": label, "edit": edit})
    return actions
