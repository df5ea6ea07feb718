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
from ..understanding.understand import (
    changed_in_other_words,
    in_other_words,
    is_in_other_words,
)
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
    first = layers[0] if layers else ""
    owner = next((each for each in layers if _move_of(situation.document, each, current)), first)
    try:
        sense = _sense_of(situation.document, owner, current, line)
    except SayingError as fault:
        raise SceneError.at("", str(fault)) from None
    if sense.goes_on:
        return _edits_of_more(situation, line, layers, owner, current)
    what, data = _read(situation, sense.sentence, first, EVERYTHING)
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


class _Sense(NamedTuple):
    """What a line says, in our wording: by itself, or of a move, then as a whole; what of it was
    assumed."""

    sentence: str
    goes_on: bool = False
    is_ours: bool = True
    assumed: tuple[str, ...] = ()


def _sense_of(document: Any, layer: str, current: Any, line: str) -> _Sense:
    """What a line says, in our wording or in other words, by itself or of a move. SayingError with
    what is not understood: that of the reading which came farther."""
    context = context_of(document, layer, EVERYTHING)
    is_other = is_in_other_words(line)
    try:
        read(line, context)
    except SayingError as error:
        fault = error
    else:
        if not is_other:
            return _Sense(line)
        fault = SayingError("this is said in other words", 0, len(line))
    if not is_other and (whole := goes_on(document, layer, current, line)):
        return _Sense(whole, goes_on=True)
    try:
        return _other_sense(document, layer, current, line, fault)
    except SayingError as error:
        if is_other:  # what our wording takes, it takes
            return _Sense(line)
        raise max(error, fault, key=lambda each: each.start) from None


def _other_sense(document: Any, layer: str, current: Any, line: str, fault: SayingError) -> _Sense:
    """What a line says in other words: a change of the current move, something by itself, or more
    of that move."""
    context, move = context_of(document, layer, EVERYTHING), _move_of(document, layer, current)
    told = move_text(move, context.text) if move else ""
    if move and (made := changed_in_other_words(line, context, told)):
        return _Sense(made.sentence, goes_on=True, is_ours=False)
    try:
        found = in_other_words(line, context, "", fault)
    except SayingError:
        if not move:
            raise
        found = in_other_words(line, context, told, fault)
        return _Sense(found.sentence, goes_on=True, is_ours=False, assumed=found.assumed)
    return _Sense(found.sentence, is_ours=False, assumed=found.assumed)


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
        line = _more_of(situation.document, layer["id"], before, line)
    else:
        line = _move_in_our_words(situation.document, layer["id"], line)
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


def _more_of(document: Any, layer_id: Any, move: Move, more: str) -> str:
    """The sentence of a move with more of it, in our words or in others."""
    whole = _going_on(document, layer_id, move, more)
    context = context_of(document, layer_id, ("move",))
    try:
        read(whole, context)
    except SayingError as fault:
        try:
            told = move_text(move, context.text)
            return in_other_words(more, context, told, fault).sentence
        except SayingError:
            return whole  # what is wrong with it is told where it is read
    return whole


def _move_in_our_words(document: Any, layer_id: Any, line: str) -> str:
    """The sentence of a move that is said in other words; the line itself if it is none."""
    context = context_of(document, layer_id, ("move",))
    try:
        read(line, context)
    except SayingError as fault:
        try:
            return in_other_words(line, context, "", fault).sentence
        except SayingError:
            return line
    return line


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
    typed = text
    if asked.goes_on and (move := _move_of(document, asked.layer, asked.move)):
        text = _going_on(document, asked.layer, move, text)
    if not asked.move and (hidden := says_behind(document, text)):
        return {"next": [], "values": [], "what": "mask", "said": hidden}
    found: Data = {"next": complete(text, context), "values": values_in(text)}
    try:
        if is_in_other_words(text):
            raise SayingError("this is said in other words", 0, len(text))
        what, data = read(text, context)
        return {**found, "what": what, "said": _in_full(what, data, text, context)}
    except SayingError as fault:
        is_unfinished = fault.end >= len(text.rstrip())
        found["next"] = found["next"] if is_unfinished else []
        try:
            return found | _meant_otherwise(document, typed, asked)
        except SayingError as other:
            return found | _fault_data(max(other, fault, key=lambda each: each.start))


def _fault_data(fault: SayingError) -> Data:
    place = {"start": fault.start, "end": fault.end, "suggestions": fault.suggestions}
    return {"fault": {"message": str(fault), **place}}


def _meant_otherwise(document: Scene, text: str, asked: AskedLine) -> Data:
    """What a text means that says nothing in our wording by itself; SayingError if it means
    nothing."""
    if asked.move:
        return _move_otherwise(document, text, asked)
    current = asked.current if asked.layer else ""
    sense = _sense_of(document, asked.layer, current, text)
    told = {} if sense.is_ours else _told_in_our_words(sense.sentence, sense.assumed)
    if sense.goes_on:
        move = _move_of(document, asked.layer, current)
        return {**told, "what": "more", "said": sense.sentence, "move": move and move.name}
    context = context_of(document, asked.layer)
    what, data = read(sense.sentence, context)
    return {**told, "what": what, "said": _in_full(what, data, sense.sentence, context)}


def _told_in_our_words(sentence: str, assumed: tuple[str, ...]) -> Data:
    return {"in_our_words": sentence, "assumed": assumed}


def _move_otherwise(document: Scene, text: str, asked: AskedLine) -> Data:
    context = context_of(document, asked.layer, ("move",))
    move = _move_of(document, asked.layer, asked.move) if asked.goes_on else None
    told = move_text(move, context.text) if move else ""
    found = in_other_words(text, context, told, SayingError("", -1, -1))
    ours = _told_in_our_words(found.sentence, found.assumed)
    return {**ours, "what": "move", "said": found.sentence}


def _in_full(what: str, data: Data, text: str, context: Context) -> str:
    """What is said, in full words: of a move all that it leaves out too."""
    if what != "move":
        return text.strip()
    layer = {"kind": context.kind, "formation": context.has_copies}
    suited = of_kind(layer, data) if context.kind else data
    return move_text(move_of(suited), context.text)
