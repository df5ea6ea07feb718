"""`read`: from a sentence to the part of a scene that it says, whatever that is."""

import re
from collections.abc import Callable
from dataclasses import dataclass
from functools import cache
from typing import Any, NamedTuple, Protocol

from pydantic import ValidationError

from ..scene.document import Scene
from ..scene.effects import EFFECT_KINDS
from ..scene.files import faults_of
from ..scene.formations import FORMATION_KINDS
from ..scene.forms.flurry import BIRTHS, FLIGHT, FLURRY, PLACE_KINDS
from ..scene.forms.stroke import STROKE
from ..scene.layers.shape import ShapeLayer
from ..scene.layers.title import Run
from ..scene.letters.along import shapes_of
from ..scene.letters.style import Style
from ..scene.letters.windows import WINDOW
from ..scene.masks import MASK_KINDS
from ..scene.model import Model
from ..scene.moving.motion_blur import SHUTTER
from ..scene.moving.moves import GroupMove, Move
from ..scene.selectors import SELECTOR_KINDS
from ..scene.shapes import SHAPE_KINDS
from ..scene.starts import new_scene
from ..scene.values.quantity_reader import QuantityError
from .language.faults import fault_of
from .language.letters import unquoted
from .language.terms import Reading
from .language.tokens import Atoms, SayingError
from .layers.flurry_reader import flurry_phrases
from .layers.formation_reader import FormationReader, formation_phrases
from .layers.mattes import matte_kind
from .layers.media import media_kinds
from .layers.part_reader import PartKind, PartReader, part_kinds
from .layers.place_reader import PlaceReader, place_patterns
from .layers.reader import (
    MOST_AT_ONCE,
    LayerReader,
    SettingReader,
    layer_phrases,
    quiet_phrases,
)
from .layers.shapes import A_PATH
from .moves.clauses import CLAUSES, UNITS_OF_LAYERS, nouns
from .moves.draft import MoveDraft
from .moves.reader import BECOMING, MoveReader
from .moves.selectors import COMBINE, selector_patterns
from .moves.verbs import SHORT
from .moves.wording import THERE
from .scenes.reader import SceneReader, ground_phrases, scene_patterns
from .titles.reader import RunReader, StyleReader, style_phrases

RATE = 30.0
# A name in front; "of letters 6 to 10: red" has none.
_NAME = re.compile(
    r"\s*(?!of\b)(?:“((?:[^”\\]|\\.)*)”|([^\W\d_][^:“”()]{0,59}))\s*:(?!\d)\s*", re.IGNORECASE
)
# All that can be said, in the order in which it is tried: what is known by its first words first.
EVERYTHING = (
    "effect", "formation", "mask", "matte", "motion_blur", "window", "caret", "along", "scene",
    "style", "run", "place", "setting", "layer", "move", "ask",
)  # fmt: skip
# What may have a name in front: "Rise: letters from 100 below".
NAMED = ("layer", "move")


@dataclass(frozen=True)
class Context:
    """What a sentence is read for: the frames a second of its scene, the text of its title, what it
    may say, the kind of layer, and of shape, that it is said of, and whether that has copies; what
    the shapes of the scene are called; the sizes of its picture and of the letters in px;
    the frame at which the layer ends, 0 if that is not known;
    whether several layers are spoken of."""

    rate: float = RATE
    text: str | None = None
    may_say: tuple[str, ...] = EVERYTHING
    kind: str = ""
    shape: str = ""
    has_copies: bool = False
    shapes: tuple[str, ...] = ()
    size: tuple[float, float] = (1920, 1080)
    letter_size: float = 120
    end: float = 0
    several: bool = False


def context_of(scene: Scene, layer_id: Any, may_say: tuple[str, ...] = EVERYTHING) -> Context:
    """What a sentence is read for: a layer of a scene, if it has that."""
    layer = next((each for each in scene.layers if each.id == layer_id), None)
    kind = getattr(layer, "kind", "")
    shape = layer.shape.kind if isinstance(layer, ShapeLayer) else ""
    rate = float(scene.frames_a_second)
    has_copies = layer is not None and layer.formation is not None
    shapes = tuple(each.name or each.nameless for each in shapes_of(scene))
    style, letters = getattr(layer, "style", None), Context.letter_size
    if style is not None and isinstance(style.size, int | float):
        letters = style.size
    text, size = getattr(layer, "text", None), scene.size
    end = layer.span[1] if layer is not None else scene.length  # as a new one does
    return Context(rate, text, may_say, kind, shape, has_copies, shapes, size, letters, end)


class Meaning(NamedTuple):
    """What a sentence says: "move", "style", "effect" ..., and that as plain data. Of a scene, a
    place and a new layer it is what is said alone."""

    what: str
    data: dict[str, Any]


@cache
def all_part_kinds() -> tuple[PartKind, ...]:
    """All kinds of parts of layers, in the order in which they are tried."""
    return (*part_kinds(), matte_kind())


@cache
def _all_phrases() -> tuple[str, ...]:
    """The words of all that can be said."""
    phrases = [phrase for clause in CLAUSES for phrase in clause.pattern.phrases()]
    for patterns in selector_patterns(nouns()):
        phrases += patterns.phrases()
    phrases += [*BECOMING.told(), THERE, A_PATH]
    phrases += [noun for _, noun in nouns()] + COMBINE.told() + list(SHORT.values())
    for kind in (*all_part_kinds(), *media_kinds().values()):
        phrases += kind.phrases()
    phrases += [
        *style_phrases(),
        *layer_phrases(),
        *formation_phrases(),
        *flurry_phrases(),
        *ground_phrases(),
    ]
    for pattern in (*place_patterns(), *scene_patterns()):
        phrases += pattern.phrases()
    return tuple(phrases)


@cache
def all_atoms() -> Atoms:
    """What cuts sentences into atoms, with the words of all that can be said."""
    return Atoms(list(_all_phrases()), list(quiet_phrases()), SHORT, frozenset(_units()))


@cache
def all_words() -> frozenset[str]:
    """All words that sentences are made of, in small letters."""
    phrases = (*_all_phrases(), *quiet_phrases(), *_units())
    return frozenset(word for phrase in phrases for word in re.findall(r"\w+", phrase.lower()))


def _units() -> set[str]:
    """What stands behind the numbers of all kinds."""
    every = [how for kind in SELECTOR_KINDS.values() for how in kind.values.values()]
    every += [how for effect in EFFECT_KINDS.values() for how in effect.wording.values.values()]
    every += [how for mask in MASK_KINDS.values() for how in mask.wording.values.values()]
    every += [how for shape in SHAPE_KINDS.values() for how in shape.wording.values.values()]
    every += [how for each in FORMATION_KINDS.values() for how in each.wording.values.values()]
    every += [*FLURRY.values.values(), *FLIGHT.values.values(), *BIRTHS.values.values()]
    every += [how for place in PLACE_KINDS.values() for how in place.wording.values.values()]
    every += [*SHUTTER.values.values(), *WINDOW.values.values(), *STROKE.values.values()]
    measures = [how.measure for how in every if how.measure]
    return {unit.strip() for each in measures for unit in (each.unit, each.one)} - {""}


class Reader(Protocol):
    """What reads one kind of thing from a reading, clause by clause.

    places: where in the text each value was said
    """

    @property
    def reading(self) -> Reading: ...

    @property
    def places(self) -> dict[str, tuple[int, int]]: ...

    def step(self) -> bool:
        """Reads what comes next; False if it is not understood."""


@dataclass
class Attempt:
    """One way to read a text, as far as it went."""

    what: str
    reader: Reader
    make: Callable[[], dict[str, Any]]
    check: Callable[[dict[str, Any]], Model | None] | None
    name: str = ""

    @property
    def reading(self) -> Reading:
        return self.reader.reading

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


def read(text: str, context: Context | None = None) -> Meaning:
    """What a sentence says.

    SayingError if anything of it is not understood: nothing is dropped, and nothing is made.
    """
    context = context or Context()
    tried: list[Attempt] = []
    for attempt in _in_order(text, attempts(text, context)):
        if not attempt.reading.atoms:
            raise SayingError("nothing is said: say “letters from 100 below”", 0, len(text))
        tried.append(attempt.run())
        if attempt.is_whole:
            return _checked(text, attempt)
    furthest = max(tried, key=lambda each: (each.reading.at, _begun(each), each.what == "move"))
    raise fault_of(text, furthest.reading)


# What stands "24 px below “Title”" does not come from there.
_BESIDE = re.compile(
    r"\s*(?:stands )?(?:[\d.]+ ?(?:px )?)?(?:below|above|(?:left|right) of) [“\"]", re.IGNORECASE
)


def _in_order(text: str, found: list[Attempt]) -> list[Attempt]:
    """Attempts in the order in which they are made: what tells a new shape by its form comes first.
    “a line from ... to ...” does, also where a line is selected, of which “a line of 6 px” is just
    the stroke. What stands beside another layer is a place."""
    is_beside = _BESIDE.match(text) is not None
    return sorted(
        found,
        key=lambda each: _tells_a_form(each) or (is_beside and each.what == "place"),
        reverse=True,
    )


def _tells_a_form(attempt: Attempt) -> bool:
    """Whether it begins a new shape by its form, told by a reading of its own."""
    reading = attempt.reader.reading
    if attempt.what != "layer" or reading.atom() is None:
        return False
    looking = LayerReader(Reading(reading.atoms, reading.reader, reading.rate))
    return bool(looking.step() and looking.step() and looking.tells_a_form)


def _begun(attempt: Attempt) -> int:
    """How far into a clause that may well be meant a text was understood beyond what is whole."""
    expected = attempt.reading.expected.items()
    return max(
        (at for at, needed in expected if not all(each.is_rare for each in needed)), default=0
    )


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

    may_say = tuple(w for w in context.may_say if w in NAMED) if begins else context.may_say
    found = []
    for what in may_say:
        if not _suits(what, context.kind):
            continue
        if what in _ATTEMPTS:
            found.append(_ATTEMPTS[what](reading(), context))
        else:
            kinds = [kind for kind in all_part_kinds() if kind.what == what]
            found += [_part_attempt(kind, PartReader(reading(), kind)) for kind in kinds]
    for attempt in found:
        attempt.name = name
    return found


# What is said of titles alone.
_OF_TITLES = ("style", "run", "window", "caret", "along")


def _suits(what: str, kind: str) -> bool:
    """Whether a thing can be said of a kind of layer, if that is known."""
    if what == "setting":
        return bool(kind)
    return kind in ("", "title") or what not in _OF_TITLES


def _style(reading: Reading, context: Context) -> Attempt:
    reader = StyleReader(reading)
    return Attempt("style", reader, reader.data, _valid(Style))


def _run(reading: Reading, context: Context) -> Attempt:
    reader = RunReader(reading, text=context.text)
    return Attempt("run", reader, reader.data, _valid(Run))


def _place(reading: Reading, context: Context) -> Attempt:
    reader = PlaceReader(reading)
    return Attempt("place", reader, reader.data, None)


def _scene(reading: Reading, context: Context) -> Attempt:
    reader = SceneReader(reading)
    return Attempt("scene", reader, reader.data, _valid(Scene, **_ANY_SCENE))


def _layer(reading: Reading, context: Context) -> Attempt:
    reader = LayerReader(reading)
    return Attempt("layer", reader, reader.data, _valid_layer)


def _formation(reading: Reading, context: Context) -> Attempt:
    reader = FormationReader(reading)

    def check(data: dict[str, Any]) -> Model:
        return _valid(FORMATION_KINDS[data["kind"]])(data)

    return Attempt("formation", reader, reader.data, check)


def _setting(reading: Reading, context: Context) -> Attempt:
    reader = SettingReader(reading, context.kind, context.shape)

    def check(data: dict[str, Any]) -> Model | None:
        shape = {name.partition(".")[2]: data[name] for name in data if name.startswith("shape.")}
        needed = SHAPE_KINDS[context.shape].needed if context.shape else {}
        of_shape = {"shape": {"kind": context.shape, **needed, **shape}} if context.shape else {}
        return _valid_layer({**data, "kind": context.kind, **of_shape})

    return Attempt("setting", reader, reader.data, check)


def move_of(data: dict[str, Any]) -> Move:
    """A move that is said, as a model; ValidationError if it is none."""
    unit = data.get("unit")
    is_of_layers = unit in UNITS_OF_LAYERS and "text" not in (data.get("becomes") or {})
    made: Move = (GroupMove if is_of_layers else Move).model_validate(
        {"id": "m1", **data}, strict=False
    )
    return made


def _move(reading: Reading, context: Context) -> Attempt:
    draft = MoveDraft(context.text)

    def check(data: dict[str, Any]) -> Move:
        becomes = data.get("becomes", {})
        if "shape" in becomes and context.kind == "title":
            raise QuantityError("a title becomes other words: say “becomes “GOODBYE””")
        if "text" in becomes and context.kind not in ("", "title"):
            raise QuantityError("words become words: say “becomes a star with 5 corners”")
        return move_of(data)

    return Attempt("move", MoveReader(reading, draft), draft.move, check)


_ATTEMPTS: dict[str, Callable[[Reading, Context], Attempt]] = {
    "style": _style, "run": _run, "place": _place, "scene": _scene, "setting": _setting,
    "formation": _formation,
    "layer": _layer, "move": _move,
}  # fmt: skip
_ANY_SCENE = new_scene("", (1920, 1080), "30", 90)


def _valid_layer(data: dict[str, Any]) -> Model | None:
    """A shape or a title as it is said, of which the rest is as usual."""
    if not 1 <= data.get("count", 1) <= MOST_AT_ONCE:
        raise QuantityError(f"between one and {MOST_AT_ONCE} layers can be made at once")
    if formation := data.get("formation"):
        _valid(FORMATION_KINDS[formation["kind"]])(formation)
    known: dict[str, Any] = {n: data[n] for n in ("shape", "fill", "stroke") if n in data}
    if data["kind"] == "shape":
        return _valid(ShapeLayer, kind="shape", id="s1", span=[0, 1])(known)
    return _valid(Style)(data["style"]) if "style" in data else None


def _part_attempt(kind: PartKind, reader: PartReader) -> Attempt:
    unsaid = dict(kind.unsaid)
    return Attempt(
        kind.what, reader, reader.data, lambda data: _valid(kind.model)({**data, **unsaid})
    )


def _valid(model: type[Model], **more: Any) -> Callable[[dict[str, Any]], Model]:
    return lambda data: model.model_validate({**more, **data}, strict=False)


def _name_of(text: str) -> tuple[str, int]:
    """The name in front of a sentence, and where the sentence begins."""
    found = _NAME.match(text)
    if not found:
        return "", 0
    name = found[2] if found[1] is None else unquoted(found[1])
    return name.strip(), found.end()


def _checked(text: str, attempt: Attempt) -> Meaning:
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
        except QuantityError as refused:
            raise SayingError(str(refused), 0, len(text)) from None
    return Meaning(attempt.what, data)
