"""Where things stand: layers placed, centred, aligned, grouped, pivots, and the picture itself."""

from collections.abc import Callable

from balletto.picture.places import (
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

from .asking import Asked, Data, is_with_group, one_or_several


def _place(asked: Asked, wanted: Data) -> Data:
    """Layers moved by px of the picture from where they stand, their places rounded to `grid` px;
    with `keyed`, by keyframes. What is in a group that is moved goes along with it."""
    layers, by, grid = wanted.get("layers"), wanted.get("by"), wanted.get("grid", 1)
    is_way = isinstance(by, list) and [isinstance(n, int | float) for n in by] == [True] * 2
    if not isinstance(layers, list) or not is_way or not isinstance(grid, int | float) or grid <= 0:
        raise SceneError.at("by", "layers and two numbers of pixels [x, y] are needed")
    frame = asked.selection.frame if wanted.get("at") is None else wanted["at"]
    alone = [layer for layer in layers if not is_with_group(asked, layer, set(layers))]
    edits = []
    for layer in alone:
        asked.layer(layer)
        position = shifted_position(asked.document, layer, frame, by, grid)
        if position is not None:
            path = f"{layer}.transform.position"
            keyed = {"keyed": path} if wanted.get("keyed") else {}
            edits.append(
                {"name": "set-value", "path": path, "value": position, "at": frame, **keyed}
            )
    if not edits:
        raise SceneError.at("layers", "nothing that is selected stands in the picture")
    return one_or_several(edits, f"{len(edits)} layers placed")


def _group(asked: Asked, wanted: Data) -> Data:
    """The selected layers as a group, which turns about the middle of what they take up."""
    layers = [asked.layer(layer)["id"] for layer in wanted.get("layers", [])]
    pivot = group_pivot(asked.document, layers, asked.selection.frame)
    return {"name": "group-layers", "layers": layers, "pivot": pivot}


def _center(asked: Asked, wanted: Data) -> Data:
    frame, layer = asked.selection.frame, asked.layer(wanted.get("layer"))["id"]
    axes = str(wanted.get("axes", "xy"))
    value = centered_position(asked.document, layer, frame, axes)
    path = f"{layer}.transform.position"
    return {"name": "set-value", "path": path, "value": value, "at": frame}


def _fill_picture(asked: Asked, wanted: Data) -> Data:
    """A layer as large as fills the picture, in its middle."""
    layer = asked.layer(wanted.get("layer"))["id"]
    frame = asked.selection.frame
    box = rest_box(asked.document, asked.document.layer(layer), frame)
    if box is None:
        raise SceneError.at(layer, "this layer takes up no room, so it can fill none")
    width, height = asked.document.size
    left, top, right, bottom = box
    scale = round(max(width / max(1, right - left), height / max(1, bottom - top)), 4)
    place = [width / 2, height / 2, 0]
    edits = [
        {"name": "set-value", "path": f"{layer}.transform.{name}", "value": value, "at": frame}
        for name, value in (("position", place), ("scale", [scale, scale]))
    ]
    name = name_of(asked.layer(layer))
    return {"name": "several", "edits": edits, "said": f"{name} fills the picture"}


def _put_layer(asked: Asked, wanted: Data) -> Data:
    """A layer in front of another (`front_of`; None is at the back), or some places further to the
    front (`by`). The page tells no place: there may be others between by then."""
    layer = asked.layer(wanted.get("layer"))["id"]
    ids = [each["id"] for each in asked.data["layers"]]  # from the back to the front
    others = [each for each in ids if each != layer]
    if isinstance(wanted.get("by"), int):
        to = min(max(ids.index(layer) + wanted["by"], 0), len(others))
    elif wanted.get("front_of") is None:
        to = 0
    else:
        to = others.index(asked.layer(wanted["front_of"])["id"]) + 1
    return {"name": "move-layer", "layer": layer, "to": to}


def _set_size(asked: Asked, wanted: Data) -> Data:
    """Another size of the picture; or one side of it (`axis`, `value`)."""
    size = list(asked.data["size"])
    if wanted.get("axis") in (0, 1) and isinstance(wanted.get("value"), int | float):
        size[wanted["axis"]] = round(wanted["value"])
        return {"name": "set-size", "size": size, "fit": wanted.get("fit", "whole")}
    return wanted


def _set_pivot(asked: Asked, wanted: Data) -> Data:
    """The pivot at a place of the picture, or one number of it (`axis`, `value`) in px of the
    layer's own; the layer stays where it is seen."""
    layer, place = asked.layer(wanted.get("layer"))["id"], wanted.get("place")
    frame = asked.selection.frame
    if wanted.get("axis") in (0, 1) and isinstance(wanted.get("value"), int | float):
        pivot = list(asked.document.layer(layer).transform.pivot)
        pivot[wanted["axis"]] = wanted["value"]
        place = seen_at(asked.document, layer, frame, pivot)
    is_place = isinstance(place, list) and [isinstance(n, int | float) for n in place] == [True] * 2
    if not is_place:
        raise SceneError.at("place", "two numbers of pixels [x, y] are needed")
    found = pivot_shift(asked.document, layer, frame, place)
    edits = [
        {"name": "set-value", "path": f"{layer}.transform.pivot", "value": found["pivot"]},
        {"name": "shift-place", "layer": layer, "by": found["by"]},
    ]
    return {"name": "several", "edits": edits, "said": f"Pivot of {name_of(asked.layer(layer))}"}


def _align_layers(asked: Asked, wanted: Data) -> Data:
    """Layers aligned to one another, or spread evenly between the outermost."""
    layers = [asked.layer(layer)["id"] for layer in wanted.get("layers", [])]
    to, frame = str(wanted.get("to")), asked.selection.frame
    try:
        positions = aligned_positions(asked.document, layers, frame, to)
    except ValueError as error:
        raise SceneError.at("to", str(error)) from None
    edits = [
        {"name": "set-value", "path": f"{layer}.transform.position", "value": value, "at": frame}
        for layer, value in positions.items()
    ]
    said = "spread evenly" if to.startswith("spread") else "aligned"
    return {"name": "several", "edits": edits, "said": f"{len(layers)} layers {said}"}


PLACING: dict[str, Callable[[Asked, Data], Data]] = {
    "align-layers": _align_layers,
    "center": _center,
    "fill-picture": _fill_picture,
    "group": _group,
    "place": _place,
    "put-layer": _put_layer,
    "set-pivot": _set_pivot,
    "set-size": _set_size,
}
