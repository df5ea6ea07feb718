"""Edits of text along a path: a title that begins to stand along a shape, and one that is straight
again."""

from typing import Any

import numpy as np

from ... import files
from ...changes import Change, get
from ...errors import SceneError
from ...letters.along import shapes_of
from ...values.bezier_path import path_of
from ...values.tracks import is_track, value_at
from ..base import Document, Edit, edit
from ..paths import find, layer_pointer, name_of
from .links import loosened

# What of the place of a title goes with that of its path.
_TIED = ("position", "rotation")
# Where along an open path the lines are aligned to, in percent, by how they are aligned.
_PLACES = {"left": 0, "center": 50, "right": 100}


@edit("stand-along")
class StandAlong(Edit):
    """Lets a title stand along a shape, and go with it: its place and turn are tied to those of the
    shape, unless they have keys. The text begins, is in the middle or ends at the start of a closed
    path; along an open one it stands as it is aligned. What is said of the path already stays.

    value: the id of the shape
    """

    layer: str
    value: str

    def changes(self, document: Document) -> list[Change]:
        pointer = layer_pointer(document, self.layer)
        title = get(document, pointer)
        if title["kind"] != "title":
            told = f"{name_of(title)} is no title: only letters stand along a path"
            raise SceneError.at(self.layer, told)
        scene = files.from_data(document)
        shape = next((each for each in shapes_of(scene) if each.id == self.value), None)
        if shape is None:
            raise SceneError.at(self.layer, "a shape of this scene is needed")
        place: dict[str, Any] = {**title.get("transform", {}), "pivot": list(shape.transform.pivot)}
        for name in _TIED:
            if not is_track(place.get(name)):
                place[name] = {"tie": {"to": f"{self.value}.transform.{name}"}}
        first = np.array(0.0)
        scale = tuple(value_at(shape.transform.scale, first).tolist())
        path = path_of(shape.shape.outline(first), scale, shape.transform.pivot)
        offset = 0 if path.is_closed else _PLACES[scene.layer(self.layer).style.align]
        along = {"offset": offset, **title.get("along", {}), "layer": self.value}
        changes = [
            Change("put", (*pointer, "transform"), place),
            Change("put", (*pointer, "along"), along),
        ]
        if title.get("group") not in (None, shape.group):
            told = "it is in another group than the shape: put both into one, or take it out"
            raise SceneError.at(self.layer, told)
        if shape.group is not None:
            changes.append(Change("put", (*pointer, "group"), shape.group))
        return changes

    def label(self, document: Document) -> str:
        title, path = (
            name_of(get(document, layer_pointer(document, each)))
            for each in (self.layer, self.value)
        )
        return f"{title} stands along {path}"


@edit("straighten")
class Straighten(Edit):
    """Lets a title that stands along a path stand straight again, where the path is."""

    layer: str

    def changes(self, document: Document) -> list[Change]:
        pointer = layer_pointer(document, self.layer)
        along = find(document, (*pointer, "along"))
        if along is None:
            raise SceneError.at(self.layer, "this title stands straight already")
        title = get(loosened(document, [self.layer], from_layers=[along["layer"]]), pointer)
        changes = [Change("remove", (*pointer, "along"))]
        if place := title.get("transform"):
            changes.append(Change("put", (*pointer, "transform"), place))
        return changes

    def label(self, document: Document) -> str:
        return f"{name_of(get(document, layer_pointer(document, self.layer)))} straightened"
