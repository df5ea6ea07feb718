"""The sentence of a move: who, from where or to where, by what, in which order, for how long."""

from dataclasses import dataclass
from itertools import combinations
from string import Formatter
from typing import Any, TypeGuard

import numpy as np

from ...scene.edits.times.keyframes import handles_of, turned_round
from ...scene.layers.title import Run
from ...scene.moving.ease_words import EASES
from ...scene.moving.moves import BecomingShape, GroupMove, LayerMove, Move
from ...scene.pose import PROPERTIES, PoseProperty
from ...scene.shapes import Shape
from ...scene.values import measures
from ...scene.values.measures import Measure
from ...scene.values.tracks import Tied, Track, value_at
from ...scene.values.value_names import axis_name, property_name, property_noun, spoken_axis
from ...scene.values.wording import Said
from ..language.letters import letters_text, quoted
from ..layers.shapes import A_PATH, with_article
from ..titles.wording import run_style_text
from ..wording.parts import say_part, value_of
from ..wording.pieces import Aside, Choice, ColorPiece, Listed, NumberPiece, Pieces, joined, said
from ..wording.texts import text_of
from ..wording.values import ease_pieces, order_pieces
from .pose_words import AXIS_WORDS, BY_ITSELF, SIDES, TIED_WORDS

UNITS = (
    ("character", "Each character"),
    ("word", "Each word"),
    ("line", "Each line"),
    ("title", "The whole title"),
)
_COPIES = (("copy", "Each copy"), ("row", "Each row"), ("column", "Each column"))
UNITS_OF = {
    LayerMove: (("layer", "The whole layer"), *_COPIES),
    GroupMove: (("layer", "The whole layer"), *_COPIES, ("member", "Each member")),
}
GROUPS = (("word", "words"), ("line", "lines"))
PIVOTS = (
    ("unit", "its own box"),
    ("word", "its word"),
    ("line", "its line"),
    ("title", "the whole title"),
)
# Verbs, by where the movement leads: home, away, or neither. Those for a place, and for all else.
COMES, GOES, TAKEN = ("comes from", "starts"), ("goes to", "ends"), ("is taken to", "is")
NOWHERE = "its own place"
TOGETHER = "all together"
HIDDEN, APPEARS = "hidden until its turn", "appears at its turn"
SPACES = "white space too"
OFF = "switched off"
# What a move says of itself, as templates.
ABOUT = "about a point {} across and {} down {}"
FOLLOW = "swinging after at {} damped {}"
EVERY, WITHIN = "every {}", "within {}"
ONE_AFTER_ANOTHER = "one after another {} {}"
ONE_BY_ONE = "one by one {} later"
IN_TURN = "{} in turn {} {} and in each {}"
SPREAD = "spread {}"
OVER = "over {} with {}"
OF_THE_WAY = "{} of the way"
START = "from {} on"
AT_MARKER, WITH_MARKER = "at marker {}", "along with marker {}"
EASED = "{} with {}"
DAMPING = Measure(" %", scale=100, drag=0.005, step=0.05, low=0.01, high=10)
NO_LETTERS = "no letters"
# By where the movement leads, where nothing else of it is said.
BECOMES = {"away": "becomes", "home": "comes back from being", "stays": "is made into"}
THERE = "there"


NamedThings = tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class Names:
    """What a scene has that moves may name: each as it is kept, and as it is told.

    has_copies: whether the layer that moves has some
    """

    sounds: NamedThings = ()
    markers: NamedThings = ()
    has_copies: bool = False


NO_NAMES = Names()


def say_move(move: Move, path: str, text: str | None = None, names: Names = NO_NAMES) -> Pieces:
    """The sentence of a move that stands at `path`; `text` is that of its title, `names` what else
    it could name."""
    return _MoveSaid(move, path, text, names).whole()


def move_text(move: Move, text: str | None = None) -> str:
    """A move as plain text, with its name in front."""
    name = f"{quoted(move.name)}: " if move.name else ""
    whole = text_of(say_move(move, "", text)).removesuffix(".")
    return f"{name}{whole}{'' if move.on else f', {OFF}'}."


def has_pivot(move: Move) -> bool:
    """Whether a move says what it turns and grows about."""
    return bool(move.model_fields_set & {"pivot", "pivot_of"})


def is_plain_course(amount: Any) -> TypeGuard[Track[float]]:
    """Whether length and easing say all of an amount: all of the way home or away, in one go."""
    if not isinstance(amount, Track) or len(amount.keys) != 2:
        return False
    first, last = amount.keys
    is_whole = (first.value, last.value) in ((1, 0), (0, 1))
    return (
        is_whole and first.at == 0 and last.ease == "linear"
        and amount.before == amount.after == "hold"
    )  # fmt: skip


def leads_home(amount: Track[float]) -> bool:
    """Whether there is less of an amount at its end."""
    return abs(amount.keys[0].value) > abs(amount.keys[-1].value)


class _MoveSaid:
    def __init__(self, move: Move, path: str, text: str | None, names: Names):
        self.move, self.path, self.text, self.names = move, path, text, names

    def whole(self) -> Pieces:
        move = self.move
        clauses = [
            *self._who(), self._reach(), self._pivot(), self._follow(), self._stagger(),
            self._course(), self._eases(), self._start(),
            said(HIDDEN) if move.until_turn and not self._just_appears() else (),
            said(SPACES) if move.spaces else (),
        ]  # fmt: skip
        return said("{}.", joined([clause for clause in clauses if clause]))

    # Who goes where

    def _who(self) -> list[Pieces]:
        """Who goes where, and what becomes of them."""
        becomes = self._becomes()
        leads = bool(self.move.pose.given or self.move.pose.off)
        if becomes and not leads:
            return [said("{} {}", self._units(), becomes)]
        if self._just_appears():
            return [said("{} {}", self._units(), APPEARS)]
        return [said("{} {} {}", self._units(), self._verb(), self._pose()), becomes]

    def _just_appears(self) -> bool:
        """Whether units are hidden until their turn, and nothing else is done with them."""
        move = self.move
        does = move.pose.given or move.pose.off or move.becomes or self._has_course()
        return move.until_turn == "hidden" and not does

    def _becomes(self) -> Pieces:
        """The text, or the shape, that it turns into."""
        becoming = self.move.becomes
        if becoming is None:
            return ()
        if isinstance(becoming, BecomingShape):
            return said("{} {}", self._becoming_verb(), _shape(becoming.shape))
        run = Run.model_validate({"from": 0, "to": 1, "style": becoming.style})
        style = run_style_text(run)
        style = style[:1].lower() + style[1:]
        words = quoted(becoming.text)
        told = f"{words}, {THERE} {style}" if style else words
        return said("{} {}", self._becoming_verb(), told)

    def _becoming_verb(self) -> str:
        leads = bool(self.move.pose.given or self.move.pose.off)
        if leads:
            return BECOMES["away"]
        amount = self.move.amount
        if not isinstance(amount, Track) or not self._has_course():
            return BECOMES["stays"]
        return BECOMES["home" if leads_home(amount) else "away"]

    def _units(self) -> Pieces:
        options = UNITS_OF.get(type(self.move), UNITS)
        if self.names.has_copies or self.move.unit in dict(_COPIES):
            options = tuple(dict((*options, *_COPIES)).items())
        unit = Choice(f"{self.path}.unit", "Unit", value=self.move.unit, options=options)
        if self.move.among is None:
            return (unit,)
        return said("{} of {}", unit, " and ".join(self._among()) or NO_LETTERS)

    def _among(self) -> list[str]:
        """The letters that take part."""
        return [letters_text(self.text, *letters) for letters in self.move.among or ()]

    def _verb(self) -> str:
        verbs, amount = TAKEN, self.move.amount
        if isinstance(amount, Track) and self._has_course():
            verbs = COMES if leads_home(amount) else GOES
        given = self.move.pose.given
        is_place = self.move.pose.off or not given
        is_place = is_place or any(
            name in PROPERTIES and PROPERTIES[name].is_way and not isinstance(value, Tied)
            for name, value in given.items()
        )
        return verbs[0] if is_place else verbs[1]

    def _has_course(self) -> bool:
        return isinstance(self.move.amount, Track) and len(self.move.amount.keys) > 1

    def _pose(self) -> Pieces:
        """The away values that the move has."""
        given, parts = self.move.pose.given, self._off()
        parts += [self._property(each) for name, each in PROPERTIES.items() if name in given]
        for name, value in given.items():
            if name.startswith("axes."):
                tag = name.removeprefix("axes.")
                label = axis_name(tag).capitalize()
                number = self._pose_number(name, value, measures.SIGNED, label)
                parts.append(said(AXIS_WORDS, number, spoken_axis(tag)))
        return joined(parts, ", ", " and ") if parts else said(NOWHERE)

    def _property(self, known: PoseProperty) -> Pieces:
        """The away value of one property."""
        value, label = getattr(self.move.pose, known.name), known.label.capitalize()
        if known.measure is None:
            path = f"{self.path}.pose.{known.name}"
            color = ColorPiece(path, label, path, self.move.start, value=value)
            return said(known.words, color)
        number = self._pose_number(known.name, value, known.measure, label)
        if known.is_way and isinstance(value, Tied):
            return said(TIED_WORDS, known.label, number)
        return said(known.words, number)

    def _pose_number(self, name: str, value: Any, measure: Measure, label: str) -> NumberPiece:
        path = f"{self.path}.pose.{name}"
        clears = {"name": "clear-value", "path": path}
        return NumberPiece(path, label, path, self.move.start, None, clears, value, measure)

    def _off(self) -> list[Pieces]:
        """The side of the picture that it leads beyond, where it does."""
        pose = self.move.pose
        if pose.off is None:
            return []
        path = f"{self.path}.pose.off"
        side = Choice(path, "Side of the picture", value=pose.off, options=SIDES)
        return [said(BY_ITSELF, side) if pose.off_of else (side,)]

    # By what

    def _reach(self) -> Pieces:
        """All selectors, joined: "by chance 5, either way, times a sweep from ..."."""
        if not self.move.reach:
            return ()
        given = tuple(self.move.pose.given)
        parts = []
        for index, selector in enumerate(self.move.reach):
            path = f"{self.path}.reach.{index}"
            words = f"{{combine}} {selector.words}" if index else f"by {selector.words}"
            others = {
                name: _of_properties(f"{path}.{name}", selector, name, given)
                for name, how in selector.said.items()
                if how.of_properties
            }
            others |= {
                name: (self._named_sound(f"{path}.{name}", selector, name, how),)
                for name, how in selector.said.items()
                if how.is_name
            }
            if hasattr(selector, "edge"):
                others["edge"] = _edge(f"{path}.edge", selector)
            main = say_part(path, selector, selector.wording(words), **others)
            less = say_part(path, selector, selector.wording(selector.less_used), **others)
            aside = Aside(f"The {selector.title}:", less, _is_usual(selector))
            parts.append((*main, aside))
        return joined(parts)

    def _named_sound(self, path: str, selector: Any, name: str, how: Said) -> Choice:
        """The sound that a selector goes by, among those that the scene has."""
        value = value_of(selector, name)
        options = (*how.options, *self.names.sounds)
        return Choice(path, how.label, value=value, options=options, other=quoted(value or ""))

    # When

    def _pivot(self) -> Pieces:
        """The point that units turn and grow about, where it is not their middle."""
        if not has_pivot(self.move):
            return ()
        path = f"{self.path}.pivot"
        across, down = (
            NumberPiece(f"{path}.{axis}", f"Pivot {way}", value=self.move.pivot[axis],
                   measure=measures.PERCENT_OF_ONE_EITHER_WAY, rest=0.5)
            for axis, way in enumerate(("across", "down"))
        )  # fmt: skip
        whose = Choice(f"{path}_of", "Box of the pivot", value=self.move.pivot_of, options=PIVOTS)
        return said(ABOUT, across, down, whose)

    def _follow(self) -> Pieces:
        """The springy lag behind the movement."""
        follow, path = self.move.follow, f"{self.path}.follow"
        if follow is None:
            return ()
        return said(
            FOLLOW,
            NumberPiece(
                f"{path}.frequency",
                "Frequency",
                value=follow.frequency,
                measure=measures.HERTZ,
                rest=2.5,
            ),
            NumberPiece(
                f"{path}.damping", "Damping", value=follow.damping, measure=DAMPING, rest=0.4
            ),
        )

    def _stagger(self) -> Pieces:
        """One after another, or all together."""
        stagger, path = self.move.stagger, f"{self.path}.stagger"
        if stagger is None:
            return () if self.move.reach and not self._has_course() else said(TOGETHER)
        if stagger.times is not None:
            return said(ONE_BY_ONE, Listed(_times(path, stagger.times)))
        order = order_pieces(path, stagger, "Order")
        parts = said(ONE_AFTER_ANOTHER, _spread(path, stagger), order)
        parts += _curve(path, stagger, f"{self.move.unit}s")
        if stagger.groups is None:
            return parts
        groups, path = stagger.groups, f"{path}.groups"
        by = Choice(f"{path}.by", "Groups", value=groups.by, options=GROUPS)
        order = order_pieces(path, groups, "Order of the groups")
        order += _curve(path, groups, f"{groups.by}s")
        return said(IN_TURN, by, _spread(path, groups), order, parts)

    def _course(self) -> Pieces:
        """Length and easing, or how much of the way it is."""
        amount, path = self.move.amount, f"{self.path}.amount"
        if is_plain_course(amount):
            length = NumberPiece(f"{path}.keys.1.at", "Length", value=amount.keys[1].at,
                            measure=measures.LENGTH, rest=20)  # fmt: skip
            ease = ease_pieces(f"{path}.keys.0.ease", amount.keys[0].ease, "Easing", True)
            return said(OVER, length, ease)
        if not isinstance(amount, Track | Tied) and "amount" not in self.move.model_fields_set:
            return ()
        measure = measures.PERCENT_OF_ONE_EITHER_WAY
        number = NumberPiece(path, "Amount", path, self.move.start, value=amount, measure=measure,
                        rest=1)  # fmt: skip
        return said(OF_THE_WAY, number)

    def _eases(self) -> Pieces:
        """The eases of single properties."""
        parts = []
        for name, ease in self.move.eases.items():
            label = property_name(name)
            pieces = ease_pieces(f"{self.path}.eases.{name}", ease, f"Easing of {label}")
            parts.append(said(EASED, label, pieces))
        return joined(parts, ", ", " and ")

    def _start(self) -> Pieces:
        """The frame that it starts at, where that tells anything."""
        move = self.move
        is_timeless = move.reach and not self._has_course() and not move.stagger
        if is_timeless and not move.start and not move.marker:
            return ()
        path = f"{self.path}.start"
        frame = NumberPiece(path, "Start", value=move.start, measure=measures.FRAME, rest=0)
        if move.marker is None:
            return said(START, frame)
        there = Choice(f"{self.path}.marker", "Marker", edit=self._marker_edit(),
                       value=move.marker, options=self.names.markers,
                       other=quoted(move.marker))  # fmt: skip
        if "start" not in move.model_fields_set:
            return said(AT_MARKER, there)
        return joined([said(START, frame), said(WITH_MARKER, there)])

    def _marker_edit(self) -> dict[str, Any]:
        return {"name": "start-at-marker", "path": self.path}


def _times(path: str, times: tuple[float, ...]) -> Pieces:
    numbers: list[Pieces] = [
        (NumberPiece(f"{path}.times.{n}", f"Time {n + 1}", value=time, measure=measures.FRAMES),)
        for n, time in enumerate(times)
    ]
    return joined(numbers, ", ", " and ")


def _spread(path: str, timed: Any) -> Pieces:
    """Gap or span: "every 2 frames", "within 24 frames"."""
    if timed.span is not None:
        span = NumberPiece(f"{path}.span", "Time from first to last", value=timed.span,
                      measure=measures.FRAMES, rest=24)  # fmt: skip
        return said(WITHIN, span)
    gap = NumberPiece(f"{path}.gap", "Gap", value=timed.gap or 0, measure=measures.FRAMES, rest=2)
    return said(EVERY, gap)


def _curve(path: str, timed: Any, whose: str) -> Pieces:
    """How delays are distributed, where that is not even."""
    ease = ease_pieces(f"{path}.curve", timed.curve, f"Distribution of {whose}")
    return (Aside(f"Delays of {whose}", said(SPREAD, ease), timed.curve == "linear"),)


def _shape(shape: Shape) -> str:
    """A shape as plain text, as a new one is said."""
    drawing = getattr(shape, "path", None)
    if isinstance(drawing, str):
        return f"{A_PATH} {quoted(drawing)}"
    words = text_of(say_part("", shape, shape.wording)).removesuffix(".")
    return f"{with_article(shape.wording.title)} {words}"


# What is said of selectors


def _is_usual(selector: Any) -> bool:
    """Whether all that is used less of a selector is as usual."""
    usual = type(selector).model_fields
    return all(
        value_of(selector, name) == next(
            field.default for key, field in usual.items() if name in (key, field.alias)
        )
        for name in named_in(selector.less_used)
    )  # fmt: skip


def named_in(template: str) -> list[str]:
    """The names in the braces of a template."""
    return [name for _, name, *_ in Formatter().parse(template) if name]


PROPERTY_WORDS = {"only": "{} alone", "one_sided": "one way in {}"}


def _of_properties(path: str, selector: Any, name: str, given: tuple[str, ...]) -> Pieces:
    """What holds for some of the properties that a pose has: for all or none of them, for one, for
    any two, or as it is."""
    how, now = selector.said[name], getattr(selector, name)
    lists = dict.fromkeys([*combinations(given, 1), *combinations(given, 2)])
    if isinstance(now, tuple):
        lists[now] = None
        now = list(now)
    more = [(list(names), PROPERTY_WORDS[name].format(named(names))) for names in lists]
    return (Choice(path, how.label, value=now, options=(*how.options, *more)),)


def named(names: tuple[str, ...]) -> str:
    """Properties in words: "height and depth"."""
    words = [property_noun(name) for name in names]
    return " and ".join([", ".join(words[:-1]), words[-1]] if words[:-1] else words)


def _edge(path: str, selector: Any) -> Pieces:
    """The ease of the edges as the units feel it: those that a band leaves come home on it, from
    whole to none, so that theirs is the ease that is kept turned round."""
    is_plain = isinstance(selector.edge, str)
    edge = selector.edge if is_plain else selector.edge.model_dump(exclude_unset=True)
    if not leaves(selector) or not isinstance(turned_round(edge), str):
        return ease_pieces(path, selector.edge, "Edges")
    felt = tuple((turned_round(ease), words) for ease, words in EASES if handles_of(ease))
    return (Choice(path, "Edges", value=edge, options=felt),)


def leaves(selector: Any) -> bool:
    """Whether a sweep covers less of its title at the end of its travel than at the beginning."""
    if selector.kind != "sweep":
        return False
    values = (selector.low, selector.high, selector.travel)
    tracks = [value for value in values if isinstance(value, Track)]
    if not tracks:
        return False
    times = np.array([key.at for track in tracks for key in track.keys])
    ends = np.array([times.min(), times.max()], dtype=float)
    edges = [value_at(value, ends) for value in (selector.low, selector.high)]
    low, high = np.sort(edges, axis=0) + value_at(selector.travel, ends)
    covered = np.clip(high, 0, 100) - np.clip(low, 0, 100)
    return bool(covered[0] > covered[1])
