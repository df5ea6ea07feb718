"""Copies: layers, moves, styles and keyframes taken from one place and put in at another.

What is copied comes from a document, the one edited or another; `copied_...` takes it from there
and the edit of that name puts it in.
"""

from typing import Any

from pydantic import Field

from ...changes import Change, get
from ...model import Frames
from ...values.tracks import is_track
from ..base import Document, Edit, edit
from ..paths import (
    find,
    frames,
    free_id,
    layer_pointer,
    name_of,
    pointer_to,
    start_of,
    with_parents,
    without_marker,
)
from ..times.keyframes import KeyData, Rows, track_of
from .layers import family_of, with_new_ids
from .links import loosened, with_links


@edit("paste-layers")
class PasteLayers(Edit):
    """Adds copied layers in front of all others, with ids of their own."""

    layers: list[dict[str, Any]] = Field(min_length=1)
    scenes: list[dict[str, Any]] = []

    def changes(self, document: Document) -> list[Change]:
        there = document.get("layers", [])
        used, names = self._with_scenes(document.get("scenes", []))
        layers = [
            {**layer, "scene": names.get(layer["scene"], layer["scene"])}
            if layer["kind"] == "scene"
            else layer
            for layer in self.layers
        ]
        changes = [Change("put", ("layers",), [*there, *with_new_ids(layers, there)])]
        return [*([Change("put", ("scenes",), used)] if self.scenes else []), *changes]

    def _with_scenes(
        self, there: list[dict[str, Any]]
    ) -> tuple[list[dict[str, Any]], dict[str, str]]:
        """The scenes used, with those that the layers show; and the ids that these have now."""
        used, names = list(there), {}
        for scene in self.scenes:
            same = next((each for each in used if {**each, "id": scene["id"]} == scene), None)
            if same is None:
                same = {**scene, "id": free_id(used, "scene")}
                used.append(same)
            names[scene["id"]] = same["id"]
        return used, names

    def label(self, document: Document) -> str:
        one = name_of(self.layers[0])
        return f"{one if len(self.layers) == 1 else f'{len(self.layers)} layers'} pasted"


def copied_layers(document: Document, layers: list[str], same_scene: bool) -> list[dict[str, Any]]:
    """Layers for `paste-layers`, from the back to the front.

    For another scene, values tied to layers that stay behind are loosened: they keep the value
    that they have at frame 0. SceneError if a layer is not there.
    """
    for layer in layers:
        layer_pointer(document, layer)
    family = {each for layer in layers for each in family_of(document, layer)}
    source = document if same_scene else loosened(document, family)
    copied = [layer for layer in source["layers"] if layer["id"] in family]
    return copied if same_scene else [_alone(document, layer, family) for layer in copied]


def copied_scenes(document: Document, layers: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """The scenes of a document that copied layers show, for `paste-layers`."""
    shown = {layer["scene"] for layer in layers if layer["kind"] == "scene"}
    return [used for used in document.get("scenes", []) if used["id"] in shown]


def _alone(document: Document, layer: dict[str, Any], family: set[str]) -> dict[str, Any]:
    """A layer without the group, the markers and the layers it needs that stay behind."""
    behind = {each["id"]: None for each in document["layers"] if each["id"] not in family}
    left = with_links(layer, behind)
    if any("marker" in move for move in left.get("moves", [])):
        left = {**left, "moves": [without_marker(document, move) for move in left["moves"]]}
    if left.get("group") not in family:
        left = {name: value for name, value in left.items() if name != "group"}
    return left


@edit("paste-keys")
class PasteKeys(Edit):
    """Puts copied keys at the frame `at`, the first of all of them there.

    `rows` holds the keys by path, with `at` counted from the first of all. A value that had no
    keyframes gets these alone.
    """

    rows: dict[str, list[dict[str, Any]]] = Field(min_length=1)
    at: Frames

    def changes(self, document: Document) -> list[Change]:
        changes = []
        for path, pasted in self.rows.items():
            pointer = pointer_to(document, path)
            track = find(document, pointer)
            track = track if is_track(track) else {"keys": []}
            first = self.at - start_of(document, path)
            moved = [{**key, "at": frames(first + key["at"])} for key in pasted]
            taken = {key["at"] for key in moved}
            keys = [*moved, *(key for key in track["keys"] if key["at"] not in taken)]
            ordered = {**track, "keys": sorted(keys, key=lambda key: key["at"])}
            changes.append(Change("put", *with_parents(document, pointer, ordered)))
        return changes

    def label(self, document: Document) -> str:
        number = sum(len(keys) for keys in self.rows.values())
        return f"{number} keyframe{'s' if number != 1 else ''} pasted at frame {self.at:g}"


def copied_keys(document: Document, keys: Rows) -> dict[str, list[KeyData]]:
    """Selected keys as `paste-keys` takes them. SceneError if they are not there."""
    first = min(
        track_of(document, path, indices)[1]["keys"][index]["at"] + start_of(document, path)
        for path, indices in keys.items()
        for index in indices
    )
    rows = {}
    for path, indices in keys.items():
        track = track_of(document, path, indices)[1]
        by = start_of(document, path) - first
        rows[path] = [
            {**track["keys"][index], "at": frames(track["keys"][index]["at"] + by)}
            for index in sorted(set(indices))
        ]
    return rows


@edit("paste-style")
class PasteStyle(Edit):
    """Gives a layer the style of another, from which it was copied; styles of words go."""

    layer: str
    style: dict[str, Any]

    def changes(self, document: Document) -> list[Change]:
        pointer = layer_pointer(document, self.layer)
        runs = [Change("remove", (*pointer, "runs"))] if "runs" in get(document, pointer) else []
        return [Change("put", (*pointer, "style"), self.style), *runs]

    def label(self, document: Document) -> str:
        name = name_of(get(document, layer_pointer(document, self.layer)))
        return f"Style pasted on {name}"


@edit("paste-moves")
class PasteMoves(Edit):
    """Adds copied moves to a layer, with ids of their own."""

    layer: str
    moves: list[dict[str, Any]] = Field(min_length=1)

    def changes(self, document: Document) -> list[Change]:
        pointer = layer_pointer(document, self.layer)
        there = list(get(document, pointer).get("moves", []))
        for move in self.moves:
            there.append({**move, "id": free_id(there, "m")})
        return [Change("put", (*pointer, "moves"), there)]

    def label(self, document: Document) -> str:
        name = name_of(get(document, layer_pointer(document, self.layer)))
        said = name_of(self.moves[0]) if len(self.moves) == 1 else f"{len(self.moves)} moves"
        return f"{said} pasted on {name}"
