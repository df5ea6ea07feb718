"""Edits whose value is typed: the text is read by the core, for each layer that is changed.

The page says an edit without its value, and in `typed` the text, the measure of the value, what
its chip showed (`now`) and what its rest is: {"name": "set-value", "path": "t1.style.size",
"typed": {"text": "+5", "measure": {...}, "now": 40}}. With `layers`, the same value of all of these
is changed. In place of a text, `by` is added to the value, as by steps that are made before what
was typed is answered.
"""

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from ..hash_random import hash_random
from ..scene.document import Scene
from ..scene.edits.paths import title_of
from ..scene.errors import SceneError
from ..scene.values.keyable import (
    counterpart,
    keyable,
    local_start,
    rest_of,
    value_now,
)
from ..scene.values.measures import Measure
from ..scene.values.quantities import Course, number_of, read_quantity
from ..scene.values.quantity_reader import QuantityContext, QuantityError

Data = dict[str, Any]
_SPREAD_SEED = 1  # of the chance of "random 10 to 90"
_CHANCE_OF = 201  # the property of that chance, which belongs to no other


class NotUnderstood(SceneError):
    """What is typed is no value here; the message says what would do."""


def read_typed(document: Scene, wanted: Data, path: str, index: int, count: int) -> float | Course:
    """What is typed for the value at a path, of the layer number `index` of `count`."""
    typed = wanted["typed"]
    try:
        measure = Measure.of(typed.get("measure"))
        by = number_of(typed.get("by"))
        text = typed["text"] if by is None else ""
        if not isinstance(text, str):
            raise TypeError
    except (KeyError, TypeError, ValueError, AttributeError):
        raise SceneError.at("typed", "a text and the measure of its value are needed") from None
    context = _context(document, wanted, path)
    if by is not None:
        return round(measure.within((context.now or 0) + by), 6)
    context = replace(context, count=count, index=index, chance=_chance(index))
    try:
        return read_quantity(text, measure, context)
    except QuantityError as error:
        raise NotUnderstood.at("", str(error)) from None


def _chance(index: int) -> float:
    return float(hash_random(_SPREAD_SEED, index, _CHANCE_OF, 0))


def _context(document: Scene, wanted: Data, path: str) -> QuantityContext:
    typed = wanted["typed"]
    now, rest = number_of(typed.get("now")), number_of(typed.get("rest"))
    there = number_of(_safely(lambda: _there(document, wanted, path)))
    now = now if there is None else there
    found = keyable(document, path) if path else None
    if path and rest is None:
        rest = rest_of(path)
    return QuantityContext(
        rate=float(document.frames_a_second),
        side=side_of(document, path),
        now=now,
        rest=rest,
        may_change=found is not None and not found.is_tied,
    )


def _there(document: Scene, wanted: Data, path: str) -> Any:
    """What the value is that an edit means; LookupError or the like if it is not there."""
    if path:
        return value_now(document, path, number_of(wanted.get("at")) or 0)
    return _WITHOUT_PATH[wanted["name"]](document, wanted)


def _of_letters(document: Scene, wanted: Data) -> Any:
    value: Any = document.layer(wanted["layer"]).style_at(wanted["first"])
    for name in wanted["property"].split("."):
        value = value[int(name)] if isinstance(value, list | tuple) else value[name]
    return value


# What the values are of edits that name them otherwise than by a path.
_WITHOUT_PATH: dict[str, Callable[[Scene, Data], Any]] = {
    "set-pivot": lambda document, wanted: value_now(
        document, f"{wanted['layer']}.transform.pivot.{wanted['axis']}", 0
    ),
    "set-size": lambda document, wanted: document.size[wanted["axis"]],
    "style-letters": _of_letters,
}


# Whose values may be told as a share of a side of the picture, and of which.
_ALONG = ("position", "center", "from", "to", "point", "size", "shift")
_LESS = ("radius", "inner", "outer", "corner", "width")


def side_of(document: Scene, path: str) -> float | None:
    """The side of the picture, in px, that a share of a place or size is meant of; None if none."""
    *way, last = path.split(".")
    width, height = document.size
    if last in ("0", "1") and way and way[-1] in _ALONG:
        return (width, height)[int(last)]
    is_pose = bool(way) and way[-1] == "pose"
    if (last == "x" and is_pose) or last == "wrap":
        return width
    if (last == "y" and is_pose) or (last == "size" and way[-1:] == ["style"]):
        return height
    return min(width, height) if last in _LESS and "pose" not in way else None


def typed_edits(document: Scene, wanted: Data) -> list[Data]:
    """The edits of the core for an edit whose value is typed, one for each layer."""
    paths = paths_of(document, wanted)
    edits = []
    for index, path in enumerate(paths):
        value = read_typed(document, wanted, path, index, len(paths))
        edits.append(_with_value(document, wanted, path, value))
    return edits


def _with_value(document: Scene, wanted: Data, path: str, value: float | Course) -> Data:
    if isinstance(value, Course):
        keys = [{**key, "value": _plain(key["value"])} for key in value.keys]
        return {"name": "set-course", "path": path, "keys": keys}
    argument = str(wanted["typed"].get("into", "value"))
    return one_of_several(document, {**wanted, argument: _plain(value)}, path)


def one_of_several(document: Scene, wanted: Data, path: str) -> Data:
    """An edit of a value of one layer, of one that is meant for several."""
    edit = {
        name: value for name, value in wanted.items() if name not in ("typed", "layers", "from")
    }
    if not path:
        return edit
    edit["path"] = path
    if "keyed" in edit:
        found = keyable(document, path)
        if found is None or found.is_tied:
            del edit["keyed"]
        else:
            edit["keyed"] = found.path
    if edit.pop("linked", False):
        edit = _with_other_side(document, edit)
    if isinstance(edit.get("at"), int | float):
        edit["at"] = edit["at"] - local_start(document, path)
    return edit


def _with_other_side(document: Scene, edit: Data) -> Data:
    """The edit of one of two numbers, width or height, that takes the other along."""
    whole, _, part = edit["path"].rpartition(".")
    now, value = value_now(document, whole, edit.get("at") or 0), edit["value"]
    old = now[int(part)]
    changed = [value if not old else round(side * value / old, 6) for side in now]
    changed[int(part)] = value
    return {**edit, "path": whole, "value": changed}


def _plain(value: float) -> float | int:
    return int(value) if value == int(value) else value


def paths_of(document: Scene, wanted: Data) -> list[str]:
    """The paths of the value that an edit means, of all layers that it is meant for, in the order
    in which these are named; [""] for an edit of no value at a path."""
    path = wanted.get("path")
    if not isinstance(path, str):
        return [""]
    layers = wanted.get("layers")
    head = path.partition(".")[0]
    if not isinstance(layers, list) or head not in layers or len(layers) < 2:
        return [path]
    known = {layer.id: layer for layer in document.layers}
    found = [
        path if layer == head else counterpart(document, path, layer)
        for layer in layers
        if layer in known
    ]
    return [each for each in found if each is not None]


def shared_edits(document: Scene, wanted: Data) -> list[Data]:
    """The edits of an edit of a value that is made on several layers. A plain value is given to
    each; or, where a hand has changed it from a number (`from`), each is changed by as much."""
    paths, start, value = (
        paths_of(document, wanted),
        number_of(wanted.get("from")),
        wanted.get("value"),
    )
    edits = []
    for path in paths:
        own = value
        if start is not None and path != wanted["path"]:
            now, to = _number_now(document, path, wanted), number_of(value)
            own = value if now is None or to is None else round(now + to - start, 6)
        told = {**wanted, "value": own} if "value" in wanted else wanted
        edits.append(one_of_several(document, told, path))
    return edits


def _number_now(document: Scene, path: str, wanted: Data) -> float | None:
    """The number at a path at the time that an edit says; None if there is none."""
    return number_of(_safely(lambda: value_now(document, path, wanted.get("at") or 0)))


def _safely(find: Callable[[], Any]) -> Any:
    try:
        return find()
    except (LookupError, TypeError, ValueError, AttributeError):
        return None


def told_together(document: Data, edits: list[Data], wanted: Data) -> Data:
    """One edit of many, with what the history says of it."""
    if len(edits) == 1:
        return edits[0]
    said = f"{title_of(document, wanted['path'])} of {len(edits)} layers"
    return {"name": "several", "edits": edits, "said": said}
