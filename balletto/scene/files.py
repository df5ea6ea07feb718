"""Reading and writing scenes: text to Scene and back, with every fault told by its path."""

import json
import math
from collections.abc import Iterable
from typing import Any

from pydantic import ValidationError

from .document import FORMAT, VERSION, Scene
from .errors import Fault, SceneError
from .model import shown
from .moving.marker_starts import bind_starts
from .references import nesting_faults, reference_faults
from .values.ties import bind_ties

MAX_NESTING = 100  # scenes in scenes take about a third of it

# From version n to n + 1, on plain data; filled as the format grows.
MIGRATIONS: dict[int, Any] = {}


def parse(text: str | bytes) -> Scene:
    """The scene of a file's text; SceneError with every fault if it cannot be used."""
    try:
        data = json_of(text if isinstance(text, str) else text.decode("utf-8-sig"))
    except UnicodeDecodeError as error:
        raise SceneError.at("", f"the file is not UTF-8 text (byte {error.start})") from None
    except json.JSONDecodeError as error:
        raise SceneError.at(
            "", f"the file is not JSON: {error.msg} in line {error.lineno}, column {error.colno}"
        ) from None
    except ValueError as error:
        raise SceneError.at("", f"the file is not a usable JSON text: {error}") from None
    return from_data(data)


def from_data(data: Any) -> Scene:
    """The scene of plain JSON data; SceneError with every fault if it cannot be used."""
    if not isinstance(data, dict):
        raise SceneError.at("", f"a scene (an object) is needed, got {shown(data)}")
    data = _migrated(data)
    try:
        scene = Scene.model_validate_json(json.dumps(data))
    except ValidationError as error:
        raise SceneError(faults_of(error)) from None
    except (RecursionError, ValueError) as error:  # lone surrogates, absurd nesting
        raise SceneError.at("", f"the file is not a usable JSON text: {error}") from None
    faults = _faults_between(scene)
    if faults:
        raise SceneError(faults)
    return scene


def _faults_between(scene: Scene, depth: int = 1) -> list[Fault]:
    """What is wrong between parts that are right by themselves, in scenes within it too."""
    faults = _double_ids(scene) or reference_faults(scene) or nesting_faults(scene, depth)
    faults = faults or bind_starts(scene) or bind_ties(scene)
    for index, used in enumerate(scene.scenes):
        if faults:
            break
        inside = _faults_between(used.scene, depth + 1)
        faults = [Fault(f"scenes[{index}].scene.{fault.path}", fault.message) for fault in inside]
    return faults


def to_data(scene: Scene) -> dict[str, Any]:
    """The scene as plain JSON data, with just what was said in it."""
    return json.loads(scene.model_dump_json(by_alias=True, exclude_unset=True))


def to_text(data: dict[str, Any]) -> str:
    """Plain data as the text of a scene file."""
    return json.dumps(data, ensure_ascii=False, indent=1) + "\n"


def json_of(text: str) -> Any:
    """The data of a JSON text that was sent; ValueError if it is none, or nested absurdly."""
    try:
        data = json.loads(text, parse_constant=_no_constant, parse_float=_finite)
    except RecursionError:
        raise ValueError("it is nested too deeply") from None
    level = [data]
    for _ in range(MAX_NESTING):
        level = [part for holder in level for part in _parts(holder)]
    if level:
        raise ValueError("it is nested too deeply")
    return data


def _parts(holder: Any) -> Iterable[Any]:
    if isinstance(holder, dict):
        return holder.values()
    return holder if isinstance(holder, list) else ()


def _finite(text: str) -> float:
    number = float(text)
    if math.isinf(number):
        raise ValueError(f"{text} is too large a number")
    return number


def _no_constant(name: str) -> None:
    raise ValueError(f"{name} is not a number that JSON knows")


def _migrated(data: dict[str, Any]) -> dict[str, Any]:
    if data.get("format") != FORMAT:
        raise SceneError.at(
            "format", f'"{FORMAT}" is needed, got {shown(data.get("format"))}: is it a scene file?'
        )
    version = data.get("version")
    if isinstance(version, bool) or not isinstance(version, int) or version < 1:
        raise SceneError.at("version", f"a version number is needed, got {shown(version)}")
    if version > VERSION:
        raise SceneError.at(
            "version", f"the file is of version {version}, newer than {VERSION}: update Balletto"
        )
    while version < VERSION:
        data = MIGRATIONS[version](data)
        version = data["version"]
    return data


def faults_of(error: ValidationError) -> list[Fault]:
    """Every fault once, in order of path; "too short" only where no item was at fault."""
    items = error.errors()
    paths = [_path(item["loc"]) for item in items]
    return sorted(
        {
            Fault(path, _message(item))
            for path, item in zip(paths, items, strict=True)
            if item["type"] != "too_short" or not any(p.startswith(f"{path}[") for p in paths)
        }
    )


def _path(location: tuple[int | str, ...]) -> str:
    """A pydantic location as `layers[2].moves[0]`; union tags, in parentheses, are left out."""
    path = ""
    for part in location:
        if isinstance(part, int):
            path += f"[{part}]"
        elif not part.startswith("("):
            path += f".{part}" if path else part
    return path.removesuffix(".[key]")


def _message(error: Any) -> str:
    kind, got = error["type"], shown(error["input"])
    context = error.get("ctx", {})
    said = {
        "extra_forbidden": "this key is not known here",
        "missing": "this is needed and not there",
        "bool_type": f"true or false is needed, got {got}",
        "string_type": f"a text is needed, got {got}",
        "literal_error": f"one of {context.get('expected')} is needed, got {got}",
        "tuple_type": f"a list is needed, got {got}",
        "model_type": f"an object is needed, got {got}",
        "model_attributes_type": f"an object is needed, got {got}",
        "dict_type": f"an object is needed, got {got}",
        "string_pattern_mismatch": f"an axis tag of four letters is needed, got {got}",
    }
    if kind == "needs":
        message = error["msg"]
        return message if "got " in message or "needed," in message else f"{message}, got {got}"
    return said.get(kind) or f"{error['msg'][0].lower()}{error['msg'][1:]}, got {got}"


def _double_ids(scene: Scene) -> list[Fault]:
    faults = _doubles([layer.id for layer in scene.layers], "layers")
    faults += _doubles([used.id for used in scene.scenes], "scenes")
    for index, layer in enumerate(scene.layers):
        moves = getattr(layer, "moves", ())
        faults += _doubles([move.id for move in moves], f"layers[{index}].moves")
    return faults


def _doubles(identifiers: list[str], path: str) -> list[Fault]:
    first: dict[str, int] = {}
    faults = []
    for index, identifier in enumerate(identifiers):
        if identifier in first:
            taken = f"{path}[{first[identifier]}]"
            faults.append(Fault(f"{path}[{index}].id", f'"{identifier}" is taken by {taken}'))
        first.setdefault(identifier, index)
    return faults
