"""What is typed as a sentence: read, and made into edits; and what it means while it is typed."""

from collections.abc import Callable
from dataclasses import replace
from typing import Any, NamedTuple

from ..scene.document import Scene
from ..scene.errors import SceneError
from ..scene.moving.moves import Move
from ..sentences.language.completions import complete
from ..sentences.language.tokens import SayingError
from ..sentences.layers.place_reader import of_one
from ..sentences.moves.wording import move_text
from ..sentences.reader import EVERYTHING, Context, context_of, move_of, values_in
from ..sentences.scenes.text import scene_from_text
from ..understanding.asked import is_question
from ..understanding.in_turn import Statements
from ..understanding.several import statements_in
from ..understanding.understand import Understood, understand_beside, understand_line
from .asking.asks import edits_for_ask
from .behind import says_behind, typed_behind
from .named_presets import says_preset, typed_preset
from .said import MADE_OF_LAYERS, MADE_ONCE, of_kind
from .situation import Data, Situation, movable_among, titles_among

MOST_LINES, MOST_TEXT = 100, 20_000
MOST_LINES_PARTED = 10  # a text of more lines has one statement in each: parting takes time
_ANY_LAYER = ("effect", "mask", "matte", "motion_blur", "formation", "place")


def say(situation: Situation, wanted: Data) -> Data:
    """The edits for what is typed, a line for each thing; on all selected layers. With a `move`,
    that is what is said anew, or, with `goes_on`, what is said more of, as it is by then. What says
    nothing by itself, as “every 3”, goes on with the move `current`."""
    text = str(wanted.get("text", ""))
    if len(text) > MOST_TEXT:
        told = f"at most {MOST_TEXT} letters can be said at once, got {len(text)}"
        raise SceneError.at("text", told)
    lines = [line for line in text.splitlines() if line.strip()]
    if not lines or len(lines) > MOST_LINES:
        raise SceneError.at("text", f"between one and {MOST_LINES} lines are needed")
    if isinstance(wanted.get("move"), str):
        return _said_anew(situation, wanted, lines[0])
    if len(lines) == 1 and is_question(text):
        raise SceneError.at("", "this asks something: the guide answers it where it is typed")
    edits = _edits_of(situation, lines, _layers(wanted), wanted.get("current"))
    told = lines[0] if len(lines) == 1 else f"{len(lines)} sentences"
    return {"name": "several", "edits": edits, "said": f"Said: {told}"[:200]}


def _layers(wanted: Data) -> list[str]:
    """The layers that are spoken of."""
    listed = wanted.get("layers")
    named = listed if isinstance(listed, list) and listed else [wanted.get("layer")]
    return list(dict.fromkeys(str(each) for each in named if each))


def _edits_of(
    situation: Situation, lines: list[str], layers: list[str], current: Any
) -> list[Data]:
    """The edits of one line after another, each for the scene as those before it leave it. What
    follows a new layer is said of that."""
    edits: list[Data] = []
    understood = _statements if len(lines) <= MOST_LINES_PARTED else _one_statement
    for number, line in enumerate(lines):
        made = typed_behind(situation, line, layers) or typed_preset(situation, line, layers)
        made = made or _edits_of_line(situation, line, layers, current, understood)
        edits += made
        if number + 1 < len(lines):
            known = {layer["id"] for layer in situation.data["layers"]}
            situation = situation.after(made)
            new = [each["id"] for each in situation.data["layers"] if each["id"] not in known]
            layers = new or layers
    return edits


def _edits_of_line(
    situation: Situation, line: str, layers: list[str], current: Any, understood: "_Understand"
) -> list[Data]:
    """The edits for a line; of several statements in it, for one after another."""
    first = layers[0] if layers else ""
    owner = next((each for each in layers if _move_of(situation.document, each, current)), first)
    try:
        asked = AskedLine(owner, current=current, several=len(layers) > 1)
        (_, found), *others = statements = understood(situation.document, line, asked)
    except SayingError as fault:
        raise SceneError.at("", str(fault)) from None
    if others:
        return _edits_of(situation, [text for text, _ in statements], layers, current)
    if found.goes_on:
        return _edits_of_more(situation, line, layers, owner, current)
    what, data = found.meaning
    if what == "ask":
        return edits_for_ask(situation, layers, data)
    if what in MADE_ONCE:
        return MADE_ONCE[what](situation, data)
    if not layers:
        raise SceneError.at("", "there is no layer to say this of: say “a title “Hello”” first")
    suited = _suited(situation, what, layers)
    edits = [
        edit
        for index, layer in enumerate(suited)
        for edit in MADE_OF_LAYERS[what](situation, layer, line, _of_one(what, data, index, suited))
    ]
    if not edits:
        told = f"there is one already: say what of it changes, or “another {line.strip()}”"
        raise SceneError.at("", told)
    return edits


def _edits_of_more(
    situation: Situation, line: str, layers: list[str], owner: str, current: Any
) -> list[Data]:
    """The edits for a line, which says nothing by itself, that goes on with the current move, and
    with those of its name of other layers."""
    document = situation.document
    name = getattr(_move_of(document, owner, current), "name", "")
    edits = []
    for layer in layers:
        moves = getattr(document.layer(layer), "moves", ())
        same = (
            m for m in moves if (layer == owner and m.id == current) or (name and m.name == name)
        )
        if move := next(same, None):
            wanted = {"layer": layer, "move": move.id, "goes_on": True}
            edits.append(_said_anew(situation, wanted, line))
    return edits


def _of_one(what: str, data: Data, index: int, layers: list[str]) -> Data:
    """What is said of places of several layers, for one of them."""
    if what == "place":
        return of_one(data, index, len(layers))
    if what == "setting" and "transform" in data:
        return {**data, "transform": of_one(data["transform"], index, len(layers))}
    return data


def _suited(situation: Situation, what: str, layers: list[str]) -> list[str]:
    """The layers that what is said is for."""
    if what in _ANY_LAYER:
        return [situation.layer(layer)["id"] for layer in layers]
    if what == "setting":
        return _like_the_first(situation, layers)
    if what == "move":
        return movable_among(situation, layers)
    return titles_among(situation, layers, f"a {what}")


def _like_the_first(situation: Situation, layers: list[str]) -> list[str]:
    """Layers of the kind, and the shape, of the first."""

    def kind(layer: str) -> Any:
        data = situation.layer(layer)
        return data["kind"], data.get("shape", {}).get("kind")

    return [layer for layer in layers if kind(layer) == kind(layers[0])]


def _said_anew(situation: Situation, wanted: Data, line: str) -> Data:
    """A move that is there, said in other words: it keeps its name, if no other is said."""
    layer = situation.layer(wanted.get("layer"))
    before = _move_of(situation.document, layer["id"], wanted["move"])
    if before is None:
        raise SceneError.at(layer["id"], "this move is not there any more")
    asked = AskedLine(layer["id"], before.id, bool(wanted.get("goes_on")))
    try:
        found = _meant(situation.document, line, asked)
    except SayingError as fault:
        raise SceneError.at("", str(fault)) from None
    data = of_kind(layer, found.meaning.data)
    value = {**({"name": before.name} if before.name else {}), **data, "id": before.id}
    return {"name": "set-value", "path": f"{layer['id']}.moves.{before.id}", "value": value}


def _move_of(document: Any, layer_id: Any, move_id: Any) -> Move | None:
    """A move of a layer; None if there is none."""
    layer = next((each for each in document.layers if each.id == layer_id), None)
    return next((move for move in getattr(layer, "moves", ()) if move.id == move_id), None)


def make_scene(situation: Situation, wanted: Data) -> Data:
    """The whole scene as a text says it."""
    document = scene_from_text(str(wanted.get("text", "")))
    return {"name": "replace-scene", "document": document, "file": "its text"}


# What a line means so far


class AskedLine(NamedTuple):
    """For what a line is typed: a layer; its move `move`, which is said anew, or with `goes_on`
    said more of; `current` is the move that it may go on with; `several`: whether several
    layers are spoken of."""

    layer: str = ""
    move: str = ""
    goes_on: bool = False
    current: str = ""
    several: bool = False


def meaning_of(document: Scene, text: str, asked: AskedLine) -> Data:
    """What a text that is typed means so far: `said`, in full words, and what that is; or the
    `fault`; `next`, what may come at its end; and `values`, where numbers and the like stand. What
    is said in other words than ours is told in ours as well, with what of it was assumed."""
    if not asked.move and (hidden := says_behind(document, text)):
        return {"next": [], "values": [], "what": "mask", "said": hidden}
    if not asked.move and (named := says_preset(document, text, asked.layer)):
        return named
    context = _context_of(document, asked)
    whole = text
    if asked.goes_on and (told := _told_of(document, asked.layer, asked.move)):
        whole = f"{told.removesuffix('.')}, {text}"
    values, offers = values_in(whole), complete(whole, context)
    try:
        (_, found), *others = _statements(document, text, asked)
    except SayingError as fault:
        return {"next": offers, "values": values, **_fault_data(fault)}
    if others:
        return {"next": [], "values": values, **_several(found, *(each for _, each in others))}
    is_unfinished = found.fault is None or found.fault.end >= len(text.rstrip())
    return {
        "next": offers if is_unfinished else [],
        "values": values,
        **_said_of(document, found, text, asked),
    }


def _said_of(document: Scene, found: Understood, text: str, asked: AskedLine) -> Data:
    """What was understood, as the line tells it."""
    what, data = found.meaning
    context = _context_of(document, asked)
    told: Data = {"what": what, "said": _in_full(what, data, text, context)}
    if found.fault is not None or what == "ask":
        sentence = told["said"] if what == "move" else found.sentence
        told |= {"said": sentence, "in_our_words": sentence, "assumed": found.assumed}
    if found.goes_on and not asked.move:
        move = _move_of(document, asked.layer, asked.current)
        told |= {"what": "more", "move": move and move.name}
    return told


def _several(*found: Understood) -> Data:
    """Several statements that were understood, as the line tells them."""
    told = " · ".join(each.sentence.removesuffix(".") for each in found)
    assumed = [text for each in found for text in each.assumed]
    return {"what": "several", "said": told, "in_our_words": told, "assumed": assumed}


def _statements(document: Scene, line: str, asked: AskedLine) -> Statements:
    """What a line says: one thing, or several. What is said anew of a move is one."""
    if asked.move:
        return _one_statement(document, line, asked)
    context = _context_of(document, asked)
    return statements_in(line, lambda each: _meant(document, each, asked), context)


def _one_statement(document: Scene, line: str, asked: AskedLine) -> Statements:
    return ((line, _meant(document, line, asked)),)


_Understand = Callable[[Scene, str, AskedLine], Statements]


def _meant(document: Scene, line: str, asked: AskedLine) -> Understood:
    """What a line means, in our words or in others. SayingError tells what is not understood."""
    context = _context_of(document, asked)
    if asked.move:
        move = _told_of(document, asked.layer, asked.move) if asked.goes_on else ""
        return understand_line(line, context, move)
    return understand_beside(line, context, _told_of(document, asked.layer, asked.current))


def _context_of(document: Scene, asked: AskedLine) -> Context:
    context = context_of(document, asked.layer, ("move",) if asked.move else EVERYTHING)
    return replace(context, several=asked.several)


def _told_of(document: Scene, layer_id: Any, move_id: Any) -> str:
    """The sentence of a move; empty if there is none."""
    move = _move_of(document, layer_id, move_id)
    return move_text(move, getattr(document.layer(layer_id), "text", None)) if move else ""


def _fault_data(fault: SayingError) -> Data:
    place = {"start": fault.start, "end": fault.end, "suggestions": fault.suggestions}
    return {"fault": {"message": str(fault), **place}}


def _in_full(what: str, data: Data, text: str, context: Context) -> str:
    """What is said, in full words: of a move all that it leaves out too."""
    if what != "move":
        return text.strip()
    layer = {"kind": context.kind, "formation": context.has_copies}
    suited = of_kind(layer, data) if context.kind else data
    return move_text(move_of(suited), context.text)
