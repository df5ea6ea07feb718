"""A move that is being said: what clauses tell of it, put together to plain data."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

from ...scene.edits.times.keyframes import handles_of, turned_round
from ...scene.pose import rest_of_property
from ...scene.selectors import SELECTOR_KINDS
from .selectors import SelectorRead
from .wording import leaves

LENGTH = 20  # frames, of a move that does not say it
_HOME_EASE, _AWAY_EASE, _BECOMING_EASE = "soft-landing", "soft-start", "soft-both"


@dataclass
class MoveDraft:
    """A move as far as it was said. `text` is that of its title, if it is known.

    leads: home, away, or stays; length, ease: of its course, where they are said
    by: whether values without a name say how far a shake goes
    told: the properties whose keys are told one by one, that of the last key at the end
    """

    text: str | None = None
    data: dict[str, Any] = field(default_factory=dict)
    pose: dict[str, Any] = field(default_factory=dict)
    selectors: list[SelectorRead] = field(default_factory=list)
    leads: str = ""
    length: float | None = None
    ease: Any = None
    by: bool = False
    in_groups: bool = False
    told: list[str] = field(default_factory=list)
    becomes: dict[str, Any] | None = None
    is_in_keys: bool = False  # keys are told one by one
    is_nowhere: bool = False  # it leads nowhere, and says so

    def set_pose(self, name: str, value: Any) -> None:
        """A property as it is away."""
        into = self.pose
        *way, last = name.split(".")
        for part in way:
            into = into.setdefault(part, {})
        into[last] = value

    def add_key(self, name: str, key: dict[str, Any]) -> None:
        """A key of a course of its own."""
        known = self.pose.get(name)
        keys = known["keys"] if isinstance(known, dict) and "keys" in known else []
        self.pose[name] = {"keys": [*keys, key]}
        self.is_in_keys = True
        self.told = [*(each for each in self.told if each != name), name]

    def home_at(self, time: float) -> None:
        """A key at rest, of the course that is being told; or how long it takes to be home."""
        if self.told:
            self.add_key(self.told[-1], {"at": time, "value": rest_of_property(self.told[-1])})
        else:
            self.length = time

    def set_ease(self, ease: Any) -> None:
        """An ease that stands by itself: of the courses that were told before, or of the move."""
        if not self.told or self.length is not None:
            self.ease = ease
            return
        for name in self.told:
            for key in self.pose[name]["keys"][:-1]:
                if ease != "linear":
                    key.setdefault("ease", ease)
        self.told = []

    @property
    def timed(self) -> dict[str, Any]:
        """The stagger, or its groups, that delays are told of."""
        stagger: dict[str, Any] = self.data.setdefault("stagger", {})
        if self.in_groups:
            groups: dict[str, Any] = stagger.setdefault("groups", {})
            return groups
        return stagger

    # The move

    def move(self) -> dict[str, Any]:
        """The move that was said, as plain data without an id."""
        if self.is_in_keys and self.length is not None and self.leads == "home":
            self._course_of_the_rest()
        data = dict(self.data)
        if self.pose:
            data["pose"] = self.pose
        if self.becomes:
            data["becomes"] = self.becomes
        reach = [selector.data() for selector in self.selectors]
        if reach:
            data["reach"] = [_felt(selector) for selector in reach]
        stagger = data.get("stagger")
        if stagger is not None and "times" not in stagger and "span" not in stagger:
            stagger.setdefault("gap", 2)
        if "amount" not in data and self._is_timed:
            data["amount"] = self._amount()
        elif "amount" not in data and self.ease not in (None, "linear"):
            self._ease_courses()
        return data

    def _amount(self) -> dict[str, Any]:
        """The way home or away, in a time."""
        values = (0, 1) if self.leads == "away" else (1, 0)
        usual = _AWAY_EASE if self.leads == "away" else _HOME_EASE
        if self.becomes and not self.pose:
            usual = _BECOMING_EASE
        ease = usual if self.ease is None else self.ease
        first: dict[str, Any] = {"at": 0, "value": values[0]}
        if ease != "linear":
            first["ease"] = ease
        length = LENGTH if self.length is None else self.length
        return {"keys": [first, {"at": length, "value": values[1]}]}

    def _course_of_the_rest(self) -> None:
        """What has no keys goes home in the time that was told, beside what has some."""
        for name, value in self.pose.items():
            if not (isinstance(value, dict) and "keys" in value):
                first = {"at": 0, "value": value}
                if self.ease != "linear":
                    first["ease"] = self.ease or _HOME_EASE
                rest = {"at": self.length, "value": rest_of_property(name)}
                self.pose[name] = {"keys": [first, rest]}
        self.length, self.leads = None, "stays"

    def _ease_courses(self) -> None:
        """An ease that is said behind courses is that of all their keys which have none."""
        for course in _courses_in(self.pose):
            for key in course["keys"][:-1]:
                key.setdefault("ease", self.ease)

    @cached_property
    def _is_timed(self) -> bool:
        """Whether the move leads home or away in a time."""
        if self.length is not None:
            return True
        courses = [value for value in self.pose.values() if isinstance(value, dict)]
        if any("keys" in course for course in courses) or self.leads == "stays":
            return False
        if any(SELECTOR_KINDS[selector.of.kind].says_when for selector in self.selectors):
            return False
        if any(map(_travels, self.selectors)):  # which brings them home itself
            return False
        return self.leads in ("home", "away") or not self.selectors


def _travels(selector: SelectorRead) -> bool:
    """Whether a sweep has keys."""
    is_sweep = selector.of.kind == "sweep"
    return is_sweep and any(_courses_in(selector.data()))


def _courses_in(pose: dict[str, Any]) -> Iterator[dict[str, Any]]:
    for value in pose.values():
        if isinstance(value, dict):
            yield from [value] if "keys" in value else _courses_in(value)


def _felt(selector: dict[str, Any]) -> dict[str, Any]:
    """A selector whose edges were told as units feel them, as it is kept."""
    if "edge" not in selector or not handles_of(selector["edge"]):
        return selector
    try:
        model = SELECTOR_KINDS[selector["kind"]].model_validate(selector, strict=False)
    except ValueError:
        return selector  # the scene says what is wrong with it
    turned = turned_round(selector["edge"])
    if leaves(model) and isinstance(turned, str):
        return {**selector, "edge": turned}
    return selector
