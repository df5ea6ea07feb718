"""Where things stand: layers placed, centred, aligned, grouped, pivots, and the picture itself."""

from collections.abc import Callable
from typing import Any, TypeGuard

from ..picture.bounds import (
    aligned_positions,
    centered_position,
    group_pivot,
    pivot_shift,
    rest_box,
    seen_at,
    shifted_position,
)
from ..scene.edits.paths import name_of
from ..scene.errors import SceneError
from .situation import Data, Situation, is_with_group, one_or_several


def _place(situation: Situation, wanted: Data) -> Data:
    """Layers moved by px of the picture from where they stand, their places rounded to `grid` px;
    with `keyed`, by keyframes. What is in a group that is moved goes along with it."""
    layers, by, grid = wanted.get("layers"), wanted.get("by"), wanted.get("grid", 1)
    is_grid = isinstance(grid, int | float) and grid > 0
    if not isinstance(layers, list) or not _are_pixels(by) or not is_grid:
        raise SceneError.at("by", "layers and two numbers of pixels [x, y] are needed")
    frame = situation.selection.frame if wanted.get("at") is None else wanted["at"]
    alone = [layer for layer in layers if not is_with_group(situation, layer, set(layers))]
    edits = []
    for layer in alone:
        situation.layer(layer)
        position = shifted_position(situation.document, layer, frame, by, grid)
        if position is not None:
            path = f"{layer}.transform.position"
            keyed = {"keyed": path} if wanted.get("keyed") else {}
            edits.append(
                {"name": "set-value", "path": path, "value": position, "at": frame, **keyed}
            )
    if not edits:
        raise SceneError.at("layers", "nothing that is selected stands in the picture")
    return one_or_several(edits, f"{len(edits)} layers placed")


def _group(situation: Situation, wanted: Data) -> Data:
    """The selected layers as a group, which turns about the middle of what they take up."""
    layers = [situation.layer(layer)["id"] for layer in wanted.get("layers", [])]
    pivot = group_pivot(situation.document, layers, situation.selection.frame)
    return {"name": "group-layers", "layers": layers, "pivot": pivot}


def _center(situation: Situation, wanted: Data) -> Data:
    frame, layer = situation.selection.frame, situation.layer(wanted.get("layer"))["id"]
    axes = str(wanted.get("axes", "xy"))
    value = centered_position(situation.document, layer, frame, axes)
    path = f"{layer}.transform.position"
    return {"name": "set-value", "path": path, "value": value, "at": frame}


def _fill_picture(situation: Situation, wanted: Data) -> Data:
    """A layer as large as fills the picture, in its middle."""
    layer = situation.layer(wanted.get("layer"))["id"]
    frame = situation.selection.frame
    box = rest_box(situation.document, situation.document.layer(layer), frame)
    if box is None:
        raise SceneError.at(layer, "this layer takes up no room, so it can fill none")
    width, height = situation.document.size
    left, top, right, bottom = box
    scale = round(max(width / max(1, right - left), height / max(1, bottom - top)), 4)
    place = [width / 2, height / 2, 0]
    edits = [
        {"name": "set-value", "path": f"{layer}.transform.{name}", "value": value, "at": frame}
        for name, value in (("position", place), ("scale", [scale, scale]))
    ]
    name = name_of(situation.layer(layer))
    return {"name": "several", "edits": edits, "said": f"{name} fills the picture"}


def _put_layer(situation: Situation, wanted: Data) -> Data:
    """A layer in front of another (`front_of`; None is at the back), or some places further to the
    front (`by`). The page tells no place: there may be others between by then."""
    layer = situation.layer(wanted.get("layer"))["id"]
    ids = [each["id"] for each in situation.data["layers"]]  # from the back to the front
    others = [each for each in ids if each != layer]
    if isinstance(wanted.get("by"), int):
        to = min(max(ids.index(layer) + wanted["by"], 0), len(others))
    elif wanted.get("front_of") is None:
        to = 0
    else:
        to = others.index(situation.layer(wanted["front_of"])["id"]) + 1
    return {"name": "move-layer", "layer": layer, "to": to}


def _set_size(situation: Situation, wanted: Data) -> Data:
    """Another size of the picture; or one side of it (`axis`, `value`)."""
    size = list(situation.data["size"])
    if wanted.get("axis") in (0, 1) and isinstance(wanted.get("value"), int | float):
        size[wanted["axis"]] = round(wanted["value"])
        return {"name": "set-size", "size": size, "fit": wanted.get("fit", "whole")}
    return wanted


def _are_pixels(value: Any) -> TypeGuard[list[float]]:
    """Whether a value is two numbers."""
    return isinstance(value, list) and [isinstance(n, int | float) for n in value] == [True] * 2


def _set_pivot(situation: Situation, wanted: Data) -> Data:
    """The pivot at a place of the picture, or one number of it (`axis`, `value`) in px of the
    layer's own; the layer stays where it is seen."""
    layer, place = situation.layer(wanted.get("layer"))["id"], wanted.get("place")
    frame = situation.selection.frame
    if wanted.get("axis") in (0, 1) and isinstance(wanted.get("value"), int | float):
        pivot = list(situation.document.layer(layer).transform.pivot)
        pivot[wanted["axis"]] = wanted["value"]
        place = seen_at(situation.document, layer, frame, pivot)
    if not _are_pixels(place):
        raise SceneError.at("place", "two numbers of pixels [x, y] are needed")
    found = pivot_shift(situation.document, layer, frame, place)
    edits = [
        {"name": "set-value", "path": f"{layer}.transform.pivot", "value": found["pivot"]},
        {"name": "shift-place", "layer": layer, "by": found["by"]},
    ]
    return {
        "name": "several",
        "edits": edits,
        "said": f"Pivot of {name_of(situation.layer(layer))}",
    }


def _align_layers(situation: Situation, wanted: Data) -> Data:
    """Layers aligned to one another, or spread evenly between the outermost."""
    layers = [situation.layer(layer)["id"] for layer in wanted.get("layers", [])]
    to, frame = str(wanted.get("to")), situation.selection.frame
    try:
        positions = aligned_positions(situation.document, layers, frame, to)
    except ValueError as error:
        raise SceneError.at("to", str(error)) from None
    edits = [
        {"name": "set-value", "path": f"{layer}.transform.position", "value": value, "at": frame}
        for layer, value in positions.items()
    ]
    said = "spread evenly" if to.startswith("spread") else "aligned"
    return {"name": "several", "edits": edits, "said": f"{len(layers)} layers {said}"}


PLACING: dict[str, Callable[[Situation, Data], Data]] = {
    "align-layers": _align_layers,
    "center": _center,
    "fill-picture": _fill_picture,
    "group": _group,
    "place": _place,
    "put-layer": _put_layer,
    "set-pivot": _set_pivot,
    "set-size": _set_size,
}
