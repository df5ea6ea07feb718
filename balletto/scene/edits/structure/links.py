"""What leads from layer to layer, where layers get other ids, are copied or taken away."""

from collections.abc import Collection, Mapping
from typing import Any

import numpy as np

from ... import files
from ...changes import Change, apply_changes
from ...forms.flurry_starts import THINGS
from ...values.colors import hex_of
from ...values.ties import ties_in
from ...values.tracks import value_at
from ..base import Document

# What of a layer names another by its id, which it cannot be without.
_NAMED = ("matte", "along")


def with_links(layer: dict[str, Any], names: Mapping[str, str | None]) -> dict[str, Any]:
    """A layer that goes by other sounds, throws other layers, is seen through other mattes and
    stands along other paths: `names` holds the new id of each, or None for those that are gone."""
    for name in _NAMED:
        if layer.get(name, {}).get("layer") in names:
            other = names[layer[name]["layer"]]
            left = {key: value for key, value in layer.items() if key != name}
            layer = left if other is None else {**left, name: {**layer[name], "layer": other}}
    return _with_thrown(_with_sounds(layer, names), names)


def _with_thrown(layer: dict[str, Any], names: Mapping[str, str | None]) -> dict[str, Any]:
    """A layer that throws other layers, or, where none are left, circles."""
    sources = layer.get("flurry", {}).get("source", [])
    if not any(source.get("layer") in names for source in sources):
        return layer
    kept = [
        source if source.get("layer") not in names else {"layer": names[source["layer"]]}
        for source in sources
    ]
    left = [source for source in kept if source.get("layer", "") is not None]
    return {**layer, "flurry": {**layer["flurry"], "source": left or THINGS["circles"]}}


def _with_sounds(layer: dict[str, Any], names: Mapping[str, str | None]) -> dict[str, Any]:
    """A layer whose moves go by other sounds: `names` holds the new id of each, or None, by which
    they go by all that is heard."""

    def heard(selector: dict[str, Any]) -> dict[str, Any]:
        if selector.get("sound") not in names:
            return selector
        left = {name: value for name, value in selector.items() if name != "sound"}
        other = names[selector["sound"]]
        return left if other is None else {**left, "sound": other}

    if not any(
        "sound" in each for move in layer.get("moves", []) for each in move.get("reach", [])
    ):
        return layer
    moves = [
        {**move, "reach": [heard(each) for each in move["reach"]]} if "reach" in move else move
        for move in layer["moves"]
    ]
    return {**layer, "moves": moves}


def with_ties(data: Any, names: dict[str, str]) -> Any:
    """Plain data whose ties lead to other layers: `names` holds the new id of each."""
    if isinstance(data, list):
        return [with_ties(item, names) for item in data]
    if not isinstance(data, dict):
        return data
    if "tie" in data:
        head, dot, rest = data["tie"]["to"].partition(".")
        return {**data, "tie": {**data["tie"], "to": names.get(head, head) + dot + rest}}
    return {name: with_ties(value, names) for name, value in data.items()}


def loosened(
    document: Document, layers: Collection[str], from_layers: Collection[str] | None = None
) -> Document:
    """The document in which `layers` are tied to none of `from_layers` any more, or, where these
    are not given, to nothing but each other: what was tied keeps the value of frame 0."""
    scene = files.from_data(document)
    changes = []
    for pointer, tied in ties_in(scene, ()):
        if pointer[0] != "layers" or scene.layers[int(pointer[1])].id not in layers:
            continue
        head = tied.tie.to.partition(".")[0]
        if head not in layers if from_layers is None else head in from_layers:
            value = value_at(tied, np.array(0.0))
            plain = hex_of(value) if tied.is_color else np.round(value, 6).tolist()
            changes.append(Change("put", pointer, plain))
    return apply_changes(document, changes)[0]
