"""The sentences of a flurry, and what it can begin anew as."""

from typing import Any

from django.utils.safestring import SafeString

from balletto.intents.situation import ShelfFile
from balletto.scene.document import Scene
from balletto.scene.forms.flurry import PLACE_KINDS
from balletto.scene.forms.flurry_starts import STARTS
from balletto.scene.layers.flurry import FlurryLayer
from balletto.scene.references import THROWN
from balletto.sentences.layers.flurries import say_flurry

from .phrases import NOW, Moment, shown, shown_less, shown_tracks

Things = tuple[tuple[list[dict[str, Any]], str], ...]
_MOST_PICTURES = 20  # that are offered
_COLORS = ["#F2B705", "#2BB5A0", "#D1495B", "#FFFFFF"]


def flurry_sentences(
    layer: FlurryLayer, moment: Moment = NOW, things: Things = ()
) -> list[SafeString]:
    """What is thrown and how, from where and when on; `things` of the scene could be thrown."""
    said = say_flurry(f"{layer.id}.flurry", layer.flurry, things)
    return [shown(each, moment) for each in said]


def things_of(scene: Scene, files: list[ShelfFile]) -> Things:
    """What of a scene could be thrown: its layers, and pictures from files."""
    layers = [
        ([{"layer": layer.id}], f"copies of “{layer.called}”")
        for layer in scene.layers
        if layer.kind in THROWN
    ]
    stills = [
        ([{"file": file.name}], f"pictures “{file.title}”")
        for file in files
        if file.kind == "still"
    ]
    return (*layers, *stills[:_MOST_PICTURES])


def flurry_more(layer: FlurryLayer) -> list[SafeString]:
    """The keyed values of a flurry."""
    said = say_flurry(f"{layer.id}.flurry", layer.flurry)
    return [clause for each in said for clause in (*shown_less(each, NOW), *shown_tracks(each))]


def flurry_actions(layer: FlurryLayer) -> list[dict[str, Any]]:
    """Another place that pieces come from; colours, or none."""
    path, place = f"{layer.id}.flurry", layer.flurry.place
    actions = [
        {
            "label": f"from a {name}",
            "edit": {"name": "set-value", "path": f"{path}.place", "value": {"kind": name}},
        }
        for name in PLACE_KINDS
        if name != place.kind
    ]
    colors: dict[str, Any] = {"name": "set-value", "path": f"{path}.colors", "value": _COLORS}
    if layer.flurry.colors:
        colors = {"name": "clear-value", "path": f"{path}.colors"}
    label = "in their own colours" if layer.flurry.colors else "in several colours"
    return [*actions, {"label": label, "edit": colors}]


def flurries_to_add() -> list[dict[str, Any]]:
    """All that a flurry can begin as."""
    return [
        {"label": start, "edit": {"name": "add-flurry", "flurry": {"start": start}}}
        for start in STARTS
    ]
