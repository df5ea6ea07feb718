"""Sentences about reach: the words of each kind of selector, with their values."""

from typing import Any

import numpy as np
from django.utils.safestring import SafeString

from balletto.scene.edits.keyframes import handles_of, turned_round
from balletto.scene.selectors import SELECTOR_KINDS
from balletto.scene.tracks import Track, value_at

from .chips import Chip, choice_chip
from .phrases import EASES, NOW, Moment, ease_words, edit_of, join, tight
from .sentence_parts import SentencePart


def _part(path: str, index: int, selector: Any, words: str, moment: Moment = NOW) -> SentencePart:
    return SentencePart(f"{path}.reach.{index}", selector, selector.wording(words), moment)


def reach_words(path: str, reach: tuple[Any, ...], moment: Moment = NOW) -> SafeString:
    """All selectors of a move, joined: "by chance 5, either way, times a sweep from ..."."""
    parts = []
    for index, selector in enumerate(reach):
        words = f"{{combine}} {selector.words}" if index else selector.words
        parts.append(_part(path, index, selector, words, moment).sentence())
    return join(parts, ", ")


def reach_more(path: str, reach: tuple[Any, ...], moment: Moment = NOW) -> list[SafeString]:
    """What is used less of each selector."""
    clauses = []
    for index, selector in enumerate(reach):
        words = f"The {selector.title}: {selector.less_used}."
        part = _part(path, index, selector, words, moment)
        edges = {}
        if hasattr(selector, "edge"):
            edges["edge"] = _edge_words(f"{part.path}.edge", selector)
        clauses += [tight(part.sentence(**edges)), *part.more()]
    return clauses


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
