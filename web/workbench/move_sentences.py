"""The sentence of a move: who, from where, in which order, for how long."""

from typing import Any

from django.utils.html import format_html
from django.utils.safestring import SafeString, mark_safe

from balletto.scene.document import Scene, Title
from balletto.scene.moves import Move
from balletto.scene.tracks import Track

from . import chips
from .chips import Chip, Measure, choice_chip, number_chip
from .reach_sentences import new_selectors, reach_more, reach_words
from .words import ease_words, edit_of, join, number, order_words, tight

UNITS = [("character", "character"), ("word", "word"), ("line", "line"), ("title", "title")]
GROUPS = [("word", "words"), ("line", "lines")]

# For each property of a pose: how it is measured, said ("{}" is the value), named in full, and
# the away value it starts with.
POSE_WORDS: dict[str, tuple[Measure, str, str, float]] = {
    "x": (chips.LEFT_RIGHT, "{}", "left or right", -120),
    "y": (chips.ABOVE_BELOW, "{}", "above or below", 100),
    "z": (chips.NEARER_DEEPER, "{}", "depth", 600),
    "rotation": (chips.DEGREES, "turned {}", "turn", -20),
    "rotation_x": (chips.DEGREES, "tipped {}", "tip forward or back", 60),
    "rotation_y": (chips.DEGREES, "swung {}", "swing left or right", 60),
    "scale": (chips.PERCENT_OF_ONE, "{} of its size", "size", 0.5),
    "scale_x": (chips.PERCENT_OF_ONE, "{} of its width", "width", 0.5),
    "scale_y": (chips.PERCENT_OF_ONE, "{} of its height", "height", 0.5),
    "opacity": (chips.OPACITY, "{} opaque", "opacity", 0),
}


class MoveSentence:
    """The words of one move."""

    def __init__(self, scene: Scene, title: Title, move: Move):
        self.scene, self.title, self.move = scene, title, move
        self.path = f"{title.id}.moves.{move.id}"

    def sentence(self) -> SafeString:
        """The whole sentence."""
        clauses = [self._stagger(), self._course()]
        hidden = ", hidden until its turn" if self.move.until_turn else ""
        if not self.move.reach:
            who = format_html("Each {} {} {}", self._unit(), self._verb(), self._pose())
            start = self._start()
            return tight(format_html("{}, {}, from {} on{}.", who, _listed(clauses), start, hidden))
        by = reach_words(self.path, self.move.reach)
        who = format_html("By {}, each {} is taken to {}", by, self._unit(), self._pose())
        if self._has_course():
            start = self._start()
            return tight(format_html("{}, {}, from {} on{}.", who, _listed(clauses), start, hidden))
        return tight(format_html("{}{}.", who, hidden))

    def more(self) -> list[SafeString]:
        """What is used less, each a clause of its own."""
        stagger, clauses = self.move.stagger, []
        if stagger is not None and stagger.times is None:
            path = f"{self.path}.stagger"
            curve = ease_words(f"{path}.curve", stagger.curve, "Distribution")
            clauses.append(format_html("Delays spread {}.", curve))
            if stagger.order == "shuffle":
                seed = Chip(f"{path}.seed", edit_of(f"{path}.seed"), "Seed of the shuffle")
                chip = number_chip(seed, stagger.seed, chips.WHOLE)
                clauses.append(format_html("Shuffle {}.", chip))
        return clauses + reach_more(self.path, self.move.reach)

    def pose_to_add(self) -> list[dict[str, Any]]:
        """The properties that the pose does not have yet, as edits with their names."""
        return [
            _action(label, edit_of(f"{self.path}.pose.{name}"), start)
            for name, (_, _, label, start) in POSE_WORDS.items()
            if name not in self.move.pose.given
        ]

    def reach_to_add(self) -> list[dict[str, Any]]:
        """Selectors to add, and those there are to take away."""
        where = {"layer": self.title.id, "move": self.move.id}
        added = [
            {"label": label, "edit": {"name": "add-selector", **where, "selector": selector}}
            for label, selector in new_selectors(self.scene.size)
        ]
        removed = [
            {
                "label": f"without the {selector.kind}",
                "edit": {"name": "remove-selector", **where, "index": index},
            }
            for index, selector in enumerate(self.move.reach)
        ]
        return added + removed

    def actions(self) -> list[dict[str, Any]]:
        """Changes of the sentence's shape, as edits with their names."""
        actions = self._stagger_actions()
        path = f"{self.path}.until_turn"
        if self.move.until_turn:
            actions.append(_clear("seen before its turn", path))
        else:
            actions.append(_action("hidden until its turn", edit_of(path), "hidden"))
        if not isinstance(self.move.amount, Track):
            keys = [{"at": 0, "value": 1, "ease": "soft-landing"}, {"at": 20, "value": 0}]
            actions.append(
                _action("give it a length", edit_of(f"{self.path}.amount"), {"keys": keys})
            )
        elif self.move.reach:
            actions.append(_clear("without a length", f"{self.path}.amount"))
        return actions

    def _stagger_actions(self) -> list[dict[str, Any]]:
        stagger, path = self.move.stagger, f"{self.path}.stagger"
        if stagger is None or stagger.times is not None:
            start = {"order": "forward", "gap": 2}
            return [_action("one after another", edit_of(path), start)]
        kept = stagger.model_dump(exclude_unset=True)
        gap, span = kept.pop("gap", None), kept.pop("span", None)
        actions = [_clear("all together", path)]
        if span is None:
            actions.append(_action("say the whole time", edit_of(path), {**kept, "span": 24}))
        else:
            actions.append(_action("say the gap", edit_of(path), {**kept, "gap": 2}))
        if stagger.groups is not None:
            actions.append(_clear("without groups", f"{path}.groups"))
        elif self.move.unit == "character" and gap is not None:
            groups = {"by": "word", "order": "forward", "gap": 12}
            actions.append(_action("words in turn", edit_of(f"{path}.groups"), groups))
        return actions

    def _unit(self) -> SafeString:
        path = f"{self.path}.unit"
        return choice_chip(Chip(path, edit_of(path), "Unit"), self.move.unit, UNITS)

    def _pose(self) -> SafeString:
        """The away values that the move has."""
        said = []
        for name, (measure, words, label, _) in POSE_WORDS.items():
            if name in self.move.pose.given:
                path = f"{self.path}.pose.{name}"
                clears = {"name": "clear-value", "path": path}
                value = self.move.pose.given[name]
                chip = number(path, value, measure, label.capitalize(), clears=clears)
                said.append(format_html(words, chip))
        return join(said, ", ", " and ") if said else mark_safe("its own place")

    def _verb(self) -> str:
        """Where the movement leads: home, away, or there and back."""
        amount = self.move.amount
        if not self._has_course():
            return "is taken to"
        is_homeward = abs(amount.keys[0].value) > abs(amount.keys[-1].value)
        return "comes from" if is_homeward else "goes to"

    def _has_course(self) -> bool:
        return isinstance(self.move.amount, Track) and len(self.move.amount.keys) > 1

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
                    Chip(f"{path}.{n}", edit_of(f"{path}.{n}"), f"Time {n + 1}"), time, chips.FRAMES
                )
                for n, time in enumerate(times)
            ],
            ", ",
            " and ",
        )

    def _course(self) -> SafeString:
        """Length and easing, or the keys of the amount one by one."""
        amount = self.move.amount
        if not self._has_course():
            return mark_safe("")
        path = f"{self.path}.amount.keys"
        if len(amount.keys) == 2 and amount.keys[0].at == 0:
            length = Chip(f"{path}.1.at", edit_of(f"{path}.1.at"), "Length")
            return format_html(
                "over {} with {}",
                number_chip(length, amount.keys[1].at, chips.LENGTH, rest=20),
                ease_words(f"{path}.0.ease", amount.keys[0].ease, "Easing", between_keys=True),
            )
        return format_html(
            "by {}",
            number(f"{self.path}.amount", amount, chips.PERCENT_OF_ONE_EITHER_WAY, "Amount"),
        )

    def _start(self) -> SafeString:
        return number(f"{self.path}.start", self.move.start, chips.FRAME, "Start", rest=0)


def _spread(path: str, timed: Any) -> SafeString:
    """Gap or span: "every 2 frames", "within 24 frames"."""
    if timed.span is not None:
        chip = Chip(f"{path}.span", edit_of(f"{path}.span"), "Time from first to last")
        return format_html("within {}", number_chip(chip, timed.span, chips.FRAMES, rest=24))
    chip = Chip(f"{path}.gap", edit_of(f"{path}.gap"), "Gap")
    return format_html("every {}", number_chip(chip, timed.gap or 0, chips.FRAMES, rest=2))


def _listed(clauses: list[SafeString]) -> SafeString:
    return join([clause for clause in clauses if clause])


def _action(label: str, edit: dict[str, Any], value: Any) -> dict[str, Any]:
    return {"label": label, "edit": {**edit, "value": value}}


def _clear(label: str, path: str) -> dict[str, Any]:
    return {"label": label, "edit": {"name": "clear-value", "path": path}}
