"""The takes of a scene: kept, gone to, named, removed. All answer with the changed parts."""

from typing import Any

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.views.decorators.http import require_POST

from web.projects import takes
from web.projects.access import own_scene
from web.projects.history import newest
from web.projects.models import Revision, Take

from .answers import refused, walk


@require_POST
def keep_take(request: HttpRequest, scene_id: int) -> HttpResponse:
    """Keeps the scene as it is, and goes on in a new take."""
    return walk(request, scene_id, takes.keep)


@require_POST
def go_to_take(request: HttpRequest, scene_id: int, take_id: int) -> HttpResponse:
    """Goes on in another take."""
    take = _take(request, scene_id, take_id)

    def step(scene: int, base: int, author: Any) -> Revision:
        return takes.go_to(scene, base, take, author)

    return walk(request, scene_id, step)


@require_POST
def remove_take(request: HttpRequest, scene_id: int, take_id: int) -> HttpResponse:
    """Takes a take away."""
    take = _take(request, scene_id, take_id)
    return walk(request, scene_id, lambda scene, base, _: takes.remove(scene, base, take))


@require_POST
def name_take(request: HttpRequest, scene_id: int, take_id: int) -> HttpResponse:
    """Gives a take another name."""
    take = _take(request, scene_id, take_id)
    name = " ".join(request.POST.get("name", "").split())
    if not 1 <= len(name) <= 60:
        return refused("A take needs a name of at most 60 letters.")
    take.name = name
    take.save(update_fields=["name"])
    return walk(request, scene_id, lambda *_: newest(take.scene))


def _take(request: HttpRequest, scene_id: int, take_id: int) -> Take:
    return get_object_or_404(Take, pk=take_id, scene=own_scene(request, scene_id))
