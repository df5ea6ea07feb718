"""What is added: moves, layers of all kinds, and masks."""

from collections.abc import Callable

from django.http import Http404

from balletto.picture.bounds import rest_box
from balletto.scene.edits.paths import name_of
from balletto.scene.errors import SceneError
from balletto.scene.forms.flurry_starts import STARTS
from balletto.scene.forms.svg_layers import layers_of_svg
from balletto.scene.moving.presets import beside, fits, fitted, needed_of, presets, without
from balletto.scene.shapes import SHAPE_KINDS
from balletto.scene.starts import new_flurry, new_shape, new_title
from balletto.stock.shapes import SHAPES
from web.library.models import MediaFile
from web.library.offered import file_named
from web.library.store import folder_of
from web.projects.access import own_scene
from web.projects.nesting import source_of, usable

from .edit_requests import Data, EditRequest, movable_among, one_or_several


def _add_move(request: EditRequest, wanted: Data) -> Data:
    """A preset's move, for the selected letters alone if there are any."""
    if wanted.get("preset") not in presets():
        return wanted
    left_out = wanted.get("without", [])
    if not isinstance(left_out, list):
        raise SceneError.at("without", "a list of parts of the preset is needed")
    preset, letters = presets()[wanted["preset"]], _letters(request, wanted)
    preset = without(preset, [str(part) for part in left_out])
    layers = wanted.get("layers")
    if isinstance(layers, list) and len(layers) > 1:
        titles = movable_among(request, layers)
        whole = {"name": "add-move", "preset": preset["id"], "without": left_out, "letters": None}
        made = [_add_move(request, {**whole, "layer": each}) for each in titles]
        edits = [one for each in made for one in each.get("edits", [each])]
        return one_or_several(edits, f"Move “{preset['name']}” added to {len(made)} layers")
    layer = request.layer(wanted.get("layer"))
    movable_among(request, [layer["id"]])
    if not fits(preset, layer["kind"]):
        raise SceneError.at(layer["id"], "this move is for letters: select a title, then add it")
    move = fitted(preset, request.data, layer)
    is_title = layer["kind"] == "title"
    if letters is not None and is_title:
        move["among"] = [list(letters)]
    needed = needed_of(preset, request.data, layer) if is_title else {}
    added = {"name": "add-move", "layer": layer["id"], "move": move, "title": needed}
    return _with_what_comes(request, preset, layer, added)


def _with_what_comes(request: EditRequest, preset: Data, layer: Data, added: Data) -> Data:
    """The edit that adds the move of a preset, with what comes with it."""
    if not preset.get("with") or layer["kind"] != "title":
        return added
    move = request.after([added]).layer(layer["id"])["moves"][-1]["id"]
    edits = [added]
    for name, made in beside(preset, layer, move).items():
        if name == "caret":
            path = f"{layer['id']}.caret"
            edits.append({"name": "set-value", "path": path, "value": made})
        else:
            edits.append({"name": "add-layer", "layer": made})
    return one_or_several(edits, f"Move “{preset['name']}” added to {name_of(layer)}")


def _letters(request: EditRequest, wanted: Data) -> tuple[int, int] | None:
    """The letters that an edit says, or else those that are selected."""
    if "letters" not in wanted:
        return request.selection.letters
    letters = wanted["letters"]
    is_range = isinstance(letters, list) and [type(index) for index in letters] == [int, int]
    return (letters[0], letters[1]) if is_range and letters[0] < letters[1] else None


def _add_title(request: EditRequest, wanted: Data) -> Data:
    """A title in the middle of the picture, of a size that suits it."""
    return {"name": "add-layer", "layer": new_title(request.data)}


def _add_shape(request: EditRequest, wanted: Data) -> Data:
    """A shape in the middle of the picture, of a size that suits it."""
    kind = wanted.get("shape")
    known = [*(name for name, model in SHAPE_KINDS.items() if not model.needed), *SHAPES]
    if kind not in known:
        raise SceneError.at("shape", f"one of {', '.join(known)} is needed")
    return {"name": "add-layer", "layer": new_shape(request.data, kind)}


def _add_path(request: EditRequest, wanted: Data) -> Data:
    """The shapes of an SVG file, in the middle of the picture and not larger than it: one by
    itself, or several in a group."""
    kept = _own_file(request, wanted, kind="still")
    if not kept.name.endswith(".svg"):
        raise SceneError.at("file", f"{kept.title} is no SVG: its paths cannot be taken")
    path = folder_of(kept.owner_id) / kept.name
    try:
        layers = layers_of_svg(path.read_bytes(), kept.title[:100], (0, request.data["length"]))
    except ValueError as error:
        raise SceneError.at("file", f"{kept.title}: {error}") from None
    width, height = request.data["size"]
    scale = round(min(width / kept.width, height / kept.height) * 0.6, 4)
    place = {"position": [width / 2, height / 2, 0], "scale": [scale, scale]}
    *shapes, group = layers
    if len(shapes) > 1:
        return {"name": "paste-layers", "layers": [*shapes, {**group, "transform": place}]}
    (shape,) = shapes
    del shape["group"]
    made = {**shape, "name": group["name"], "transform": {**shape["transform"], **place}}
    return {"name": "add-layer", "layer": made}


def _own_file(request: EditRequest, wanted: Data, **more: str) -> MediaFile:
    """The file of the scene's owner that is meant; SceneError if there is none."""
    own = MediaFile.objects.filter(owner=request.scene.project.owner_id, **more)
    kept = own.filter(name=str(wanted.get("file"))).first()
    if kept is None:
        raise SceneError.at("file", _GONE)
    return kept


_GONE = "this file is not there any more: add it once more"
_KINDS_OF_FILES = {"still": "picture", "video": "video", "sound": "sound"}


def _add_file(request: EditRequest, wanted: Data) -> Data:
    """A layer that shows or plays a file, in the middle of the picture and not larger than it."""
    kept = file_named(request.scene.project.owner_id, str(wanted.get("file")))
    if kept is None:
        raise SceneError.at("file", _GONE)
    width, height = request.data["size"]
    layer = {
        "kind": _KINDS_OF_FILES[kept.kind],
        "name": kept.title[:100],
        "span": [0, request.data["length"]],
        "file": kept.name,
    }
    if kept.kind == "sound":
        layer["span"][0] = min(request.selection.frame, request.data["length"] - 1)
    else:
        fits = (width / kept.width, height / kept.height)
        # A background that ships covers the picture, and goes on.
        scale = round(max(fits) if kept.ships else min(1.0, *fits), 4)
        layer["transform"] = {"position": [width / 2, height / 2, 0], "scale": [scale, scale]}
    if kept.ships and kept.kind == "video":
        layer["after"] = "loop"
    return {"name": "add-layer", "layer": layer}


def _use_scene(request: EditRequest, wanted: Data) -> Data:
    """A layer that shows another scene of the person's own, as it is now."""
    try:
        other = own_scene(request.http_request, int(wanted.get("scene", 0)))
    except (Http404, TypeError, ValueError):
        raise SceneError.at("scene", "this scene is not there any more") from None
    document = usable(request.scene, other)
    sides = zip(request.data["size"], document["size"], strict=True)
    scale = round(min(1.0, *(own / its for own, its in sides)), 4)
    width, height = request.data["size"]
    layer = {
        "name": other.name[:100],
        "span": [0, request.data["length"]],
        "transform": {"position": [width / 2, height / 2, 0], "scale": [scale, scale]},
    }
    edit = {"name": "use-scene", "source": source_of(other), "document": document}
    return {**edit, "layer": layer}


def _add_adjustment(request: EditRequest, wanted: Data) -> Data:
    span = [0, request.data["length"]]
    return {"name": "add-layer", "layer": {"kind": "adjustment", "name": "", "span": span}}


def _add_flurry(request: EditRequest, wanted: Data) -> Data:
    """A flurry where one of its kind stands, of a size that suits the picture."""
    said = wanted.get("flurry")
    start = said.get("start") if isinstance(said, dict) else None
    if start not in STARTS:
        raise SceneError.at("flurry", f"one of {', '.join(STARTS)} is needed")
    return {"name": "add-layer", "layer": new_flurry(request.data, {"start": start})}


def _add_mask(request: EditRequest, wanted: Data) -> Data:
    """A mask that takes up the box of its layer, as it stands at rest."""
    layer, mask = request.layer(wanted.get("layer")), wanted.get("mask")
    if not isinstance(mask, dict):
        return wanted
    found = request.document.layer(layer["id"])
    if found.works_below:
        width, height = request.document.size
        box: list[float] | None = [0, 0, width, height]
    else:
        box = rest_box(request.document, found, request.selection.frame)
    if box is not None and "size" not in mask:
        left, top, right, bottom = box
        middle = [round((left + right) / 2, 1), round((top + bottom) / 2, 1)]
        size = [max(1, round(right - left)), max(1, round(bottom - top))]
        mask = {**mask, "size": size, "center": middle}
    return {**wanted, "mask": mask}


ADDING: dict[str, Callable[[EditRequest, Data], Data]] = {
    "add-move": _add_move,
    "add-title": _add_title,
    "add-shape": _add_shape,
    "add-flurry": _add_flurry,
    "add-adjustment": _add_adjustment,
    "add-file": _add_file,
    "add-path": _add_path,
    "add-mask": _add_mask,
    "use-scene": _use_scene,
}
