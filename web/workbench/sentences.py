"""Sentences: a move, a title's type and its place, said in words with live values."""

import re
from collections.abc import Callable
from typing import Any

from django.utils.html import format_html
from django.utils.safestring import SafeString, mark_safe

from balletto.lettering.faces import axes_of, resting_axes
from balletto.lettering.families import FAMILIES
from balletto.scene.document import Title
from balletto.scene.eases import EASE_NAMES
from balletto.scene.moves import Move, Sweep
from balletto.scene.tracks import Track

from . import chips
from .chips import Chip, Measure, choice_chip, color_chip, number_chip

UNITS = [("character", "character"), ("word", "word"), ("line", "line"), ("title", "title")]
ORDERS = [
    ("forward", "in reading order"),
    ("backward", "from the end back"),
    ("center-out", "from the centre out"),
    ("ends-in", "from the ends in"),
    ("alternate", "every other first"),
    ("shuffle", "shuffled"),
    ("across", "from left to right"),
    ("down", "from top to bottom"),
    ("by-hand", "in an order set by hand"),
]
EASES: list[tuple[Any, str]] = [
    *((name, name.replace("-", " ")) for name in EASE_NAMES),
    ({"spring": 0.4}, "spring"),
    ({"bounce": 3}, "bounce"),
    ({"steps": 4}, "steps"),
]
TRACK_EASES = [*EASES, ("auto", "no overshoot"), ("flow", "a round flow")]
# What each kind of ease has to set, with its name and how it is measured.
EASE_NUMBERS = {
    "spring": (Measure("", drag=0.005, step=0.05, low=0.05, high=1, before="damping"), "Damping"),
    "bounce": (Measure(" rebounds", drag=0.05, low=0, high=20), "Rebounds"),
    "steps": (Measure(" steps", drag=0.05, low=1, high=1000), "Steps"),
}
ALIGNMENTS = [("left", "to the left"), ("center", "centred"), ("right", "to the right")]

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


def _set(path: str) -> dict[str, Any]:
    return {"name": "set-value", "path": path}


def _join(parts: list[SafeString], between: str = ", ", last: str | None = None) -> SafeString:
    if len(parts) > 1 and last is not None:
        parts = [*parts[:-2], format_html("{}{}{}", parts[-2], last, parts[-1])]
    return mark_safe(between.join(parts))  # noqa: S308 - the parts are escaped where they are made


def _tight(sentence: SafeString) -> SafeString:
    """Keeps a comma or full stop on the line of the value before it, by a word joiner."""
    return mark_safe(_BEFORE_PUNCTUATION.sub("\\1\u2060\\2", sentence))  # noqa: S308 - as above


_BEFORE_PUNCTUATION = re.compile("(</span>|</label>)([,.])")


class MoveSentence:
    """The words of one move."""

    def __init__(self, title: Title, move: Move):
        self.move = move
        self.path = f"{title.id}.moves.{move.id}"

    def _number(
        self, name: str, value: Any, measure: Measure, label: str, **more: Any
    ) -> SafeString:
        """A number, or the keys of one: "−40 % at frame 0 to 100 % at frame 60"."""
        path = f"{self.path}.{name}"
        if not isinstance(value, Track):
            return number_chip(Chip(path, _set(path), label), value, measure, **more)
        parts = []
        for index, key in enumerate(value.keys):
            key_path = f"{path}.keys.{index}"
            value_chip = Chip(
                f"{key_path}.value", _set(f"{key_path}.value"), f"{label}, key {index + 1}"
            )
            time_chip = Chip(
                f"{key_path}.at", _set(f"{key_path}.at"), f"{label}, frame of key {index + 1}"
            )
            key_of = more.get("key_path", "")
            parts.append(
                format_html(
                    "{} at {}",
                    number_chip(
                        value_chip,
                        key.value,
                        measure,
                        clears={"name": "remove-key", "path": path, "at": key.at},
                        keyed=True,
                        key_path=key_of,
                    ),
                    number_chip(time_chip, key.at, chips.FRAME),
                )
            )
        return _join(parts, ", then ", " to " if len(parts) == 2 else ", then ")

    def unit(self) -> SafeString:
        path = f"{self.path}.unit"
        return choice_chip(Chip(path, _set(path), "Unit"), self.move.unit, UNITS)

    def pose(self) -> SafeString:
        """The away values that the move has."""
        said = []
        for name, (measure, words, label, _) in POSE_WORDS.items():
            if name in self.move.pose.given:
                path = f"pose.{name}"
                value = self.move.pose.given[name]
                chip = self._number(
                    path,
                    value,
                    measure,
                    label.capitalize(),
                    clears={"name": "clear-value", "path": f"{self.path}.{path}"},
                )
                said.append(format_html(words, chip))
        return _join(said, ", ", " and ") if said else mark_safe("its own place")

    def pose_to_add(self) -> list[dict[str, Any]]:
        """The properties that the pose does not have yet, as edits with their names."""
        return [
            {
                "label": label,
                "edit": {**_set(f"{self.path}.pose.{name}"), "value": start},
            }
            for name, (_, _, label, start) in POSE_WORDS.items()
            if name not in self.move.pose.given
        ]

    def verb(self) -> str:
        """Where the movement leads: home, away, or there and back."""
        amount = self.move.amount
        if not isinstance(amount, Track) or len(amount.keys) < 2:
            return "is taken to"
        if abs(amount.keys[0].value) > abs(amount.keys[-1].value):
            return "comes from"
        return "goes to"

    def stagger(self) -> SafeString:
        """One after another, or all together."""
        stagger = self.move.stagger
        if stagger is None:
            return mark_safe("all together")
        path = f"{self.path}.stagger"
        order = choice_chip(
            Chip(f"{path}.order", _set(f"{path}.order"), "Order"), stagger.order, ORDERS
        )
        if stagger.span is not None:
            chip = Chip(f"{path}.span", _set(f"{path}.span"), "Time from first to last")
            said = number_chip(chip, stagger.span, chips.FRAMES, rest=24)
            return format_html("one after another within {} {}", said, order)
        chip = Chip(f"{path}.gap", _set(f"{path}.gap"), "Gap")
        said = number_chip(chip, stagger.gap or 0, chips.FRAMES, rest=2)
        return format_html("one after another every {} {}", said, order)

    def course(self) -> SafeString:
        """Length and easing, or the keys of the amount one by one."""
        amount = self.move.amount
        if not isinstance(amount, Track):
            return mark_safe("")
        path = f"{self.path}.amount.keys"
        if len(amount.keys) == 2 and amount.keys[0].at == 0:
            length = Chip(f"{path}.1.at", _set(f"{path}.1.at"), "Length")
            return format_html(
                "over {} with {}",
                number_chip(length, amount.keys[1].at, chips.LENGTH, rest=20),
                self._ease("amount.keys.0.ease", amount.keys[0].ease, "Easing", True),
            )
        keys = self._number("amount", amount, chips.PERCENT_OF_ONE, "Amount")
        return format_html("by {}", keys)

    def _ease(self, name: str, ease: Any, label: str, between_keys: bool = False) -> SafeString:
        """The ease, and the number that its kind has."""
        path = f"{self.path}.{name}"
        options = TRACK_EASES if between_keys else EASES
        if isinstance(ease, str):
            return choice_chip(Chip(path, _set(path), label), ease, options)
        kind = next(iter(ease.model_fields_set & set(EASE_NUMBERS)), None)
        of_kind = (value for value, _ in options if isinstance(value, dict) and kind in value)
        choice = choice_chip(Chip(path, _set(path), label), next(of_kind, None), options)
        if kind is None:
            return choice
        measure, said = EASE_NUMBERS[kind]
        chip = Chip(f"{path}.{kind}", _set(f"{path}.{kind}"), said)
        return format_html("{} {}", choice, number_chip(chip, getattr(ease, kind), measure))

    def start(self) -> SafeString:
        return self._number("start", self.move.start, chips.FRAME, "Start", rest=0)

    def sentence(self) -> SafeString:
        """The whole sentence."""
        return _tight(self._reach_sentence() if self.move.reach else self._plain_sentence())

    def _plain_sentence(self) -> SafeString:
        clauses = [self.stagger(), self.course()]
        return format_html(
            "Each {} {} {}, {}, from {} on.",
            self.unit(),
            self.verb(),
            self.pose(),
            _join([clause for clause in clauses if clause]),
            self.start(),
        )

    def _reach_sentence(self) -> SafeString:
        sweeps = [
            self._sweep(selector, index)
            for index, selector in enumerate(self.move.reach)
            if isinstance(selector, Sweep)
        ]
        course = self.course()
        return format_html(
            "{}, taking each {} to {}{}.",
            _join(sweeps, " and "),
            self.unit(),
            self.pose(),
            format_html(", {}, {}", self.stagger(), course) if course else "",
        )

    def _sweep(self, sweep: Sweep, index: int) -> SafeString:
        base = f"reach.{index}"
        percent = chips.PERCENT if sweep.measure == "percent" else chips.UNITS
        soft = chips.SOFTNESS if sweep.measure == "percent" else chips.UNITS

        def value(name: str, measure: Measure, label: str, rest: float) -> SafeString:
            path = f"{self.path}.{base}.{name}"
            return self._number(
                f"{base}.{name}", getattr(sweep, name), measure, label, rest=rest, key_path=path
            )

        return format_html(
            "A sweep from {} to {} of the title, {}, travelling {}, soft {} behind and {} in front",
            value("low", percent, "Start of the sweep", 0),
            value("high", percent, "End of the sweep", 100),
            choice_chip(
                Chip(f"{base}.order", _set(f"{self.path}.{base}.order"), "Order of the sweep"),
                sweep.order,
                ORDERS,
            ),
            value("travel", percent, "Travel of the sweep", 0),
            value("soft_low", soft, "Softness behind", 0),
            value("soft_high", soft, "Softness in front", 0),
        )

    def more(self) -> list[SafeString]:
        """What is used less, each a short clause of its own."""
        stagger, clauses = self.move.stagger, []
        if stagger is not None:
            path = f"{self.path}.stagger"
            curve = self._ease("stagger.curve", stagger.curve, "Distribution")
            clauses.append(format_html("Delays spread {}.", curve))
            if stagger.order == "shuffle":
                seed = Chip(f"{path}.seed", _set(f"{path}.seed"), "Seed of the shuffle")
                clauses.append(
                    format_html("Shuffle {}.", number_chip(seed, stagger.seed, chips.WHOLE))
                )
        for index, selector in enumerate(self.move.reach):
            edge = self._ease(f"reach.{index}.edge", selector.edge, "Edge of the sweep")
            strength = self._number(
                f"reach.{index}.strength", selector.strength, chips.PERCENT, "Strength", rest=100,
                key_path=f"{self.path}.reach.{index}.strength",
            )  # fmt: skip
            clauses.append(format_html("Edges {}, strength {}.", edge, strength))
        return clauses

    def actions(self) -> list[dict[str, Any]]:
        """Changes of the sentence's shape, as edits with their names."""
        path, move = self.path, self.move
        actions: list[dict[str, Any]] = []
        if move.stagger is None:
            start = {"order": "forward", "gap": 2}
            actions.append(_action("one after another", _set(f"{path}.stagger"), start))
        else:
            kept = move.stagger.model_dump(exclude_unset=True)
            kept.pop("gap", None)
            span = kept.pop("span", None)
            other = {**kept, "gap": 2} if span is not None else {**kept, "span": 24}
            label = "say the gap instead" if span is not None else "say the whole time instead"
            actions.append(_action(label, _set(f"{path}.stagger"), other))
            clear = {"name": "clear-value", "path": f"{path}.stagger"}
            actions.append({"label": "all together", "edit": clear})
        if not move.reach:
            sweep = {"kind": "sweep", "low": 0, "high": 40, "soft_low": 20, "soft_high": 20}
            actions.append(_action("add a sweep", _set(f"{path}.reach"), [sweep]))
        else:
            clear = {"name": "clear-value", "path": f"{path}.reach"}
            actions.append({"label": "take the sweep away", "edit": clear})
        if not isinstance(move.amount, Track):
            keys = [{"at": 0, "value": 1, "ease": "soft-landing"}, {"at": 20, "value": 0}]
            actions.append(_action("give it a length", _set(f"{path}.amount"), {"keys": keys}))
        elif move.reach:
            clear = {"name": "clear-value", "path": f"{path}.amount"}
            actions.append({"label": "let the sweep alone say when", "edit": clear})
        return actions


def _action(label: str, edit: dict[str, Any], value: Any) -> dict[str, Any]:
    return {"label": label, "edit": {**edit, "value": value}}


class TypeSentence:
    """How a title, or the letters selected in it, are set."""

    def __init__(self, title: Title, letters: tuple[int, int] | None = None):
        self.title = title
        self.letters = letters
        self.style = title.style.model_dump()
        if letters:
            own = next((run.style for run in title.runs if run.first <= letters[0] < run.end), None)
            said = own.model_dump(exclude_none=True) if own else {}
            axes = {**self.style["axes"], **said.get("axes", {})}
            self.style = {**self.style, **said, "axes": axes}

    def _chip(self, name: str, label: str) -> Chip:
        edit = _set(f"{self.title.id}.style.{name}")
        if self.letters:
            first, end = self.letters
            edit = {
                "name": "style-letters",
                "layer": self.title.id,
                "first": first,
                "end": end,
                "property": name,
            }
        return Chip(f"type.{name}", edit, label)

    def axes(self) -> SafeString:
        """The design axes of the font, each with its own range."""
        font = self.style["font"]
        resting = resting_axes(font, self.style["size"])
        said = []
        for axis in axes_of(font):
            measure = Measure(
                "", drag=(axis.high - axis.low) / 300, step=(axis.high - axis.low) / 100 or 1,
                low=axis.low, high=axis.high, before=AXIS_NAMES.get(axis.tag, axis.name).lower(),
            )  # fmt: skip
            value = self.style["axes"].get(axis.tag, resting[axis.tag])
            chip = self._chip(f"axes.{axis.tag}", axis.name)
            said.append(number_chip(chip, value, measure, rest=resting[axis.tag]))
        return _join(said)

    def sentence(self) -> SafeString:
        """Font, axes, size, tracking, colour; for the whole title also leading and alignment."""
        fonts = [(name, name) for name in FAMILIES]
        axes = self.axes()
        said = format_html(
            "Set in {}{}, {}, spaced {}, coloured {}",
            choice_chip(self._chip("font", "Font"), self.style["font"], fonts),
            format_html(" {}", axes) if axes else "",
            number_chip(self._chip("size", "Size"), self.style["size"], _SIZE, rest=120),
            number_chip(
                self._chip("tracking", "Tracking"), self.style["tracking"], _TRACKING, rest=0
            ),
            color_chip(self._chip("fill", "Colour"), self.style["fill"]),
        )
        if self.letters:
            return _tight(format_html("{}.", said))
        whole = format_html(
            "{}, lines {} apart, {}.",
            said,
            number_chip(
                self._chip("leading", "Leading"), self.style["leading"], _LEADING, rest=1.1
            ),
            choice_chip(self._chip("align", "Alignment"), self.style["align"], ALIGNMENTS),
        )
        return _tight(whole)


AXIS_NAMES = {
    "wght": "weight", "wdth": "width", "opsz": "optical size", "slnt": "slant", "CASL": "casual",
    "CRSV": "cursive", "MONO": "mono", "SOFT": "softness", "WONK": "wonk",
}  # fmt: skip
_SIZE = Measure(" px", drag=0.5, low=1)
_TRACKING = Measure(" ‰", drag=1)
_LEADING = Measure(" ×", drag=0.01, step=0.05, low=0.05)


def place_sentence(title: Title, now: Callable[[Any], Any]) -> SafeString:
    """Where a title stands. `now` gives the value that a property has at the playhead."""
    base = f"{title.id}.transform"
    transform = title.transform

    def part(
        name: str, label: str, measure: Measure, index: int | None, rest: float | None
    ) -> SafeString:
        value = getattr(transform, name)
        at_playhead = now(value)
        path = f"{base}.{name}" if index is None else f"{base}.{name}.{index}"
        return number_chip(
            Chip(path, _set(path), label),
            at_playhead if index is None else at_playhead[index],
            measure,
            rest=rest,
            keyed=isinstance(value, Track),
            key_path=f"{base}.{name}",
        )

    whole = format_html(
        "Stands {} across, {} down and {}, turned {}, {} wide and {} high, {} opaque.",
        part("position", "Across", chips.PIXELS, 0, None),
        part("position", "Down", chips.PIXELS, 1, None),
        part("position", "Depth", chips.NEARER_DEEPER, 2, 0),
        part("rotation", "Turn", chips.DEGREES, 2, 0),
        part("scale", "Width", chips.PERCENT_OF_ONE, 0, 1),
        part("scale", "Height", chips.PERCENT_OF_ONE, 1, 1),
        part("opacity", "Opacity", chips.OPACITY, None, 1),
    )
    return _tight(whole)
