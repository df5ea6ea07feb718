"""`read`: from a sentence to the part of a scene that it says, whatever that is."""

import re
from collections.abc import Callable
from dataclasses import dataclass
from functools import cache
from typing import Any, NamedTuple

from pydantic import ValidationError

from ..scene.effects import EFFECT_KINDS
from ..scene.files import faults_of
from ..scene.masks import MASK_KINDS
from ..scene.model import Model
from ..scene.motion_blur import SHUTTER
from ..scene.moves import GroupMove, Move
from ..scene.selectors import SELECTOR_KINDS
from ..scene.style import Style
from ..scene.windows import WINDOW
from .atoms import Atoms, SayingError
from .elements import Reading
from .faults import fault_of
from .move_clauses import CLAUSES, nouns
from .move_draft import MoveDraft
from .move_reader import MoveReader
from .part_reader import PartKind, PartReader, part_kinds
from .selector_patterns import COMBINE, selector_patterns
from .style_reader import PlaceReader, StyleReader, place_patterns, style_phrases
from .verbs import SHORT

RATE = 30.0
_NAME = re.compile(r"\s*(?:“((?:[^”\\]|\\.)*)”|([^\W\d_][^:“”()]{0,59}))\s*:(?!\d)\s*")
# All that can be said, in the order in which it is tried: what is known by its first words first.
EVERYTHING = ("effect", "mask", "motion_blur", "window", "style", "place", "move")


@dataclass(frozen=True)
class Context:
    """What a sentence is read for: the frames a second of its scene, the text of its title, and
    what it may say."""

    rate: float = RATE
    text: str | None = None
    may_say: tuple[str, ...] = EVERYTHING


class Said(NamedTuple):
    """What a sentence says: "move", "style", "effect" ..., and that as plain data."""

    what: str
    data: dict[str, Any]


@cache
def all_atoms() -> Atoms:
    """What cuts sentences into atoms, with the words of all that can be said."""
    phrases = [phrase for clause in CLAUSES for phrase in clause.pattern.phrases()]
    for patterns in selector_patterns(nouns()):
        phrases += patterns.phrases()
    phrases += [noun for _, noun in nouns()] + COMBINE.told() + list(SHORT.values())
    for kind in part_kinds():
        phrases += kind.phrases()
    phrases += style_phrases()
    for pattern in place_patterns():
        phrases += pattern.phrases()
    return Atoms(phrases, SHORT, frozenset(_units()))


def _units() -> set[str]:
    """What stands behind the numbers of all kinds."""
    every = [how for kind in SELECTOR_KINDS.values() for how in kind.values.values()]
    every += [how for effect in EFFECT_KINDS.values() for how in effect.wording.values.values()]
    every += [how for mask in MASK_KINDS.values() for how in mask.wording.values.values()]
    every += [*SHUTTER.values.values(), *WINDOW.values.values()]
    measures = [how.measure for how in every if how.measure]
    return {unit.strip() for each in measures for unit in (each.unit, each.one)} - {""}


@dataclass
class Attempt:
    """One way to read a text, as far as it went."""

    what: str
    reader: Any
    make: Callable[[], dict[str, Any]]
    check: Callable[[dict[str, Any]], Model] | None
    name: str = ""

    @property
    def reading(self) -> Reading:
        found: Reading = self.reader.reading
        return found

    def run(self) -> "Attempt":
        """Reads as far as it is understood."""
        while self.reading.atom() is not None and self.reader.step():
            pass
        return self

    @property
    def is_whole(self) -> bool:
        """Whether all was understood, and what it is was said."""
        known = getattr(self.reader, "is_known", True)
        return self.reading.atom() is None and known and bool(self.reading.atoms)


def read(text: str, context: Context | None = None) -> Said:
    """What a sentence says.

    SayingError if anything of it is not understood: nothing is dropped, and nothing is made.
    """
    context = context or Context()
    tried = []
    for attempt in attempts(text, context):
        if not attempt.reading.atoms:
            raise SayingError("nothing is said: say “letters from 100 below”", 0, len(text))
        tried.append(attempt.run())
        if attempt.is_whole:
            return _checked(text, attempt)
    furthest = max(tried, key=lambda each: (each.reading.at, _begun(each), each.what == "move"))
    raise fault_of(text, furthest.reading)


def _begun(attempt: Attempt) -> int:
    """How far into a clause a text was understood beyond what is whole."""
    return max(attempt.reading.expected, default=0)


def values_in(text: str) -> list[tuple[int, int]]:
    """Where values stand in a text: from, to."""
    try:
        atoms = all_atoms().read(text)
    except SayingError:
        return []
    kinds = ("value", "color", "listed", "string")
    return [(atom.start, atom.end) for atom in atoms if atom.kind in kinds]


def attempts(text: str, context: Context) -> list[Attempt]:
    """All ways in which a text may be read, none begun. A name in front makes it a move."""
    name, begins = _name_of(text)
    atoms = all_atoms().read(" " * begins + text[begins:])

    def reading() -> Reading:
        return Reading(atoms, all_atoms(), context.rate)

    may_say = ("move",) if begins else context.may_say
    found = [
        _part_attempt(kind, PartReader(reading(), kind))
        for what in may_say
        for kind in part_kinds()
        if kind.what == what
    ]
    if "style" in may_say:
        style = StyleReader(reading())
        found.append(Attempt("style", style, style.data, _valid(Style)))
    if "place" in may_say:
        place = PlaceReader(reading())
        found.append(Attempt("place", place, place.data, None))
    if "move" in may_say:
        draft = MoveDraft(context.text)

        def check(data: dict[str, Any]) -> Model:
            is_of_layers = data.get("unit") in ("layer", "member")
            return _valid(GroupMove if is_of_layers else Move, id="m1")(data)

        found.append(Attempt("move", MoveReader(reading(), draft), draft.move, check, name))
    return found


def _part_attempt(kind: PartKind, reader: PartReader) -> Attempt:
    return Attempt(kind.what, reader, reader.data, _valid(kind.model))


def _valid(model: type[Model], **more: Any) -> Callable[[dict[str, Any]], Model]:
    return lambda data: model.model_validate({**more, **data}, strict=False)


def _name_of(text: str) -> tuple[str, int]:
    """The name in front of a sentence, and where the sentence begins."""
    found = _NAME.match(text)
    if not found:
        return "", 0
    name = found[2] if found[1] is None else re.sub(r"\\(.)", r"\1", found[1])
    return name.strip(), found.end()


def _checked(text: str, attempt: Attempt) -> Said:
    """What was said; SayingError where the scene would not take it, at its place in the text."""
    data = attempt.make()
    if attempt.name:
        data["name"] = attempt.name
    if attempt.check is not None:
        try:
            attempt.check(data)
        except ValidationError as error:
            fault = faults_of(error)[0]
            places = attempt.reader.places
            found = (places[name] for name in places if name and fault.path.startswith(name))
            start, end = next(found, (0, len(text)))
            raise SayingError(f"“{text[start:end]}”: {fault.message}", start, end) from None
    return Said(attempt.what, data)
