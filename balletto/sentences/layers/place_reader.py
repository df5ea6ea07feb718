"""Reading where a layer stands: by numbers, or by words such as "at the lower right"."""

from dataclasses import dataclass, replace
from functools import cache
from typing import Any

from lark import Tree

from ...scene.values import measures
from ..language.rules import Pattern, PatternReader, elements_of, row
from ..language.terms import (
    Element,
    Literal,
    NumberOf,
    Option,
    Reading,
    ReadValues,
    StringOf,
)
from ..language.tokens import tie_of

# Places in words: the side of the picture across and down that a layer stands at; it stays where it
# is along a way of which nothing is said.
_SIDES = (
    ("left", "top", "upper left"), ("right", "top", "upper right"),
    ("left", "bottom", "lower left"), ("right", "bottom", "lower right"),
    ("left", "top", "top left"), ("right", "top", "top right"),
    ("left", "bottom", "bottom left"), ("right", "bottom", "bottom right"),
    ("", "top", "top"), ("", "bottom", "bottom"), ("left", "", "left"), ("right", "", "right"),
)  # fmt: skip
SIDES_OF_PICTURE: tuple[tuple[tuple[str, str], str], ...] = (
    (("middle", "middle"), "in the middle"),
    *(((across, down), f"{at} the {said}") for across, down, said in _SIDES for at in ("at", "in")),
    *(((across, down), said) for across, down, said in _SIDES if " " in said),
    (("left", ""), "on the left"),
    (("right", ""), "on the right"),
    (("middle", "middle"), "in the middle of the picture"),
)


@dataclass(frozen=True)
class _TieOf(Element):
    """What a value of several numbers follows as a whole."""

    name: str

    def take(self, reading: Reading, into: ReadValues) -> bool:
        atom = reading.atom()
        if atom is None or not isinstance(atom.parts, Tree) or atom.parts.data != "tie":
            return False
        into[self.name] = tie_of(atom.parts, reading.rate)
        reading.at += 1
        return True

    def told(self) -> list[str]:
        return ["(tied to “s1.transform.position”)"]


@cache
def place_patterns() -> tuple[Pattern, ...]:
    """What may be said of a place."""
    values: dict[str, Element] = {
        "x": NumberOf("position.0", measures.PIXELS, example=960),
        "y": NumberOf("position.1", measures.PIXELS, example=540),
        "z": NumberOf("position.2", measures.NEARER_DEEPER, needs_direction=True),
        "turn": NumberOf("rotation.2", measures.DEGREES),
        "width": NumberOf("scale.0", measures.PERCENT_OF_ONE),
        "height": NumberOf("scale.1", measures.PERCENT_OF_ONE),
        "scale": NumberOf("scale", measures.PERCENT_OF_ONE, is_plain=True),
        "tip": NumberOf("rotation.0", measures.DEGREES),
        "swing": NumberOf("rotation.1", measures.DEGREES),
        "opacity": NumberOf("opacity", measures.OPACITY),
    }
    often = [
        "at {x} across", "{y} down", "{z}", "turned {turn}", "{scale} large", "{width} wide",
        "{height} high", "tipped {tip}", "swung {swing}", "{opacity} opaque",
    ]  # fmt: skip
    rarely = [
        "Stands turned {turn}", "Stands {opacity} opaque", "Stands {width} wide",
        "Stands {x} across", "Stands at {x} across", "{x} across", "at {y} down",
        "in depth tipped {tip}", "Works on all below it, by {opacity} opaque",
    ]  # fmt: skip
    found = [Pattern(tuple(elements_of(text, values))) for text in often]
    found += [Pattern(tuple(elements_of(text, values)), is_rare=True) for text in rarely]
    found += [_from_to(pattern) for pattern in found]
    found += [
        Pattern((Literal(words), _TieOf(name)), is_rare=True)
        for words, name in (
            ("stands at", "position"), ("at", "position"), ("turned as", "rotation"),
            ("sized", "scale"),
        )
    ]  # fmt: skip
    side = Option("side", SIDES_OF_PICTURE)
    found += [row(side), replace(row("stands", side), is_rare=True), *_in_words()]
    return tuple(sorted(found, key=lambda pattern: -len(pattern.elements)))


_BESIDE = (("below", "below"), ("above", "above"), ("left", "left of"), ("right", "right of"))
_ORDERS = (("back", "behind all"), ("front", "in front of all"))


def _in_words() -> list[Pattern]:
    """How far from the edge, beside or behind which other layer."""
    beside, other = Option("beside.at", _BESIDE), StringOf("beside.of")
    order = Option("order.at", (("back", "behind"), ("front", "in front of")))
    down = NumberOf("beside.y", measures.ABOVE_BELOW, needs_direction=True, is_plain=True)
    across = NumberOf("beside.by", measures.PIXELS, is_plain=True, example=24)
    margin = NumberOf("margin", measures.PIXELS, is_plain=True, example=60)
    rows = (
        row(down, other), row(across, beside, other), row(beside, other),
        row(margin, "from the edge"),
        row(Option("order", _ORDERS)), row(order, StringOf("order.of")),
    )  # fmt: skip
    return [replace(each, is_rare=True) for each in rows]


END = ".to"  # of the path of the last number, where several layers stand between two


def _from_to(pattern: Pattern) -> Pattern:
    """The same of several layers, spread evenly: "200 to 1720 px across"."""
    made: list[Element] = []
    for element in pattern.elements:
        made.append(element)
        if isinstance(element, NumberOf):
            plain = replace(element, is_plain=True)
            made[-1:] = [plain, Literal("to"), replace(plain, name=f"{element.name}{END}")]
    return Pattern(tuple(made), is_rare=True)


def of_one(said: dict[str, Any], index: int, count: int) -> dict[str, Any]:
    """What is said of the places of several layers, for one of them."""
    made = {path: value for path, value in said.items() if not path.endswith(END)}
    share = index / (count - 1) if count > 1 else 0.0
    for path in set(said) - set(made):
        first = path.removesuffix(END)
        made[first] = round(said[first] + (said[path] - said[first]) * share, 4)
    return made


_ONLY_PLACES = ("position", "scale", "side", "margin", "beside.", "order")


class PlaceReader(PatternReader):
    """Reads where a layer stands: numbers, plain or keyed, each by its path; or the `side` of the
    picture."""

    @property
    def is_known(self) -> bool:
        """Whether it can be nothing else: a move, too, may be turned and opaque, but it does not
        stand."""
        stands = self.reading.atoms[0].raw.lower().startswith("stands")
        return stands or any(name.startswith(_ONLY_PLACES) for name in self.values)

    @property
    def patterns(self) -> tuple[Pattern, ...]:
        return place_patterns()

    def data(self) -> dict[str, Any]:
        """The numbers that are said, by their paths below `transform`."""
        return self.values


def with_courses(before: list[float], said: dict[int, Any]) -> dict[str, Any]:
    """A place, turn or size of which some numbers have courses, as one keyed value.

    before: the numbers as they stand, for those of which nothing is said
    said: by its index a number, or the keys that it has; all keys at the same frames
    ValueError if they are not
    """
    courses = {index: value for index, value in said.items() if isinstance(value, dict)}
    if not all("keys" in course for course in courses.values()):
        raise ValueError("a place that follows another value is tied as a whole")
    first = next(iter(courses.values()))
    times = [key["at"] for key in first["keys"]]
    if any([key["at"] for key in course["keys"]] != times for course in courses.values()):
        raise ValueError("numbers that change together need keyframes at the same frames")

    def at(number: int) -> list[float]:
        return [
            courses[index]["keys"][number]["value"] if index in courses else said.get(index, value)
            for index, value in enumerate(before)
        ]

    keys = [{**key, "value": at(number)} for number, key in enumerate(first["keys"])]
    return {**first, "keys": keys}
