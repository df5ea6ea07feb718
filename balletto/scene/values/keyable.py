"""Values by their paths: which can have keyframes, what they are at a frame, what their rest is."""

from functools import cache
from typing import Any, NamedTuple, get_args

import numpy as np
from pydantic import BaseModel

from ..pose import rest_of_property
from .colors import hex_of
from .ties import find_value
from .tracks import CHANGES, Tied, Track, is_color, value_at


class Keyable(NamedTuple):
    """A value that can have keyframes: its path, the value itself, and which of its numbers is
    meant, None for all."""

    path: str
    value: Any
    part: int | None

    @property
    def is_keyed(self) -> bool:
        return isinstance(self.value, Track)

    @property
    def is_tied(self) -> bool:
        return isinstance(self.value, Tied)


def keyable(scene: Any, path: str) -> Keyable | None:
    """The value at a path or around it that can have keyframes; None if there is none.

    "t1.transform.position.0" is the first number of "t1.transform.position". The keys of a value
    themselves ("t1.transform.opacity.keys.0.value") can have none.
    """
    part, name = _holder(scene, path)
    if name is None:
        return None
    rest = path[len(name) :].strip(".")
    value = part
    if not rest:
        return Keyable(name, value, None)
    return Keyable(name, value, int(rest)) if rest.isdecimal() else None


def _holder(scene: Any, path: str) -> tuple[Any, str | None]:
    """The first value on the way along a path whose type may change over time, and its path."""
    head, *names = path.split(".")
    part, done = (scene, [head]) if head == "scene" else (_by_id(scene.layers, head), [head])
    while names and part is not None:
        name = names.pop(0)
        done.append(name)
        if isinstance(part, BaseModel):
            key = _field_of(type(part), name)
            if key is None:
                return None, None
            value = getattr(part, key)
            if _may_change(type(part), key):
                if not isinstance(value, dict):
                    return value, ".".join(done)
                if names:  # an axis of a pose
                    done.append(names.pop(0))
                    return value.get(done[-1]), ".".join(done)
            part = value
        elif isinstance(part, tuple) and part and hasattr(part[0], "id"):
            part = _by_id(part, name)
        elif isinstance(part, tuple) and name.isdecimal() and int(name) < len(part):
            part = part[int(name)]
        else:
            return None, None
    return None, None


def _by_id(items: tuple[Any, ...], identifier: str) -> Any:
    return next((item for item in items if item.id == identifier), None)


def _field_of(model: type[BaseModel], name: str) -> str | None:
    """The field of a model that is called so in a file."""
    return next((k for k, f in model.model_fields.items() if name in (k, f.alias)), None)


def keyed_type(part: BaseModel, name: str) -> bool:
    """Whether the value of a part that is called so in a file can have keyframes."""
    key = _field_of(type(part), name)
    return key is not None and _may_change(type(part), key)


@cache
def _may_change(model: type[BaseModel], name: str) -> bool:
    field = model.model_fields[name]
    return CHANGES in field.metadata or _is_marked(field.annotation)


def _is_marked(annotation: Any) -> bool:
    if CHANGES in getattr(annotation, "__metadata__", ()):
        return True
    return any(_is_marked(argument) for argument in get_args(annotation))


def local_start(scene: Any, path: str) -> float:
    """The frame of the scene from which the frames of a value count: what the pose and the amount
    of a move say counts from its start, all else from frame 0."""
    start = start_path(path)
    return find_value(scene, start)[0] if start else 0


def start_path(path: str) -> str | None:
    """The path of the start from which the frames of a value count; None for frame 0."""
    layer, _, rest = path.partition(".moves.")
    move, _, value = rest.partition(".")
    return f"{layer}.moves.{move}.start" if value.startswith(("pose.", "amount")) else None


def value_now(scene: Any, path: str, frame: float) -> Any:
    """The value at a path at a frame of the scene, plain: a number, a list of them, a colour.

    LookupError if there is no such value.
    """
    value, part = find_value(scene, path)
    if not isinstance(value, Track | Tied | str):
        plain = value if part is None else value[part]
        return list(plain) if isinstance(plain, tuple) else plain
    if isinstance(value, str):
        return value
    now = value_at(value, np.array(float(frame - local_start(scene, path))))
    if is_color(value):
        return hex_of(now)
    return (now if part is None else now[part]).tolist()


def rest_of(path: str) -> float | None:
    """What `home` means for a value: the rest of a property of a pose; None for any other."""
    if ".pose." not in path:
        return None
    return rest_of_property(path.rpartition(".pose.")[2])


def has_value(scene: Any, path: str) -> bool:
    """Whether there is a value at a path, said or left out."""
    head, *names = path.split(".")
    part = scene if head == "scene" else _by_id(scene.layers, head)
    for name in names:
        if isinstance(part, Track | Tied):
            return name.isdecimal()
        if isinstance(part, BaseModel):
            key = _field_of(type(part), name)
            if key is None:
                return False
            part = getattr(part, key)
        elif isinstance(part, dict):
            return True
        elif isinstance(part, tuple) and part and hasattr(part[0], "id"):
            part = _by_id(part, name)
        elif isinstance(part, tuple) and name.isdecimal() and int(name) < len(part):
            part = part[int(name)]
        else:
            return False
    return part is not None or bool(names)


def counterpart(scene: Any, path: str, layer: str) -> str | None:
    """The path of the same value of another layer; None if that has no such value.

    A move is the same if it is called so, an effect or mask the first of its kind.
    """
    head, *names = path.split(".")
    own, other = _by_id(scene.layers, head), _by_id(scene.layers, layer)
    if own is None or other is None:
        return None
    if names[:1] == ["moves"] and len(names) > 1:
        move = _by_id(getattr(own, "moves", ()), names[1])
        name = move and move.name
        same = next((m for m in getattr(other, "moves", ()) if m.name == name), None)
        if move is None or same is None:
            return None
        names[1] = same.id
    elif names[:1] and names[0] in ("effects", "masks") and len(names) > 1:
        kind = getattr(own, names[0])[int(names[1])].kind
        places = [n for n, part in enumerate(getattr(other, names[0])) if part.kind == kind]
        if not places:
            return None
        names[1] = str(places[0])
    found = ".".join([layer, *names])
    return found if has_value(scene, found) else None
