"""The history of a scene: every edit, undo and redo adds a revision; nothing is overwritten."""

import hashlib
import json
from collections.abc import Callable
from typing import Any

from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction

from balletto.lettering.families import FAMILIES
from balletto.lettering.own_fonts import families_in, fonts_named
from balletto.scene import edits, files
from balletto.scene.document import Scene as SceneDocument
from balletto.scene.errors import Fault, SceneError
from balletto.scene.naming import FONTS, named
from web.library.font_store import fonts_folder_of

from .models import Project, Revision, Scene

# The fields of a scene that a new revision changes.
_NO_FONT = "there is no font “{}” here; the page “Fonts” shows those that there are"
CHANGED_FIELDS = ("head", "digest", "name", "changed_at")


class ChangedElsewhere(Exception):
    """The edit was made on an older revision than the newest."""


class NothingToDo(Exception):
    """There is nothing to undo or redo; the message says which."""


def digest_of(document: dict[str, Any]) -> str:
    """A name for the content of a document: equal documents have equal digests."""
    text = json.dumps(document, sort_keys=True, separators=(",", ":"), ensure_ascii=False)
    return hashlib.sha256(text.encode()).hexdigest()


def make_scene(project: Project, document: dict[str, Any], author: AbstractBaseUser) -> Scene:
    """A new scene with its first revision; SceneError if the document is not usable."""
    document = files.to_data(parsed := files.from_data(document))
    with transaction.atomic():
        scene = Scene.objects.create(
            project=project, name=parsed.name or "Untitled", digest=digest_of(document)
        )
        Revision.objects.create(
            scene=scene,
            number=1,
            state=1,
            label="Scene made",
            edit={"name": "make"},
            document=document,
            digest=scene.digest,
            author=author,
        )
    return scene


def newest(scene: Scene) -> Revision:
    """The newest revision of a scene."""
    return scene.revisions.get(number=scene.head)


def preview(revision: Revision, edit: dict[str, Any]) -> edits.Applied:
    """What an edit would make of a revision; nothing is kept."""
    applied = edits.apply(revision.document, edit)
    if edit["name"] != "replace-scene" and (faults := _missing_fonts(revision, applied.scene)):
        raise SceneError(faults)
    return applied


def _missing_fonts(revision: Revision, scene: SceneDocument) -> list[Fault]:
    """Fonts that an edit asks for and that are not there. What is named already, or comes with
    another scene, may be missing: that is told where it stands."""
    asked = [(path, name) for path, name in fonts_named(scene) if name not in FAMILIES]
    asked = [(path, name) for path, name in asked if not path.startswith("scenes[")]
    if not asked:
        return []
    known = {name for _, name in named(revision.document, FONTS)}
    there = families_in(fonts_folder_of(revision.scene.project.owner_id))
    return [
        Fault(path, _NO_FONT.format(name))
        for path, name in asked
        if name not in known and name not in there
    ]


def record(scene_id: int, base: int, edit: dict[str, Any], author: AbstractBaseUser) -> Revision:
    """Makes an edit on the revision `base`.

    ChangedElsewhere if that is not the newest any more, SceneError if the edit is not possible.
    An edit that changes nothing makes no revision.
    """
    with transaction.atomic():
        scene, head = locked(scene_id, base)
        applied = preview(head, edit)
        if applied.document == head.document:
            return head
        return add(
            scene,
            head,
            label=applied.label,
            edit=edit,
            inverse=applied.inverse,
            document=applied.document,
            author=author,
        )


def once(scene_id: int, request: str, step: Callable[[], Revision]) -> Revision:
    """Takes a step in the history that the page calls `request`, or, if it was taken already, gives
    the newest revision: an answer may be lost and the request be sent again."""
    with transaction.atomic():
        scene = Scene.objects.select_for_update().get(pk=scene_id)
        if request and scene.revisions.filter(request=request).exists():
            return newest(scene)
        revision = step()
        if request and revision.number > scene.head:
            revision.request = request
            revision.save(update_fields=["request"])
        return revision


def undo(scene_id: int, base: int, author: AbstractBaseUser) -> Revision:
    """Goes back to the state before the last edit that still holds."""
    with transaction.atomic():
        scene, head = locked(scene_id, base)
        edited = scene.revisions.get(number=head.state)
        if edited.before is None:
            raise NothingToDo("There is nothing to undo.")
        return _revisit(scene, head, edited.before, f"Undo: {edited.label}", "undo", author)


def redo(scene_id: int, base: int, author: AbstractBaseUser) -> Revision:
    """Makes the edit again that was last undone from here."""
    with transaction.atomic():
        scene, head = locked(scene_id, base)
        undone = _undone(scene, head)
        if undone is None:
            raise NothingToDo("There is nothing to redo.")
        return _revisit(scene, head, undone.number, f"Redo: {undone.label}", "redo", author)


def go_back(scene_id: int, base: int, number: int, author: AbstractBaseUser) -> Revision:
    """Makes the scene what it was at a revision: an edit like any other, that can be undone.

    Revision.DoesNotExist if the scene never had such a revision.
    """
    with transaction.atomic():
        scene, head = locked(scene_id, base)
        wanted = scene.revisions.get(number=number)
        if wanted.digest == head.digest:
            return head
        label = f"Back to {number}: {wanted.label}"
        return add(
            scene,
            head,
            label=label,
            edit={"name": "back", "to": number},
            document=wanted.document,
            author=author,
        )


def entries(scene: Scene, most: int) -> list[Revision]:
    """The newest revisions, newest first: what was done, by whom and when."""
    listed = scene.revisions.select_related("author").defer("packed", "edit", "inverse")
    return list(listed.order_by("-number")[:most])


def steps(scene: Scene, head: Revision) -> tuple[str | None, str | None]:
    """What undo and redo would do from here, as their labels."""
    edited = head if head.state == head.number else scene.revisions.get(number=head.state)
    undone = _undone(scene, head)
    return (edited.label if edited.before is not None else None, undone.label if undone else None)


def _undone(scene: Scene, head: Revision) -> Revision | None:
    """The newest edit that was made on the state of `head`."""
    made_here = scene.revisions.filter(before=head.state).only("scene", "number", "label")
    return made_here.order_by("-number").first()


def locked(scene_id: int, base: int) -> tuple[Scene, Revision]:
    """The scene, locked within the transaction, and its newest revision, which must be `base`."""
    scene = Scene.objects.select_for_update().get(pk=scene_id)
    if scene.head != base:
        raise ChangedElsewhere
    return scene, newest(scene)


def _revisit(
    scene: Scene, head: Revision, state: int, label: str, name: str, author: AbstractBaseUser
) -> Revision:
    visited = scene.revisions.get(number=state)
    return add(
        scene,
        head,
        label=label,
        edit={"name": name},
        document=visited.document,
        author=author,
        state=state,
        # What was made before there were takes belongs to the first.
        take_id=visited.take_id or scene.takes.values_list("pk", flat=True).first(),
    )


def add(scene: Scene, head: Revision, state: int | None = None, **fields: Any) -> Revision:
    """Adds a revision to a scene that is locked, in the take of the newest unless one is given."""
    number = head.number + 1
    fields.setdefault("take_id", head.take_id)
    revision = Revision.objects.create(
        scene=scene,
        number=number,
        state=state or number,
        before=head.state if state is None else None,
        digest=digest_of(fields["document"]),
        **{**fields, "label": fields["label"][:300]},
    )
    scene.head, scene.digest = number, revision.digest
    scene.name = revision.document.get("name") or "Untitled"
    scene.save(update_fields=CHANGED_FIELDS)
    return revision
