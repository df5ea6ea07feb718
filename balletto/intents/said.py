"""The edits that are made of what is said, by what it is: a move, a style, a new layer ..."""

import re
from collections.abc import Callable
from typing import Any

import numpy as np

from ..motion.spaces.copy_places import COPIES
from ..scene.errors import SceneError
from ..scene.forms.flurry_starts import THINGS
from ..scene.letters.along import shapes_of
from ..scene.starts import new_caret, new_flurry, new_shape, new_title
from ..scene.values.tracks import value_at
from ..sentences.layers.place_reader import END, of_one, with_courses
from ..sentences.layers.settings import is_setting
from ..sentences.layers.shapes import shipped_name
from ..sentences.moves.clauses import UNITS_OF_LAYERS
from .adding import ADDING, layer_of_scene
from .layer_names import alike, layer_called
from .situation import Data, Situation
from .standing import in_words, stood

_LONGEST_NAME = 30
_FIRST = np.array(0.0)
_AT_REST: dict[str, list[float]] = {"position": [0, 0, 0], "rotation": [0, 0, 0], "scale": [1, 1]}


# Of layers that are there


def _move(situation: Situation, layer: str, line: str, data: Data) -> list[Data]:
    own = situation.layer(layer)
    if own.get("formation") and data.get("stagger") and "unit" not in data:
        data = {**data, "unit": "copy"}  # one after another: that is of what there are several
    move = {"name": _named(line), **of_kind(own, data)}
    first = own["span"][0]
    if not {"start", "marker"} & set(data) and first > 0:
        move["start"] = first
    letters = situation.selection.letters
    if letters and "among" not in data and layer == situation.selection.layer:
        move["among"] = [list(letters)]
    return [{"name": "add-move", "layer": layer, "move": move}]


def of_kind(layer: Data, data: Data) -> Data:
    """A move for a layer: what is no title moves as a whole, or a group by its members; copies
    move where there are some."""
    unit, kind = data.get("unit", ""), layer["kind"]
    if kind == "title":
        is_there = unit in COPIES and layer.get("formation")
        return {**data, "unit": "title"} if unit in UNITS_OF_LAYERS and not is_there else data
    kept = unit in UNITS_OF_LAYERS and (unit != "member" or kind == "group")
    return {**data, "unit": unit if kept else "layer"}


def _named(line: str) -> str:
    """What a move is called that says no name: its first words."""
    first = re.split(r"[,;(]| and ", line.strip())[0].strip().rstrip(".")
    name = first if len(first) <= _LONGEST_NAME else f"{first[: _LONGEST_NAME - 1].rstrip()}…"
    return name[:1].upper() + name[1:]


_ANOTHER = re.compile(r"\b(another|second|extra|one more)\b", re.IGNORECASE)


def _effect(situation: Situation, layer: str, line: str, data: Data) -> list[Data]:
    """An effect; of one that is there already what is said is changed, if none more is asked for:
    "another glow". None, if nothing else is said of one that is there."""
    effects = situation.layer(layer).get("effects", [])
    there = [n for n, each in enumerate(effects) if each["kind"] == data["kind"]]
    if not there or _ANOTHER.search(line):
        return [{"name": "add-effect", "layer": layer, "effect": data}]
    path = f"{layer}.effects.{there[-1]}"
    values = {name: value for name, value in data.items() if name != "kind"}
    return [{"name": "set-value", "path": f"{path}.{n}", "value": v} for n, v in values.items()]


def _mask(situation: Situation, layer: str, line: str, data: Data) -> list[Data]:
    return [ADDING["add-mask"](situation, {"name": "add-mask", "layer": layer, "mask": data})]


def _value(name: str) -> Callable[[Situation, str, str, Data], list[Data]]:
    """Sets all of what a layer has of a thing."""
    return lambda situation, layer, line, data: [
        {"name": "set-value", "path": f"{layer}.{name}", "value": data}
    ]


def _caret(situation: Situation, layer: str, line: str, data: Data) -> list[Data]:
    """A caret that goes with the move that was added last, unless there is one already."""
    title = situation.layer(layer)
    moves = title.get("moves", [])
    if not moves:
        raise SceneError.at(layer, "a caret goes with a move: add one that brings letters first")
    now = title.get("caret") or new_caret(title, moves[-1]["id"])
    return [{"name": "set-value", "path": f"{layer}.caret", "value": {**now, **data}}]


def _along(situation: Situation, layer: str, line: str, data: Data) -> list[Data]:
    """A path by the name of its shape, or more of one that a title stands along already."""
    edits = []
    if called := data.get("layer"):
        shapes, wanted = shapes_of(situation.document), alike(called)
        named = [s.id for s in shapes if called in (s.id, s.called) or alike(s.called) == wanted]
        if not named:
            told = f"there is no shape “{called}” in this scene: draw one first"
            raise SceneError.at(layer, told)
        edits.append({"name": "stand-along", "layer": layer, "value": named[-1]})
    elif "along" not in situation.layer(layer):
        told = "say which shape it stands along: “along “Orbit””"
        raise SceneError.at(layer, told)
    return edits + [
        {"name": "set-value", "path": f"{layer}.along.{name}", "value": value}
        for name, value in data.items()
        if name != "layer"
    ]


def _matte(situation: Situation, layer: str, line: str, data: Data) -> list[Data]:
    """A matte by the name of its layer."""
    value = {**data, "layer": layer_called(situation.document, data["layer"], [layer]).id}
    return [{"name": "set-value", "path": f"{layer}.matte", "value": value}]


def _style(situation: Situation, layer: str, line: str, data: Data) -> list[Data]:
    """What is said of a style, of the selected letters if there are any; the rest stays."""
    letters = situation.selection.letters
    if letters and layer == situation.selection.layer and not set(data) & _OF_TITLES:
        return _run(situation, layer, line, {"from": letters[0], "to": letters[1], "style": data})
    now = situation.layer(layer).get("style", {})
    is_first_line = data.get("outline") and not now.get("outline") and "outline_color" not in data
    if data.get("fill") == "none" and is_first_line and isinstance(now.get("fill"), str):
        data = {**data, "outline_color": now["fill"]}  # what is left to see has the colour it had
    return [
        {"name": "set-value", "path": f"{layer}.style.{name}", "value": value}
        for name, value in _by_property(data).items()
    ]


_OF_TITLES = frozenset({"leading", "align", "wrap", "widest", "least_size", "most_lines"})


def _run(situation: Situation, layer: str, line: str, data: Data) -> list[Data]:
    """What is said of some letters."""
    where = {"layer": layer, "first": data["from"], "end": data["to"]}
    return [
        {"name": "style-letters", **where, "property": name, "value": value}
        for name, value in _by_property(data["style"]).items()
    ]


def _by_property(style: Data) -> Data:
    """A style by the paths of its values."""
    tagged = ("axes", "features")
    values = {name: value for name, value in style.items() if name not in tagged}
    return values | {
        f"{name}.{tag}": value for name in tagged for tag, value in style.get(name, {}).items()
    }


def _place(situation: Situation, layer: str, line: str, data: Data) -> list[Data]:
    """What is said of a place; the rest of it stays."""
    transform = situation.document.layer(layer).transform
    now = {n: value_at(getattr(transform, n), _FIRST).tolist() for n in _AT_REST}
    words, numbers = in_words(data)
    values = _whole_courses(numbers, now)
    if "scale" in values and not isinstance(values["scale"], dict):
        values["scale"] = [values["scale"]] * 2
    edits = [
        {"name": "set-value", "path": f"{layer}.transform.{name}", "value": value}
        for name, value in values.items()
    ]
    placed = situation.after(edits) if edits and words else situation
    return [*edits, *stood(placed, layer, words)]


def _whole_courses(said: Data, now: dict[str, list[float]]) -> Data:
    """What is said of a place, by its paths; what has keyframes by the place as a whole."""
    made = dict(said)
    for name, numbers in now.items():
        own = {int(path[-1]): said[path] for path in said if path[:-1] == f"{name}."}
        if any(isinstance(value, dict) for value in own.values()):
            try:
                made[name] = with_courses(numbers, own)
            except ValueError as error:
                raise SceneError.at(name, str(error)) from None
            for index in own:
                del made[f"{name}.{index}"]
    return made


def _setting(situation: Situation, layer: str, line: str, data: Data) -> list[Data]:
    """How it is set, filled and drawn, when it is shown, then where it stands."""
    edits = _style(situation, layer, line, data["style"]) if "style" in data else []
    values = {name: data[name] for name in data if name not in ("style", "transform", "stroke")}
    if things := values.pop("flurry.things", None):
        values["flurry.source"] = THINGS[things]
    if stroke := data.get("stroke"):
        values["stroke"] = {**(situation.layer(layer).get("stroke") or {}), **stroke}
    if "text" in values:
        edits.append({"name": "set-text", "layer": layer, "text": values.pop("text")})
    edits += [
        {"name": "set-value", "path": f"{layer}.{path}", "value": value}
        for path, value in values.items()
    ]
    placed = situation.after(edits) if edits else situation
    return [*edits, *_place(placed, layer, line, data.get("transform", {}))]


OfLayer = Callable[[Situation, str, str, Data], list[Data]]
# By what is said: the edits for a layer, the line as it was typed, and what it says.
MADE_OF_LAYERS: dict[str, OfLayer] = {
    "move": _move,
    "effect": _effect,
    "mask": _mask,
    "window": _value("window"),
    "caret": _caret,
    "along": _along,
    "matte": _matte,
    "motion_blur": _value("motion_blur"),
    "formation": _value("formation"),
    "style": _style,
    "run": _run,
    "place": _place,
    "setting": _setting,
}


# Of the scene, whatever is selected


def _scene(situation: Situation, data: Data) -> list[Data]:
    """Size, rate, length and background, as far as they are said."""
    edits: list[Data] = []
    if "size" in data:
        edits.append({"name": "set-size", "size": data["size"], "fit": "whole"})
    if "rate" in data:
        edits.append({"name": "set-rate", "value": data["rate"]})
    if "length" in data:
        edits.append({"name": "set-length", "length": data["length"]})
    for name in ("camera", "background"):
        if name in data:
            value = data[name] if name == "camera" else _on_file(situation, data[name])
            edits.append({"name": "set-value", "path": f"scene.{name}", "value": value})
    return edits


def _on_file(situation: Situation, ground: Data) -> Data:
    """A background, of which a file is named as people call it."""
    kind = {"still": "still", "clip": "video"}.get(ground["kind"])
    if kind is None:
        return ground
    called = ground["file"]
    found = situation.shelf.file_named(called) or situation.shelf.file_called(called, kind)
    if found is None or found.kind != kind:
        what = "picture" if kind == "still" else kind
        raise SceneError.at("background", f"there is no {what} “{called}”: send the file first")
    goes_on = {"after": "loop"} if found.ships and kind == "video" else {}
    return {**ground, "file": found.name, **goes_on}


def _layers(situation: Situation, data: Data) -> list[Data]:
    """A new layer in front of all others, or several: the first of them in front, as they are
    listed; side by side, if nothing is said of where they stand across."""
    count = data.get("count", 1)
    words, place = in_words(data.get("transform", {}))
    side = words.get("side")
    if count > 1 and "position.0" not in place and not (side and side[0]):
        margin = situation.data["size"][0] / count / 2
        place |= {"position.0": margin, f"position.0{END}": situation.data["size"][0] - margin}
    usual = _NEW[data["kind"]](situation, data)
    edits = []
    for index in reversed(range(count)):
        one = {**data, "transform": of_one(place, index, count)}
        if count > 1 and "name" in data:
            one["name"] = f"{data['name']} {index + 1}"
        edits.append(_layer(usual, one))
    if not words:
        return edits
    added = situation.after(edits)
    new = [layer["id"] for layer in added.data["layers"][-count:]]
    return [*edits, *(edit for layer in new for edit in stood(added, layer, words, is_new=True))]


def _layer(edit: Data, data: Data) -> Data:
    """The edit that adds a layer, which as usual is that of `edit`, as it is said."""
    layer = dict(edit["layer"])
    layer |= {name: data[name] for name in ("name", "formation") if name in data}
    for index in (0, 1):
        if f"span.{index}" in data:
            span = list(layer["span"])
            span[index] = data[f"span.{index}"]
            layer["span"] = span
    if place := data["transform"]:
        layer["transform"] = _with_place(layer.get("transform", {}), place)
    for path in filter(is_setting, data):
        _put(layer, path, data[path])
    return {**edit, "layer": layer}


def _put(layer: Data, path: str, value: Any) -> None:
    """Puts a setting into a new layer; a number of two has the other beside it."""
    *way, last = path.split(".")
    if last.isdecimal():
        *way, name = way
        holder = layer if not way else layer.setdefault(way[0], {})
        holder[name] = [value if n == int(last) else old for n, old in
                        enumerate(holder.get(name, (0, 0)))]  # fmt: skip
    else:
        layer[last] = value


def _with_place(transform: Data, said: Data) -> Data:
    """A place with the numbers that are said, by their paths."""
    now = {name: list(transform.get(name, rest)) for name, rest in _AT_REST.items()}
    made = dict(transform)
    for path, value in _whole_courses(said, now).items():
        name, _, index = path.partition(".")
        if isinstance(value, dict):
            made[name] = value
        elif index:
            made[name] = list(made.get(name, _AT_REST[name]))
            made[name][int(index)] = value
        else:
            made[name] = [value, value] if name == "scale" else value
    return made


def _new_title(situation: Situation, data: Data) -> Data:
    layer = new_title(situation.data)
    said = data.get("style", {})
    axes = {**({} if "font" in said else layer["style"]["axes"]), **said.get("axes", {})}
    return {
        "name": "add-layer",
        "layer": {**layer, "text": data["text"], "style": {**layer["style"], **said, "axes": axes}},
    }


def _new_shape(situation: Situation, data: Data) -> Data:
    name = shipped_name(data["shape"].get("path", "")) or data["shape"]["kind"]
    layer = new_shape(situation.data, name)
    layer["shape"] = {**layer["shape"], **data["shape"]}
    if "count" in data or "formation" in data:
        layer["transform"].pop("scale", None)  # where there are several, each is as it was drawn
    if "fill" in data:
        layer["fill"] = data["fill"]
    if "stroke" in data:
        layer["stroke"] = {**(layer["stroke"] or {}), **data["stroke"]}
    return {"name": "add-layer", "layer": layer}


def _new_flurry(situation: Situation, data: Data) -> Data:
    return {"name": "add-layer", "layer": new_flurry(situation.data, data["flurry"])}


def _new_adjustment(situation: Situation, data: Data) -> Data:
    return ADDING["add-adjustment"](situation, {})


def _new_scene(situation: Situation, data: Data) -> Data:
    """A layer of another scene of the project, by its name; of several so called, the one that was
    made last."""
    called = data["called"]
    other = situation.shelf.scene_called(called)
    if other is None:
        raise SceneError.at("scene", f"there is no other scene “{called}” in this project")
    return layer_of_scene(situation, other)


_KINDS_OF_FILES = {"picture": "still", "video": "video", "sound": "sound"}


def _new_file(situation: Situation, data: Data) -> Data:
    """A layer of a file that was sent, by its name, with its ending or without."""
    called, kind = data["called"], _KINDS_OF_FILES[data["kind"]]
    found = situation.shelf.file_called(called, kind)
    if found is None:
        told = f"there is no {data['kind']} “{called}”: send the file first"
        raise SceneError.at(data["kind"], told)
    made = ADDING["add-file"](situation, {"file": found.name})
    # By a button a sound begins at the playhead; what is said begins at the start if no time is.
    span = [0, made["layer"]["span"][1]]
    return {**made, "layer": {**made["layer"], "span": span}}


_NEW: dict[str, Callable[[Situation, Data], Data]] = {
    "title": _new_title,
    "shape": _new_shape,
    "flurry": _new_flurry,
    "adjustment": _new_adjustment,
    "scene": _new_scene,
    "picture": _new_file,
    "video": _new_file,
    "sound": _new_file,
}
# By what is said: the edits, once for all that is selected.
MADE_ONCE: dict[str, Callable[[Situation, Data], list[Data]]] = {
    "scene": _scene,
    "layer": _layers,
}
