"""What the page asks for, made into edits of the core.

The page may say an edit in words of its own: "this preset", "centred", "what was copied". Here the
scene, the selection and what else the page does not know are put in. Anything else is an edit of
the core already.
"""

import re
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from django.http import Http404, HttpRequest

from balletto.picture.mask_marks import mask_elsewhere
from balletto.picture.places import (
    aligned_positions,
    centered_position,
    group_pivot,
    pivot_shift,
    rest_box,
    seen_at,
    shifted_position,
)
from balletto.scene.document import Scene as SceneDocument
from balletto.scene.edits.copies import copied_keys, copied_layers, copied_scenes
from balletto.scene.edits.paths import name_of, start_of
from balletto.scene.errors import SceneError
from balletto.scene.outlines import drawing_of_svg
from balletto.scene.presets import fitted, presets
from balletto.scene.shapes import SHAPE_KINDS
from balletto.scene.starts import new_shape, new_title
from web.library.models import MediaFile
from web.library.store import folder_of, opened
from web.projects import history
from web.projects.access import own_scene
from web.projects.models import Revision, Scene
from web.projects.nesting import source_of, usable
from web.projects.origins import as_it_came, part_of

from . import frames
from .bench import Selection
from .typed import shared_edits, told_together, typed_edits

Data = dict[str, Any]


@dataclass(frozen=True)
class Asked:
    """Who asks, of which scene, and with what selected."""

    request: HttpRequest
    scene: Scene
    selection: Selection

    @cached_property
    def revision(self) -> Revision:
        """The newest revision."""
        return history.newest(self.scene)

    @property
    def data(self) -> Data:
        """The newest document as plain data."""
        return self.revision.document

    @cached_property
    def document(self) -> SceneDocument:
        return opened(self.data, self.scene.project.owner_id)

    def layer(self, identifier: Any) -> Data:
        """A layer's plain data; SceneError if it is gone."""
        for layer in self.data.get("layers", []):
            if layer["id"] == identifier:
                return layer
        raise SceneError.at(str(identifier), "this layer is not there any more")


def in_scene(asked: Asked, wanted: Any) -> Data:
    """The edit of the core for what the page wants; SceneError if that cannot be."""
    if not isinstance(wanted, dict):
        return {"name": None}
    if isinstance(wanted.get("typed"), dict):
        return _made(asked, told_together(asked.data, typed_edits(asked.document, wanted), wanted))
    if wanted.get("name") in SHARED and isinstance(wanted.get("layers"), list):
        return told_together(asked.data, shared_edits(asked.document, wanted), wanted)
    if _FIXED.fullmatch(str(wanted.get("path"))) and isinstance(wanted.get("value"), bool):
        return _fix_mask(asked, wanted)
    return _made(asked, _in_local_time(asked, wanted))


_FIXED = re.compile(r"[^.]+\.masks\.\d+\.fixed")


def _fix_mask(asked: Asked, wanted: Data) -> Data:
    """A mask that stands in the picture, or moves with its layer: it stays where it is seen."""
    path, fixed = wanted["path"], wanted["value"]
    layer, _, index, _ = path.split(".")
    found = mask_elsewhere(asked.document, layer, int(index), asked.selection.frame, fixed)
    base = path.removesuffix(".fixed")
    edits = [{"name": "set-value", "path": path, "value": fixed}]
    edits += [
        {"name": "set-value", "path": f"{base}.{name}", "value": value}
        for name, value in found.items()
    ]
    said = "Mask stands in the picture" if fixed else "Mask moves with its layer"
    return {"name": "several", "edits": edits, "said": said}


def _made(asked: Asked, wanted: Data) -> Data:
    """The edit of the core for one in words of the page."""
    make = ASKED.get(str(wanted.get("name")))
    return make(asked, wanted) if make else wanted


def _in_local_time(asked: Asked, wanted: Data) -> Data:
    """Some values count from the start of their move: so does the playhead then."""
    at, path = wanted.get("at"), wanted.get("path")
    if not isinstance(at, int | float) or not isinstance(path, str):
        return wanted
    return {**wanted, "at": at - start_of(asked.data, path)}


def _place(asked: Asked, wanted: Data) -> Data:
    """Layers moved by px of the picture from where they stand, their places rounded to `grid` px;
    with `keyed`, by keyframes. What is in a group that is moved goes along with it."""
    layers, by, grid = wanted.get("layers"), wanted.get("by"), wanted.get("grid", 1)
    is_way = isinstance(by, list) and [isinstance(n, int | float) for n in by] == [True] * 2
    if not isinstance(layers, list) or not is_way or not isinstance(grid, int | float) or grid <= 0:
        raise SceneError.at("by", "layers and two numbers of pixels [x, y] are needed")
    frame = asked.selection.frame if wanted.get("at") is None else wanted["at"]
    alone = [layer for layer in layers if not _is_with_group(asked, layer, set(layers))]
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
    return _one_or_several(edits, f"{len(edits)} layers placed")


def _is_with_group(asked: Asked, layer: str, layers: set[str]) -> bool:
    """Whether a group around a layer is among layers."""
    groups = {each["id"]: each.get("group") for each in asked.data["layers"]}
    around = groups.get(layer)
    while around is not None:
        if around in layers:
            return True
        around = groups.get(around)
    return False


def _several(asked: Asked, wanted: Data) -> Data:
    edits = wanted.get("edits")
    if not isinstance(edits, list) or not all(isinstance(each, dict) for each in edits):
        return wanted  # the core says what is wrong
    alone = [each for each in edits if not _is_done_with_its_group(asked, each, edits)]
    return {**wanted, "edits": [_in_local_time(asked, each) for each in alone]}


# What is done to a group is done to all that is in it.
_WITH_GROUP = ("remove-layer", "duplicate-layer", "shift-layer", "split-layer")


def _is_done_with_its_group(asked: Asked, edit: Data, edits: list[Data]) -> bool:
    """Whether the same is to be done to a group that the layer of an edit is in."""
    if edit.get("name") not in _WITH_GROUP:
        return False
    same = {each.get("layer") for each in edits if each.get("name") == edit["name"]}
    return _is_with_group(asked, edit.get("layer"), same)


def _add_move(asked: Asked, wanted: Data) -> Data:
    """A preset's move, for the selected letters alone if there are any."""
    if wanted.get("preset") not in presets():
        return wanted
    preset, letters = presets()[wanted["preset"]], _letters(asked, wanted)
    layers = wanted.get("layers")
    if isinstance(layers, list) and len(layers) > 1:
        titles = _titles_among(asked, layers, "moves")
        alone = [{"name": "add-move", "layer": each, "preset": preset["id"]} for each in titles]
        edits = [_add_move(asked, each) for each in alone]
        return _one_or_several(edits, f"Move “{preset['name']}” added to {len(edits)} titles")
    layer = asked.layer(wanted.get("layer"))
    if layer["kind"] != "title":
        raise SceneError.at(layer["id"], "moves are for titles: select one, then add the move")
    move = fitted(preset, asked.data, layer)
    if letters is not None:
        move["among"] = [list(letters)]
    needed = preset.get("title", {})
    return {"name": "add-move", "layer": layer["id"], "move": move, "title": needed}


def _letters(asked: Asked, wanted: Data) -> tuple[int, int] | None:
    """The letters that an edit says, or else those that are selected."""
    if "letters" not in wanted:
        return asked.selection.letters
    letters = wanted["letters"]
    is_range = isinstance(letters, list) and [type(place) for place in letters] == [int, int]
    return (letters[0], letters[1]) if is_range and letters[0] < letters[1] else None


def _add_title(asked: Asked, wanted: Data) -> Data:
    """A title in the middle of the picture, of a size that suits it."""
    return {"name": "add-layer", "layer": new_title(asked.data)}


def _add_shape(asked: Asked, wanted: Data) -> Data:
    """A shape in the middle of the picture, of a size that suits it."""
    kind = wanted.get("shape")
    if kind not in SHAPE_KINDS or kind == "path":
        known = ", ".join(name for name in SHAPE_KINDS if name != "path")
        raise SceneError.at("shape", f"one of {known} is needed")
    return {"name": "add-layer", "layer": new_shape(asked.data, kind)}


_PATH_FILL = "#2BB5A0"


def _add_path(asked: Asked, wanted: Data) -> Data:
    """A shape of the paths of an SVG file, in the middle of the picture and not larger than it."""
    kept = _own_file(asked, wanted, kind="still")
    if not kept.name.endswith(".svg"):
        raise SceneError.at("file", f"{kept.title} is no SVG: its paths cannot be taken")
    path = folder_of(kept.owner_id) / kept.name
    try:
        drawing = drawing_of_svg(path.read_bytes())
    except ValueError as error:
        raise SceneError.at("file", f"{kept.title}: {error}") from None
    width, height = asked.data["size"]
    scale = round(min(width / kept.width, height / kept.height) * 0.6, 4)
    layer = {
        "kind": "shape",
        "name": kept.title[:100],
        "span": [0, asked.data["length"]],
        "shape": {"kind": "path", "path": drawing},
        "fill": _PATH_FILL,
        "stroke": None,
        "transform": {"position": [width / 2, height / 2, 0], "scale": [scale, scale]},
    }
    return {"name": "add-layer", "layer": layer}


def _own_file(asked: Asked, wanted: Data, **more: str) -> MediaFile:
    """The file of the scene's owner that is meant; SceneError if there is none."""
    own = MediaFile.objects.filter(owner=asked.scene.project.owner_id, **more)
    kept = own.filter(name=str(wanted.get("file"))).first()
    if kept is None:
        raise SceneError.at("file", "this file is not there any more: add it once more")
    return kept


_KINDS_OF_FILES = {"still": "picture", "video": "video", "sound": "sound"}


def _add_file(asked: Asked, wanted: Data) -> Data:
    """A layer that shows or plays a file, in the middle of the picture and not larger than it."""
    kept = _own_file(asked, wanted)
    width, height = asked.data["size"]
    layer = {
        "kind": _KINDS_OF_FILES[kept.kind],
        "name": kept.title[:100],
        "span": [0, asked.data["length"]],
        "file": kept.name,
    }
    if kept.kind == "sound":
        layer["span"][0] = min(asked.selection.frame, asked.data["length"] - 1)
    else:
        scale = round(min(1.0, width / kept.width, height / kept.height), 4)
        place = {"position": [width / 2, height / 2, 0], "scale": [scale, scale]}
        layer["transform"] = place
    return {"name": "add-layer", "layer": layer}


def _use_scene(asked: Asked, wanted: Data) -> Data:
    """A layer that shows another scene of the person's own, as it is now."""
    try:
        other = own_scene(asked.request, int(wanted.get("scene", 0)))
    except (Http404, TypeError, ValueError):
        raise SceneError.at("scene", "this scene is not there any more") from None
    document = usable(asked.scene, other)
    sides = zip(asked.data["size"], document["size"], strict=True)
    scale = round(min(1.0, *(own / its for own, its in sides)), 4)
    width, height = asked.data["size"]
    layer = {
        "name": other.name[:100],
        "span": [0, asked.data["length"]],
        "transform": {"position": [width / 2, height / 2, 0], "scale": [scale, scale]},
    }
    edit = {"name": "use-scene", "source": source_of(other), "document": document}
    return {**edit, "layer": layer}


def _add_adjustment(asked: Asked, wanted: Data) -> Data:
    span = [0, asked.data["length"]]
    return {"name": "add-layer", "layer": {"kind": "adjustment", "name": "", "span": span}}


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


def _add_mask(asked: Asked, wanted: Data) -> Data:
    """A mask that takes up the box of its layer, as it stands at rest."""
    layer, mask = asked.layer(wanted.get("layer")), wanted.get("mask")
    if not isinstance(mask, dict):
        return wanted
    found = asked.document.layer(layer["id"])
    if found.kind == "adjustment":
        width, height = asked.document.size
        box: list[float] | None = [0, 0, width, height]
    else:
        box = rest_box(asked.document, found, asked.selection.frame)
    if box is not None and "size" not in mask:
        left, top, right, bottom = box
        middle = [round((left + right) / 2, 1), round((top + bottom) / 2, 1)]
        size = [max(1, round(right - left)), max(1, round(bottom - top))]
        mask = {**mask, "size": size, "center": middle}
    return {**wanted, "mask": mask}


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


def _paste(asked: Asked, wanted: Data) -> Data:
    """What was copied: a reference to a state of a scene, and what of it."""
    copied = wanted.get("copied")
    make = PASTED.get(str(copied.get("kind"))) if isinstance(copied, dict) else None
    if make is None or not isinstance(copied.get("scene"), int):
        raise SceneError.at("copied", "nothing was copied yet: copy something first (Ctrl+C)")
    try:
        source = own_scene(asked.request, copied["scene"])
        document = frames.document_of(source, str(copied.get("digest")))
    except Http404:
        told = "what was copied is not there any more: copy it once more"
        raise SceneError.at("copied", told) from None
    return make(asked, wanted, copied, document)


def _paste_keys(asked: Asked, wanted: Data, copied: Data, source: Data) -> Data:
    """Keyframes, at the playhead; those of one layer go to the layer that is selected."""
    rows = copied_keys(source, copied["keys"])
    owners = {path.partition(".")[0] for path in rows}
    target = wanted.get("layer")
    if len(owners) == 1 and target:
        asked.layer(target)
        rows = {f"{target}.{path.partition('.')[2]}": keys for path, keys in rows.items()}
    return {"name": "paste-keys", "rows": rows, "at": wanted.get("at", asked.selection.frame)}


def _paste_layers(asked: Asked, wanted: Data, copied: Data, source: Data) -> Data:
    same = copied["scene"] == asked.scene.pk
    layers = copied_layers(source, copied["layers"], same)
    return {"name": "paste-layers", "layers": layers, "scenes": copied_scenes(source, layers)}


def _copied_from(asked: Asked, copied: Data, source: Data) -> Data:
    """The layer that a style or moves were copied from."""
    same = copied["scene"] == asked.scene.pk
    return copied_layers(source, [copied["layer"]], same)[0]


def _paste_style(asked: Asked, wanted: Data, copied: Data, source: Data) -> Data:
    original = _copied_from(asked, copied, source)
    if original["kind"] != "title":
        raise SceneError.at("copied", "only titles have a style: copy that of a title")
    style = original.get("style", {})
    titles = _titles_among(asked, wanted["layers"], "a style")
    edits = [{"name": "paste-style", "layer": layer, "style": style} for layer in titles]
    return _one_or_several(edits, f"Style pasted on {len(edits)} layers")


def _paste_moves(asked: Asked, wanted: Data, copied: Data, source: Data) -> Data:
    only = copied.get("move")
    moves = _copied_from(asked, copied, source).get("moves", [])
    moves = [move for move in moves if not only or move["id"] == only]
    if not moves:
        raise SceneError.at("copied", "there are no moves to paste")
    titles = _titles_among(asked, wanted["layers"], "moves")
    edits = [{"name": "paste-moves", "layer": layer, "moves": moves} for layer in titles]
    return _one_or_several(edits, f"Moves pasted on {len(edits)} layers")


def _titles_among(asked: Asked, layers: list[str], what: str) -> list[str]:
    """Those of some layers that are titles; SceneError, saying what only they have, if none is."""
    titles = [layer for layer in layers if asked.layer(layer)["kind"] == "title"]
    if not titles:
        raise SceneError.at("layers", f"only titles have {what}: select one, then paste")
    return titles


def _one_or_several(edits: list[Data], said: str) -> Data:
    return edits[0] if len(edits) == 1 else {"name": "several", "edits": edits, "said": said}


# The edits of a value that are made on all selected layers which have it.
SHARED = ("set-value", "set-order", "add-key", "toggle-key", "hold-to", "clear-value")
_RETURNS = re.compile(r"[^.]+\.(style|moves\.[^.]+|(effects|masks)\.\d+)")


def _as_it_came(asked: Asked, wanted: Data) -> Data:
    """A move, an effect, a mask or a title's style back to what it was when it was added."""
    path = str(wanted.get("path"))
    if not _RETURNS.fullmatch(path):
        raise SceneError.at("path", "a move, an effect, a mask or a style can be put back")
    try:
        now, then = part_of(asked.data, path), as_it_came(asked.revision, path)
    except LookupError:
        raise SceneError.at(path, "this is not there any more") from None
    if now == then:
        raise SceneError.at("", "It is as it came: nothing of it has been changed")
    edits = [{"name": "set-value", "path": path, "value": then}]
    layer, kind, *_ = path.split(".")
    what = "Style" if kind == "style" else name_of({"id": now.get("kind"), **now})
    said = f"{what} of {name_of(asked.layer(layer))} as it came"
    return {"name": "several", "edits": edits, "said": said}


ASKED: dict[str, Callable[[Asked, Data], Data]] = {
    "add-move": _add_move,
    "as-it-came": _as_it_came,
    "add-title": _add_title,
    "add-shape": _add_shape,
    "add-adjustment": _add_adjustment,
    "add-file": _add_file,
    "add-path": _add_path,
    "use-scene": _use_scene,
    "group": _group,
    "center": _center,
    "align-layers": _align_layers,
    "add-mask": _add_mask,
    "fill-picture": _fill_picture,
    "set-size": _set_size,
    "set-pivot": _set_pivot,
    "paste": _paste,
    "place": _place,
    "several": _several,
}
PASTED: dict[str, Callable[[Asked, Data, Data, Data], Data]] = {
    "keys": _paste_keys,
    "layers": _paste_layers,
    "style": _paste_style,
    "moves": _paste_moves,
}
