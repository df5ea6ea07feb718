"""What is typed as a sentence: read by the core, made into edits; and what the line is told into
which it is typed."""

import re
from collections.abc import Callable
from typing import Any

from django.http import HttpRequest, JsonResponse
from django.views.decorators.http import require_GET

from balletto.scene.errors import SceneError
from balletto.scene.moves import Move
from balletto.sentences.atoms import SayingError
from balletto.sentences.completions import complete
from balletto.sentences.moves import move_text
from balletto.sentences.reader import EVERYTHING, Context, Said, read, values_in
from web.pictures import frames
from web.projects.access import own_scene

from .adding import ADDING
from .behind import says_behind, typed_behind
from .drawings import drawing_for, drawing_of
from .edit_requests import Data, EditRequest, movable_among, titles_among

MOST_LINES, MOST_TEXT = 100, 20_000
_LONGEST_NAME = 30
_ANY_LAYER = ("effect", "mask", "motion_blur", "place")


def context_of(document: Any, layer_id: Any, may_say: tuple[str, ...] = EVERYTHING) -> Context:
    """What a sentence is read for: a layer of a scene, if it has that."""
    layer = next((each for each in document.layers if each.id == layer_id), None)
    return Context(float(document.frames_a_second), getattr(layer, "text", None), may_say)


def say(request: EditRequest, wanted: Data) -> Data:
    """The edits for what is typed, a line for each thing; on all selected layers. With a `move`,
    that is what is said anew, or, with `goes_on`, what is said more of, as it is by then."""
    text = str(wanted.get("text", ""))
    if len(text) > MOST_TEXT:
        told = f"at most {MOST_TEXT} letters can be said at once, got {len(text)}"
        raise SceneError.at("text", told)
    lines = [line for line in text.splitlines() if line.strip()]
    if not lines or len(lines) > MOST_LINES:
        raise SceneError.at("text", f"between one and {MOST_LINES} lines are needed")
    layer = wanted.get("layer")
    if isinstance(wanted.get("move"), str):
        return _said_anew(request, wanted, lines[0])
    listed = wanted.get("layers")
    named = listed if isinstance(listed, list) and listed else [layer]
    layers = list(dict.fromkeys(str(each) for each in named))
    edits: list[Data] = []
    for line in lines:
        if hidden := typed_behind(request, line, layers):
            edits += hidden
            continue
        said = _read(request, line, layers[0], EVERYTHING)
        for each in _suited(request, said.what, layers):
            edits += _MADE[said.what](request, each, line, said.data)
    told = lines[0] if len(lines) == 1 else f"{len(lines)} sentences"
    return {"name": "several", "edits": edits, "said": f"Said: {told}"[:200]}


def _read(request: EditRequest, line: str, layer: str, may_say: tuple[str, ...]) -> Said:
    try:
        return read(line, context_of(request.document, layer, may_say))
    except SayingError as fault:
        raise SceneError.at("", str(fault)) from None


def _suited(request: EditRequest, what: str, layers: list[str]) -> list[str]:
    """The layers that what is said is for."""
    if what in _ANY_LAYER:
        return [request.layer(layer)["id"] for layer in layers]
    if what == "move":
        return movable_among(request, layers)
    return titles_among(request, layers, f"a {what}")


def _said_anew(request: EditRequest, wanted: Data, line: str) -> Data:
    """A move that is there, said in other words: it keeps its name, if no other is said."""
    layer = request.layer(wanted.get("layer"))
    before = _move_of(request.document, layer["id"], wanted["move"])
    if before is None:
        raise SceneError.at(layer["id"], "this move is not there any more")
    if wanted.get("goes_on"):
        line = _going_on(request.document, layer["id"], before, line)
    data = _of_kind(layer["kind"], _read(request, line, layer["id"], ("move",)).data)
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


# What is made of each thing that is said


def _move(request: EditRequest, layer: str, line: str, data: Data) -> list[Data]:
    move = {"name": _named(line), **_of_kind(request.layer(layer)["kind"], data)}
    first = request.layer(layer)["span"][0]
    if "start" not in data and first > 0:
        move["start"] = first
    letters = request.selection.letters
    if letters and "among" not in data and layer == request.selection.layer:
        move["among"] = [list(letters)]
    return [{"name": "add-move", "layer": layer, "move": move}]


def _of_kind(kind: str, data: Data) -> Data:
    """A move for a kind of layer: what is no title moves as a whole, or a group by its members."""
    unit = data.get("unit", "")
    if kind == "title":
        return {**data, "unit": "title"} if unit in ("layer", "member") else data
    return {**data, "unit": unit if unit == "member" and kind == "group" else "layer"}


def _named(line: str) -> str:
    """What a move is called that says no name: its first words."""
    first = re.split(r"[,;(]| and ", line.strip())[0].strip().rstrip(".")
    name = first if len(first) <= _LONGEST_NAME else f"{first[: _LONGEST_NAME - 1].rstrip()}…"
    return name[:1].upper() + name[1:]


def _effect(request: EditRequest, layer: str, line: str, data: Data) -> list[Data]:
    return [{"name": "add-effect", "layer": layer, "effect": data}]


def _mask(request: EditRequest, layer: str, line: str, data: Data) -> list[Data]:
    return [ADDING["add-mask"](request, {"name": "add-mask", "layer": layer, "mask": data})]


def _value(name: str) -> Callable[[EditRequest, str, str, Data], list[Data]]:
    """Sets all of what a layer has of a thing."""
    return lambda request, layer, line, data: [
        {"name": "set-value", "path": f"{layer}.{name}", "value": data}
    ]


def _style(request: EditRequest, layer: str, line: str, data: Data) -> list[Data]:
    """What is said of a style; the rest of it stays."""
    values = {name: value for name, value in data.items() if name != "axes"}
    values |= {f"axes.{tag}": value for tag, value in data.get("axes", {}).items()}
    return [
        {"name": "set-value", "path": f"{layer}.style.{name}", "value": value}
        for name, value in values.items()
    ]


def _place(request: EditRequest, layer: str, line: str, data: Data) -> list[Data]:
    """What is said of a place; the rest of it stays."""
    return [
        {"name": "set-value", "path": f"{layer}.transform.{name}", "value": value}
        for name, value in data.items()
    ]


_MADE: dict[str, Callable[[EditRequest, str, str, Data], list[Data]]] = {
    "move": _move,
    "effect": _effect,
    "mask": _mask,
    "window": _value("window"),
    "motion_blur": _value("motion_blur"),
    "style": _style,
    "place": _place,
}


# What the line is told


@require_GET
def saying(request: HttpRequest, scene_id: int) -> JsonResponse:
    """What the text that is typed means so far: `said`, in full words, or the `fault`; `next`, what
    may come at its end; and `values`, where numbers and the like stand. `layer` is what it is for;
    with `move`, it can be a move alone, or, with `goes_on`, more of that."""
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
        place = {"start": fault.start, "end": fault.end, "suggestions": fault.suggestions}
        place["drawing"] = drawing_of("meant")
        answer["fault"] = {"message": str(fault), **place}
    return JsonResponse(answer)


def _in_full(what: str, data: Data, text: str, context: Context) -> str:
    """What is said, in full words: of a move all that it leaves out too."""
    if what != "move":
        return text.strip()
    return move_text(Move.model_validate({"id": "m", **data}, strict=False), context.text)
