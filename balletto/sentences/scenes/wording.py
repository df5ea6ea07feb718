"""A scene, or a layer of it, as sentences."""

from collections.abc import Iterator

from ...lettering.own_fonts import families_of
from ...scene.document import Scene
from ...scene.layers import Layer
from ...scene.layers.shape import ShapeLayer
from ...scene.layers.title import Title
from ...scene.letters.along import along_wording
from ...scene.letters.caret import CARET
from ...scene.values.measures import LENGTH, LENGTH_PX
from ..language.letters import quoted
from ..layers.formations import formation_text
from ..layers.places import place_text
from ..layers.shapes import shape_text
from ..moves.wording import move_text
from ..titles.wording import run_text, style_text
from ..wording.parts import say_part
from ..wording.parts_of_layers import effect_text, mask_text, shutter_text, window_text
from ..wording.pieces import text_of

PICTURE, SEEN_FROM = "A picture of {} by {}", "seen from {} before it"
RATE, LONG, ON = "at {} frames a second", "{} long", "on {}"


def say_scene(scene: Scene, layer_id: str | None = None) -> str:
    """A scene with all its layers, the front one first, or one of them; KeyError if it is not
    there."""
    layers = reversed(scene.layers) if layer_id is None else [scene.layer(layer_id)]
    whole = [scene_text(scene)] if layer_id is None else []
    return "\n\n".join([*whole, *("\n".join(layer_sentences(scene, layer)) for layer in layers)])


def scene_text(scene: Scene) -> str:
    """A scene as a whole: its picture, its time, and the colour that it lies on."""
    parts = [PICTURE.format(*(LENGTH_PX.say(side, 9) for side in scene.size))]
    parts.append(SEEN_FROM.format(LENGTH_PX.say(scene.camera.distance, 9)))
    parts.append(RATE.format(f"{float(scene.frames_a_second):.10g}"))
    parts.append(LONG.format(LENGTH.say(scene.length, 9)))
    if scene.background.kind == "color":
        parts.append(ON.format(scene.background.color))
    elif scene.background.kind == "none":
        parts.append(ON.format("nothing"))
    return f"{', '.join(parts)}."


def layer_sentences(scene: Scene, layer: Layer) -> Iterator[str]:
    """What a layer is called, then a sentence for each thing that is said of it."""
    called = layer.name or layer.words
    first, end = layer.span
    name = f" {quoted(called)}" if called else ""
    yield f"{layer.title}{name} ({layer.id}), frames {first:g} to {end:g}"
    if isinstance(layer, Title):
        yield style_text(layer.style, families_of(scene))
        yield from (run_text(layer.text, run) for run in layer.runs)
    if isinstance(layer, ShapeLayer):
        yield shape_text(layer)
        if layer.stroke:
            yield text_of(say_part("", layer.stroke, layer.stroke.said))
    if layer.has_place or layer.works_below:
        yield place_text(layer)
    if layer.formation:
        yield formation_text(layer.formation)
    text = getattr(layer, "text", None)
    yield from (move_text(move, text) for move in getattr(layer, "moves", ()))
    if isinstance(layer, Title) and layer.window:
        yield window_text(layer.window)
    if isinstance(layer, Title) and layer.caret:
        yield text_of(say_part("", layer.caret, CARET))
    if isinstance(layer, Title) and layer.along:
        yield text_of(say_part("", layer.along, along_wording(scene)))
    yield from (effect_text(effect) for effect in layer.effects)
    yield from (mask_text(mask) for mask in layer.masks)
    if layer.motion_blur:
        yield shutter_text(layer.motion_blur)
