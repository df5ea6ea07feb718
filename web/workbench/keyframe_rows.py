"""The rows of the keyframes view and the curves of the curves view, as the page draws them."""

from dataclasses import asdict
from typing import Any

import numpy as np

from balletto.motion.sampled_curves import KeyedValue, keyed_values, sampled
from balletto.scene.document import Scene
from balletto.scene.edits.times.keyframes import handles_of
from balletto.scene.layers import Layer
from balletto.scene.pose import PROPERTIES
from balletto.scene.values import measures
from balletto.scene.values.measures import Measure
from balletto.scene.values.motion_path import PathTrack
from balletto.scene.values.tracks import is_color
from balletto.scene.values.value_names import value_name

_DIGITS = 4
_LIGHTNESS = ("lightness", "green to red", "blue to yellow")

# How numbers are said that are not of a pose.
MEASURES: dict[str, Measure] = {
    "position": measures.PIXELS,
    "rotation": measures.DEGREES,
    "scale": measures.PERCENT_OF_ONE_EITHER_WAY,
    "opacity": measures.OPACITY,
    "amount": measures.PERCENT_OF_ONE_EITHER_WAY,
    "width": measures.PIXELS,
    "angle": measures.DEGREES,
}


def rows(scene: Scene, layer: Layer, with_curves: bool) -> list[dict[str, Any]]:
    """All keyed values of a layer.

    Each has its path, name and owner, its keys at frames of the scene, and its parts: the numbers
    that it is made of, with their measure and, if asked for, their course and speed.
    """
    return [_row(scene, layer, keyed, with_curves) for keyed in keyed_values(layer)]


def _row(scene: Scene, layer: Layer, keyed: KeyedValue, with_curves: bool) -> dict[str, Any]:
    owner = _owner(layer, keyed)
    track = keyed.track
    course = sampled(scene, keyed) if with_curves else None
    values = [np.atleast_1d(track.at_times(np.array(key.at))) for key in track.keys]
    parts = []
    for part, name in enumerate(_part_names(layer, keyed.path, len(values[0]), is_color(track))):
        measure = Measure("") if is_color(track) else measure_of(layer, keyed.path)
        said = {"name": name, "measure": asdict(measure)}
        said["values"] = [round(float(value[part]), _DIGITS) for value in values]
        if course is not None:
            said["course"] = course.values[part].round(_DIGITS).tolist()
            said["speed"] = course.speeds[part].round(_DIGITS).tolist()
        parts.append(said)
    return {
        "path": keyed.path,
        "name": _capital(value_name(layer, keyed.path)),
        "owner": owner,
        "move": keyed.move or "",
        "color": is_color(track),
        # On a bent way no single number follows the easing: the way as a whole does.
        "isBent": isinstance(track, PathTrack) and track.is_bent,
        "keys": [_key(layer, keyed, key, index) for index, key in enumerate(track.keys)],
        "parts": parts,
        **({"times": course.times.round(_DIGITS).tolist()} if course is not None else {}),
    }


def _owner(layer: Layer, keyed: KeyedValue) -> str:
    """Whose value it is: a move's, an effect's, a mask's, or the layer's own."""
    _, part, *rest = keyed.path.split(".")
    if keyed.move is not None:
        return next(move.name or "Move" for move in layer.moves if move.id == keyed.move)
    if part in ("effects", "masks"):
        return getattr(layer, part)[int(rest[0])].wording.title
    return layer.title


def _key(layer: Layer, keyed: KeyedValue, key: Any, index: int) -> dict[str, Any]:
    ease = key.ease if isinstance(key.ease, str) else key.ease.model_dump(exclude_unset=True)
    is_last = index == len(keyed.track.keys) - 1
    return {
        "at": round(key.at + keyed.start, _DIGITS),
        "ease": ease,
        "handles": None if is_last else handles_of(ease),
        "said": _said(layer, keyed.path, key.value),
    }


def _part_names(layer: Layer, path: str, count: int, color: bool) -> list[str]:
    """The names of the numbers that a value is made of; the whole name for a single one."""
    name = _capital(value_name(layer, path))
    if color:
        return [f"{name}, {part}" for part in _LIGHTNESS]
    if count == 1:
        return [name]
    return [_capital(value_name(layer, f"{path}.{part}")) for part in range(count)]


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def measure_of(layer: Layer, path: str) -> Measure:
    """How the numbers of a value of a layer are said."""
    _, *way, name = path.split(".")
    if way[:1] in (["effects"], ["masks"]):
        said = getattr(layer, way[0])[int(way[1])].wording.values.get(name)
        return (said and said.measure) or measures.PIXELS
    if way[:1] == ["stroke"] and name in ("from", "to", "travel"):
        return measures.PERCENT
    if "pose" in way:
        known = PROPERTIES.get(name)
        return (known and known.measure) or measures.PLAIN
    if "reach" in way:
        move = next(move for move in layer.moves if move.id == way[1])
        said = move.reach[int(way[3])].said.get(name)
        return (said and said.measure) or measures.PIXELS
    if way[:1] == ["shape"]:
        said = layer.shape.wording.values.get(name)
        return (said and said.measure) or measures.PIXELS
    return MEASURES.get(name, measures.PLAIN)


def _said(layer: Layer, path: str, value: Any) -> str:
    if isinstance(value, str):
        return value
    measure = measure_of(layer, path)
    numbers = value if isinstance(value, tuple) else (value,)
    return ", ".join(measure.say(number) for number in numbers)
