"""The sentences of what is shown or heard from elsewhere: pictures, videos, sound, other scenes."""

from typing import Any

from django.urls import reverse
from django.utils.html import format_html
from django.utils.safestring import SafeString

from balletto.picture.pixels.media import MediaError, video
from balletto.scene.document import Scene
from balletto.scene.layers import Layer
from balletto.scene.layers.clicks import CLICKING, ClicksLayer
from balletto.scene.values import measures
from balletto.scene.values.measures import Measure
from balletto.scene.values.wording import Said, Wording
from balletto.sentences.wording.pieces import Choice
from web.library.offered import OfferedFile
from web.projects.nesting import scene_of

from .phrases import NOW, Moment, tight
from .sentence_parts import SentencePart

_DECIBELS = Measure(" dB", drag=0.1, step=0.5, low=-100, high=40, below="softer", above="louder")
_SPEED = Measure(" %", scale=100, drag=0.005, step=0.05, low=0)
AFTERS = (("hold", "holding its last frame"), ("loop", "beginning again"), ("gone", "gone"))
_AFTER = Said("What comes after its end", options=AFTERS)
_PLAYED = {
    "start": Said("Where it starts", measures.SECONDS, 0),
    "speed": Said("Speed", _SPEED, 1),
    "after": _AFTER,
}
_MOST_CHOICES = 40
# Of which kind the file of a layer is.
FILE_KINDS = {"picture": "still", "video": "video", "sound": "sound"}

MEDIA: dict[str, Wording] = {
    "picture": Wording("Picture", "Shows {file}."),
    "video": Wording(
        "Video", "Plays {file} from {start} on, at {speed}; at its end {after}.", _PLAYED
    ),
    "sound": Wording(
        "Sound",
        "Plays {file} from {start} on, {gain}, fading in for {fade_in} and out for {fade_out}.",
        {
            "start": Said("Where it starts", measures.SECONDS, 0),
            "gain": Said("Gain", _DECIBELS, 0),
            "fade_in": Said("Fade in", measures.SECONDS, 0),
            "fade_out": Said("Fade out", measures.SECONDS, 0),
        },
    ),
    "scene": Wording(
        "Scene",
        "Shows {file} from its {shift} on; at its end {after}.",
        {"shift": Said("Frame of the other scene", measures.FRAME, 0), "after": _AFTER},
    ),
}


def media_sentences(
    document: Scene, layer: Layer, files: list[OfferedFile], moment: Moment = NOW
) -> list[SafeString]:
    """What a layer shows or plays, as it is at a moment; `files` are those to choose from."""
    if isinstance(layer, ClicksLayer):
        return [tight(SentencePart(layer.id, layer, CLICKING, moment).sentence())]
    sentence = MEDIA.get(layer.kind)
    if sentence is None:
        return []
    words = SentencePart(layer.id, layer, sentence, moment)
    what = _scenes(document, layer) if layer.kind == "scene" else _files(layer, files)
    return [tight(words.sentence(file=(what,)))]


def media_more(layer: Layer) -> list[SafeString]:
    """How keyed values of it go from key to key."""
    sentence = MEDIA.get(layer.kind)
    return SentencePart(layer.id, layer, sentence).more() if sentence else []


def file_choice(path: str, name: str, kind: str, files: list[OfferedFile]) -> Choice:
    """Which of a person's files of a kind stands at a path of the scene."""
    fitting = [each for each in files if each.kind == kind]
    own = [each for each in fitting if not each.ships][:_MOST_CHOICES]
    options = [
        (each.name, each.title) for each in (*own, *(each for each in fitting if each.ships))
    ]
    if name not in dict(options):
        options = [(name, name), *options]
    return Choice(path, "File", value=name, options=tuple(options))


def _files(layer: Any, files: list[OfferedFile]) -> Choice:
    return file_choice(f"{layer.id}.file", layer.file, FILE_KINDS[layer.kind], files)


def _scenes(document: Scene, layer: Any) -> Choice:
    options = tuple((used.id, f"“{used.scene.name or used.id}”") for used in document.scenes)
    return Choice(f"{layer.id}.scene", "Scene", value=layer.scene, options=options)


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
