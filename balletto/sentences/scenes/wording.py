"""A scene, or a layer of it, as sentences, each for a part of it. What none of them says is found,
and added, by `text`."""

from collections.abc import Iterator

from ...lettering.own_fonts import families_of
from ...scene.document import MAX_SIDE, Marker, Scene
from ...scene.layers import Layer
from ...scene.layers.flurry import FlurryLayer
from ...scene.layers.shape import ShapeLayer
from ...scene.layers.title import Title
from ...scene.letters.along import ALONG
from ...scene.letters.caret import CARET
from ...scene.values.measures import FRAME, LENGTH, Measure
from ...scene.values.motion_path import PathTrack
from ..language.letters import quoted
from ..layers.flurries import flurry_text
from ..layers.formations import formation_text
from ..layers.mattes import say_matte
from ..layers.media import name_choice, say_media
from ..layers.places import place_text
from ..layers.settings import WORDS, said_settings
from ..layers.shapes import shape_text
from ..moves.wording import move_text
from ..titles.wording import run_text, style_text
from ..wording.parts import say_part
from ..wording.parts_of_layers import effect_text, mask_text, shutter_text, window_text
from ..wording.pieces import NumberPiece, Pieces, said
from ..wording.texts import text_of
from ..wording.tracks import say_way
from .fits import fit_text
from .ground import ground_text

PICTURE, SEEN_FROM = "A picture of {} by {}", "seen from {} before it"
RATE, LONG = "at {} frames a second", "{} long"
NAMED, MARKED = "The scene {}.", "A marker {}at {}."
WITHIN = "In the group {}."
_SIDE = Measure(" px", drag=1, low=16, high=MAX_SIDE)
_DISTANCE = Measure(" px", drag=4, low=1)


def say_picture(scene: Scene) -> Pieces:
    """How large the picture is, and from how far it is looked at."""
    sides = [
        NumberPiece(f"size.{axis}", label, edit={"name": "set-size", "axis": axis},
               value=scene.size[axis], measure=_SIDE)
        for axis, label in enumerate(("Width of the picture", "Height of the picture"))
    ]  # fmt: skip
    distance = NumberPiece("scene.camera.distance", "Distance of the camera",
                      value=scene.camera.distance, measure=_DISTANCE, rest=2000)  # fmt: skip
    return said(f"{PICTURE}, {SEEN_FROM}.", *sides, distance)


def scene_text(scene: Scene) -> str:
    """A scene as a whole: its picture, its time, and what it lies on."""
    parts = [text_of(say_picture(scene)).removesuffix(".")]
    parts.append(RATE.format(f"{float(scene.frames_a_second):.10g}"))
    parts.append(LONG.format(LENGTH.say(scene.length, 9)))
    parts.append(ground_text(scene.background))
    return f"{', '.join(parts)}."


def scene_sentences(scene: Scene) -> Iterator[str]:
    """What is said of a scene besides its layers."""
    if scene.name:
        yield NAMED.format(quoted(scene.name))
    yield scene_text(scene)
    if scene.motion_blur:
        yield shutter_text(scene.motion_blur)
    yield from map(_marker_text, scene.markers)
    yield from map(fit_text, scene.fits)


def _marker_text(marker: Marker) -> str:
    name = f"{quoted(marker.name)} " if marker.name else ""
    return MARKED.format(name, FRAME.say(marker.at, 9))


def layer_head(layer: Layer) -> str:
    """What a layer is, what it is called, and when it is shown."""
    called = layer.name or layer.words
    first, end = (FRAME.say(frame, 9).removeprefix("frame ") for frame in layer.span)
    name = f" {quoted(called)}" if called else ""
    return f"{layer.title}{name} ({layer.id}), frames {first} to {end}"


def layer_sentences(scene: Scene, layer: Layer) -> Iterator[str]:
    """A sentence for each thing that is said of a layer."""
    yield from _form(scene, layer)
    if layer.group:
        yield WITHIN.format(quoted(layer.group))
    if layer.has_place or layer.works_below:
        yield place_text(layer)
        yield from _way_text(layer)
    if layer.formation:
        yield formation_text(layer.formation)
    text = getattr(layer, "text", None)
    yield from (move_text(move, text) for move in getattr(layer, "moves", ()))
    yield from _worn(layer)
    yield from map(text_of, said_settings(layer))


def _form(scene: Scene, layer: Layer) -> Iterator[str]:
    """What a layer draws, or what is heard."""
    if isinstance(layer, Title):
        yield text_of(WORDS.say(layer))
        yield style_text(layer.style, families_of(scene))
        yield from (run_text(layer.text, run) for run in layer.runs)
    elif isinstance(layer, ShapeLayer):
        yield shape_text(layer)
        if layer.stroke:
            yield text_of(say_part("", layer.stroke, layer.stroke.said))
    elif isinstance(layer, FlurryLayer):
        yield flurry_text(layer.flurry)
    elif media := text_of(say_media(layer)):
        yield media


def _worn(layer: Layer) -> Iterator[str]:
    """What a layer wears."""
    if isinstance(layer, Title):
        yield from _worn_by_titles(layer)
    yield from (effect_text(effect) for effect in layer.effects)
    yield from (mask_text(mask) for mask in layer.masks)
    if layer.matte:
        yield text_of(say_matte("", layer.matte))
    if layer.motion_blur:
        yield shutter_text(layer.motion_blur)


def _way_text(layer: Layer) -> Iterator[str]:
    """How its way bends between the keys of its place."""
    position = layer.transform.position
    if isinstance(position, PathTrack) and position.is_bent:
        yield text_of(say_way("", position))


def _worn_by_titles(title: Title) -> Iterator[str]:
    """A window, a caret and a path."""
    if title.window:
        yield window_text(title.window)
    if title.caret:
        yield text_of(say_part("", title.caret, CARET))
    if title.along:
        layer = name_choice("layer", title.along.layer, ALONG.values["layer"])
        yield text_of(say_part("", title.along, ALONG, layer=(layer,)))
