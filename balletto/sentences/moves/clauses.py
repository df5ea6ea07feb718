"""The clauses of a move: what is typed of it, and what each of them says."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from ...scene.letters.characters import place_in
from ...scene.pose import PROPERTIES, PoseProperty
from ...scene.pose.base import Verb, verbs_of
from ...scene.values import measures
from ...scene.values.value_names import AXES, property_name, property_noun
from ..language.rules import Pattern, elements_of, row
from ..language.terms import (
    ColorOf,
    EaseOf,
    Element,
    ListOf,
    Literal,
    Maybe,
    NumberOf,
    Option,
    OrderOf,
    Reading,
    ReadValues,
    StringOf,
    TimeOf,
)
from . import wording as words
from .draft import MoveDraft
from .pose_words import AXIS_WORDS, SIDES
from .selectors import SelectorRead, selector_patterns
from .verbs import VERBS

_UNITS = (
    ("character", "letters"), ("word", "words"), ("line", "lines"), ("title", "the whole title"),
    *words.UNITS,
    ("layer", "the whole layer"), ("layer", "layer"), ("layer", "the whole group"),
    ("member", "each member"), ("member", "members"), ("member", "every member"),
    ("copy", "copies"), ("copy", "each copy"), ("copy", "every copy"),
    ("row", "rows"), ("row", "each row"), ("column", "columns"), ("column", "each column"),
    ("character", "character"), ("word", "word"), ("line", "line"), ("title", "title"),
    ("title", "each title"), ("title", "whole"), ("title", "it"), ("title", "all of it"),
    ("character", "every character"), ("word", "every word"), ("line", "every line"),
)  # fmt: skip

# Units that no title has.
UNITS_OF_LAYERS = ("layer", "member", "copy", "row", "column")


def nouns() -> tuple[tuple[str, str], ...]:
    """What all properties of a pose are called where several are named."""
    names = [*PROPERTIES, *(f"axes.{tag}" for tag in AXES)]
    found = [(name, property_noun(name)) for name in names]
    return (*found, *((name, property_name(name)) for name in names))


RARE = 90  # the rank from which on clauses are understood, but not offered

Act = Callable[["MoveDraft", ReadValues], None]


@dataclass(frozen=True)
class Clause:
    """A pattern and what it does; `name` is what it says, for those that are said once; `rank`
    where it stands among what may come next, `group` what it is about."""

    pattern: Pattern
    act: Act
    name: str = ""
    rank: int = 50
    group: str = ""


# The clauses


def _clauses() -> list[Clause]:
    return sorted(
        [
            replace(clause, group=group, pattern=_known(clause))
            for group, clauses in (
                ("who", _who()),
                ("where", _poses()),
                ("when", _when()),
                ("more", _rest_of_it()),
            )
            for clause in clauses
        ],
        key=lambda clause: -len(clause.pattern.elements),
    )


def _known(clause: Clause) -> Pattern:
    """The pattern of a clause, which knows whether it is rarely meant."""
    return replace(clause.pattern, is_rare=clause.rank >= RARE)


def _pattern(template: str, *elements: Element) -> Pattern:
    """A template with elements in its braces, in turn."""
    named = {str(n): element for n, element in enumerate(elements)}
    numbers = iter(named)
    numbered = "".join(
        part if not index else f"{{{next(numbers)}}}{part}"
        for index, part in enumerate(template.split("{}"))
    )
    return Pattern(tuple(elements_of(numbered, named)))


def _words(text: str) -> Pattern:
    """Words that are read as one."""
    return Pattern((Literal(text),))


def _who() -> list[Clause]:
    """Units, and of which letters."""

    def unit(draft: MoveDraft, values: ReadValues) -> None:
        draft.data["unit"] = values["unit"]
        draft.by = False

    def letters(draft: MoveDraft, values: ReadValues) -> None:
        ranges = draft.data.setdefault("among", [])
        ranges.append([values["first"] - 1, values["last"]])

    def no_letters(draft: MoveDraft, _: ReadValues) -> None:
        draft.data.setdefault("among", [])

    def written(draft: MoveDraft, values: ReadValues) -> None:
        ranges = draft.data.setdefault("among", [])
        found = place_in(draft.text, values["words"])
        if found is None:
            raise NotSaid("there are no such letters in the title")
        ranges.append(list(found))

    whole = [NumberOf(name, measures.WHOLE, is_plain=True) for name in ("first", "last")]
    return [
        Clause(Pattern((Option("unit", _UNITS),)), unit, "unit", 1),
        Clause(row("of", "character", whole[0], "to", whole[1]), letters, "among", 60),
        Clause(row("character", whole[0], "to", whole[1]), letters, "among", 90),
        Clause(row("of", "no letters"), no_letters, "among", 95),
        Clause(row("of", StringOf("words")), written, "among", 60),
        Clause(row(StringOf("words")), written, "among", 90),
    ]


class NotSaid(Exception):
    """A clause that fits means nothing here; what is refused is noted in the reading."""


def _poses() -> list[Clause]:
    """Where it comes from or goes to."""

    def setting(name: str) -> Act:
        return lambda draft, values: draft.set_pose(name, values[name])

    def keyed(name: str) -> Act:
        def add(draft: MoveDraft, values: ReadValues) -> None:
            ease = {"ease": values["ease"]} if "ease" in values else {}
            draft.add_key(name, {"at": values["at"], "value": values[name], **ease})

        return add

    clauses = []
    for name, known in PROPERTIES.items():
        if known.measure is None:
            color = _pattern(known.words, ColorOf(name))
            clauses.append(Clause(color, setting(name), f"pose.{name}", 20))
            continue
        number = NumberOf(name, known.measure, known.is_way, known.start)
        pattern = _pattern(known.words, number)
        clauses.append(Clause(pattern, setting(name), f"pose.{name}", _likelihood(known)))
        then = Pattern((*pattern.elements, *_AT_A_TIME))
        clauses.append(Clause(then, keyed(name), f"pose.{name}", 95))
        tied = Pattern((Literal("its"), Literal(known.label), NumberOf(name, known.measure)))
        clauses.append(Clause(tied, setting(name), f"pose.{name}", 95))
    down = Pattern((NumberOf("y", measures.PIXELS), Literal("down")))
    clauses.append(Clause(down, setting("y"), "pose.y", 95))
    for side, sign in (("to the left", -1), ("to the right", 1)):

        def aside(draft: MoveDraft, values: ReadValues, sign: int = sign) -> None:
            draft.set_pose("x", sign * values["x"])

        clauses.append(
            Clause(row(NumberOf("x", measures.PIXELS, is_plain=True), side), aside, "pose.x", 95)
        )
    return [*clauses, *_axes(), *_sides(), *_verbs(), *_said_alone(), *_pulsing()]


def _likelihood(known: PoseProperty) -> int:
    return 10 + (_LESS_LIKELY if known.likely is None else known.likely)


_LESS_LIKELY = 7  # than those that say how likely they are


def _axes() -> list[Clause]:
    def axis(draft: MoveDraft, values: ReadValues) -> None:
        draft.set_pose(f"axes.{values['axis']}", values["value"])

    named = tuple((tag, called) for tag, called in AXES.items())
    number = NumberOf("value", measures.SIGNED)
    return [
        Clause(_pattern(AXIS_WORDS, number, Option("axis", named)), axis, "pose.axes", 30),
        Clause(_pattern(AXIS_WORDS, number, StringOf("axis")), axis, "pose.axes", 95),
    ]


def _sides() -> list[Clause]:
    def off(draft: MoveDraft, values: ReadValues) -> None:
        draft.pose["off"] = values["off"]

    def alone(draft: MoveDraft, _: ReadValues) -> None:
        draft.pose["off_of"] = "unit"

    return [
        Clause(Pattern((Option("off", SIDES),)), off, "pose.off", 15),
        Clause(_words("by itself"), alone, "pose.off_of", 70),
    ]


COMES_AND_GOES = (
    "this comes, and it goes: say each in a sentence of its own, as “fade out from 70 on”"
)


# Which belong to the verb before them: "fade to grey".
_PREPOSITIONS = ("from", "to")


def _lead(draft: MoveDraft, where: str) -> None:
    """Where a verb leads, if none before it said so. What comes cannot go in one sentence: "fade
    in, fade out"."""
    if {draft.leads, where} == {"home", "away"}:
        raise NotSaid(COMES_AND_GOES)
    draft.leads = draft.leads or where


def _verbs() -> list[Clause]:
    def leading(where: str, text: str) -> Act:
        def lead(draft: MoveDraft, _: ReadValues) -> None:
            if text in _PREPOSITIONS:
                draft.leads = draft.leads or where
            else:
                _lead(draft, where)

        return lead

    clauses = [
        Clause(_words(text), leading(where, text), "verb", 2 if number < 1 else RARE)
        for where, texts in VERBS.items()
        for number, text in enumerate(texts)
    ]

    def by(draft: MoveDraft, _: ReadValues) -> None:
        draft.by = True

    def nowhere(draft: MoveDraft, _: ReadValues) -> None:
        draft.is_nowhere = True

    def appears(draft: MoveDraft, _: ReadValues) -> None:
        draft.is_nowhere, draft.leads = True, "stays"
        draft.data["until_turn"] = "hidden"

    def out(draft: MoveDraft, _: ReadValues) -> None:
        draft.leads = "away"

    def into(draft: MoveDraft, _: ReadValues) -> None:
        draft.leads = "home"

    def nothing(draft: MoveDraft, _: ReadValues) -> None:
        """Words that change nothing."""

    clauses.append(Clause(_words("by"), by, "", 40))
    clauses.append(Clause(_words(words.NOWHERE), nowhere, "pose", 99))
    clauses.append(Clause(_words(words.APPEARS), appears, "until_turn", 98))
    clauses.append(Clause(_words("in"), into, "verb", 99))
    clauses.append(Clause(_words("out"), out, "", 99))
    clauses += [Clause(_words(text), nothing, "", 99) for text in ("of the title", "then", "up to")]
    return clauses


def _said_alone() -> list[Clause]:
    """Verbs that name a property, with a number or without."""
    clauses = []
    known: set[Verb] = set()
    for text, what, verb in verbs_of(PROPERTIES.values()):
        measure = what.measure
        assert measure is not None  # colours have no verbs
        plain = measures.PIXELS if measure.below else measure

        def number(draft: MoveDraft, values: ReadValues, name: str = what.name,
                   verb: Verb = verb) -> None:  # fmt: skip
            _lead(draft, verb.leads)
            value = values["value"]
            draft.set_pose(name, value * verb.sign if verb.sign < 0 else value)

        def alone(
            draft: MoveDraft, _: ReadValues, name: str = what.name, verb: Verb = verb
        ) -> None:
            _lead(draft, verb.leads)
            draft.set_pose(name, verb.usual * verb.sign)

        name = f"pose.{what.name}"
        rank = 3 if verb not in known else RARE
        known.add(verb)
        likely = NumberOf("value", plain, example=verb.usual, is_plain=verb.sign < 0)
        with_number = Pattern((Literal(text), likely))
        if what.name not in ("opacity",):
            clauses.append(Clause(with_number, number, name, rank))
        clauses.append(Clause(_words(text), alone, name, rank + 1))
    return clauses


def _pulsing() -> list[Clause]:
    """Growing as loud as the low tones of what is heard, which hold the beat."""

    def pulse(draft: MoveDraft, _: ReadValues) -> None:
        loudness = next(each for each in selector_patterns(nouns()) if each.kind == "loudness")
        draft.set_pose("scale", _PULSE)
        draft.selectors.append(SelectorRead(loudness, {"band": "low"}, {"band"}))

    texts = [f"{verb} with {what}" for verb in ("pulse", "pulses", "pulsing")
             for what in ("the music", "music", "the beat", "the sound")]  # fmt: skip
    return [Clause(_words(text), pulse, "pulse", 9 if not n else RARE)
            for n, text in enumerate(texts)]  # fmt: skip


_PULSE = 1.2

# Acts of clauses about time


def _set(name: str) -> Act:
    """Sets a value of the move."""
    return lambda draft, values: draft.data.update({name: values[name]})


def _time(name: str) -> Act:
    """Sets a value of the stagger, or of its groups."""

    def set_one(draft: MoveDraft, values: ReadValues) -> None:
        for other in ("gap", "span") if name in ("gap", "span") else ():
            draft.timed.pop(other, None)
        draft.timed[name] = values[name]

    return set_one


def _one_by_one(draft: MoveDraft, values: ReadValues) -> None:
    draft.data["stagger"] = {"times": values["times"]}


def _in_turn(draft: MoveDraft, values: ReadValues) -> None:
    draft.data.setdefault("stagger", {})["groups"] = {"by": values["by"], "gap": 12}
    draft.in_groups = True


def _in_each(draft: MoveDraft, _: ReadValues) -> None:
    draft.in_groups = False


def _length(draft: MoveDraft, values: ReadValues) -> None:
    draft.length = values["length"]


def _when() -> list[Clause]:
    """One after another, for how long, from when on."""
    share = NumberOf("amount", measures.PERCENT_OF_ONE_EITHER_WAY)
    frames = NumberOf("length", measures.LENGTH, example=20)
    times = ListOf("times", measures.FRAMES)
    gap = NumberOf("gap", measures.FRAMES, example=2)
    span = NumberOf("span", measures.FRAMES, example=24)
    place, start = Option("by", words.GROUPS), TimeOf("start")
    marker = StringOf("marker")
    soft = Pattern((Literal("soft"),), (("ease", "soft-both"),))
    ordered: Act = lambda draft, values: draft.timed.update(values)  # noqa: E731
    begin: Act = lambda draft, _: draft.data.setdefault("stagger", {})  # noqa: E731
    together: Act = lambda draft, _: draft.data.pop("stagger", None)  # noqa: E731
    ease: Act = lambda draft, values: draft.set_ease(values["ease"])  # noqa: E731
    home: Act = lambda draft, values: draft.home_at(values["at"])  # noqa: E731
    return [
        Clause(_words("one after another"), begin, "stagger", 25),
        Clause(_words(words.TOGETHER), together, "stagger", 26),
        Clause(row("one by one", times, "later"), _one_by_one, "stagger", 70),
        Clause(row("one by one", times), _one_by_one, "stagger", 95),
        Clause(row(place, "in turn"), _in_turn, "groups", 45),
        Clause(_words("in each"), _in_each, "", 46),
        Clause(row("every", gap), _time("gap"), "gap", 22),
        Clause(row("within", span), _time("span"), "gap", 35),
        Clause(row(OrderOf()), ordered, "order", 30),
        Clause(row("spread", EaseOf("curve")), _time("curve"), "curve", 75),
        Clause(row("over", frames), _length, "amount", 23),
        Clause(row(EaseOf("ease")), ease, "ease", 24),
        Clause(soft, ease, "ease", 95),
        Clause(_pattern(words.OF_THE_WAY, share), _set("amount"), "amount", 65),
        Clause(row("home", "at", TimeOf("at")), home, "", 80),
        Clause(row("from", start, "on"), _set("start"), "start", 28),
        Clause(row("from", "frame", start), _set("start"), "start", 95),
        Clause(row("at", "frame", start), _set("start"), "start", 95),
        Clause(row("from", _PlainTime("start")), _set("start"), "start", 95),
        Clause(row("starting", "at", start), _set("start"), "start", 95),
        Clause(row("at marker", marker), _set("marker"), "marker", 60),
        Clause(row("from marker", marker, "on"), _set("marker"), "marker", 95),
        Clause(row("along with marker", marker), _set("marker"), "marker", 75),
    ]


_AT_A_TIME = (Literal("at"), TimeOf("at"), Maybe(EaseOf("ease")))


@dataclass(frozen=True)
class _PlainTime(Element):
    """A number that says a time by itself: with nothing behind it that makes it a place."""

    name: str

    def take(self, reading: Reading, into: ReadValues) -> bool:
        atom, behind = reading.atom(), reading.atom(1)
        if atom is None or not atom.is_plain:
            return False
        if behind is not None and behind.kind == "word" and behind.phrase in _CONTINUES:
            return False
        return NumberOf(self.name, measures.FRAME).take(reading, into)

    def told(self) -> list[str]:
        return []


def _continuing() -> frozenset[tuple[str, ...]]:
    """Words that go on with a number before them."""
    texts = [known.words.removeprefix("{} ") for known in PROPERTIES.values()]
    texts += ["more", "of the way", "down"]
    return frozenset(Literal(text).phrase for text in texts if "{}" not in text)


_CONTINUES = _continuing()


def _rest_of_it() -> list[Clause]:
    """Pivot, follow, eases of single properties, and what is switched."""

    def pivot(draft: MoveDraft, values: ReadValues) -> None:
        draft.data["pivot"] = [values["across"], values["down"]]
        draft.data["pivot_of"] = values["pivot_of"]

    def follow(draft: MoveDraft, values: ReadValues) -> None:
        follow = draft.data.setdefault("follow", {"frequency": 2.5, "damping": 0.4})
        follow.update(values)

    def eased(draft: MoveDraft, values: ReadValues) -> None:
        draft.data.setdefault("eases", {})[values["name"]] = values["ease"]

    def switched(name: str, value: Any) -> Act:
        return lambda draft, _: draft.data.update({name: value})

    share = measures.PERCENT_OF_ONE_EITHER_WAY
    named = tuple((name, called) for name, called in nouns())
    about = _pattern(
        words.ABOUT, NumberOf("across", share), NumberOf("down", share),
        Option("pivot_of", words.PIVOTS),
    )  # fmt: skip
    swinging = _pattern(
        words.FOLLOW, NumberOf("frequency", measures.HERTZ), NumberOf("damping", words.DAMPING)
    )
    return [
        Clause(about, pivot, "pivot", 72),
        Clause(swinging, follow, "follow", 71),
        Clause(Pattern((Literal("swinging after"), Literal("at"),
                        NumberOf("frequency", measures.HERTZ))), follow, "follow", 95),
        Clause(_words("swinging after"), follow, "follow", 71),
        Clause(Pattern((Option("name", named), EaseOf("ease"))), eased, "eases", 55),
        Clause(_words(words.HIDDEN), switched("until_turn", "hidden"), "until_turn", 50),
        Clause(_words(words.SPACES), switched("spaces", True), "spaces", 80),
        Clause(_words(words.OFF), switched("on", False), "on", 90),
    ]  # fmt: skip


CLAUSES = _clauses()
