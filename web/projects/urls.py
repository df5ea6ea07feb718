"""Addresses of projects and scenes."""

from django.urls import path

from . import views
from .font_rules import font_rules, slice_rules

urlpatterns = [
    path("", views.projects, name="projects"),
    path("fonts.css", font_rules, name="font-rules"),
    path("fonts-in-slices.css", slice_rules, name="slice-rules"),
    path("projects/new/", views.new_project, name="new-project"),
    path("projects/<int:project_id>/new-scene/", views.new_scene, name="new-scene"),
    path("projects/<int:project_id>/open-new/", views.open_new_scene, name="open-new-scene"),
    path("projects/<int:project_id>/name/", views.rename_project, name="rename-project"),
    path("projects/<int:project_id>/remove/", views.remove_project, name="remove-project"),
    path("projects/<int:project_id>/restore/", views.restore_project, name="restore-project"),
    path("projects/bin/", views.bin_page, name="bin"),
    path(
        "projects/<int:project_id>/scene-from-file/", views.scene_from_file, name="scene-from-file"
    ),
    path("projects/scenes/<int:scene_id>/copy/", views.duplicate_scene, name="duplicate-scene"),
    path("projects/scenes/<int:scene_id>/move/", views.move_scene, name="move-scene"),
    path("projects/scenes/<int:scene_id>/restore/", views.restore_scene, name="restore-scene"),
    path("projects/scenes/<int:scene_id>/remove/", views.remove_scene, name="remove-scene"),
]
