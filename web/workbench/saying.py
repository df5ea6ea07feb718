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

MOST_LINES = 100
_LONGEST_NAME = 30
_ANY_LAYER = ("effect", "mask", "motion_blur", "place")


def context_of(document: Any, layer_id: Any, may_say: tuple[str, ...] = EVERYTHING) -> Context:
    """What a sentence is read for: a layer of a scene, if it has that."""
    layer = next((each for each in document.layers if each.id == layer_id), None)
    return Context(float(document.frames_a_second), getattr(layer, "text", None), may_say)


def say(request: EditRequest, wanted: Data) -> Data:
    """The edits for what is typed, a line for each thing; on all selected layers. With a `move`,
    that is what is said anew."""
    lines = [line for line in str(wanted.get("text", "")).splitlines() if line.strip()]
    if not lines or len(lines) > MOST_LINES:
        raise SceneError.at("text", f"between one and {MOST_LINES} lines are needed")
    layer = wanted.get("layer")
    if isinstance(wanted.get("move"), str):
        return _said_anew(request, str(layer), wanted["move"], lines[0])
    listed = wanted.get("layers")
    layers = [str(each) for each in listed] if isinstance(listed, list) and listed else [str(layer)]
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


def _said_anew(request: EditRequest, layer: str, move_id: str, line: str) -> Data:
    """A move that is there, said in other words: it keeps its name, if no other is said."""
    before = next(
        (move for move in request.layer(layer).get("moves", []) if move["id"] == move_id), None
    )
    if before is None:
        raise SceneError.at(layer, "this move is not there any more")
    data = _read(request, line, layer, ("move",)).data
    data = _of_kind(request.layer(layer)["kind"], data)
    value = {**({"name": before["name"]} if before.get("name") else {}), **data, "id": move_id}
    return {"name": "set-value", "path": f"{layer}.moves.{move_id}", "value": value}


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
    with `move`, it can be a move alone."""
    scene = own_scene(request, scene_id)
    text = request.GET.get("text", "")[:4000]
    may_say = ("move",) if request.GET.get("move") else EVERYTHING
    document = frames.document_at(scene, scene.digest)
    context = context_of(document, request.GET.get("layer"), may_say)
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
