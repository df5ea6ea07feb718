"""A situation: a scene as it is, what is selected in it, and what lies at hand beside it. All that
is asked for is asked in one."""

from dataclasses import dataclass, field, replace
from functools import cached_property
from pathlib import Path
from typing import Any, NamedTuple

from ..scene import files
from ..scene.document import Scene
from ..scene.edits import apply
from ..scene.edits.paths import start_of
from ..scene.errors import SceneError
from ..scene.layers import LAYER_KINDS

Data = dict[str, Any]


@dataclass(frozen=True)
class Selection:
    """What is selected: a layer, others with it, a move and letters of the layer; and the frame
    that is looked at."""

    layer: str = ""
    also: tuple[str, ...] = ()
    move: str = ""
    letters: tuple[int, int] | None = None
    frame: int = 0


class ShelfFile(NamedTuple):
    """A file as scenes use it; kind: still, video or sound; a sound has no size."""

    name: str
    title: str
    kind: str
    width: int = 0
    height: int = 0
    ships: bool = False
    path: Path | None = None


class ShelfScene(NamedTuple):
    """Another scene, to be used in this one: what documents know it by, its name, its document."""

    source: str
    name: str
    document: Data


class Shelf:
    """What lies at hand beside a scene: files and other scenes. This one is empty."""

    def opened(self, data: Data) -> Scene:
        """The scene of a document, with its files at hand."""
        return files.from_data(data)

    def file_named(self, name: str) -> ShelfFile | None:
        """The file that scenes call so; None if there is none."""
        return None

    def file_called(self, title: str, kind: str) -> ShelfFile | None:
        """The file of a kind that people call so; None if there is none."""
        return None

    def scene_numbered(self, number: int) -> ShelfScene | None:
        """Another scene by its number; None if there is none."""
        return None

    def scene_called(self, name: str) -> ShelfScene | None:
        """Another scene that is called so; None if there is none. SceneError if it cannot be used
        in this one."""
        return None


@dataclass(frozen=True)
class Situation:
    """A scene as plain data, what is selected in it, and what lies at hand beside it."""

    data: Data
    selection: Selection = Selection()
    shelf: Shelf = field(default_factory=Shelf)

    def after(self, edits: list[Data]) -> "Situation":
        """The same, as it would be after edits; SceneError if they cannot be."""
        edit = {"name": "several", "edits": edits, "said": "Said"}
        return replace(self, data=apply(self.data, edit).document)

    @cached_property
    def document(self) -> Scene:
        return self.shelf.opened(self.data)

    def layer(self, identifier: Any) -> Data:
        """A layer's plain data; SceneError if it is gone."""
        for layer in self.data.get("layers", []):
            if layer["id"] == identifier:
                found: Data = layer
                return found
        raise SceneError.at(str(identifier), "this layer is not there any more")


def in_local_time(situation: Situation, wanted: Data) -> Data:
    """Some values count from the start of their move: so does the playhead then."""
    at, path = wanted.get("at"), wanted.get("path")
    if not isinstance(at, int | float) or not isinstance(path, str):
        return wanted
    return {**wanted, "at": at - start_of(situation.data, path)}


def is_with_group(situation: Situation, layer: Any, layers: set[Any]) -> bool:
    """Whether a group around a layer is among layers."""
    groups = {each["id"]: each.get("group") for each in situation.data["layers"]}
    around = groups.get(layer)
    while around is not None:
        if around in layers:
            return True
        around = groups.get(around)
    return False


def movable_among(situation: Situation, layers: list[str]) -> list[str]:
    """Those of some layers that can have moves; SceneError if none can."""
    found = [layer for layer in layers if has_moves(situation.layer(layer)["kind"])]
    if not found:
        raise SceneError.at("", "nothing of this can move: select a title, a shape, a picture ...")
    return found


def has_moves(kind: str) -> bool:
    """Whether layers of a kind can have moves."""
    return "moves" in LAYER_KINDS[kind].model_fields


def titles_among(situation: Situation, layers: list[str], what: str) -> list[str]:
    """Those of some layers that are titles; SceneError, saying what only they have, if none is."""
    titles = [layer for layer in layers if situation.layer(layer)["kind"] == "title"]
    if not titles:
        raise SceneError.at("layers", f"only titles have {what}: select one, then paste")
    return titles


def one_or_several(edits: list[Data], said: str) -> Data:
    """One edit of several, with what the history says of them; a single one as it is."""
    return edits[0] if len(edits) == 1 else {"name": "several", "edits": edits, "said": said}
