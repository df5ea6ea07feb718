"""Addresses of the workbench."""

from django.urls import path, register_converter

from . import audio, json_views, leaving, saying, take_views, views


class Digest:
    """A SHA-256 in hexadecimal, and the look of what is asked for (web/pictures/looks.py)."""

    regex = "[0-9a-f]{64}(?:-[0-9a-f]{12})?"

    def to_python(self, value: str) -> str:
        return value

    def to_url(self, value: str) -> str:
        return value


register_converter(Digest, "digest")

urlpatterns = [
    path("<int:scene_id>/", views.workbench, name="workbench"),
    path("<int:scene_id>/parts/", views.parts, name="parts"),
    path("<int:scene_id>/edit/", views.edit, name="edit"),
    path("<int:scene_id>/leave/", leaving.leave, name="leave"),
    path("<int:scene_id>/read/", views.read, name="read"),
    path("<int:scene_id>/say/", saying.saying, name="say"),
    path("<int:scene_id>/text/", saying.scene_text, name="scene-text"),
    path("<int:scene_id>/undo/", views.undo, name="undo"),
    path("<int:scene_id>/redo/", views.redo, name="redo"),
    path("<int:scene_id>/history/", views.history_list, name="history"),
    path("<int:scene_id>/back/<int:number>/", views.back, name="back"),
    path("<int:scene_id>/takes/", take_views.keep_take, name="keep-take"),
    path("<int:scene_id>/takes/<int:take_id>/", take_views.go_to_take, name="go-to-take"),
    path("<int:scene_id>/takes/<int:take_id>/name/", take_views.name_take, name="name-take"),
    path("<int:scene_id>/takes/<int:take_id>/remove/", take_views.remove_take, name="remove-take"),
    path("<int:scene_id>/frames/<digest:digest>/<int:number>/", views.frame, name="frame"),
    path(
        "<int:scene_id>/frames/<digest:digest>/<int:number>/run/<int:count>/",
        views.frame_run,
        name="frame-run",
    ),
    path("<int:scene_id>/poster/<digest:digest>/", views.poster, name="poster"),
    path("<int:scene_id>/film/<digest:digest>/", views.scene_preview_strip, name="scene-film"),
    path(
        "<int:scene_id>/film/<digest:digest>/<slug:layer>/<slug:preset>/", views.film, name="film"
    ),
    path("<int:scene_id>/sound/<digest:digest>/", audio.sound, name="sound"),
    *(
        path(
            f"<int:scene_id>/{of}/<digest:digest>/{frame}", json_views.numbers, {"of": of}, name=of
        )
        for of in json_views.NUMBERS
        for frame in ("", "<int:number>/")
    ),
    path("<int:scene_id>/file/", views.download, name="download-scene"),
    path("<int:scene_id>/file/upload/", views.upload, name="upload-scene"),
]
