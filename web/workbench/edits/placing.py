"""Where things stand: layers placed, centred, aligned, grouped, pivots, and the picture itself."""

from collections.abc import Callable

from balletto.picture.bounds import (
    aligned_positions,
    centered_position,
    group_pivot,
    pivot_shift,
    rest_box,
    seen_at,
    shifted_position,
)
from balletto.scene.edits.paths import name_of
from balletto.scene.errors import SceneError

from .edit_requests import Data, EditRequest, is_with_group, one_or_several


def _place(request: EditRequest, wanted: Data) -> Data:
    """Layers moved by px of the picture from where they stand, their places rounded to `grid` px;
    with `keyed`, by keyframes. What is in a group that is moved goes along with it."""
    layers, by, grid = wanted.get("layers"), wanted.get("by"), wanted.get("grid", 1)
    is_way = isinstance(by, list) and [isinstance(n, int | float) for n in by] == [True] * 2
    if not isinstance(layers, list) or not is_way or not isinstance(grid, int | float) or grid <= 0:
        raise SceneError.at("by", "layers and two numbers of pixels [x, y] are needed")
    frame = request.selection.frame if wanted.get("at") is None else wanted["at"]
    alone = [layer for layer in layers if not is_with_group(request, layer, set(layers))]
    edits = []
    for layer in alone:
        request.layer(layer)
        position = shifted_position(request.document, layer, frame, by, grid)
        if position is not None:
            path = f"{layer}.transform.position"
            keyed = {"keyed": path} if wanted.get("keyed") else {}
            edits.append(
                {"name": "set-value", "path": path, "value": position, "at": frame, **keyed}
            )
    if not edits:
        raise SceneError.at("layers", "nothing that is selected stands in the picture")
    return one_or_several(edits, f"{len(edits)} layers placed")


def _group(request: EditRequest, wanted: Data) -> Data:
    """The selected layers as a group, which turns about the middle of what they take up."""
    layers = [request.layer(layer)["id"] for layer in wanted.get("layers", [])]
    pivot = group_pivot(request.document, layers, request.selection.frame)
    return {"name": "group-layers", "layers": layers, "pivot": pivot}


def _center(request: EditRequest, wanted: Data) -> Data:
    frame, layer = request.selection.frame, request.layer(wanted.get("layer"))["id"]
    axes = str(wanted.get("axes", "xy"))
    value = centered_position(request.document, layer, frame, axes)
    path = f"{layer}.transform.position"
    return {"name": "set-value", "path": path, "value": value, "at": frame}


def _fill_picture(request: EditRequest, wanted: Data) -> Data:
    """A layer as large as fills the picture, in its middle."""
    layer = request.layer(wanted.get("layer"))["id"]
    frame = request.selection.frame
    box = rest_box(request.document, request.document.layer(layer), frame)
    if box is None:
        raise SceneError.at(layer, "this layer takes up no room, so it can fill none")
    width, height = request.document.size
    left, top, right, bottom = box
    scale = round(max(width / max(1, right - left), height / max(1, bottom - top)), 4)
    place = [width / 2, height / 2, 0]
    edits = [
        {"name": "set-value", "path": f"{layer}.transform.{name}", "value": value, "at": frame}
        for name, value in (("position", place), ("scale", [scale, scale]))
    ]
    name = name_of(request.layer(layer))
    return {"name": "several", "edits": edits, "said": f"{name} fills the picture"}


def _put_layer(request: EditRequest, wanted: Data) -> Data:
    """A layer in front of another (`front_of`; None is at the back), or some places further to the
    front (`by`). The page tells no place: there may be others between by then."""
    layer = request.layer(wanted.get("layer"))["id"]
    ids = [each["id"] for each in request.data["layers"]]  # from the back to the front
    others = [each for each in ids if each != layer]
    if isinstance(wanted.get("by"), int):
        to = min(max(ids.index(layer) + wanted["by"], 0), len(others))
    elif wanted.get("front_of") is None:
        to = 0
    else:
        to = others.index(request.layer(wanted["front_of"])["id"]) + 1
    return {"name": "move-layer", "layer": layer, "to": to}


def _set_size(request: EditRequest, wanted: Data) -> Data:
    """Another size of the picture; or one side of it (`axis`, `value`)."""
    size = list(request.data["size"])
    if wanted.get("axis") in (0, 1) and isinstance(wanted.get("value"), int | float):
        size[wanted["axis"]] = round(wanted["value"])
        return {"name": "set-size", "size": size, "fit": wanted.get("fit", "whole")}
    return wanted


def _set_pivot(request: EditRequest, wanted: Data) -> Data:
    """The pivot at a place of the picture, or one number of it (`axis`, `value`) in px of the
    layer's own; the layer stays where it is seen."""
    layer, place = request.layer(wanted.get("layer"))["id"], wanted.get("place")
    frame = request.selection.frame
    if wanted.get("axis") in (0, 1) and isinstance(wanted.get("value"), int | float):
        pivot = list(request.document.layer(layer).transform.pivot)
        pivot[wanted["axis"]] = wanted["value"]
        place = seen_at(request.document, layer, frame, pivot)
    is_place = isinstance(place, list) and [isinstance(n, int | float) for n in place] == [True] * 2
    if not is_place:
        raise SceneError.at("place", "two numbers of pixels [x, y] are needed")
    found = pivot_shift(request.document, layer, frame, place)
    edits = [
        {"name": "set-value", "path": f"{layer}.transform.pivot", "value": found["pivot"]},
        {"name": "shift-place", "layer": layer, "by": found["by"]},
    ]
    return {"name": "several", "edits": edits, "said": f"Pivot of {name_of(request.layer(layer))}"}


def _align_layers(request: EditRequest, wanted: Data) -> Data:
    """Layers aligned to one another, or spread evenly between the outermost."""
    layers = [request.layer(layer)["id"] for layer in wanted.get("layers", [])]
    to, frame = str(wanted.get("to")), request.selection.frame
    try:
        positions = aligned_positions(request.document, layers, frame, to)
    except ValueError as error:
        raise SceneError.at("to", str(error)) from None
    edits = [
        {"name": "set-value", "path": f"{layer}.transform.position", "value": value, "at": frame}
        for layer, value in positions.items()
    ]
    said = "spread evenly" if to.startswith("spread") else "aligned"
    return {"name": "several", "edits": edits, "said": f"{len(layers)} layers {said}"}


PLACING: dict[str, Callable[[EditRequest, Data], Data]] = {
    "align-layers": _align_layers,
    "center": _center,
    "fill-picture": _fill_picture,
    "group": _group,
    "place": _place,
    "put-layer": _put_layer,
    "set-pivot": _set_pivot,
    "set-size": _set_size,
}
