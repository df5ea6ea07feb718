"""What a line of a scene's text says, put into the plain data of what is made of it."""

import re
from collections.abc import Callable
from dataclasses import replace
from typing import Any

from ...scene.forms.flurry_starts import THINGS
from ..language.letters import unquoted
from ..language.numbers import NUMBER, said_plainly
from ..language.terms import Reading
from ..language.tokens import SayingError
from ..layers.media import media_kinds
from ..layers.part_reader import PartReader
from ..layers.place_reader import PlaceReader, with_courses
from ..reader import Context, all_atoms, read
from .fits import is_fit, read_fit

Data = dict[str, Any]
# What may be said of a layer, in the order in which it is tried.
SCENE_LINES = (
    "effect", "formation", "mask", "matte", "motion_blur", "window", "caret", "along", "style",
    "run", "place", "setting", "move",
)  # fmt: skip
_QUOTED = r"“((?:[^”\\]|\\.)*)”"
_NAMED = re.compile(rf"The scene {_QUOTED}\.?")
_MARKED = re.compile(rf"A marker (?:{_QUOTED} )?at frame ({NUMBER})\.?")
_WITHIN = re.compile(rf"In the group {_QUOTED}\.?")
_WAY = re.compile(r"Its way (?=comes|leaves)")
_HANDLE = re.compile(rf"(comes to|leaves) key (\d{{1,6}}) by ({NUMBER}) px, ({NUMBER}) px")
_BELOW = "Works on all below"
_REST = {"position": [0, 0, 0], "rotation": [0, 0, 0], "scale": [1, 1]}


def put_line(line: str, made: Data, context: Context) -> None:
    """Puts what a line says into what is made; SayingError if it is not understood."""
    put = _put_into_layer if "kind" in made else _put_into_scene
    put(line.strip(), made, context)


def _put_into_scene(line: str, made: Data, context: Context) -> None:
    if named := _NAMED.fullmatch(line):
        made["name"] = unquoted(named[1])
    elif marked := _MARKED.fullmatch(line):
        name = {"name": unquoted(marked[1])} if marked[1] is not None else {}
        at = said_plainly(marked[2])
        made.setdefault("markers", []).append({"at": at, **name})
    elif is_fit(line):
        made.setdefault("fits", []).append(read_fit(line))
    else:
        what, data = read(line, replace(context, may_say=("scene", "motion_blur")))
        made |= data if what == "scene" else {what: data}


def _put_into_layer(line: str, made: Data, context: Context) -> None:
    kind = made["kind"]
    if within := _WITHIN.fullmatch(line):
        made["group"] = unquoted(within[1])
    elif line.startswith(_BELOW):
        _place(made, "place", _all_of(line, context, PlaceReader))
    elif _WAY.match(line):
        _bend(line, made)
    elif kind in media_kinds() and not made.get("_shows"):
        _put_media(line, made, context)
    elif kind in ("shape", "flurry") and kind not in made:
        _put_form(line, made, context)
    else:
        what, data = read(line, context)
        _PUT[what](made, what, data)


def _bend(line: str, made: Data) -> None:
    """The handles of the way between the keys of a place."""
    position = made.get("transform", {}).get("position")
    keys = position["keys"] if isinstance(position, dict) and "keys" in position else []
    if other := re.search(r"\w+", _HANDLE.sub("", line.removeprefix("Its way")).replace("and", "")):
        told = f"“{other[0]}” is not understood here: say it as “leaves key 1 by 30 px, −40 px”"
        raise SayingError(told, line.find(other[0]), line.find(other[0]) + len(other[0]))
    for found in _HANDLE.finditer(line):
        index, numbers = int(found[2]) - 1, (found[3], found[4])
        if not 0 <= index < len(keys):
            told = f"there is no key {found[2]}: say first where it stands, by keys"
            raise SayingError(told, found.start(), found.end())
        side = "in" if found[1] == "comes to" else "out"
        keys[index][side] = [said_plainly(number) for number in numbers]


def _put_media(line: str, made: Data, context: Context) -> None:
    """What a layer shows or plays."""
    kind = media_kinds()[made["kind"]]
    data = _all_of(line, context, lambda reading: PartReader(reading, kind))
    made |= {**data, "_shows": True}
    if made["kind"] == "clicks":  # what they go with is told besides
        made |= {"title": "t1", "move": "m1"}


def _all_of(line: str, context: Context, reader_of: Callable[[Reading], Any]) -> Data:
    """What a reader makes of a whole line."""
    reading = Reading(all_atoms().read(line), all_atoms(), context.rate)
    reader = reader_of(reading)
    while reading.atom() is not None and reader.step():
        pass
    if (atom := reading.atom()) is not None:
        raise SayingError(f"“{atom.raw}” is not understood here", atom.start, atom.end)
    data: Data = reader.data()
    return data


def _put_form(line: str, made: Data, context: Context) -> None:
    """What a shape or a flurry is."""
    what, data = read(line, replace(context, may_say=("layer",)))
    if data["kind"] != made["kind"]:
        raise SayingError(f"this is a {made['kind']}: say what it is like", 0, len(line))
    if what == "layer" and "flurry" in data:
        data["flurry"] = _flurry(data["flurry"])
    else:
        data.setdefault("stroke", None)
    made |= {name: data[name] for name in data if name not in ("kind", "transform", "count")}


def _flurry(said: Data) -> Data:
    """What is thrown, by what it is called."""
    said = {name: value for name, value in said.items() if name != "start"}
    if things := said.pop("things", None):
        said["source"] = THINGS[things]
    for name in ("text", "layer"):
        if name in said:
            said["source"] = [{name: said.pop(name)}]
    said.setdefault("source", [{"text": "?"}])  # of its own things, which are told besides
    return said


def _set(made: Data, what: str, data: Data) -> None:
    made[what] = data


def _add(made: Data, what: str, data: Data) -> None:
    made.setdefault({"run": "runs"}.get(what, f"{what}s"), []).append(data)


def _move(made: Data, what: str, data: Data) -> None:
    moves = made.setdefault("moves", [])
    moves.append({"id": f"m{len(moves) + 1}", **data})


def _caret(made: Data, what: str, data: Data) -> None:
    moves = made.get("moves") or [{"id": "m1"}]
    made["caret"] = {"move": moves[-1]["id"], **data}


def _place(made: Data, what: str, data: Data) -> None:
    """A place by its numbers, each by its path, plain or with courses."""
    place = made.setdefault("transform", {})
    for name, rest in _REST.items():
        own = {int(path[-1]): data[path] for path in data if path[:-1] == f"{name}."}
        if not own:
            continue
        if any(isinstance(value, dict) for value in own.values()):
            try:
                place[name] = with_courses([*map(float, rest)], own)
            except ValueError as error:
                raise SayingError(str(error), 0, 0) from None
        else:
            place[name] = [own.get(index, number) for index, number in enumerate(rest)]
    place |= {name: data[name] for name in ("position", "rotation", "opacity") if name in data}
    if "scale" in data:
        scale = data["scale"]
        place["scale"] = scale if isinstance(scale, dict) else [scale, scale]


def _setting(made: Data, what: str, data: Data) -> None:
    """Settings by their paths; a style, a place and a line as they are."""
    for path, value in data.items():
        if path == "transform":
            _place(made, what, value)
            continue
        *way, last = path.split(".")
        holder = made
        for number, name in enumerate(way):
            is_list = number + 1 == len(way) and last.isdecimal()
            holder = holder.setdefault(name, [0, 0] if is_list else {})
        if isinstance(holder, list):
            holder[int(last)] = value
        else:
            holder[last] = value


_PUT: dict[str, Callable[[Data, str, Data], None]] = {
    **dict.fromkeys(("style", "window", "along", "matte", "motion_blur", "formation"), _set),
    **dict.fromkeys(("run", "effect", "mask"), _add),
    "caret": _caret,
    "move": _move,
    "place": _place,
    "setting": _setting,
}
