"""The sentences of what is shown or heard from elsewhere: pictures, videos, sound, other scenes,
clicks."""

from functools import cache
from typing import Any

from ...scene.layers import LAYER_KINDS, Layer
from ...scene.layers.clicks import CLICKING, ClicksLayer
from ...scene.values import measures
from ...scene.values.measures import Measure
from ...scene.values.wording import Said, Wording
from ..language.letters import quoted
from ..wording.parts import say_part
from ..wording.pieces import Choice, Pieces
from .part_reader import PartKind, kind_of_wording

_DECIBELS = Measure(" dB", drag=0.1, step=0.5, low=-100, high=40, below="softer", above="louder")
SPEED = Measure(" %", scale=100, drag=0.005, step=0.05, low=0)
AFTERS = (("hold", "holding its last frame"), ("loop", "beginning again"), ("gone", "gone"))
_AFTER = Said("What comes after its end", options=AFTERS)
_FILE = Said("File", is_name=True)
_START = Said("Where it starts", measures.SECONDS, 0)

# By the kind of layer. A file is chosen, and so is a scene.
MEDIA: dict[str, Wording] = {
    "picture": Wording("Picture", "Shows {file}.", {"file": _FILE}),
    "video": Wording(
        "Video",
        "Plays {file} from {start} on, at {speed}; at its end {after}.",
        {"file": _FILE, "start": _START, "speed": Said("Speed", SPEED, 1), "after": _AFTER},
    ),
    "sound": Wording(
        "Sound",
        "Plays {file} from {start} on, {gain}, fading in for {fade_in} and out for {fade_out}.",
        {
            "file": _FILE,
            "start": _START,
            "gain": Said("Gain", _DECIBELS, 0),
            "fade_in": Said("Fade in", measures.SECONDS, 0),
            "fade_out": Said("Fade out", measures.SECONDS, 0),
        },
    ),
    "scene": Wording(
        "Scene",
        "Shows {scene} from its {shift} on; at its end {after}.",
        {
            "scene": Said("Scene", is_name=True),
            "shift": Said("Frame of the other scene", measures.FRAME, 0),
            "after": _AFTER,
        },
    ),
}
# By the kind of layer, which kind its file is of.
FILE_KINDS = {"picture": "still", "video": "video", "sound": "sound"}
NameOptions = tuple[tuple[str, str], ...]


def media_wording(layer: Layer) -> Wording | None:
    """How a layer says what it shows or plays; None if it does not."""
    return CLICKING if isinstance(layer, ClicksLayer) else MEDIA.get(layer.kind)


def say_media(layer: Layer, options: NameOptions = ()) -> Pieces:
    """What a layer shows or plays; `options` are the files, or scenes, to choose from, each as it
    is kept and as it is told. Nothing for a layer that shows nothing from elsewhere."""
    wording = media_wording(layer)
    if wording is None:
        return ()
    name = next((name for name in ("file", "scene") if name in wording.values), "")
    if not name:
        return say_part(layer.id, layer, wording)
    choice = name_choice(f"{layer.id}.{name}", getattr(layer, name), wording.values[name], options)
    return say_part(layer.id, layer, wording, **{name: (choice,)})


def name_choice(path: str, name: str, how: Said, options: NameOptions = ()) -> Choice:
    """A file or a scene that is chosen by its name."""
    if options and name not in dict(options):
        options = ((name, name), *options)
    return Choice(path, how.label, value=name, options=options, other=quoted(name))


@cache
def media_kinds() -> dict[str, PartKind]:
    """What reads each, by the kind of layer."""
    worded: dict[str, Any] = {**MEDIA, "clicks": CLICKING}
    return {
        kind: kind_of_wording("media", LAYER_KINDS[kind], wording)
        for kind, wording in worded.items()
    }
