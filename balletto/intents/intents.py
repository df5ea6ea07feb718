"""From what is asked for to an edit of the core.

It may be asked for in words of a page: "this preset", "centred", "this sentence". Here the scene,
the selection and what else is not said are put in. Anything else is an edit of the core already.
"""

import re
from collections.abc import Callable
from typing import Any

from ..motion.spaces.layer_motion import units_of_move
from ..motion.stagger import delays_of
from ..picture.overlays.mask_handles import mask_elsewhere
from ..scene.edits.paths import find, pointer_to
from ..scene.errors import SceneError
from ..scene.layers import LAYER_KINDS
from .adding import ADDING
from .beats import mark_beats
from .behind import behind
from .placing import PLACING
from .saying import make_scene, say
from .situation import Data, Situation, in_local_time, is_with_group, one_or_several
from .taking_apart import take_apart
from .typed_values import shared_edits, told_together, typed_edits

# The edits of a value that are made on all selected layers which have it.
SHARED = ("set-value", "set-order", "add-key", "toggle-key", "hold-to", "clear-value")


def edit_for(situation: Situation, wanted: Data) -> Data:
    """The edit of the core for what is wanted; SceneError if that cannot be."""
    if isinstance(wanted.get("typed"), dict):
        edits = typed_edits(situation.document, wanted)
    elif wanted.get("name") in SHARED and isinstance(wanted.get("path"), str):
        edits = shared_edits(situation.document, wanted)
    elif wanted.get("name") in ON_EACH and isinstance(wanted.get("layers"), list):
        return _on_each(situation, wanted)
    else:
        return _made(situation, in_local_time(situation, wanted))
    return told_together(situation.data, [_made(situation, edit) for edit in edits], wanted)


# What a button does to a layer, and to all that are selected with it.
ON_EACH = ("add-effect", "add-mask", "behind", "center", "fill-picture")


def _on_each(situation: Situation, wanted: Data) -> Data:
    """The same on all selected layers that it can be done to; SceneError if that is none."""
    one = {name: value for name, value in wanted.items() if name != "layers"}
    listed = {str(layer) for layer in wanted["layers"]}
    edits: list[Data] = []
    faults = [SceneError.at("layers", "nothing that is selected is there any more")]
    for layer in (each["id"] for each in situation.data["layers"] if each["id"] in listed):
        try:
            _check_seen(situation, layer)
            edits.append(_made(situation, {**one, "layer": layer}))
        except SceneError as fault:
            faults.append(fault)
    if not edits:
        raise faults[-1]
    said = _SAID_OF_EACH[wanted["name"]].format(f"{len(edits)} layers")
    return one_or_several(edits, said)


def _check_seen(situation: Situation, layer: Any) -> None:
    """SceneError for a layer that is heard alone."""
    kind = LAYER_KINDS[situation.layer(layer)["kind"]]
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


def _fix_mask(situation: Situation, wanted: Data) -> Data:
    """A mask that stands in the picture, or moves with its layer: it stays where it is seen."""
    path, fixed = wanted["path"], wanted["value"]
    layer, _, index, _ = path.split(".")
    found = mask_elsewhere(situation.document, layer, int(index), situation.selection.frame, fixed)
    base = path.removesuffix(".fixed")
    edits = [{"name": "set-value", "path": path, "value": fixed}]
    edits += [
        {"name": "set-value", "path": f"{base}.{name}", "value": value}
        for name, value in found.items()
    ]
    said = "Mask stands in the picture" if fixed else "Mask moves with its layer"
    return {"name": "several", "edits": edits, "said": said}


def _made(situation: Situation, wanted: Data) -> Data:
    """The edit of the core for one in words of the page."""
    if _FIXED.fullmatch(str(wanted.get("path"))) and isinstance(wanted.get("value"), bool):
        return _fix_mask(situation, wanted)
    make = INTENTS.get(str(wanted.get("name")))
    return make(situation, wanted) if make else wanted


# What is switched, and what it is where nothing is said.
_SWITCHES = {"on": True, "locked": False, "solo": False}


def _flip(situation: Situation, wanted: Data) -> Data:
    """What is on is switched off, and the other way round, as it is by then."""
    path = str(wanted.get("path"))
    of, _, name = path.rpartition(".")
    if name not in _SWITCHES:
        raise SceneError.at(path, "only what is on or off can be switched")
    holder = find(situation.data, pointer_to(situation.data, of)) or {}
    value = not holder.get(name, _SWITCHES[name])
    told = {**wanted, "name": "set-value", "value": value}
    return told_together(situation.data, shared_edits(situation.document, told), told)


def _several(situation: Situation, wanted: Data) -> Data:
    edits = wanted.get("edits")
    if not isinstance(edits, list) or not all(isinstance(each, dict) for each in edits):
        return wanted  # the core says what is wrong
    alone = [each for each in edits if not _is_done_with_its_group(situation, each, edits)]
    return {**wanted, "edits": [in_local_time(situation, each) for each in alone]}


# What is done to a group is done to all that is in it.
_WITH_GROUP = ("remove-layer", "duplicate-layer", "shift-layer", "split-layer")


def _is_done_with_its_group(situation: Situation, edit: Data, edits: list[Data]) -> bool:
    """Whether the same is to be done to a group that the layer of an edit is in."""
    if edit.get("name") not in _WITH_GROUP:
        return False
    same = {each.get("layer") for each in edits if each.get("name") == edit["name"]}
    return is_with_group(situation, edit.get("layer"), same)


def _turn_move_round(situation: Situation, wanted: Data) -> Data:
    """A move that comes home goes away, or the other way, in the time that it takes."""
    layer = situation.document.layer(str(wanted.get("layer")))
    move = next((m for m in getattr(layer, "moves", ()) if m.id == wanted.get("move")), None)
    if move is None:
        raise SceneError.at("move", "this move is not there any more")
    units = units_of_move(situation.document, layer, move)
    return {**wanted, "spread": round(float(delays_of(move.stagger, units).max(initial=0.0)), 3)}


# By its name, what is no edit of the core as it is asked for.
INTENTS: dict[str, Callable[[Situation, Data], Data]] = {
    **ADDING,
    **PLACING,
    "behind": behind,
    "flip": _flip,
    "make-scene": make_scene,
    "mark-beats": mark_beats,
    "say": say,
    "several": _several,
    "take-apart": take_apart,
    "turn-move-round": _turn_move_round,
}
