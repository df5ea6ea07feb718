"""The bin: projects and scenes that were removed, which come back whole for thirty days."""

from datetime import datetime, timedelta

from django.contrib.auth.models import AbstractBaseUser
from django.utils import timezone

from .models import Project, Scene

KEPT_DAYS = 30


def remove(thing: Project | Scene) -> None:
    """Puts a project or a scene into the bin."""
    thing.removed_at = timezone.now()
    thing.save(update_fields=["removed_at"])


def restore(thing: Project | Scene) -> None:
    """Takes it out again; a scene brings its project along."""
    thing.removed_at = None
    thing.save(update_fields=["removed_at"])
    if isinstance(thing, Scene) and thing.project.removed_at is not None:
        restore(thing.project)


def contents(owner: AbstractBaseUser) -> list[Project | Scene]:
    """What lies in a person's bin, the newest first."""
    projects = Project.objects.filter(owner=owner).exclude(removed_at=None)
    scenes = Scene.objects.filter(project__owner=owner).exclude(removed_at=None)
    found = [*projects, *scenes.select_related("project")]
    return sorted(found, key=lambda thing: thing.removed_at, reverse=True)


def goes_at(thing: Project | Scene) -> datetime:
    """When it will be gone for good."""
    return thing.removed_at + timedelta(days=KEPT_DAYS)


def empty() -> int:
    """Removes for good what has lain there for longer than that; how many there were."""
    before = timezone.now() - timedelta(days=KEPT_DAYS)
    old = [
        *Scene.objects.filter(removed_at__lt=before),
        *Project.objects.filter(removed_at__lt=before),
    ]
    for thing in old:
        thing.delete()
    return len(old)
