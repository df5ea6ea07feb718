"""What is typed as a sentence: read, and made into edits; and what it means while it is typed."""

from typing import Any, NamedTuple

from ..scene.document import Scene
from ..scene.errors import SceneError
from ..scene.moving.moves import Move
from ..sentences.language.completions import complete
from ..sentences.language.tokens import SayingError
from ..sentences.layers.place_reader import of_one
from ..sentences.moves.wording import move_text
from ..sentences.reader import (
    EVERYTHING,
    Context,
    Meaning,
    context_of,
    move_of,
    read,
    values_in,
)
from ..sentences.scenes.text import scene_from_text
from .behind import says_behind, typed_behind
from .said import MADE_OF_LAYERS, MADE_ONCE, of_kind
from .situation import Data, Situation, movable_among, titles_among

MOST_LINES, MOST_TEXT = 100, 20_000
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
    for number, line in enumerate(lines):
        made = typed_behind(situation, line, layers)
        made = made or _edits_of_line(situation, line, layers, current)
        edits += made
        if number + 1 < len(lines):
            known = {layer["id"] for layer in situation.data["layers"]}
            situation = situation.after(made)
            new = [each["id"] for each in situation.data["layers"] if each["id"] not in known]
            layers = new or layers
    return edits


def _edits_of_line(situation: Situation, line: str, layers: list[str], current: Any) -> list[Data]:
    try:
        what, data = _read(situation, line, layers[0] if layers else "", EVERYTHING)
    except SceneError:
        if more := _edits_of_more(situation, line, layers, current):
            return more
        raise
    if what in MADE_ONCE:
        return MADE_ONCE[what](situation, data)
    if not layers:
        raise SceneError.at("", "there is no layer to say this of: say “a title “Hello”” first")
    suited = _suited(situation, what, layers)
    return [
        edit
        for index, layer in enumerate(suited)
        for edit in MADE_OF_LAYERS[what](situation, layer, line, _of_one(what, data, index, suited))
    ]


def _edits_of_more(situation: Situation, line: str, layers: list[str], current: Any) -> list[Data]:
    """The edits for a line, which says nothing by itself, that goes on with the current move, and
    with those of its name of other layers; none if it does not."""
    document = situation.document
    owner = next((layer for layer in layers if _move_of(document, layer, current)), "")
    if not owner or not goes_on(document, owner, current, line):
        return []
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


def goes_on(document: Any, layer: str, move_id: Any, line: str) -> str | None:
    """The whole sentence, if a line that says nothing by itself goes on with a move."""
    move = _move_of(document, layer, move_id)
    if move is None or not line.strip():
        return None
    whole = _going_on(document, layer, move, line)
    try:
        read(whole, context_of(document, layer, ("move",)))
    except SayingError:
        return None
    return whole


def _of_one(what: str, data: Data, index: int, layers: list[str]) -> Data:
    """What is said of places of several layers, for one of them."""
    if what == "place":
        return of_one(data, index, len(layers))
    if what == "setting" and "transform" in data:
        return {**data, "transform": of_one(data["transform"], index, len(layers))}
    return data


def _read(situation: Situation, line: str, layer: str, may_say: tuple[str, ...]) -> Meaning:
    try:
        return read(line, context_of(situation.document, layer, may_say))
    except SayingError as fault:
        raise SceneError.at("", str(fault)) from None


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
    if wanted.get("goes_on"):
        line = _going_on(situation.document, layer["id"], before, line)
    data = of_kind(layer, _read(situation, line, layer["id"], ("move",)).data)
    value = {**({"name": before.name} if before.name else {}), **data, "id": before.id}
    return {"name": "set-value", "path": f"{layer['id']}.moves.{before.id}", "value": value}


def _move_of(document: Any, layer_id: Any, move_id: Any) -> Move | None:
    """A move of a layer; None if there is none."""
    layer = next((each for each in document.layers if each.id == layer_id), None)
    return next((move for move in getattr(layer, "moves", ()) if move.id == move_id), None)


def _going_on(document: Any, layer_id: Any, move: Move, more: str) -> str:
    """The sentence of a move as it is, with more behind it: what is said twice counts the second
    time."""
    text = getattr(document.layer(layer_id), "text", None)
    return f"{move_text(move, text).removesuffix('.')}, {more}"


def make_scene(situation: Situation, wanted: Data) -> Data:
    """The whole scene as a text says it."""
    document = scene_from_text(str(wanted.get("text", "")))
    return {"name": "replace-scene", "document": document, "file": "its text"}


# What a line means so far


class AskedLine(NamedTuple):
    """For what a line is typed: a layer; its move `move`, which is said anew, or with `goes_on`
    said more of; `current` is the move that it may go on with."""

    layer: str = ""
    move: str = ""
    goes_on: bool = False
    current: str = ""


def meaning_of(document: Scene, text: str, asked: AskedLine) -> Data:
    """What a text that is typed means so far: `said`, in full words, and what that is; or the
    `fault`; `next`, what may come at its end; and `values`, where numbers and the like stand."""
    may_say = ("move",) if asked.move else EVERYTHING
    context = context_of(document, asked.layer, may_say)
    if asked.goes_on and (move := _move_of(document, asked.layer, asked.move)):
        text = _going_on(document, asked.layer, move, text)
    if not asked.move and (hidden := says_behind(document, text)):
        return {"next": [], "values": [], "what": "mask", "said": hidden}
    found: Data = {"next": complete(text, context), "values": values_in(text)}
    try:
        what, data = read(text, context)
        return {**found, "what": what, "said": _in_full(what, data, text, context)}
    except SayingError as fault:
        if whole := asked.layer and goes_on(document, asked.layer, asked.current, text):
            current = _move_of(document, asked.layer, asked.current)
            return {**found, "what": "more", "said": whole, "move": current and current.name}
        place = {"start": fault.start, "end": fault.end, "suggestions": fault.suggestions}
        return {**found, "fault": {"message": str(fault), **place}}


def _in_full(what: str, data: Data, text: str, context: Context) -> str:
    """What is said, in full words: of a move all that it leaves out too."""
    if what != "move":
        return text.strip()
    layer = {"kind": context.kind, "formation": context.has_copies}
    suited = of_kind(layer, data) if context.kind else data
    return move_text(move_of(suited), context.text)
