"""Edits of the list of layers."""

import re
from typing import Any

from pydantic import Field

from ...changes import Change, get
from ...document import rate_of
from ...errors import SceneError
from ...layers import AnyLayer
from ...model import MAX_NAME, Counts
from ...rewriting import Mark, Rewriter, Where
from ...values.tracks import is_track
from ..base import Document, Edit, edit
from ..paths import find, frames, free_id, layer_pointer, name_of, with_parents
from .links import loosened, with_links, with_ties


@edit("add-layer")
class AddLayer(Edit):
    """Adds a layer in front of all others, or at a place among them: `to` 0 is at the back. Its id
    is given by the scene."""

    layer: dict[str, Any]
    to: int | None = Field(None, ge=0)

    def changes(self, document: Document) -> list[Change]:
        layers = document.get("layers", [])
        layer = {**self.layer, "id": free_id(layers, str(self.layer.get("kind", "l"))[:1])}
        if "layers" not in document:
            return [Change("put", ("layers",), [layer])]
        to = len(layers) if self.to is None else min(self.to, len(layers))
        return [Change("insert", ("layers", to), layer)]

    def label(self, document: Document) -> str:
        return f"{str(self.layer.get('kind', 'layer')).capitalize()} added"


@edit("remove-layer")
class RemoveLayer(Edit):
    """Takes a layer away, a group with all that is in it; it is a matte, a path, a sound that moves
    go by and a piece of a flurry no more. What was tied to it keeps the value of frame 0."""

    layer: str

    def changes(self, document: Document) -> list[Change]:
        layer_pointer(document, self.layer)
        gone = set(family_of(document, self.layer))
        # Clicks are nothing without the title that they are of.
        gone |= {
            layer["id"]
            for layer in document["layers"]
            if layer.get("kind") == "clicks" and layer.get("title") in gone
        }
        silent = dict.fromkeys(gone)
        kept = [layer["id"] for layer in document["layers"] if layer["id"] not in gone]
        left = [
            with_links(layer, silent)
            for layer in loosened(document, kept, from_layers=gone)["layers"]
            if layer["id"] not in gone
        ]
        return [Change("put", ("layers",), left), *_without_unused_scenes(document, left)]

    def label(self, document: Document) -> str:
        return f"{name_of(get(document, layer_pointer(document, self.layer)))} removed"


def _without_unused_scenes(document: Document, layers: list[dict[str, Any]]) -> list[Change]:
    """Scenes that no layer shows any more go with the last one that did."""
    used = document.get("scenes", [])
    shown = {layer.get("scene") for layer in layers}
    left = [each for each in used if each["id"] in shown]
    return [Change("put", ("scenes",), left)] if len(left) < len(used) else []


@edit("duplicate-layer")
class DuplicateLayer(Edit):
    """Puts a copy of a layer in front of it, where it stands, of a group with all that is in it. A
    name gets the next number that is free: "Click" gives "Click 2"."""

    layer: str

    def changes(self, document: Document) -> list[Change]:
        *inside, copy = copies_of(document, self.layer)
        if copy.get("name"):
            copy = {**copy, "name": next_name(copy["name"], document["layers"])}
        return _in_front_of(document, self.layer, [*inside, copy])

    def label(self, document: Document) -> str:
        return f"{name_of(get(document, layer_pointer(document, self.layer)))} duplicated"


_DIGITS_OF_NAMES = 6  # and a space


def next_name(name: str, layers: list[dict[str, Any]]) -> str:
    """A name with the first number from 2 on that is not taken; a long one is cut."""
    plain = re.sub(r" \d+$", "", name)[: MAX_NAME - _DIGITS_OF_NAMES]
    taken = {layer.get("name") for layer in layers}
    number = 2
    while f"{plain} {number}" in taken:
        number += 1
    return f"{plain} {number}"


@edit("move-layer")
class MoveLayer(Edit):
    """Puts a layer at another place: 0 is at the back."""

    layer: str
    to: int = Field(ge=0)

    def changes(self, document: Document) -> list[Change]:
        pointer = layer_pointer(document, self.layer)
        to = min(self.to, len(document["layers"]) - 1)
        layer = get(document, pointer)
        return [Change("remove", pointer), Change("insert", ("layers", to), layer)]

    def label(self, document: Document) -> str:
        was = layer_pointer(document, self.layer)[1]
        way = "forward" if self.to > was else "back"
        return f"{name_of(get(document, layer_pointer(document, self.layer)))} moved {way}"


@edit("shift-layer")
class ShiftLayer(Edit):
    """Moves a layer in time, with all that moves it: its span, the starts of its moves, and the
    keys that count in frames of the scene."""

    layer: str
    by: float = Field(ge=-1_000_000, le=1_000_000)

    def changes(self, document: Document) -> list[Change]:
        return [
            Change(
                "put",
                layer_pointer(document, each),
                shifted(find(document, layer_pointer(document, each)), self.by),
            )
            for each in family_of(document, self.layer)
        ]

    def label(self, document: Document) -> str:
        name = name_of(get(document, layer_pointer(document, self.layer)))
        return f"{name} {abs(self.by):g} frames {'later' if self.by > 0 else 'earlier'}"


@edit("shift-place")
class ShiftPlace(Edit):
    """Moves a layer in the picture by px, its whole way with it."""

    layer: str
    by: tuple[float, float, float]

    def changes(self, document: Document) -> list[Change]:
        pointer = (*layer_pointer(document, self.layer), "transform", "position")
        place = find(document, pointer)
        if isinstance(place, dict) and "tie" in place:
            raise SceneError.at(self.layer, "its position is tied to another: untie it to move it")
        if is_track(place):
            keys = [{**key, "value": self._moved(key["value"])} for key in place["keys"]]
            return [Change("put", pointer, {**place, "keys": keys})]
        moved = self._moved(place or [0, 0, 0])
        return [Change("put", *with_parents(document, pointer, moved))]

    def _moved(self, place: list[float]) -> list[float]:
        return [frames(old + by) for old, by in zip(place, self.by, strict=True)]

    def label(self, document: Document) -> str:
        name = name_of(get(document, layer_pointer(document, self.layer)))
        across, down, _ = self.by
        return f"{name} moved by {across:g} px across, {down:g} px down"


class _Later(Rewriter):
    """All moments of the scene's own time later. What a pose and an amount say counts from the
    start of their move, and goes along with it."""

    def __init__(self, by: float):
        self._by = by

    def number(self, value: float, mark: Mark, where: Where) -> float:
        is_moved = mark.counts is Counts.MOMENT and not where.is_local
        return frames(value + self._by) if is_moved else value


def shifted(layer: dict[str, Any], by: float) -> dict[str, Any]:
    """A layer with all its times `by` frames later."""
    return _Later(by).rewritten(AnyLayer, layer)


def family_of(document: Document, layer: str) -> list[str]:
    """The ids of a layer and of all that is in it if it is a group, from the back to the front."""
    family = {layer}
    while more := {
        each["id"]
        for each in document["layers"]
        if each.get("group") in family and each["id"] not in family
    }:
        family |= more
    return [each["id"] for each in document["layers"] if each["id"] in family]


def copies_of(document: Document, layer: str) -> list[dict[str, Any]]:
    """Copies of a layer and of all that is in it, under free ids, the layer itself the last."""
    family = family_of(document, layer)
    originals = [each for each in document["layers"] if each["id"] in family]
    originals.sort(key=lambda each: each["id"] == layer)
    return with_new_ids(originals, document["layers"])


def with_new_ids(layers: list[dict[str, Any]], there: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """Copies of layers under ids that none of those `there` has; what leads from one to another,
    a tie, a group, a matte or a path, leads from copy to copy."""
    taken, names = list(there), {}
    for layer in layers:
        names[layer["id"]] = free_id(taken, layer["kind"][:1])
        taken.append({"id": names[layer["id"]]})
    return [_renamed(layer, names) for layer in layers]


def _renamed(layer: dict[str, Any], names: dict[str, str]) -> dict[str, Any]:
    copy = with_ties({**layer, "id": names[layer["id"]]}, names)
    if copy.get("group") in names:
        copy["group"] = names[copy["group"]]
    if copy["kind"] == "clicks" and copy["title"] in names:
        copy["title"] = names[copy["title"]]
    return with_links(copy, names)


def _in_front_of(document: Document, layer: str, added: list[dict[str, Any]]) -> list[Change]:
    place = layer_pointer(document, layer)[1] + 1
    return [Change("insert", ("layers", place + n), each) for n, each in enumerate(added)]


def _going_on(document: Document, layer: dict[str, Any], passed: float) -> dict[str, Any]:
    """A layer that plays something, playing on from where it is after some frames."""
    rate = rate_of(document["rate"])
    if layer["kind"] in ("video", "sound"):
        seconds = passed / float(rate) * layer.get("speed", 1)
        return {**layer, "start": round(layer.get("start", 0) + seconds, 6)}
    if layer["kind"] == "scene":
        used = next(each for each in document["scenes"] if each["id"] == layer["scene"])
        inner = float(rate_of(used["scene"]["rate"]) / rate)
        return {**layer, "shift": frames(layer.get("shift", 0) + passed * inner)}
    return layer


@edit("split-layer")
class SplitLayer(Edit):
    """Cuts a layer in two at the frame `at`: a copy in front of it goes on from there."""

    layer: str
    at: float = Field(ge=-1_000_000, le=1_000_000)

    def changes(self, document: Document) -> list[Change]:
        pointer = layer_pointer(document, self.layer)
        layer = get(document, pointer)
        first, end = layer["span"]
        if not first < self.at < end:
            told = f"the layer shows from frame {first:g} to {end:g}: go in between to split it"
            raise SceneError.at(self.layer, told)
        *inside, rest = copies_of(document, self.layer)
        added = [*inside, {**_going_on(document, rest, self.at - first), "span": [self.at, end]}]
        return [
            Change("put", (*pointer, "span"), [first, self.at]),
            *_in_front_of(document, self.layer, added),
        ]

    def label(self, document: Document) -> str:
        name = name_of(get(document, layer_pointer(document, self.layer)))
        return f"{name} split at frame {self.at:g}"
