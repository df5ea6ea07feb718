"""The sentences of what is shown or heard from elsewhere: pictures, videos, sound, other scenes."""

from typing import Any

from django.urls import reverse
from django.utils.html import format_html
from django.utils.safestring import SafeString

from balletto.intents.situation import ShelfFile
from balletto.picture.pixels.media import MediaError, video
from balletto.scene.document import Scene
from balletto.scene.layers import Layer
from balletto.sentences.layers.media import FILE_KINDS, say_media
from web.projects.nesting import scene_of

from .phrases import NOW, Moment, shown, shown_tracks

_MOST_CHOICES = 40


def media_sentences(
    document: Scene, layer: Layer, files: list[ShelfFile], moment: Moment = NOW
) -> list[SafeString]:
    """What a layer shows or plays, as it is at a moment; `files` are those to choose from."""
    if layer.kind == "scene":
        options: Any = tuple((u.id, f"“{u.scene.name or u.id}”") for u in document.scenes)
    else:
        options = file_options(files, FILE_KINDS.get(layer.kind, ""))
    pieces = say_media(layer, options)
    return [shown(pieces, moment)] if pieces else []


def media_more(layer: Layer) -> list[SafeString]:
    """How keyed values of it go from key to key."""
    return shown_tracks(say_media(layer))


def file_options(files: list[ShelfFile], kind: str) -> tuple[tuple[str, str], ...]:
    """A person's files of a kind, to be chosen from, and those that ship."""
    fitting = [each for each in files if each.kind == kind]
    own = [each for each in fitting if not each.ships][:_MOST_CHOICES]
    ship = (each for each in fitting if each.ships)
    return tuple((each.name, each.title) for each in (*own, *ship))


def media_actions(document: Scene, layer: Layer) -> list[dict[str, Any]]:
    """A video can give the scene its length; a scene leads to where it is made."""
    actions = []
    if layer.kind in ("picture", "video", "scene"):
        edit = {"name": "fill-picture", "layer": layer.id}
        actions.append({"label": "fill the picture", "edit": edit})
    if layer.kind == "video" and (length := frames_of(document, layer)) is not None:
        edit = {"name": "set-length", "length": length + round(layer.span[0])}
        actions.append({"label": "the scene as long as it", "edit": edit})
    return actions


def sound_actions(layer: Layer) -> list[dict[str, Any]]:
    """Markers at the beats of a sound."""
    return [{"label": "Markers at its beats", "edit": {"name": "mark-beats", "layer": layer.id}}]


def frames_of(document: Scene, played: Any) -> int | None:
    """How many frames of the scene a video lasts that is played; None if it is not there."""
    path = document.path_of(played.file)
    if path is None or not played.speed:
        return None
    try:
        seconds = min(played.end or 1e9, video(path).seconds) - played.start
    except MediaError:
        return None
    return max(1, round(seconds / played.speed * float(document.frames_a_second)))


def missing_words(document: Scene, file: str) -> str:
    """What is said where a file is not there; empty if it is."""
    if document.path_of(file) is not None:
        return ""
    return f"The file {file} is not there: add it again under Files, or choose another."


def source_link(source: str | None, owner_id: int) -> SafeString | str:
    """A way to where a nested scene is made."""
    scene = scene_of(source or "", owner_id)
    if scene is None:
        return ""
    address = reverse("workbench", args=[scene.pk])
    return format_html('<a class="btn btn--sm" href="{}">open the scene itself</a>', address)
