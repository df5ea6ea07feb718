"""What is added: moves, layers of all kinds, and masks."""

from collections.abc import Callable

from ..picture.bounds import rest_box
from ..scene.edits.paths import name_of
from ..scene.errors import SceneError
from ..scene.forms.flurry_starts import STARTS
from ..scene.forms.svg_layers import layers_of_svg
from ..scene.moving.presets import beside, fits, fitted, needed_of, presets, without
from ..scene.shapes import SHAPE_KINDS
from ..scene.starts import new_flurry, new_shape, new_title
from ..stock.shapes import SHAPES
from .situation import Data, ShelfScene, Situation, movable_among, one_or_several


def _add_move(situation: Situation, wanted: Data) -> Data:
    """A preset's move, for the selected letters alone if there are any."""
    if wanted.get("preset") not in presets():
        return wanted
    left_out = wanted.get("without", [])
    if not isinstance(left_out, list):
        raise SceneError.at("without", "a list of parts of the preset is needed")
    preset, letters = presets()[wanted["preset"]], _letters(situation, wanted)
    preset = without(preset, [str(part) for part in left_out])
    layers = wanted.get("layers")
    if isinstance(layers, list) and len(layers) > 1:
        titles = movable_among(situation, layers)
        whole = {"name": "add-move", "preset": preset["id"], "without": left_out, "letters": None}
        made = [_add_move(situation, {**whole, "layer": each}) for each in titles]
        edits = [one for each in made for one in each.get("edits", [each])]
        return one_or_several(edits, f"Move “{preset['name']}” added to {len(made)} layers")
    layer = situation.layer(wanted.get("layer"))
    movable_among(situation, [layer["id"]])
    if not fits(preset, layer["kind"]):
        raise SceneError.at(layer["id"], "this move is for letters: select a title, then add it")
    move = fitted(preset, situation.data, layer)
    is_title = layer["kind"] == "title"
    if letters is not None and is_title:
        move["among"] = [list(letters)]
    needed = needed_of(preset, situation.data, layer) if is_title else {}
    added = {"name": "add-move", "layer": layer["id"], "move": move, "title": needed}
    return _with_what_comes(situation, preset, layer, added)


def _with_what_comes(situation: Situation, preset: Data, layer: Data, added: Data) -> Data:
    """The edit that adds the move of a preset, with what comes with it."""
    if not preset.get("with") or layer["kind"] != "title":
        return added
    move = situation.after([added]).layer(layer["id"])["moves"][-1]["id"]
    edits = [added]
    for name, made in beside(preset, layer, move).items():
        if name == "caret":
            path = f"{layer['id']}.caret"
            edits.append({"name": "set-value", "path": path, "value": made})
        else:
            edits.append({"name": "add-layer", "layer": made})
    return one_or_several(edits, f"Move “{preset['name']}” added to {name_of(layer)}")


def _letters(situation: Situation, wanted: Data) -> tuple[int, int] | None:
    """The letters that an edit says, or else those that are selected."""
    if "letters" not in wanted:
        return situation.selection.letters
    letters = wanted["letters"]
    is_range = isinstance(letters, list) and [type(index) for index in letters] == [int, int]
    return (letters[0], letters[1]) if is_range and letters[0] < letters[1] else None


def _add_title(situation: Situation, wanted: Data) -> Data:
    """A title in the middle of the picture, of a size that suits it."""
    return {"name": "add-layer", "layer": new_title(situation.data)}


def _add_shape(situation: Situation, wanted: Data) -> Data:
    """A shape in the middle of the picture, of a size that suits it."""
    kind = wanted.get("shape")
    known = [*(name for name, model in SHAPE_KINDS.items() if not model.needed), *SHAPES]
    if kind not in known:
        raise SceneError.at("shape", f"one of {', '.join(known)} is needed")
    return {"name": "add-layer", "layer": new_shape(situation.data, kind)}


def _add_path(situation: Situation, wanted: Data) -> Data:
    """The shapes of an SVG file, in the middle of the picture and not larger than it: one by
    itself, or several in a group."""
    kept = situation.shelf.file_named(str(wanted.get("file")))
    if kept is None or kept.path is None:
        raise SceneError.at("file", _GONE)
    if not kept.name.endswith(".svg"):
        raise SceneError.at("file", f"{kept.title} is no SVG: its paths cannot be taken")
    try:
        layers = layers_of_svg(
            kept.path.read_bytes(), kept.title[:100], (0, situation.data["length"])
        )
    except ValueError as error:
        raise SceneError.at("file", f"{kept.title}: {error}") from None
    width, height = situation.data["size"]
    scale = round(min(width / kept.width, height / kept.height) * 0.6, 4)
    place = {"position": [width / 2, height / 2, 0], "scale": [scale, scale]}
    *shapes, group = layers
    if len(shapes) > 1:
        return {"name": "paste-layers", "layers": [*shapes, {**group, "transform": place}]}
    (shape,) = shapes
    del shape["group"]
    made = {**shape, "name": group["name"], "transform": {**shape["transform"], **place}}
    return {"name": "add-layer", "layer": made}


_GONE = "this file is not there any more: add it once more"
_KINDS_OF_FILES = {"still": "picture", "video": "video", "sound": "sound"}


def _add_file(situation: Situation, wanted: Data) -> Data:
    """A layer that shows or plays a file, in the middle of the picture and not larger than it."""
    kept = situation.shelf.file_named(str(wanted.get("file")))
    if kept is None:
        raise SceneError.at("file", _GONE)
    width, height = situation.data["size"]
    layer: Data = {
        "kind": _KINDS_OF_FILES[kept.kind],
        "name": kept.title[:100],
        "span": [0, situation.data["length"]],
        "file": kept.name,
    }
    if kept.kind == "sound":
        layer["span"][0] = min(situation.selection.frame, situation.data["length"] - 1)
    else:
        fits = (width / kept.width, height / kept.height)
        # A background that ships covers the picture, and goes on.
        scale = round(max(fits) if kept.ships else min(1.0, *fits), 4)
        layer["transform"] = {"position": [width / 2, height / 2, 0], "scale": [scale, scale]}
    if kept.ships and kept.kind == "video":
        layer["after"] = "loop"
    behind_all = {"to": 0} if kept.ships and kept.kind != "sound" else {}
    return {"name": "add-layer", "layer": layer, **behind_all}


def _use_scene(situation: Situation, wanted: Data) -> Data:
    """A layer that shows another scene, by its number, as it is now."""
    number = str(wanted.get("scene"))
    other = situation.shelf.scene_numbered(int(number)) if number.isdecimal() else None
    if other is None:
        raise SceneError.at("scene", "this scene is not there any more")
    return layer_of_scene(situation, other)


def layer_of_scene(situation: Situation, other: ShelfScene) -> Data:
    """The edit that adds a layer of another scene."""
    sides = zip(situation.data["size"], other.document["size"], strict=True)
    scale = round(min(1.0, *(own / its for own, its in sides)), 4)
    width, height = situation.data["size"]
    layer = {
        "name": other.name[:100],
        "span": [0, situation.data["length"]],
        "transform": {"position": [width / 2, height / 2, 0], "scale": [scale, scale]},
    }
    edit = {"name": "use-scene", "source": other.source, "document": other.document}
    return {**edit, "layer": layer}


def _add_adjustment(situation: Situation, wanted: Data) -> Data:
    span = [0, situation.data["length"]]
    return {"name": "add-layer", "layer": {"kind": "adjustment", "name": "", "span": span}}


def _add_flurry(situation: Situation, wanted: Data) -> Data:
    """A flurry where one of its kind stands, of a size that suits the picture."""
    said = wanted.get("flurry")
    start = said.get("start") if isinstance(said, dict) else None
    if start not in STARTS:
        raise SceneError.at("flurry", f"one of {', '.join(STARTS)} is needed")
    return {"name": "add-layer", "layer": new_flurry(situation.data, {"start": start})}


def _add_mask(situation: Situation, wanted: Data) -> Data:
    """A mask that takes up the box of its layer, as it stands at rest."""
    layer, mask = situation.layer(wanted.get("layer")), wanted.get("mask")
    if not isinstance(mask, dict):
        return wanted
    found = situation.document.layer(layer["id"])
    if found.works_below:
        width, height = situation.document.size
        box: list[float] | None = [0, 0, width, height]
    else:
        box = rest_box(situation.document, found, situation.selection.frame)
    if box is not None and "size" not in mask:
        left, top, right, bottom = box
        middle = [round((left + right) / 2, 1), round((top + bottom) / 2, 1)]
        size = [max(1, round(right - left)), max(1, round(bottom - top))]
        mask = {**mask, "size": size, "center": middle}
    if mask.get("fixed") and "center" not in mask:
        mask = {**mask, "center": [side / 2 for side in situation.document.size]}
    return {**wanted, "mask": mask}


ADDING: dict[str, Callable[[Situation, Data], Data]] = {
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
