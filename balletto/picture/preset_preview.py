"""Films: a scene, or a preset shown on a layer, a title's own words, as one tall picture of its
frames."""

from collections.abc import Callable
from typing import Any

import numpy as np

from ..motion.spaces.layer_motion import units_of_move
from ..motion.timing import timing
from ..scene import files
from ..scene.document import Scene
from ..scene.edits.structure.copies import copied_layers
from ..scene.moving.presets import fitted, needed_of
from .bounds import rest_box
from .frame import Picture
from .incremental_renderer import IncrementalRenderer

PRESET_FRAMES, SCENE_FRAMES = 32, 24
WIDTH = 208
_GROUND = "#1D1B22"  # behind titles of a scene that is transparent
_ROOM = (0.84, 0.6)  # of the picture, for the words at rest
_SECONDS, _REST = 2.4, 0.5  # how long a film lasts at least, and how long it rests at an end


def film_of(picture: Picture, count: int) -> np.ndarray:
    """`count` pictures of a scene from its start to its end, one below the other, new, BGRA; each
    as wide as WIDTH."""
    width, height = picture.scene.size
    size = (WIDTH, max(1, round(WIDTH * height / width)))
    renderer = IncrementalRenderer(picture, size)
    strip = np.empty((count * size[1], size[0], 4), dtype=np.uint8)
    for number in range(count):
        frame = number * picture.scene.length // count
        renderer.draw(frame)
        strip[number * size[1] : (number + 1) * size[1]] = renderer.pixels
    return strip


_LEFT_OUT = ("group", "matte", "masks", "motion_blur", "blend", "solo")


# Makes a document a scene, with its files at hand.
Open = Callable[[dict[str, Any]], Scene]


def staged(
    document: dict[str, Any],
    layer: str,
    preset: dict[str, Any],
    opened: Open = files.from_data,
) -> Scene:
    """A scene of 16 to 9 of just that layer in the middle, with just that preset, as long as it
    takes. Other layers, and where this one stands, do not change it.

    KeyError if the document has no such layer.
    """
    shown = next((each for each in document["layers"] if each["id"] == layer), None)
    if shown is None:
        raise KeyError(layer)
    # Loosened from what is left behind: what it is tied to, its matte, the path it stands along.
    *inside, shown = copied_layers(document, [layer], same_scene=False)
    width, height = 1920, 1080
    rate = opened({**document, "layers": []}).frames_a_second
    shortest = round((_SECONDS if preset["group"] != "Exits" else _SECONDS / 2) * rate)
    # What it needs of other layers, and what cuts it where it stands, is left out.
    alone = {name: value for name, value in shown.items() if name not in _LEFT_OUT}
    staged = {**alone, "on": True, "transform": {}, "span": [0, shortest], "moves": []}
    if shown["kind"] == "title":
        staged["text"] = shown["text"] if shown["text"].strip() else "Your words"
        staged |= needed_of(preset, document, {**staged, "window": None})
    base = {
        **document,
        "size": [width, height],
        "length": shortest,
        "layers": [*_inside(inside), staged],
    }
    if base.get("background", {"kind": "none"})["kind"] != "color":
        base["background"] = {"kind": "color", "color": _GROUND}
    staged["transform"] = _centered(opened(base))
    staged["moves"] = [{**fitted(preset, base, staged), "id": "m1"}]
    base["length"] = _length(opened(base), shortest, round(_REST * rate))
    staged["span"] = [0, base["length"]]
    staged["moves"] = [{**fitted(preset, base, staged), "id": "m1"}]
    return opened(base)


def _inside(layers: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """The layers that are in a group, and in groups in it, always shown."""
    alone = ({name: each[name] for name in each if name != "matte"} for each in layers)
    return [{**each, "span": [0, 100_000]} for each in alone]


def _centered(scene: Scene) -> dict[str, Any]:
    """The transform that sets a layer in the middle, as large as there is room."""
    box = rest_box(scene, scene.layers[-1], 0)
    width, height = scene.size
    if box is None:
        return {"position": [width / 2, height / 2, 0]}
    left, top, right, bottom = box
    wide, high = max(right - left, 1.0), max(bottom - top, 1.0)  # a mark alone has no width
    scale = min(_ROOM[0] * width / wide, _ROOM[1] * height / high, 2.5)
    x = width / 2 - (left + right) / 2 * scale
    y = height / 2 - (top + bottom) / 2 * scale
    return {"position": [x, y, 0], "scale": [scale, scale]}


def _length(scene: Scene, shortest: int, rest: int) -> int:
    """How many frames a move takes, with some rest at its end."""
    layer: Any = scene.layers[-1]
    ends = timing(layer.moves[0], units_of_move(scene, layer, layer.moves[0])).ends
    if layer.moves[0].reach and not layer.moves[0].follow:
        return shortest
    return max(shortest, int(ends.max(initial=0)) + rest)
