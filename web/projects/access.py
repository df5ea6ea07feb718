"""Whose is what: every object is fetched through the person who asks for it.

What belongs to somebody else, or lies in the bin, is answered like what does not exist.
"""

from django.http import HttpRequest
from django.shortcuts import get_object_or_404

from .models import Project, Scene


def own_project(request: HttpRequest, project_id: int) -> Project:
    """The project of that number, if it is the person's own; otherwise not found."""
    return get_object_or_404(Project, pk=project_id, owner=request.user, removed_at=None)


def own_scene(request: HttpRequest, scene_id: int) -> Scene:
    """The scene of that number, if it is the person's own; otherwise not found."""
    scenes = Scene.objects.select_related("project").filter(removed_at=None)
    own = {"project__owner": request.user, "project__removed_at": None}
    return get_object_or_404(scenes, pk=scene_id, **own)
