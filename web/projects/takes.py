"""Takes: versions of a scene that are kept side by side.

Every revision belongs to a take, once there are any, and a take is what its newest revision is. So
whatever is edited changes the take that is worked on, and undo finds its way back over a change of
takes too.
"""

from dataclasses import dataclass
from string import ascii_uppercase

from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction
from django.db.models import OuterRef, Subquery

from web.pictures.looks import address_at

from . import history
from .models import Revision, Scene, Take

MOST_TAKES = 12


@dataclass(frozen=True)
class ShownTake:
    """A take as the page shows it: the address of its state, and whether it is worked on."""

    take: Take
    digest: str
    is_current: bool


def shown_takes(scene: Scene, head: Revision) -> list[ShownTake]:
    """All takes of a scene, in the order in which they were made."""
    newest = Revision.objects.filter(take=OuterRef("pk")).order_by("-number")
    takes = scene.takes.annotate(digest=Subquery(newest.values("digest")[:1]))
    return [
        ShownTake(take, address_at(scene, take.digest), head.take_id == take.pk)
        for take in takes
        if take.digest is not None
    ]


def keep(scene_id: int, base: int, author: AbstractBaseUser) -> Revision:
    """Keeps the scene as it is as a take, and goes on in a new one.

    NothingToDo if there are as many as there may be.
    """
    with transaction.atomic():
        scene, head = history.locked(scene_id, base)
        if scene.takes.count() >= MOST_TAKES:
            told = f"There are {MOST_TAKES} takes, as many as can be kept: remove one first."
            raise history.NothingToDo(told)
        if head.take_id is None:
            head.take = Take.objects.create(scene=scene, name=_free_name(scene))
            head.save(update_fields=["take"])
        new = Take.objects.create(scene=scene, name=_free_name(scene))
        return _step(scene, head, head.document, new, f"{new.name} begun", author)


def go_to(scene_id: int, base: int, take: Take, author: AbstractBaseUser) -> Revision:
    """Goes on in another take, from where it was left."""
    with transaction.atomic():
        scene, head = history.locked(scene_id, base)
        left = take.revisions.order_by("-number").first()
        if left is None or head.take_id == take.pk:
            return head
        return _step(scene, head, left.document, take, f"To {take.name}", author)


def remove(scene_id: int, base: int, take: Take) -> Revision:
    """Takes a take away; its states stay in the history. NothingToDo if it is worked on."""
    with transaction.atomic():
        scene, head = history.locked(scene_id, base)
        if head.take_id == take.pk:
            raise history.NothingToDo(f"{take.name} is worked on: go to another take first.")
        take.delete()
        if scene.takes.count() == 1:
            scene.takes.all().delete()
        return history.newest(scene)


def _step(
    scene: Scene, head: Revision, document: dict, take: Take, label: str, author: AbstractBaseUser
) -> Revision:
    edit = {"name": "take", "take": take.pk}
    return history.add(
        scene, head, label=label, edit=edit, document=document, author=author, take_id=take.pk
    )


def _free_name(scene: Scene) -> str:
    taken = set(scene.takes.values_list("name", flat=True))
    names = [f"Take {letter}" for letter in ascii_uppercase]
    return next(name for name in names if name not in taken)
