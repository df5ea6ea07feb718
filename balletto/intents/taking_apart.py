"""Copies taken apart: each becomes a layer, in a group that stands where the layer stood."""

from typing import Any

import numpy as np

from ..motion.spaces.copy_places import COPIES, copy_places, stand_of
from ..motion.spaces.layer_motion import units_at
from ..motion.stagger import delays_of
from ..scene.edits.paths import name_of
from ..scene.edits.structure.layers import family_of, shifted
from ..scene.edits.structure.links import with_links, with_ties
from ..scene.effects import EFFECT_KINDS
from ..scene.errors import SceneError
from ..scene.layers import Layer
from .situation import Data, Situation

MOST_APART, MOST_LAYERS = 100, 1000  # of one layer; that a scene holds
_GROUP = "apart"  # an id for the time being: the scene gives others
# What the group has of the layer, as it is of all copies together.
_OF_ALL = ("span", "on", "blend", "group", "transform", "masks", "matte")


def take_apart(situation: Situation, wanted: Data) -> Data:
    """A layer for each copy that is there at the playhead, which it is no copy any more."""
    data = situation.layer(wanted.get("layer"))
    layer = situation.document.layer(data["id"])
    if layer.formation is None:
        raise SceneError.at(name_of(data), "it has no copies that could be taken apart")
    stand = stand_of(layer.formation, np.array([float(situation.selection.frame)]))
    numbers = np.flatnonzero(stand.opacity[0] > 0)
    if len(numbers) > MOST_APART:
        told = f"at most {MOST_APART} copies can be taken apart, these are {len(numbers)}"
        raise SceneError.at(name_of(data), told)
    delays = _delays(situation, layer, layer.formation.delay)
    inside = family_of(situation.data, data["id"])
    if len(numbers) * len(inside) > MOST_LAYERS:
        told = f"{len(numbers)} copies of {len(inside)} layers are more than a scene holds"
        raise SceneError.at(name_of(data), told)
    family = [e for e in situation.data["layers"] if e["id"] in inside]
    layers: list[Data] = []
    for number in numbers:
        place = {
            "position": [*stand.places[0, number].round(4).tolist(), 0],
            "rotation": [0, 0, round(float(stand.turns[0, number]), 4)],
            "scale": [round(float(stand.scales[0, number]), 6)] * 2,
            "opacity": round(float(stand.opacity[0, number]), 4),
            "pivot": data.get("transform", {}).get("pivot", [0, 0]),
        }
        own = {**_one(data), "transform": place, "group": _GROUP}
        own["name"] = f"{name_of(data)} {number + 1}"[:200]
        for each in family:
            copy = shifted(own if each["id"] == data["id"] else each, float(delays[number]))
            if each["id"] == data["id"] and data["kind"] != "title":
                copy["moves"] = [
                    *copy["moves"],
                    *_moves_of_copy(situation, layer, data, int(number)),
                ]
            layers.append(_apart(copy, family, int(number)))
    layers.append(_group_of(data))
    edits = [
        {"name": "paste-layers", "layers": layers},
        {"name": "remove-layer", "layer": data["id"]},
    ]
    said = f"{len(numbers)} copies of {name_of(data)} taken apart"
    return {"name": "several", "edits": edits, "said": said}


def _delays(situation: Situation, layer: Layer, stagger: Any) -> np.ndarray:
    units = units_at(situation.document, layer, copy_places(layer, "copy"))
    return np.round(delays_of(stagger, units), 4)


def _one(data: Data) -> Data:
    """What one copy has of its layer: what it draws."""
    left_out = {"formation", "effects", *_OF_ALL} - {"span", "on"}
    own = {name: value for name, value in data.items() if name not in left_out}
    effects = [e for e in data.get("effects", []) if EFFECT_KINDS[e["kind"]].works_on != "picture"]
    own |= {"effects": effects} if effects else {}
    if data["kind"] != "title":
        own["moves"] = [move for move in data.get("moves", []) if move.get("unit") == "member"]
    return own


def _moves_of_copy(situation: Situation, layer: Layer, data: Data, number: int) -> list[Data]:
    """The moves of copies as those of one of them, in the time of the scene."""
    moves = []
    for move, model in zip(data.get("moves", []), getattr(layer, "moves", ()), strict=True):
        if move.get("unit") == "copy":
            plain = {n: value for n, value in move.items() if n not in ("stagger", "reach")}
            later = float(_delays(situation, layer, model.stagger)[number])
            start = round(model.start + later, 4)
            moves.append({**plain, "unit": "layer", "start": start})
    return moves


def _apart(layer: Data, family: list[Data], number: int) -> Data:
    """A layer of a family under ids of its own copy."""
    names = {each["id"]: f"{each['id']}-{number}" for each in family}
    made = {**layer, "id": names[layer["id"]]}
    if made.get("group") in names:
        made["group"] = names[made["group"]]
    return with_links(with_ties(made, names), names)


def _group_of(data: Data) -> Data:
    """The group that stands and moves as the layer did."""
    group = {name: data[name] for name in _OF_ALL if name in data}
    effects = [e for e in data.get("effects", []) if EFFECT_KINDS[e["kind"]].works_on == "picture"]
    moves = [] if data["kind"] == "title" else data.get("moves", [])
    whole = [m for m in moves if m.get("unit", "layer") not in (*COPIES, "member")]
    named = {"kind": "group", "id": _GROUP, "name": name_of(data)[:200], "moves": whole}
    return {**group, **named, **({"effects": effects} if effects else {})}
