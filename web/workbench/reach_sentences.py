"""Sentences about reach: each kind of selector has its own."""

from collections.abc import Callable
from typing import Any

import numpy as np
from django.utils.html import format_html
from django.utils.safestring import SafeString

from balletto.scene import measures
from balletto.scene.edits.keyframes import handles_of, turned_round
from balletto.scene.measures import Measure
from balletto.scene.tracks import Track, value_at
from balletto.scene.value_names import SELECTOR_VALUES, selector_name

from .chips import Chip, choice_chip, number_chip
from .phrases import (
    EASES,
    NOW,
    Moment,
    ease_words,
    edit_of,
    join,
    number,
    order_words,
    point_words,
    tight,
    track_more,
)

COMBINES = [
    ("multiply", "times"),
    ("add", "plus"),
    ("subtract", "less"),
    ("min", "or, if smaller,"),
    ("max", "or, if larger,"),
    ("difference", "apart from"),
]
TURNS = Measure("", drag=0.01, step=0.05)
RADIUS = Measure(" px", drag=1, low=0)
PERIOD = Measure(" frames", drag=0.125, low=0.1, one=" frame")
SHARE = Measure(" %", drag=0.5, low=0, high=100)
MEASURES = [("percent", "counted in percent"), ("units", "counted in units")]
YES_NO = {
    "one_sided": [(False, "either way"), (True, "one way only")],
    "loop": [(False, "running on"), (True, "looping without a seam")],
    "smooth": [(False, "hard"), (True, "smoothly")],
    "invert": [(False, "inside"), (True, "outside")],
}


class _Words:
    """The chips of one selector."""

    def __init__(self, path: str, selector: Any, moment: Moment):
        self.path, self.selector, self.moment = path, selector, moment

    def _label(self, name: str) -> str:
        return _name_of(self.selector.kind, name)

    def point(self, name: str) -> SafeString:
        """A point of the picture that may be keyed."""
        attribute = {"from": "start", "to": "end"}.get(name, name)
        value = getattr(self.selector, attribute)
        return point_words(f"{self.path}.{name}", value, self._label(name), self.moment)

    def number(self, name: str, measure: Measure, rest: float) -> SafeString:
        """A number that may be keyed."""
        path = f"{self.path}.{name}"
        value = getattr(self.selector, name)
        label, moment = self._label(name), self.moment
        return number(path, value, measure, label, moment, rest=rest, key_path=path)

    def plain(self, name: str, measure: Measure, label: str) -> SafeString:
        """A number that is never keyed."""
        path = f"{self.path}.{name}"
        return number_chip(Chip(path, edit_of(path), label), getattr(self.selector, name), measure)

    def choice(self, name: str, label: str, options: list[tuple[Any, str]]) -> SafeString:
        path = f"{self.path}.{name}"
        return choice_chip(Chip(path, edit_of(path), label), getattr(self.selector, name), options)

    def yes_no(self, name: str, label: str) -> SafeString:
        return self.choice(name, label, YES_NO[name])


def _sweep(words: _Words) -> SafeString:
    sweep = words.selector
    percent = measures.PERCENT if sweep.measure == "percent" else measures.UNITS
    soft = measures.SOFTNESS if sweep.measure == "percent" else measures.UNITS
    return format_html(
        "a sweep from {} to {} of the title, {}, travelling {}, soft {} behind and {} in front",
        words.number("low", percent, 0),
        words.number("high", percent, 100),
        order_words(words.path, sweep, "Order of the sweep"),
        words.number("travel", percent, 0),
        words.number("soft_low", soft, 0),
        words.number("soft_high", soft, 0),
    )


def _scatter(words: _Words) -> SafeString:
    return format_html(
        "chance {}, {}",
        words.plain("seed", measures.WHOLE, "Seed of the chance"),
        words.yes_no("one_sided", "Ways of the chance"),
    )


def _wave(words: _Words) -> SafeString:
    shapes = [(name, name) for name in ("sine", "triangle", "saw", "pulse")]
    return format_html(
        "a {} wave from {} to {}, {} along the title {}, every {}, {}",
        words.choice("shape", "Shape of the wave", shapes),
        words.number("low", measures.PERCENT_OF_ONE_EITHER_WAY, -1),
        words.number("high", measures.PERCENT_OF_ONE_EITHER_WAY, 1),
        words.number("cycles", Measure(" ×", drag=0.02, step=0.25), 1),
        order_words(words.path, words.selector, "Order of the wave"),
        words.number("period", PERIOD, 30),
        words.yes_no("loop", "Loop of the wave"),
    )


def _jitter(words: _Words) -> SafeString:
    if words.selector.every is None:
        pace = words.number("hold", PERIOD, 3)
    else:
        paces = [(f"{times}/s", f"{times} times a second") for times in (4, 6, 8, 9, 12, 15)]
        pace = words.choice("every", "Shakes a second", paces)
    return format_html(
        "a new shake {}, {}, {} together, chance {}",
        format_html("every {}", pace) if words.selector.every is None else pace,
        words.yes_no("smooth", "From shake to shake"),
        words.number("together", SHARE, 0),
        words.plain("seed", measures.WHOLE, "Seed of the shakes"),
    )


def _spot(words: _Words) -> SafeString:
    spot = words.selector
    return format_html(
        "what stands {} {}", words.yes_no("invert", "Side of the spot"), _SPOTS[spot.shape](words)
    )


def _slope_spot(words: _Words) -> SafeString:
    return format_html(
        "a slope rising from {} to {}",
        words.point("from"),
        words.point("to"),
    )


def _round_spot(words: _Words) -> SafeString:
    return format_html(
        "a round spot at {}, whole up to {} and gone beyond {}",
        words.point("center"),
        words.number("inner", RADIUS, 0),
        words.number("outer", RADIUS, 400),
    )


def _band_spot(words: _Words) -> SafeString:
    return format_html(
        "a band through {}, turned {} and {} wide",
        words.point("center"),
        words.number("angle", measures.DEGREES, 0),
        words.number("width", RADIUS, 400),
    )


_SPOTS = {"slope": _slope_spot, "round": _round_spot, "band": _band_spot}
KINDS: dict[str, Callable[[_Words], SafeString]] = {
    "sweep": _sweep,
    "scatter": _scatter,
    "wave": _wave,
    "jitter": _jitter,
    "spot": _spot,
}


def reach_words(path: str, reach: tuple[Any, ...], moment: Moment = NOW) -> SafeString:
    """All selectors of a move, joined: "by chance 5, either way, times a sweep from ..."."""
    parts = []
    for index, selector in enumerate(reach):
        words = _Words(f"{path}.reach.{index}", selector, moment)
        said = KINDS[selector.kind](words)
        if index:
            said = format_html("{} {}", words.choice("combine", "Joined by", COMBINES), said)
        parts.append(said)
    return join(parts, ", ")


def reach_more(path: str, reach: tuple[Any, ...], moment: Moment = NOW) -> list[SafeString]:
    """What is used less of each selector."""
    clauses = []
    for index, selector in enumerate(reach):
        words = _Words(f"{path}.reach.{index}", selector, moment)
        said = [format_html("strength {}", words.number("strength", measures.PERCENT, 100))]
        if hasattr(selector, "measure"):
            said.append(words.choice("measure", "Measure of the band", MEASURES))
        if getattr(selector, "shape", None) == "pulse":
            soft = words.number("soft", measures.PERCENT_OF_ONE, 0)
            said.append(format_html("softened {}", soft))
        if hasattr(selector, "edge"):
            said.append(format_html("edges {}", _edge_words(f"{words.path}.edge", selector)))
        if hasattr(selector, "floor"):
            said.append(format_html("at least {}", words.number("floor", SHARE, 0)))
        if hasattr(selector, "phase"):
            said.append(format_html("shifted by {} turns", words.number("phase", TURNS, 0)))
        clauses.append(tight(format_html("The {}: {}.", selector_name(selector.kind), join(said))))
        clauses += [
            track_more(
                f"{words.path}.{field.alias or name}",
                value,
                _name_of(selector.kind, field.alias or name),
            )
            for name, field in type(selector).model_fields.items()
            if isinstance(value := getattr(selector, name), Track)
        ]
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


def _name_of(kind: str, name: str) -> str:
    known = SELECTOR_VALUES.get(kind, {}).get(name, name.replace("_", " "))
    return f"{known} of the {selector_name(kind)}".capitalize()


def new_selectors(size: tuple[int, int]) -> list[tuple[str, dict[str, Any]]]:
    """A selector of each kind to begin with, and what the button for it says."""
    middle = [size[0] / 2, size[1] / 2]
    return [
        ("a sweep", {"kind": "sweep", "low": 0, "high": 40, "soft_low": 20, "soft_high": 20}),
        ("chance", {"kind": "scatter", "seed": 1}),
        ("a wave", {"kind": "wave", "period": 30}),
        ("a shake", {"kind": "jitter", "every": "9/s"}),
        ("a spot", {"kind": "spot", "shape": "round", "center": middle, "inner": 80, "outer": 480}),
        ("a slope", {"kind": "spot", "shape": "slope", "from": [0, middle[1]], "to": middle}),
        ("a band", {"kind": "spot", "shape": "band", "center": middle, "angle": 60, "width": 600}),
    ]


def reach_actions(path: str, reach: tuple[Any, ...]) -> list[dict[str, Any]]:
    """Other ways to say how often a shake is new, as edits with their names."""
    actions = []
    for index, selector in enumerate(reach):
        if selector.kind == "jitter":
            here = f"{path}.reach.{index}.every"
            if selector.every is None:
                edit = {"name": "set-value", "path": here, "value": "9/s"}
                actions.append({"label": "shake so often a second", "edit": edit})
            else:
                edit = {"name": "clear-value", "path": here}
                actions.append({"label": "shake every few frames", "edit": edit})
    return actions
