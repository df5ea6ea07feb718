"""The numbers of a title's motion as plain data, for the command line and for tests."""

from typing import Any

import numpy as np

from ..lettering.layout import lay_out
from ..scene.document import Scene
from ..scene.layers import Layer
from ..scene.layers.clicks import ClicksLayer
from ..scene.layers.flurry import FlurryLayer
from ..scene.layers.title import Title
from ..scene.pose import PROPERTIES
from ..scene.values.tracks import value_at
from .evaluate import Composite, compose, trace
from .spaces.flurries import looks_of, pieces_at
from .spaces.formations import copies_at
from .turns import clicks_of
from .units import letter_moves, unit_texts, units_for

TRANSFORM = ("position", "rotation", "scale", "opacity")
TOLD_OF_COPIES = ("x", "y", "rotation", "scale_x", "scale_y", "opacity", "time")
SHOWN = ("x", "y", "z", "rotation", "scale_x", "scale_y", "opacity")


def poses(scene: Scene, layer_id: str, frames: list[int]) -> dict[str, Any]:
    """Delays, weights, composed character values and the transform of a title at `frames`, and the
    copies of any layer that has a formation.

    KeyError if there is no such layer, or it has neither letters nor copies.
    """
    layer = scene.layer(layer_id)
    copies = _copies(scene, layer, frames)
    if isinstance(layer, ClicksLayer):
        clicks = clicks_of(scene, layer).frames.tolist()
        return {"layer": layer.id, "frames": frames, "clicks": clicks}
    if isinstance(layer, FlurryLayer):
        return {"layer": layer.id, "frames": frames, **_pieces(scene, layer, frames), **copies}
    if isinstance(layer, Title):
        return _letters(scene, layer, frames) | copies
    if not copies:
        raise KeyError(f"{layer_id!r} is a {layer.kind}: only titles have letters that move")
    return {"layer": layer.id, "frames": frames, **copies}


def _copies(scene: Scene, layer: Layer, frames: list[int]) -> dict[str, Any]:
    """Where the copies of a layer stand about its origin, and the frame that each shows."""
    if layer.formation is None:
        return {}
    copies = copies_at(scene, layer, np.array(frames, dtype=float))
    return {"copies": {name: getattr(copies, name).tolist() for name in TOLD_OF_COPIES}}


def _pieces(scene: Scene, layer: FlurryLayer, frames: list[int]) -> dict[str, Any]:
    """Where the pieces of a flurry are about its origin; the letters of a text are looks of their
    own."""
    looks = looks_of(scene, layer.flurry)
    pieces = pieces_at(scene, layer.flurry, looks, np.array(frames, dtype=float))
    told: dict[str, Any] = {"born": pieces.born.tolist()}
    for name in ("x", "y", "rotation", "size", "opacity"):
        told[name] = getattr(pieces, name).tolist()
    color = pieces.color.tolist() if pieces.color is not None else [None] * layer.flurry.count
    told["source"] = [pieces.source.tolist()] * len(frames)
    told["color"] = [color] * len(frames)
    return {"pieces": told}


def _letters(scene: Scene, title: Title, frames: list[int]) -> dict[str, Any]:
    layout = lay_out(scene, title)
    times = np.array(frames, dtype=float)
    traces = [
        trace(move, units_for(scene, title, layout, move), times)
        for move in letter_moves(title)
        if move.on
    ]
    rest = Composite((len(times), layout.count("character")))
    values = compose(scene, title, layout, times).get("character", rest)
    touched = [
        name
        for name in PROPERTIES
        if name in values.values and name not in SHOWN and not PROPERTIES[name].is_color
    ]
    return {
        "layer": title.id,
        "frames": frames,
        "characters": [
            {"text": character.text, "word": character.word, "line": character.line}
            for character in layout.characters
        ],
        "moves": {
            traced.move.id: {
                "units": unit_texts(layout, traced.move),
                "delays": traced.delays.tolist(),
                "weights": traced.weights.tolist(),
            }
            for traced in traces
        },
        "values": {name: values.full(name).tolist() for name in (*SHOWN, *touched)},
        "transform": {
            name: value_at(getattr(title.transform, name), times).tolist() for name in TRANSFORM
        },
    }
