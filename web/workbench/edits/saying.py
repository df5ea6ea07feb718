"""What is typed as a sentence: read by the core, made into edits; and what the line is told into
which it is typed."""

from typing import Any

from django.http import HttpRequest, JsonResponse
from django.views.decorators.http import require_GET

from balletto.scene.errors import SceneError
from balletto.scene.moving.moves import Move
from balletto.sentences.language.completions import complete
from balletto.sentences.language.tokens import SayingError
from balletto.sentences.layers.place_reader import of_one
from balletto.sentences.moves.wording import move_text
from balletto.sentences.reader import (
    EVERYTHING,
    Context,
    Said,
    context_of,
    move_of,
    read,
    values_in,
)
from web.pictures import frames
from web.projects.access import own_scene

from ..sentences.drawings import drawing_for, drawing_of
from .behind import says_behind, typed_behind
from .edit_requests import Data, EditRequest, movable_among, titles_among
from .said_edits import MADE_OF_LAYERS, MADE_ONCE, of_kind

MOST_LINES, MOST_TEXT = 100, 20_000
_ANY_LAYER = ("effect", "mask", "motion_blur", "formation", "place")


def say(request: EditRequest, wanted: Data) -> Data:
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
        return _said_anew(request, wanted, lines[0])
    edits = _edits_of(request, lines, _layers(wanted), wanted.get("current"))
    told = lines[0] if len(lines) == 1 else f"{len(lines)} sentences"
    return {"name": "several", "edits": edits, "said": f"Said: {told}"[:200]}


def _layers(wanted: Data) -> list[str]:
    """The layers that are spoken of."""
    listed = wanted.get("layers")
    named = listed if isinstance(listed, list) and listed else [wanted.get("layer")]
    return list(dict.fromkeys(str(each) for each in named if each))


def _edits_of(
    request: EditRequest, lines: list[str], layers: list[str], current: Any
) -> list[Data]:
    """The edits of one line after another, each for the scene as those before it leave it. What
    follows a new layer is said of that."""
    edits: list[Data] = []
    for number, line in enumerate(lines):
        made = typed_behind(request, line, layers)
        made = made or _edits_of_line(request, line, layers, current)
        edits += made
        if number + 1 < len(lines):
            known = {layer["id"] for layer in request.data["layers"]}
            request = request.after(made)
            new = [each["id"] for each in request.data["layers"] if each["id"] not in known]
            layers = new or layers
    return edits


def _edits_of_line(request: EditRequest, line: str, layers: list[str], current: Any) -> list[Data]:
    try:
        what, data = _read(request, line, layers[0] if layers else "", EVERYTHING)
    except SceneError:
        if more := _edits_of_more(request, line, layers, current):
            return more
        raise
    if what in MADE_ONCE:
        return MADE_ONCE[what](request, data)
    if not layers:
        raise SceneError.at("", "there is no layer to say this of: say “a title “Hello”” first")
    suited = _suited(request, what, layers)
    return [
        edit
        for index, layer in enumerate(suited)
        for edit in MADE_OF_LAYERS[what](request, layer, line, _of_one(what, data, index, suited))
    ]


def _edits_of_more(request: EditRequest, line: str, layers: list[str], current: Any) -> list[Data]:
    """The edits for a line, which says nothing by itself, that goes on with the current move, and
    with those of its name of other layers; none if it does not."""
    document = request.document
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
            edits.append(_said_anew(request, wanted, line))
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


def _read(request: EditRequest, line: str, layer: str, may_say: tuple[str, ...]) -> Said:
    try:
        return read(line, context_of(request.document, layer, may_say))
    except SayingError as fault:
        raise SceneError.at("", str(fault)) from None


def _suited(request: EditRequest, what: str, layers: list[str]) -> list[str]:
    """The layers that what is said is for."""
    if what in _ANY_LAYER:
        return [request.layer(layer)["id"] for layer in layers]
    if what == "setting":
        return _like_the_first(request, layers)
    if what == "move":
        return movable_among(request, layers)
    return titles_among(request, layers, f"a {what}")


def _like_the_first(request: EditRequest, layers: list[str]) -> list[str]:
    """Layers of the kind, and the shape, of the first."""

    def kind(layer: str) -> Any:
        data = request.layer(layer)
        return data["kind"], data.get("shape", {}).get("kind")

    return [layer for layer in layers if kind(layer) == kind(layers[0])]


def _said_anew(request: EditRequest, wanted: Data, line: str) -> Data:
    """A move that is there, said in other words: it keeps its name, if no other is said."""
    layer = request.layer(wanted.get("layer"))
    before = _move_of(request.document, layer["id"], wanted["move"])
    if before is None:
        raise SceneError.at(layer["id"], "this move is not there any more")
    if wanted.get("goes_on"):
        line = _going_on(request.document, layer["id"], before, line)
    data = of_kind(layer, _read(request, line, layer["id"], ("move",)).data)
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


# What the line is told


@require_GET
def saying(request: HttpRequest, scene_id: int) -> JsonResponse:
    """What the text that is typed means so far: `said`, in full words, or the `fault`; `next`, what
    may come at its end; and `values`, where numbers and the like stand. `layer` is what it is for;
    with `move`, it can be a move alone, or, with `goes_on`, more of that; `current` is the move
    that it may go on with."""
    scene = own_scene(request, scene_id)
    text = request.GET.get("text", "")[:4000]
    may_say = ("move",) if request.GET.get("move") else EVERYTHING
    document = frames.document_at(scene, scene.digest)
    layer = request.GET.get("layer")
    context = context_of(document, layer, may_say)
    if "goes_on" in request.GET and (move := _move_of(document, layer, request.GET.get("move"))):
        text = _going_on(document, layer, move, text)
    if (hidden := says_behind(document, text)) and "move" in may_say and len(may_say) > 1:
        return JsonResponse({"next": [], "values": [], "what": "mask", "said": hidden})
    answer: Data = {
        "next": [
            {**each._asdict(), "drawing": drawing_for(each)} for each in complete(text, context)
        ],
        "values": values_in(text),
    }
    try:
        what, data = read(text, context)
        answer |= {"what": what, "said": _in_full(what, data, text, context)}
    except SayingError as fault:
        current = request.GET.get("current")
        if whole := layer and goes_on(document, layer, current, text):
            move = getattr(_move_of(document, layer, current), "name", "")
            return JsonResponse({**answer, "what": "more", "said": whole, "move": move})
        place = {"start": fault.start, "end": fault.end, "suggestions": fault.suggestions}
        place["drawing"] = drawing_of("meant")
        answer["fault"] = {"message": str(fault), **place}
    return JsonResponse(answer)


def _in_full(what: str, data: Data, text: str, context: Context) -> str:
    """What is said, in full words: of a move all that it leaves out too."""
    if what != "move":
        return text.strip()
    layer = {"kind": context.kind, "formation": context.has_copies}
    suited = of_kind(layer, data) if context.kind else data
    return move_text(move_of(suited), context.text)
