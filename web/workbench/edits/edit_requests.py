"""Who asks for an edit, of which scene, with what selected; and what such edits need."""

from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

from django.http import HttpRequest

from balletto.scene.document import Scene as SceneDocument
from balletto.scene.edits import apply
from balletto.scene.edits.paths import start_of
from balletto.scene.errors import SceneError
from balletto.scene.layers import LAYER_KINDS
from web.library.store import opened
from web.projects import history
from web.projects.models import Revision, Scene

from ..view_model import Selection

Data = dict[str, Any]


@dataclass(frozen=True)
class EditRequest:
    """Who asks, of which scene, and with what selected.

    ahead: the document as edits that are not made yet leave it
    """

    http_request: HttpRequest
    scene: Scene
    selection: Selection
    ahead: Data | None = None

    @cached_property
    def revision(self) -> Revision:
        """The newest revision."""
        return history.newest(self.scene)

    @property
    def data(self) -> Data:
        """The newest document as plain data."""
        return self.revision.document if self.ahead is None else self.ahead

    def after(self, edits: list[Data]) -> "EditRequest":
        """The same request, as it would be after edits; SceneError if they cannot be."""
        edit = {"name": "several", "edits": edits, "said": "Said"}
        return replace(self, ahead=apply(self.data, edit).document)

    @cached_property
    def document(self) -> SceneDocument:
        return opened(self.data, self.scene.project.owner_id)

    def document_at(self, number: int) -> Data | None:
        """The document of an older revision; None if it is the newest, or there is none."""
        if not 0 < number < self.revision.number:
            return None
        older = self.scene.revisions.filter(number=number).first()
        return older.document if older else None

    def layer(self, identifier: Any) -> Data:
        """A layer's plain data; SceneError if it is gone."""
        for layer in self.data.get("layers", []):
            if layer["id"] == identifier:
                return layer
        raise SceneError.at(str(identifier), "this layer is not there any more")


def in_local_time(request: EditRequest, wanted: Data) -> Data:
    """Some values count from the start of their move: so does the playhead then."""
    at, path = wanted.get("at"), wanted.get("path")
    if not isinstance(at, int | float) or not isinstance(path, str):
        return wanted
    return {**wanted, "at": at - start_of(request.data, path)}


def is_with_group(request: EditRequest, layer: str, layers: set[str]) -> bool:
    """Whether a group around a layer is among layers."""
    groups = {each["id"]: each.get("group") for each in request.data["layers"]}
    around = groups.get(layer)
    while around is not None:
        if around in layers:
            return True
        around = groups.get(around)
    return False


def movable_among(request: EditRequest, layers: list[str]) -> list[str]:
    """Those of some layers that can have moves; SceneError if none can."""
    found = [layer for layer in layers if has_moves(request.layer(layer)["kind"])]
    if not found:
        raise SceneError.at("", "nothing of this can move: select a title, a shape, a picture ...")
    return found


def has_moves(kind: str) -> bool:
    """Whether layers of a kind can have moves."""
    return "moves" in LAYER_KINDS[kind].model_fields


def titles_among(request: EditRequest, layers: list[str], what: str) -> list[str]:
    """Those of some layers that are titles; SceneError, saying what only they have, if none is."""
    titles = [layer for layer in layers if request.layer(layer)["kind"] == "title"]
    if not titles:
        raise SceneError.at("layers", f"only titles have {what}: select one, then paste")
    return titles


def one_or_several(edits: list[Data], said: str) -> Data:
    return edits[0] if len(edits) == 1 else {"name": "several", "edits": edits, "said": said}
