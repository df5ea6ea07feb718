"""What the page asks for, made into edits of the core.

The page may say an edit in words of its own: "this preset", "centred", "what was copied". Here the
scene, the selection and what else the page does not know are put in. Anything else is an edit of
the core already.
"""

import re
from collections.abc import Callable
from typing import Any

from balletto.motion.spaces.layer_motion import units_of_move
from balletto.motion.stagger import delays_of
from balletto.picture.overlays.mask_handles import mask_elsewhere
from balletto.scene.edits.meant import as_meant
from balletto.scene.edits.paths import find, name_of, pointer_to
from balletto.scene.errors import SceneError
from balletto.scene.layers import LAYER_KINDS
from web.projects.nesting import renewals
from web.projects.origins import as_it_came, part_of

from .adding import ADDING
from .beats import mark_beats
from .behind import behind
from .edit_requests import Data, EditRequest, in_local_time, is_with_group, one_or_several
from .pasting import paste
from .placing import PLACING
from .saying import say
from .taking_apart import take_apart
from .typed_values import shared_edits, told_together, typed_edits

# The edits of a value that are made on all selected layers which have it.
SHARED = ("set-value", "set-order", "add-key", "toggle-key", "hold-to", "clear-value")


def in_scene(request: EditRequest, wanted: Any, seen: int = 0) -> Data:
    """The edit of the core for what the page wants; SceneError if that cannot be.

    seen: the revision by which the page named what it wants to change, if that is an older one
    """
    if not isinstance(wanted, dict):
        return {"name": None}
    try:
        then = request.document_at(seen)
        return _in_scene(request, wanted if then is None else as_meant(wanted, then, request.data))
    except SceneError:
        raise
    except (LookupError, TypeError, ValueError, AttributeError, ArithmeticError) as error:
        raise SceneError.at("edit", f"it does not say what it should ({error})") from None


def _in_scene(request: EditRequest, wanted: Data) -> Data:
    if isinstance(wanted.get("typed"), dict):
        edits = typed_edits(request.document, wanted)
    elif wanted.get("name") in SHARED and isinstance(wanted.get("path"), str):
        edits = shared_edits(request.document, wanted)
    elif wanted.get("name") in ON_EACH and isinstance(wanted.get("layers"), list):
        return _on_each(request, wanted)
    else:
        return _made(request, in_local_time(request, wanted))
    return told_together(request.data, [_made(request, edit) for edit in edits], wanted)


# What a button does to a layer, and to all that are selected with it.
ON_EACH = ("add-effect", "add-mask", "behind", "center", "fill-picture")


def _on_each(request: EditRequest, wanted: Data) -> Data:
    """The same on all selected layers that it can be done to; SceneError if that is none."""
    one = {name: value for name, value in wanted.items() if name != "layers"}
    listed = {str(layer) for layer in wanted["layers"]}
    edits: list[Data] = []
    faults = [SceneError.at("layers", "nothing that is selected is there any more")]
    for layer in (each["id"] for each in request.data["layers"] if each["id"] in listed):
        try:
            _check_seen(request, layer)
            edits.append(_made(request, {**one, "layer": layer}))
        except SceneError as fault:
            faults.append(fault)
    if not edits:
        raise faults[-1]
    said = _SAID_OF_EACH[wanted["name"]].format(f"{len(edits)} layers")
    return one_or_several(edits, said)


def _check_seen(request: EditRequest, layer: Any) -> None:
    """SceneError for a layer that is heard alone."""
    kind = LAYER_KINDS[request.layer(layer)["kind"]]
    if not (kind.has_place or kind.works_below):
        raise SceneError.at(str(layer), "this is not seen: select what is")


_SAID_OF_EACH = {
    "add-effect": "Effect added to {}",
    "add-mask": "Mask added to {}",
    "behind": "{} from behind another",
    "center": "{} centred",
    "fill-picture": "{} fill the picture",
}
_FIXED = re.compile(r"[^.]+\.masks\.\d{1,4}\.fixed")


def _fix_mask(request: EditRequest, wanted: Data) -> Data:
    """A mask that stands in the picture, or moves with its layer: it stays where it is seen."""
    path, fixed = wanted["path"], wanted["value"]
    layer, _, index, _ = path.split(".")
    found = mask_elsewhere(request.document, layer, int(index), request.selection.frame, fixed)
    base = path.removesuffix(".fixed")
    edits = [{"name": "set-value", "path": path, "value": fixed}]
    edits += [
        {"name": "set-value", "path": f"{base}.{name}", "value": value}
        for name, value in found.items()
    ]
    said = "Mask stands in the picture" if fixed else "Mask moves with its layer"
    return {"name": "several", "edits": edits, "said": said}


def _made(request: EditRequest, wanted: Data) -> Data:
    """The edit of the core for one in words of the page."""
    if _FIXED.fullmatch(str(wanted.get("path"))) and isinstance(wanted.get("value"), bool):
        return _fix_mask(request, wanted)
    make = REQUESTED_EDITS.get(str(wanted.get("name")))
    return make(request, wanted) if make else wanted


# What is switched, and what it is where nothing is said.
_SWITCHES = {"on": True, "locked": False, "solo": False}


def _flip(request: EditRequest, wanted: Data) -> Data:
    """What is on is switched off, and the other way round, as it is by then."""
    path = str(wanted.get("path"))
    of, _, name = path.rpartition(".")
    if name not in _SWITCHES:
        raise SceneError.at(path, "only what is on or off can be switched")
    holder = find(request.data, pointer_to(request.data, of)) or {}
    value = not holder.get(name, _SWITCHES[name])
    told = {**wanted, "name": "set-value", "value": value}
    return told_together(request.data, shared_edits(request.document, told), told)


def _several(request: EditRequest, wanted: Data) -> Data:
    edits = wanted.get("edits")
    if not isinstance(edits, list) or not all(isinstance(each, dict) for each in edits):
        return wanted  # the core says what is wrong
    alone = [each for each in edits if not _is_done_with_its_group(request, each, edits)]
    return {**wanted, "edits": [in_local_time(request, each) for each in alone]}


# What is done to a group is done to all that is in it.
_WITH_GROUP = ("remove-layer", "duplicate-layer", "shift-layer", "split-layer")


def _is_done_with_its_group(request: EditRequest, edit: Data, edits: list[Data]) -> bool:
    """Whether the same is to be done to a group that the layer of an edit is in."""
    if edit.get("name") not in _WITH_GROUP:
        return False
    same = {each.get("layer") for each in edits if each.get("name") == edit["name"]}
    return is_with_group(request, edit.get("layer"), same)


_RETURNS = re.compile(r"[^.]+\.(style|moves\.[^.]+|(effects|masks)\.\d{1,4})")


def _as_it_came(request: EditRequest, wanted: Data) -> Data:
    """A move, an effect, a mask or a title's style back to what it was when it was added."""
    path = str(wanted.get("path"))
    if not _RETURNS.fullmatch(path):
        raise SceneError.at("path", "a move, an effect, a mask or a style can be put back")
    try:
        now, then = part_of(request.data, path), as_it_came(request.revision, path)
    except LookupError:
        raise SceneError.at(path, "this is not there any more") from None
    if now == then:
        raise SceneError.at("", "It is as it came: nothing of it has been changed")
    edits = [{"name": "set-value", "path": path, "value": then}]
    layer, kind, *_ = path.split(".")
    what = "Style" if kind == "style" else name_of({"id": now.get("kind"), **now})
    said = f"{what} of {name_of(request.layer(layer))} as it came"
    return {"name": "several", "edits": edits, "said": said}


def _turn_move_round(request: EditRequest, wanted: Data) -> Data:
    """A move that comes home goes away, or the other way, in the time that it takes."""
    layer = request.document.layer(str(wanted.get("layer")))
    move = next((m for m in getattr(layer, "moves", ()) if m.id == wanted.get("move")), None)
    if move is None:
        raise SceneError.at("move", "this move is not there any more")
    units = units_of_move(request.document, layer, move)
    return {**wanted, "spread": round(float(delays_of(move.stagger, units).max(initial=0.0)), 3)}


def _renew_scenes(request: EditRequest, wanted: Data) -> Data:
    """The scenes that it uses, as they are now."""
    owner = request.scene.project.owner_id
    edits = renewals(request.scene, request.data, owner)
    if not edits:
        raise SceneError.at("scenes", "the scenes in it are as they are now")
    return one_or_several(edits, "Scenes in it as they are now")


REQUESTED_EDITS: dict[str, Callable[[EditRequest, Data], Data]] = {
    **ADDING,
    **PLACING,
    "as-it-came": _as_it_came,
    "behind": behind,
    "flip": _flip,
    "mark-beats": mark_beats,
    "paste": paste,
    "renew-scenes": _renew_scenes,
    "say": say,
    "several": _several,
    "take-apart": take_apart,
    "turn-move-round": _turn_move_round,
}
