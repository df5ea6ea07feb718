"""Who asks for an edit, of which scene, with what selected; and what of theirs lies at hand."""

from dataclasses import dataclass
from functools import cached_property

from django.http import Http404, HttpRequest

from balletto.intents.situation import Data, Shelf, ShelfFile, ShelfScene, Situation
from balletto.scene.document import Scene as SceneDocument
from web.library.offered import file_called, file_named
from web.library.store import opened
from web.projects import history
from web.projects.access import own_scene
from web.projects.models import Revision, Scene
from web.projects.nesting import offered, source_of, usable

from ..view_model import PageSelection


@dataclass(frozen=True)
class EditRequest:
    """Who asks, of which scene, and with what selected."""

    http_request: HttpRequest
    scene: Scene
    selection: PageSelection

    @cached_property
    def revision(self) -> Revision:
        """The newest revision."""
        return history.newest(self.scene)

    @cached_property
    def situation(self) -> Situation:
        """What is asked in: the newest document, what is selected, and what lies at hand."""
        shelf = OwnShelf(self.http_request, self.scene)
        return Situation(self.revision.document, self.selection, shelf)

    @property
    def data(self) -> Data:
        """The newest document as plain data."""
        return self.situation.data

    def document_at(self, number: int) -> Data | None:
        """The document of an older revision; None if it is the newest, or there is none."""
        if not 0 < number < self.revision.number:
            return None
        older = self.scene.revisions.filter(number=number).first()
        return older.document if older else None


class OwnShelf(Shelf):
    """The files and scenes of a person."""

    def __init__(self, http_request: HttpRequest, scene: Scene):
        self._http_request, self._scene = http_request, scene
        self._owner_id = scene.project.owner_id

    def opened(self, data: Data) -> SceneDocument:
        return opened(data, self._owner_id)

    def file_named(self, name: str) -> ShelfFile | None:
        return file_named(self._owner_id, name)

    def file_called(self, title: str, kind: str) -> ShelfFile | None:
        return file_called(self._owner_id, title, kind)

    def scene_numbered(self, number: int) -> ShelfScene | None:
        try:
            return self._shelved(own_scene(self._http_request, number))
        except Http404:
            return None

    def scene_called(self, name: str) -> ShelfScene | None:
        """Of several scenes that are called so, the one that was made last."""
        named = [each.pk for each in offered(self._scene) if each.name.lower() == name.lower()]
        return self.scene_numbered(max(named)) if named else None

    def _shelved(self, other: Scene) -> ShelfScene:
        return ShelfScene(source_of(other), other.name, usable(self._scene, other))
