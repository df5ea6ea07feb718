"""Ties: values that follow others. Here they are found, checked and bound to what they follow."""

import re
from collections.abc import Iterator
from functools import cache
from typing import Any

from pydantic import BaseModel, TypeAdapter, ValidationError

from ..errors import Fault
from .tracks import Tied, Track

Pointer = tuple[str | int, ...]
MOST_STEPS = 100  # from a value to what it follows at last


def bind_ties(scene: Any) -> list[Fault]:
    """Binds every tie of a scene to what it follows; a fault for each that cannot be."""
    ties = dict(ties_in(scene, ()))
    faults = []
    for pointer, tied in ties.items():
        try:
            source, part = find_value(scene, tied.tie.to)
        except LookupError as error:
            faults.append(Fault(_path(pointer), f"the tie leads nowhere: {error.args[0]}"))
            continue
        head = tied.tie.to.partition(".")[0]
        layer = next((each for each in scene.layers if each.id == head), None)
        tied.bind(source, part, _owner(scene, tied.tie.to), layer)
    if faults:
        return faults
    names = {id(tied): _name(scene, pointer) for pointer, tied in ties.items()}
    faults = [fault for pointer, tied in ties.items() for fault in _endless(pointer, tied, names)]
    return faults or [fault for pointer, tied in ties.items() for fault in _misfits(pointer, tied)]


def ties_in(part: Any, pointer: Pointer) -> Iterator[tuple[Pointer, Tied[Any]]]:
    """All ties below a part of a scene, with their places."""
    if isinstance(part, Tied):
        yield pointer, part
    elif isinstance(part, BaseModel) and not isinstance(part, Track):
        for name, field in type(part).model_fields.items():
            yield from ties_in(getattr(part, name), (*pointer, field.alias or name))
    elif isinstance(part, tuple) and part and isinstance(part[0], BaseModel):
        for index, item in enumerate(part):
            yield from ties_in(item, (*pointer, index))
    elif isinstance(part, dict):
        for name, item in part.items():
            yield from ties_in(item, (*pointer, name))


def find_value(scene: Any, path: str) -> tuple[Any, int | None]:
    """What a path ("t1.moves.m1.amount") names: a value, and which part if it is of a vector.

    LookupError, saying what is wrong, if there is no such value.
    """
    head, *rest = path.split(".")
    part = scene if head == "scene" else _with_id(scene.layers, head, "layer")
    if rest[:1] == ["moves"] and len(rest) > 1 and head != "scene":
        part, rest = _with_id(getattr(part, "moves", ()), rest[1], f"move in {head}"), rest[2:]
    for number, name in enumerate(rest):
        if name.isdecimal() and number == len(rest) - 1 and _width(part) > int(name):
            return part, int(name)
        part = _step(part, name, path)
    if _width(part) < 0:
        raise LookupError(f'"{path}" is no value that could be followed')
    return part, None


def _owner(scene: Any, path: str) -> str:
    """The name of the move or layer that a path leads into."""
    head, *rest = path.split(".")
    if head == "scene":
        return "the scene"
    layer = _with_id(scene.layers, head, "layer")
    move = _with_id(layer.moves, rest[1], "move") if rest[:1] == ["moves"] else None
    return (move and (move.name or "Move")) or layer.name or layer.words or head


def _with_id(items: tuple[Any, ...], identifier: str, what: str) -> Any:
    found = next((item for item in items if item.id == identifier), None)
    if found is None:
        raise LookupError(f'there is no {what} "{identifier}"')
    return found


def _step(part: Any, name: str, path: str) -> Any:
    if isinstance(part, BaseModel):
        fields = type(part).model_fields
        found = next((key for key, field in fields.items() if name in (key, field.alias)), None)
        part = getattr(part, found) if found else None
    elif isinstance(part, dict):
        part = part.get(name)
    elif isinstance(part, tuple) and name.isdecimal() and int(name) < len(part):
        part = part[int(name)]
    else:
        part = None
    if part is None:
        raise LookupError(f'there is no "{name}" of "{path}"')
    return part


def _width(value: Any) -> int:
    """How many numbers a value has: 0 for a plain one, -1 if it is no value of this kind."""
    if isinstance(value, Track):
        return _width(value.keys[0].value)
    if isinstance(value, Tied):
        return 0 if value.part is not None else len(_stand_in(type(value)))
    if isinstance(value, tuple) and value and all(isinstance(v, int | float) for v in value):
        return len(value)
    is_number = isinstance(value, int | float) and not isinstance(value, bool)
    is_color = isinstance(value, str) and _COLOR.fullmatch(value)
    return 0 if is_number or is_color else -1


_COLOR = re.compile("#[0-9A-Fa-f]{6}")


@cache
def _stand_in(kind: type[Tied[Any]]) -> tuple[float, ...]:
    """As many ones as the values have that a kind of tie stands for; none for a plain number."""
    plain = TypeAdapter(kind.__pydantic_generic_metadata__["args"][0])
    for candidate in ((), (1, 1), (1, 1, 1)):
        try:
            plain.validate_python(candidate or 1)
        except ValidationError:
            continue
        return candidate
    return ()


@cache
def _takes_colors(kind: type[Tied[Any]]) -> bool:
    try:
        TypeAdapter(kind.__pydantic_generic_metadata__["args"][0]).validate_python("#000000")
    except ValidationError:
        return False
    return True


def _endless(pointer: Pointer, start: Tied[Any], names: dict[int, str]) -> Iterator[Fault]:
    """A fault if the ties from one on come back to it, or are too many in a row."""
    steps, followed = [start], start.source
    while isinstance(followed, Tied) and followed is not start and len(steps) <= MOST_STEPS:
        steps.append(followed)
        followed = followed.source
    if followed is start:
        circle = " → ".join(names[id(step)] for step in [*steps, start])
        yield Fault(_path(pointer), f"a circle of ties, which has no value: {circle}")
    elif len(steps) > MOST_STEPS:
        told = f"more than {MOST_STEPS} ties in a row: tie it to what the others follow at last"
        yield Fault(_path(pointer), told)


def _misfits(pointer: Pointer, tied: Tied[Any]) -> Iterator[Fault]:
    """A fault if what is followed has not as many numbers as what follows."""
    needed = len(_stand_in(type(tied)))
    given = 0 if tied.part is not None else _width(tied.source)
    if _takes_colors(type(tied)) != tied.is_color or needed != given:
        told = "a colour" if tied.is_color else _COUNTS[given]
        wanted = "a colour" if _takes_colors(type(tied)) else _COUNTS[needed]
        yield Fault(_path(pointer), f'{wanted} is needed to follow, "{tied.tie.to}" is {told}')


_COUNTS = {0: "one number", 2: "a pair of numbers", 3: "a set of three numbers"}


def _name(scene: Any, pointer: Pointer) -> str:
    """A pointer as a tie would name it: by the ids of layers and moves."""
    names: list[str] = []
    part: Any = scene
    for index, step in enumerate(pointer):
        is_inside = isinstance(part, tuple | dict)
        part = part[step] if is_inside else _step(part, str(step), "")
        if index and pointer[index - 1] in ("layers", "moves") and isinstance(step, int):
            names.append(part.id)
        elif step != "layers":
            names.append(str(step))
    return ".".join(names if pointer[0] == "layers" else ["scene", *names])


def _path(pointer: Pointer) -> str:
    """A pointer as faults tell it: `layers[0].moves[1].amount`."""
    path = "".join(f"[{step}]" if isinstance(step, int) else f".{step}" for step in pointer)
    return path.removeprefix(".")
