"""Moves as people say them: what ways of speaking tell of one, fact by fact."""

import re
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from ..scene.letters.characters import characters_of


class Marks(dict[str, str]):
    """What is put together at the end; it knows what of it was not used."""

    def __init__(self) -> None:
        super().__init__()
        self.used: set[str] = set()

    def __contains__(self, name: object) -> bool:
        self.used.add(str(name))
        return super().__contains__(name)

    def __getitem__(self, name: str) -> str:
        self.used.add(name)
        return super().__getitem__(name)

    def get(self, name: str, default: str = "") -> str:  # type: ignore[override]
        """What was said of it."""
        self.used.add(name)
        return super().get(name, default)

    @property
    def unused(self) -> set[str]:
        """What was said, and nothing was made of."""
        return set(self) - self.used


@dataclass
class SaidMove:
    """A move as far as it was told, in pieces of our wording.

    lead: home, away, stay; poses: where it comes from or goes to; clauses: all else
    ways: kind, direction and length of ways; props: properties with their values
    topic: what was spoken of last, to which values belong that stand alone
    weak: poses that are meant where no others are; marks: what is put together at the end
    assumed: what was not said and is needed
    """

    lead: str = ""
    unit: str = ""
    poses: list[str] = field(default_factory=list)
    weak: list[str] = field(default_factory=list)
    clauses: list[str] = field(default_factory=list)
    ways: list[tuple[str, str, str]] = field(default_factory=list)
    props: list[tuple[str, list[Any]]] = field(default_factory=list)
    topic: str = ""
    ease: str = ""
    length: str = ""
    gap: str = ""
    order: str = ""
    marks: Marks = field(default_factory=Marks)
    assumed: list[str] = field(default_factory=list)
    rate: float = 30  # frames a second
    text: str = ""  # of the title
    end: float = 0  # the frame at which its layer ends, 0 if there is none
    came: tuple[int, int, int] = (0, 0, 0)  # poses, ways and values of how it comes, if it pauses
    came_by: frozenset[str] = frozenset()  # and the marks of that

    def assume(self, text: str) -> str:
        """Text that is needed and was not said."""
        self.assumed.append(text)
        return text

    def has(self, *words: str) -> bool:
        """Whether one of these words stands in where it comes from or goes to."""
        return any(word in pose for pose in self.poses for word in words)

    @property
    def has_start(self) -> bool:
        """Whether it was told from when on."""
        return any(clause.startswith(("from ", "at marker")) for clause in self.clauses)

    def names(self, *names: str) -> bool:
        """Whether values were told of one of these properties."""
        return any(name in names for name, _ in self.props)


Fact = Callable[[SaidMove, str], None]

# What is spoken of, by what a fact says: values behind it are of that.
_TOPICS = (
    ("@move", "way"), ("@from", "way"), ("@to ", "way"), ("@spin", "rotation"),
    ("@roll", "rotation"), ("@turning", "rotation"), ("@flip", "rotation_y"),
    ("@swing", "rotation"), ("@axis tipped", "rotation_x"), ("@tipping", "rotation_x"),
    ("@wave size", "scale"), ("@creep", "scale"), ("@rest", "scale"), ("@usual blur", "blur"),
    ("@stretch height", "scale_y"), ("@stretch width", "scale_x"), ("of its size", "scale"),
    ("of its height", "scale_y"), ("of its width", "scale_x"), ("opaque", "opacity"),
    ("@shake", "shake"), ("@random", "shake"),
)  # fmt: skip
_EASES = re.compile(
    r"(soft (start|landing|both)|quick landing|linear|overshoot|wind up|spring.*|bounce.*|hold|"
    r"a curve of its own .*)\??$"
)
_CLAUSES = re.compile(
    r"(opacity|fill) with|at marker|hidden until|white space|swinging|by itself|\(.*of the way|"
    r"by (alternately|a)|spread soft|words in turn|from .* on$"
)


def take(move: SaidMove, facts: tuple[str, ...]) -> None:
    """Takes what ways of speaking mean."""
    for fact in filter(None, facts):
        move.topic = next((name for words, name in _TOPICS if words in fact), move.topic)
        if fact.startswith("@"):
            name, _, rest = fact[1:].partition(" ")
            _FACTS.get(name.rstrip("?"), _mark(name))(move, rest.strip())
        else:
            _take_plain(move, fact)


def _mark(name: str) -> Fact:
    return lambda move, rest: move.marks.__setitem__(name, rest or "yes")


def _take_plain(move: SaidMove, fact: str) -> None:
    """A fact in our wording, by what it begins with."""
    first, _, rest = fact.partition(" ")
    if fact in _ALONE:
        _ALONE[fact](move, fact)
    elif _EASES.match(fact):
        _take_ease(move, fact)
    elif _CLAUSES.match(fact):
        move.clauses.append(fact)
    elif first in _BY_FIRST_WORD and rest:
        _BY_FIRST_WORD[first](move, rest)
    elif fact.endswith("?"):
        move.weak.append(fact.removesuffix("?"))
    else:
        move.poses.append(fact)


def _held(move: SaidMove, rest: str) -> None:
    """A pause, for or until a time: what comes behind it is how it goes."""
    move.marks["held"] = rest
    move.marks["came over"], move.length = move.length or "20", ""
    move.came = len(move.poses), len(move.ways), len(move.props)
    move.came_by = frozenset(move.marks)


def _lead(move: SaidMove, fact: str) -> None:
    if {move.lead, fact} == {"home", "away"}:
        if "gather" in move.marks:  # what is scattered first
            move.lead = "home"
            return
        move.marks["both"] = "yes"
    if fact == "away" and move.marks.get("held"):
        move.marks["both"] = "yes"
    move.lead = move.lead if move.lead and fact == "home" else fact


def _unit(move: SaidMove, unit: str) -> None:
    if not move.unit or move.unit == "the whole title":
        move.unit = unit


def _take_ease(move: SaidMove, fact: str) -> None:
    """An ease; one that is only likely, or less exact, does not take the place of another."""
    is_known = bool(move.ease) and (fact.endswith("?") or fact == "linear")
    is_less = move.ease.startswith(fact.split()[0]) and len(fact) <= len(move.ease)
    if not is_known and not is_less:
        move.ease = fact.rstrip("?")


def _order(move: SaidMove, order: str) -> None:
    move.order = order


def _over(move: SaidMove, length: str) -> None:
    move.length = length


def _within_each(move: SaidMove, units: str) -> None:
    """What is said from here on is of what is within a word or a line."""
    move.marks["within"], move.unit = units, "letters"
    if move.gap:
        move.marks["outer"], move.gap = move.gap.removeprefix("every "), ""


def _becomes(move: SaidMove, text: str) -> None:
    move.clauses.append(f"become {text}")
    move.marks["becomes"] = "yes"


def _is(move: SaidMove, course: str) -> None:
    move.lead = "stay"
    move.poses.append(course)


def _gap_of(words: str) -> Fact:
    return lambda move, length: setattr(move, "gap", f"{words} {length}")


_ALONE: dict[str, Fact] = {
    **dict.fromkeys(("home", "away", "stay"), _lead),
    "home?": lambda move, fact: _mark("maybe home")(move, ""),
    "away?": lambda move, fact: _mark("maybe away")(move, ""),
    "each": lambda move, fact: _mark("each")(move, ""),
    "smoothly?": lambda move, fact: _mark("smoothly")(move, ""),
    "note": lambda move, fact: None,
}
_BY_FIRST_WORD: dict[str, Fact] = {
    "unit": _unit, "order": _order, "over": _over, "every": _gap_of("every"),
    "within": _gap_of("within"), "overlap": _mark("overlap"), "among": _mark("among"),
    "become": _becomes, "is": _is,
}  # fmt: skip


def _way(kind: str) -> Fact:
    """A way that things go, or the side that they come from or leave to."""

    def note(move: SaidMove, rest: str) -> None:
        direction, _, length = rest.partition(" ")
        same = [n for n, way in enumerate(move.ways) if way[:2] == (kind, direction)]
        if not same:
            move.ways.append((kind, direction, length))
        elif length:
            move.ways[same[0]] = (kind, direction, length)

    return note


def _ordinal(move: SaidMove, rest: str) -> None:
    """A word, a line or a letter by its place in the title: "word 2", "letter -1"."""
    unit, place = rest.split()
    parts = {"word": move.text.split(), "line": move.text.split("\n")}
    try:
        if unit in parts:
            at = int(place)
            move.marks["among"] = f"“{parts[unit][at - 1 if at > 0 else at].strip()}”"
        else:
            number = 1 if place == "1" else len(characters_of(move.text))
            move.marks["among"] = f"letters {number} to {number}"
    except IndexError:
        move.marks["no such"] = rest  # which nothing can be made of


def _prop(move: SaidMove, rest: str) -> None:
    """A property with its values in turn: "scale 100 120 100"."""
    name, *values = rest.split()
    move.props.append((name, [float(value.strip("°%").replace("−", "-")) for value in values]))


def _course(move: SaidMove, rest: str) -> None:
    _, first, last = rest.split(" ", 2)
    move.marks["course"] = f"{first} {last}"
    move.lead = "stay"


def _groups(move: SaidMove, rest: str) -> None:
    """Letters that go together by so many, white space aside."""
    letters = [each for each in characters_of(move.text) if not each.isspace()]
    count = max(round(float(rest.replace("−", "-"))), 1)
    places = ", ".join(str(number // count) for number in range(len(letters)))
    move.order = f"in an order set by hand ({places})"


def _vowels(move: SaidMove, rest: str) -> None:
    """Those letters of its title that are vowels."""
    places = [at for at, each in enumerate(characters_of(move.text), 1) if each in _VOWELS]
    told = " and ".join(f"letters {at} to {at}" for at in places)
    move.marks["among" if places else "no such"] = told


_VOWELS = frozenset("aeiouAEIOUäöüÄÖÜáéíóúàèìòùâêîôû")


def _whole(move: SaidMove, rest: str) -> None:
    """As long as its layer, at a steady pace."""
    move.length = f"{move.end:g}" if move.end else "3 s"
    move.assumed.append(move.length)
    _take_ease(move, "linear?")


_FACTS: dict[str, Fact] = {
    "groups": _groups, "vowels": _vowels, "whole": _whole,
    "move": _way("move"), "from": _way("from"), "to": _way("to"), "course": _course,
    "ordinal": _ordinal, "held": _held, "within": _within_each, "prop": _prop,
}  # fmt: skip
