"""The sentence of a move: who, from where, in which order, for how long."""

from typing import Any

from django.utils.html import format_html
from django.utils.safestring import SafeString, mark_safe

from balletto.scene import measures
from balletto.scene.characters import characters_of
from balletto.scene.document import Scene
from balletto.scene.layers.title import Title
from balletto.scene.measures import Measure
from balletto.scene.moves import Move
from balletto.scene.tracks import Tied, Track
from balletto.scene.value_names import axis_name

from .chips import Chip, choice_chip, number_chip
from .phrases import (
    NOW,
    Moment,
    color,
    ease_words,
    edit_of,
    join,
    number,
    order_words,
    tight,
    track_more,
)
from .reach_sentences import reach_more, reach_words

UNITS = [("character", "character"), ("word", "word"), ("line", "line"), ("title", "title")]
GROUPS = [("word", "words"), ("line", "lines")]

# For each property of a pose: how it is measured, said ("{}" is the value), named in full, and
# the away value it starts with.
POSE_WORDS: dict[str, tuple[Measure, str, str, float]] = {
    "x": (measures.LEFT_RIGHT, "{}", "left or right", -120),
    "y": (measures.ABOVE_BELOW, "{}", "above or below", 100),
    "z": (measures.NEARER_DEEPER, "{}", "depth", 600),
    "rotation": (measures.DEGREES, "turned {}", "turn", -20),
    "rotation_x": (measures.DEGREES, "tipped {}", "tip", 60),
    "rotation_y": (measures.DEGREES, "swung {}", "swing", 60),
    "scale": (measures.PERCENT_OF_ONE, "{} of its size", "size", 0.5),
    "scale_x": (measures.PERCENT_OF_ONE, "{} of its width", "width", 0.5),
    "scale_y": (measures.PERCENT_OF_ONE, "{} of its height", "height", 0.5),
    "opacity": (measures.OPACITY, "{} opaque", "opacity", 0),
    "skew": (measures.DEGREES, "leaning {}", "lean", 20),
    "tracking": (measures.THOUSANDTHS, "spread by {}", "tracking", 300),
    "blur": (measures.BLUR, "blurred by {}", "blur", 12),
    "outline": (measures.OUTLINE, "its outline {} wider", "outline", 4),
    "displace": (measures.BLUR, "its form bent by {}", "bent form", 8),
    "shadow": (measures.OPACITY, "{} of its shadow", "shadow", 0),
    "gather": (measures.PERCENT_OF_ONE_EITHER_WAY, "{} gathered at one point", "gathering", 1),
}
DAMPING = Measure(" %", scale=100, drag=0.005, step=0.05, low=0.01, high=10)


# Colours of a pose: how they are said, named in full, and what they start with.
POSE_COLORS: dict[str, tuple[str, str, str]] = {
    "fill": ("coloured {}", "colour", "#F2B705"),
    "outline_color": ("its outline coloured {}", "colour of the outline", "#F2B705"),
}
PIVOT_OF = [
    ("unit", "its own box"),
    ("word", "its word"),
    ("line", "its line"),
    ("title", "the whole title"),
]


SIDES = [
    ("left", "off the left"),
    ("right", "off the right"),
    ("above", "off the top"),
    ("below", "off the bottom"),
]
MOST_TIMES = 60  # that are offered one by one


def has_pivot(move: Move) -> bool:
    """Whether a move says what it turns and grows about."""
    return bool(move.model_fields_set & {"pivot", "pivot_of"})


class MoveSentence:
    """The words of one move."""

    def __init__(self, scene: Scene, title: Title, move: Move, moment: Moment = NOW):
        self.scene, self.title, self.move = scene, title, move
        self._moment, self._local = moment, moment.of_move(move.start)
        self.path = f"{title.id}.moves.{move.id}"

    def sentence(self) -> SafeString:
        """The whole sentence."""
        clauses = [self._pivot(), self._follow(), self._stagger(), self._course(), self._eases()]
        hidden = ", hidden until its turn" if self.move.until_turn else ""
        if not self.move.reach:
            who = format_html("Each {} {} {}", self._units(), self._verb(), self._pose())
            start = self._start()
            return tight(format_html("{}, {}, from {} on{}.", who, _listed(clauses), start, hidden))
        by = reach_words(self.path, self.move.reach, self._moment, tuple(self.move.pose.given))
        who = format_html("By {}, each {} is taken to {}", by, self._units(), self._pose())
        if self._has_course() or self.move.stagger:
            start = self._start()
            return tight(format_html("{}, {}, from {} on{}.", who, _listed(clauses), start, hidden))
        about = _listed([who, *clauses[:2], clauses[-1]])
        return tight(format_html("{}{}.", about, hidden))

    def more(self) -> list[SafeString]:
        """What is used less, each a clause of its own."""
        clauses = []
        for path, timed, what in self._spreads():
            curve = ease_words(f"{path}.curve", timed.curve, f"Distribution of {what}")
            clauses.append(tight(format_html("Delays of {} spread {}.", what, curve)))
        given = tuple(self.move.pose.given)
        clauses += reach_more(self.path, self.move.reach, self._moment, given)
        keyed = [("amount", self.move.amount, "Amount")]
        is_plain = self._is_plain_course()
        keyed += [
            (f"pose.{name}", value, self._label(name).capitalize())
            for name, value in self.move.pose.given.items()
        ]
        clauses += [
            # The easing of a plain course stands in the sentence.
            track_more(f"{self.path}.{name}", value, label, not (name == "amount" and is_plain))
            for name, value, label in keyed
            if isinstance(value, Track)
        ]
        return clauses

    def _spreads(self) -> list[tuple[str, Any, str]]:
        """The distributions of the stagger: path, distribution, and what it is of."""
        stagger, path = self.move.stagger, f"{self.path}.stagger"
        if stagger is None or stagger.times is not None:
            return []
        spreads = [(path, stagger, f"{self.move.unit}s")]
        if stagger.groups is not None:
            spreads.append((f"{path}.groups", stagger.groups, f"{stagger.groups.by}s"))
        return spreads

    def _label(self, name: str) -> str:
        if name in POSE_COLORS:
            return POSE_COLORS[name][1]
        return (
            POSE_WORDS[name][2] if name in POSE_WORDS else f"font {axis_name(name.split('.')[-1])}"
        )

    def _pivot(self) -> SafeString:
        """The point that units turn and grow about, where it is not their middle."""
        if not has_pivot(self.move):
            return mark_safe("")
        path = f"{self.path}.pivot"
        across, down = (
            number_chip(
                Chip(f"{path}.{axis}", edit_of(f"{path}.{axis}"), f"Pivot {said}"),
                self.move.pivot[axis],
                measures.PERCENT_OF_ONE_EITHER_WAY,
                rest=0.5,
            )
            for axis, said in enumerate(("across", "down"))
        )
        whose = Chip(f"{path}_of", edit_of(f"{path}_of"), "Box of the pivot")
        return format_html(
            "about a point {} across and {} down {}",
            across, down, choice_chip(whose, self.move.pivot_of, PIVOT_OF),
        )  # fmt: skip

    def _follow(self) -> SafeString:
        """The springy lag behind the movement."""
        if self.move.follow is None:
            return mark_safe("")
        path = f"{self.path}.follow"
        frequency, damping = (
            Chip(f"{path}.{name}", edit_of(f"{path}.{name}"), label)
            for name, label in (("frequency", "Frequency"), ("damping", "Damping"))
        )
        return format_html(
            "swinging after at {} damped {}",
            number_chip(frequency, self.move.follow.frequency, measures.HERTZ, rest=2.5),
            number_chip(damping, self.move.follow.damping, DAMPING, rest=0.4),
        )

    def _unit(self) -> SafeString:
        path = f"{self.path}.unit"
        return choice_chip(Chip(path, edit_of(path), "Unit"), self.move.unit, UNITS)

    def _units(self) -> SafeString:
        """The unit, and of which letters where not all take part."""
        if self.move.among is None:
            return self._unit()
        characters = characters_of(self.title.text)
        parts = ["".join(characters[first:end]).strip() for first, end in self.move.among]
        words = " and ".join(f"“{part}”" for part in parts if part) or "letters that are gone"
        return format_html("{} of {}", self._unit(), words)

    def _pose(self) -> SafeString:
        """The away values that the move has."""
        given, said = self.move.pose.given, self._off()
        for name, (measure, words, label, _) in POSE_WORDS.items():
            if name in given:
                path = f"{self.path}.pose.{name}"
                clears = {"name": "clear-value", "path": path}
                more = {"clears": clears, "key_path": path}
                chip = number(path, given[name], measure, label.capitalize(), self._local, **more)
                said.append(format_html(words, chip))
        for name, (words, label, _) in POSE_COLORS.items():
            if name in given:
                path = f"{self.path}.pose.{name}"
                chip = color(path, given[name], label.capitalize(), self._local, key_path=path)
                said.append(format_html(words, chip))
        for name, value in given.items():
            if name.startswith("axes."):
                path, tag = f"{self.path}.pose.{name}", name.removeprefix("axes.")
                clears = {"name": "clear-value", "path": path}
                more = {"clears": clears, "key_path": path}
                label = axis_name(tag).capitalize()
                chip = number(path, value, measures.SIGNED, label, self._local, **more)
                said.append(format_html("{} more {}", chip, axis_name(tag)))
        return join(said, ", ", " and ") if said else mark_safe("its own place")

    def _off(self) -> list[SafeString]:
        """The side of the picture that it leads beyond, where it does."""
        pose, path = self.move.pose, f"{self.path}.pose"
        if pose.off is None:
            return []
        side = Chip(f"{path}.off", edit_of(f"{path}.off"), "Side of the picture")
        said = choice_chip(side, pose.off, SIDES)
        return [format_html("{} by itself", said) if pose.off_of else said]

    def _eases(self) -> SafeString:
        """The eases of single properties."""
        parts = []
        for name, ease in self.move.eases.items():
            label = self._label(name)
            path = f"{self.path}.eases.{name}"
            said = ease_words(path, ease, f"Easing of {label}", between_keys=False)
            parts.append(format_html("{} with {}", label, said))
        return join(parts, ", ", " and ") if parts else mark_safe("")

    def _verb(self) -> str:
        """Where the movement leads: home, away, or there and back."""
        amount = self.move.amount
        if not self._has_course():
            return "is taken to"
        is_homeward = abs(amount.keys[0].value) > abs(amount.keys[-1].value)
        return "comes from" if is_homeward else "goes to"

    def _has_course(self) -> bool:
        return isinstance(self.move.amount, Track) and len(self.move.amount.keys) > 1

    def _is_plain_course(self) -> bool:
        """Whether length and easing say all: two keys, from frame 0 on."""
        amount = self.move.amount
        return isinstance(amount, Track) and len(amount.keys) == 2 and amount.keys[0].at == 0

    def _stagger(self) -> SafeString:
        """One after another, or all together."""
        stagger, path = self.move.stagger, f"{self.path}.stagger"
        if stagger is None:
            return mark_safe("all together")
        if stagger.times is not None:
            return format_html("one by one {} later", self._times(stagger.times))
        said = format_html(
            "one after another {} {}",
            _spread(path, stagger),
            order_words(path, stagger, "Order"),
        )
        if stagger.groups is None:
            return said
        groups, path = stagger.groups, f"{path}.groups"
        by = choice_chip(Chip(f"{path}.by", edit_of(f"{path}.by"), "Groups"), groups.by, GROUPS)
        order = order_words(path, groups, "Order of the groups")
        return format_html(
            "{} in turn {} {} and in each {}", by, _spread(path, groups), order, said
        )

    def _times(self, times: tuple[float, ...]) -> SafeString:
        path = f"{self.path}.stagger.times"
        return join(
            [
                number_chip(
                    Chip(f"{path}.{n}", edit_of(f"{path}.{n}"), f"Time {n + 1}"),
                    time,
                    measures.FRAMES,
                )
                for n, time in enumerate(times)
            ],
            ", ",
            " and ",
        )

    def _course(self) -> SafeString:
        """Length and easing, or the keys of the amount one by one."""
        amount = self.move.amount
        if isinstance(amount, Tied):
            measure = measures.PERCENT_OF_ONE_EITHER_WAY
            return format_html("by {}", number(f"{self.path}.amount", amount, measure, "Amount"))
        if not isinstance(amount, Track):
            if "amount" not in self.move.model_fields_set:
                return mark_safe("")
            chip = Chip(f"{self.path}.amount", edit_of(f"{self.path}.amount"), "Amount")
            measure, here = measures.PERCENT_OF_ONE_EITHER_WAY, f"{self.path}.amount"
            said = number_chip(chip, amount, measure, rest=1, key_path=here)
            return format_html("by {}", said)
        path = f"{self.path}.amount.keys"
        if self._is_plain_course():
            length = Chip(f"{path}.1.at", edit_of(f"{path}.1.at"), "Length")
            return format_html(
                "over {} with {}",
                number_chip(length, amount.keys[1].at, measures.LENGTH, rest=20),
                ease_words(f"{path}.0.ease", amount.keys[0].ease, "Easing", between_keys=True),
            )
        return format_html(
            "by {}",
            number(
                f"{self.path}.amount",
                amount,
                measures.PERCENT_OF_ONE_EITHER_WAY,
                "Amount",
                self._local,
                rest=1,
                key_path=f"{self.path}.amount",
            ),
        )

    def _start(self) -> SafeString:
        return number(f"{self.path}.start", self.move.start, measures.FRAME, "Start", rest=0)


def _spread(path: str, timed: Any) -> SafeString:
    """Gap or span: "every 2 frames", "within 24 frames"."""
    if timed.span is not None:
        chip = Chip(f"{path}.span", edit_of(f"{path}.span"), "Time from first to last")
        return format_html("within {}", number_chip(chip, timed.span, measures.FRAMES, rest=24))
    chip = Chip(f"{path}.gap", edit_of(f"{path}.gap"), "Gap")
    return format_html("every {}", number_chip(chip, timed.gap or 0, measures.FRAMES, rest=2))


def _listed(clauses: list[SafeString]) -> SafeString:
    return join([clause for clause in clauses if clause])
