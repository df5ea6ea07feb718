"""A scene as a text, and back.

    The scene “Opening”.
    A picture of 1920 px by 1080 px, ..., at 30 frames a second, 120 frames long, on #101428.

    Title “The Quiet Orbit” (t1), frames 0 to 90
    Reads “The Quiet Orbit”.
    Set in Fraunces weight 700, ...
    “Rise”: Each character comes from 120 px below, ...
    Besides, moves.0.id: "rise".

A block for the scene, then one for each layer, the front one first; a line for each thing that is
said. What no sentence says, or says in other words than it is kept, stands behind "Besides", by its
path, as JSON: so nothing is left out, whatever a scene holds. Scenes within it follow, indented.
"""

import json
import re
from collections.abc import Iterator
from typing import Any

from pydantic import ValidationError

from ...scene import files
from ...scene.document import FORMAT, VERSION, Scene, rate_of
from ...scene.errors import SceneError
from ...scene.layers import LAYER_KINDS, Layer
from ...scene.model import Model
from ..language.letters import quoted, unquoted
from ..language.tokens import SayingError
from ..reader import RATE, Context
from .parts import SCENE_LINES, put_line
from .wording import layer_head, layer_sentences, scene_sentences

Data = dict[str, Any]
MOST_LETTERS, MOST_LINES = 2_000_000, 10_000
_INDENT = "    "
_BESIDES, _AS_USUAL = "Besides, ", "as usual"
_TITLES = {model.title: kind for kind, model in LAYER_KINDS.items()}
_HEAD = re.compile(
    rf"({'|'.join(_TITLES)})(?: “((?:[^”\\]|\\.)*)”)? \(([^()]+)\), frames (\S+) to (\S+)"
)
_NESTED = re.compile(r"With the scene (\S+?)(?: from “((?:[^”\\]|\\.)*)”)?:")
_PUT = re.compile(rf"{_BESIDES}([\w.-]+)(?:: (.*)| {_AS_USUAL})\.")
_DIGITS = 9


# From a scene to its text


def scene_as_text(scene: Scene) -> str:
    """A whole scene as a text."""
    return "\n\n".join(_blocks(scene)) + "\n"


def layer_as_text(scene: Scene, layer_id: str) -> str:
    """One layer of a scene; KeyError if it is not there."""
    layer = scene.layer(layer_id)
    place = scene.layers.index(layer)
    return "\n".join(_layer_lines(scene, layer, files.to_data(scene)["layers"][place]))


def _blocks(scene: Scene) -> Iterator[str]:
    plain = files.to_data(scene)
    yield "\n".join(_scene_lines(scene, plain))
    pairs = list(zip(scene.layers, plain.get("layers", []), strict=True))
    for layer, data in reversed(pairs):
        yield "\n".join(_layer_lines(scene, layer, data))
    for used in scene.scenes:
        source = f" from {quoted(used.source)}" if used.source is not None else ""
        inside = scene_as_text(used.scene).rstrip("\n").splitlines()
        lines = [f"{_INDENT}{line}" if line else "" for line in inside]
        yield "\n".join([f"With the scene {used.id}{source}:", *lines])


def _scene_lines(scene: Scene, plain: Data) -> list[str]:
    context, made = Context(), _new_scene()
    lines = []
    for line in scene_sentences(scene):
        if _is_put(line, made, context):
            lines.append(line)
    own = {name: value for name, value in plain.items() if name not in ("layers", "scenes")}
    return [*lines, *_besides_of(Scene, made, own)]


def _layer_lines(scene: Scene, layer: Layer, plain: Data) -> list[str]:
    lines = [layer_head(layer)]
    made = _begun(lines[0])
    for line in layer_sentences(scene, layer):
        if _is_put(line, made, _context_of(made, float(scene.frames_a_second))):
            lines.append(line)
    _name(made)
    made = {name: value for name, value in made.items() if not name.startswith("_")}
    model = LAYER_KINDS[layer.kind]
    return [*lines, *_besides_of(model, made, plain)]


def _is_put(line: str, made: Data, context: Context) -> bool:
    """Whether a sentence can be read; then what it says is put into what is made."""
    try:
        put_line(line, made, context)
    except SayingError:
        return False
    return True


def _whole(model: type[Model], data: Data) -> Data:
    """All that a part of a scene says, and what is usual where it says nothing."""
    found: Data = json.loads(
        model.model_validate_json(json.dumps(data)).model_dump_json(by_alias=True)
    )
    return found


def _possible(model: type[Model], made: Data, plain: Data) -> tuple[Data, set[str]]:
    """What was made of sentences, so that it can be: what cannot, or is needed, is taken from what
    was said. And the names of these."""
    taken: set[str] = set()
    while True:
        try:
            model.model_validate_json(json.dumps(made))
        except ValidationError as error:
            wrong = {str(fault["loc"][0]) for fault in error.errors() if fault["loc"]} - taken
            wrong = wrong or set(made) | set(plain)
            taken |= wrong
            kept = {name: value for name, value in made.items() if name not in taken}
            made = kept | {name: plain[name] for name in taken if name in plain}
        else:
            return made, taken


def _besides_of(model: type[Model], made: Data, plain: Data) -> list[str]:
    """What sentences leave out of a part of a scene, or say otherwise, each by its path."""
    possible, taken = _possible(model, made, plain)
    wanted, found = _whole(model, plain), _whole(model, possible)
    said = {name: value for name, value in possible.items() if name not in taken}
    deep = [*((name,) for name in taken), *_different(wanted, found, said)]
    if not _makes(model, said, plain, deep, wanted):
        # Where parts exclude each other, only the whole of them can be told.
        deep = list(dict.fromkeys(path[:1] for path in deep))
    return [_besides(plain, path) for path in deep]


DataPath = tuple[str, ...]


def _makes(
    model: type[Model], said: Data, plain: Data, paths: list[DataPath], wanted: Data
) -> bool:
    """Whether what was said makes what is wanted, with what stands at paths besides."""
    made = json.loads(json.dumps(said))
    for path in paths:
        try:
            _put(made, path, _at(plain, path))
        except LookupError:
            _put(made, path, None, is_usual=True)
    try:
        return bool(_near(_whole(model, made)) == _near(wanted))
    except ValidationError:
        return False


def _besides(plain: Data, path: DataPath) -> str:
    try:
        value = json.dumps(_at(plain, path), ensure_ascii=False)
        return f"{_BESIDES}{'.'.join(path)}: {value}."
    except LookupError:
        return f"{_BESIDES}{'.'.join(path)} {_AS_USUAL}."


def _different(wanted: Any, found: Any, said: Any, path: DataPath = ()) -> Iterator[DataPath]:
    """The paths of what differs, as deep as what was said has the same parts."""
    if _near(wanted) == _near(found):
        return
    if isinstance(said, dict) and (not path or _are_alike(wanted, found)):
        for name in wanted | found:
            own = said.get(name)
            yield from _different(wanted.get(name), found.get(name), own, (*path, name))
    elif isinstance(said, list) and isinstance(wanted, list) and len(wanted) == len(said):
        for number, parts in enumerate(zip(wanted, found, said, strict=True)):
            yield from _different(*parts, (*path, str(number)))
    else:
        yield path


def _are_alike(wanted: Any, found: Any) -> bool:
    """Whether both are of one kind, of which parts can be named by paths."""
    are_parts = isinstance(wanted, dict) and isinstance(found, dict)
    return are_parts and set(wanted) == set(found) and not any("." in name for name in wanted)


def _near(value: Any) -> Any:
    """A value as it is told: to nine decimals."""
    if isinstance(value, int | float) and not isinstance(value, bool):
        return round(float(value), _DIGITS) + 0.0
    if isinstance(value, dict):
        return {name: _near(each) for name, each in value.items()}
    return [_near(each) for each in value] if isinstance(value, list) else value


def _at(data: Any, path: DataPath) -> Any:
    """What stands at a path; LookupError if nothing does."""
    for name in path:
        data = data[int(name)] if isinstance(data, list) else data[name]
    return data


# From a text to a scene


def scene_from_text(text: str) -> Data:
    """The scene that a text says, as plain data; SceneError, with the line, if any of it is not
    understood. Whether the scene can be is for `files.from_data` to say."""
    if len(text) > MOST_LETTERS:
        raise SceneError.at("", f"a text of at most {MOST_LETTERS} letters can be read")
    lines = list(enumerate(text.split("\n"), 1))
    if len(lines) > MOST_LINES:  # a line takes a thousandth of a second or two
        told = f"a text of at most {MOST_LINES} lines can be read: use the scene file"
        raise SceneError.at("", told)
    return _read_scene(lines)


Lines = list[tuple[int, str]]


def _read_scene(lines: Lines, depth: int = 0) -> Data:
    if depth > files.MAX_NESTING:
        raise SceneError.at("", "scenes are nested too deeply")
    blocks = list(_cut(lines))
    scene = _new_scene()
    layers: list[Data] = []
    for block in blocks:
        number, first = block[0]
        if nested := _NESTED.fullmatch(first):
            inside = [(n, line.removeprefix(_INDENT)) for n, line in block[1:]]
            used: Data = {"id": nested[1], "scene": _read_scene(inside, depth + 1)}
            if nested[2] is not None:
                used["source"] = unquoted(nested[2])
            scene.setdefault("scenes", []).append(used)
        elif _HEAD.fullmatch(first.rstrip(".")):
            layers.append(_read_layer(block, scene))
        elif block is blocks[0]:
            _read_lines(block, scene, Context())
        else:
            told = "a block begins with a layer, as “Title “Orbit” (t1), frames 0 to 90”"
            raise SceneError.at(f"line {number}", told)
    scene["layers"] = layers[::-1]
    return scene


def _cut(lines: Lines) -> Iterator[Lines]:
    """The blocks of a text: empty lines part them, but for what is within a nested scene."""
    block: Lines = []
    for number, line in lines:
        is_nested = bool(block) and _NESTED.fullmatch(block[0][1]) is not None
        is_empty = not line.strip()
        is_over = not line.startswith(_INDENT) and not is_empty if is_nested else is_empty
        if is_over and block:
            yield _without_end(block)
            block = []
        if not is_empty or is_nested:
            block.append((number, line.rstrip("\r")))
    if block:
        yield _without_end(block)


def _without_end(block: Lines) -> Lines:
    while not block[-1][1].strip():
        block = block[:-1]
    return block


def _read_layer(block: Lines, scene: Data) -> Data:
    made = _begun(block[0][1].rstrip("."))
    rate = _frames_a_second(scene.get("rate"))
    _read_lines(block[1:], made, None, rate)
    _name(made)
    return {name: value for name, value in made.items() if not name.startswith("_")}


def _read_lines(lines: Lines, made: Data, context: Context | None, rate: float = 30.0) -> None:
    """Puts what lines say into what is made of them; those behind "Besides" last."""
    later = [(number, line) for number, line in lines if line.startswith(_BESIDES)]
    for number, line in lines:
        if not line.startswith(_BESIDES):
            try:
                put_line(line, made, context or _context_of(made, rate))
            except SayingError as fault:
                raise SceneError.at(f"line {number}", str(fault)) from None
    if later:
        _name(made)
    for number, line in later:
        _put_besides(number, line, made)


def _put_besides(number: int, line: str, made: Data) -> None:
    found = _PUT.fullmatch(line.strip())
    if not found:
        told = 'say “Besides, blend: "multiply".” or “Besides, blend as usual.”'
        raise SceneError.at(f"line {number}", told)
    path = tuple(found[1].split("."))
    try:
        value = None if found[2] is None else files.json_of(found[2])
        _put(made, path, value, is_usual=found[2] is None)
    except (LookupError, ValueError, TypeError, AttributeError):
        told = f"there is nothing at “{found[1]}” that this could be put into, or it is no JSON"
        raise SceneError.at(f"line {number}", told) from None


def _frames_a_second(rate: Any) -> float:
    """The rate that a text says, as far as it says one."""
    try:
        return float(rate_of(str(rate)))
    except (ValueError, ZeroDivisionError):
        return RATE


def _put(made: Data, path: DataPath, value: Any, is_usual: bool = False) -> None:
    """Puts a value at a path; one that is as usual is left out."""
    holder: Any = made
    for name in path[:-1]:
        holder = holder[int(name)] if isinstance(holder, list) else holder.setdefault(name, {})
    if isinstance(holder, list):
        holder[int(path[-1])] = value
    elif is_usual:
        holder.pop(path[-1], None)
    else:
        holder[path[-1]] = value


def _new_scene() -> Data:
    return {"format": FORMAT, "version": VERSION}


def _begun(head: str) -> Data:
    """A layer of which just the head was read; its name is kept aside until all is read."""
    found = _HEAD.fullmatch(head)
    if found is None:
        raise SceneError.at("", f"“{head}” is no head of a layer")
    title, called, identifier, first, end = found.groups()
    span = [_number(first), _number(end)]
    return {"kind": _TITLES[title], "id": identifier, "span": span, "_called": called}


def _number(text: str) -> float | int:
    try:
        number = float(text.replace("−", "-"))
        return int(number) if number == int(number) else number
    except (ValueError, OverflowError):
        raise SceneError.at("", f"“{text}” is no frame") from None


def _name(made: Data) -> None:
    """Gives a layer the name that its head says, unless that is what it is called without one."""
    called = made.pop("_called", None)
    if called is None:
        return
    name = unquoted(called)
    words = " ".join(str(made.get("text", made.get("file", ""))).split())
    if made["kind"] != "title":
        words = str(made.get("file", ""))
    if name != words:
        made["name"] = name


def _context_of(made: Data, rate: float) -> Context:
    """What the sentences of a layer are read for."""
    shape = made.get("shape", {}).get("kind", "")
    return Context(rate, made.get("text"), SCENE_LINES, made["kind"], shape, "formation" in made)
