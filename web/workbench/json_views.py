"""The numbers that the page draws from: of the motion, of keyframes, of places in the picture."""

import base64
import json
from collections.abc import Callable, Mapping
from contextlib import suppress
from typing import Any

import numpy as np
from django.http import Http404, HttpRequest, HttpResponse
from django.views.decorators.http import require_GET

from balletto.lettering.layout import lay_out
from balletto.motion.sampled_curves import keyed_values
from balletto.motion.spaces.layer_motion import unit_words, units_of_move
from balletto.motion.stagger import levels_of
from balletto.motion.timing import timing
from balletto.motion.units import Units
from balletto.picture.bounds import places
from balletto.picture.overlays import handles
from balletto.picture.overlays.flurry_handles import flurry_handles
from balletto.picture.overlays.mask_handles import (
    copy_handles,
    line_handles,
    mask_handles,
    window_handles,
)
from balletto.scene.document import Scene
from balletto.scene.layers import Layer
from balletto.scene.layers.title import Title
from balletto.scene.values.colors import hex_of
from balletto.scene.values.tracks import is_color
from web.pictures.frames import address_now, document_at, momentary, unchanging
from web.projects.access import own_scene

from .keyframe_rows import rows

RequestValues = Mapping[str, str]  # the values of a request
AnswerPart = tuple[str, bytes]  # kind and bytes of an answer, or of a part of one


@require_GET
def numbers(
    request: HttpRequest, scene_id: int, digest: str, of: str, number: int = 0
) -> HttpResponse:
    """Numbers of a scene at a digest, and of a frame of it, by their name."""
    scene = own_scene(request, scene_id)
    document = document_at(scene, digest)
    kind, data = _as_json(NUMBERS[of](document, number, request.GET))
    lasts = digest == address_now(scene, digest)
    return (unchanging if lasts else momentary)(HttpResponse(data, content_type=kind))


def numbers_with(document: Scene, number: int, said: RequestValues) -> dict[str, AnswerPart]:
    """The numbers of the names `also` that there are, by these names."""
    parts = {}
    for name in said.get("also", "").split(","):
        with suppress(Http404):  # of a layer that an edit takes away there are none
            if name in NUMBERS:
                parts[name] = _as_json(NUMBERS[name](document, number, said))
    return parts


def _as_json(answer: dict[str, Any]) -> AnswerPart:
    return "application/json", json.dumps(answer, separators=(",", ":")).encode()


def motion(document: Scene, number: int, said: RequestValues) -> dict[str, Any]:
    """Timing and weights of all moves of the title `layer`, over the whole scene.

    Weights are hundredths as signed bytes, row after row of the sampled frames, in base 64.
    """
    title = _layer(document, said)
    spans = _spans(document)
    moves = []
    for move in getattr(title, "moves", ()):
        units = units_of_move(document, title, move)
        words = units.find_group("word")
        times = timing(move, units)
        moves.append(
            {
                "id": move.id,
                "unit": move.unit,
                "start": move.start,
                "units": unit_words(document, title, move),
                "words": words.member.tolist() if words else [0] * len(units),
                "starts": np.round(times.starts, 3).tolist(),
                "ends": np.round(times.ends, 3).tolist(),
                "delays": np.round(times.delays, 3).tolist(),
                "hands": _hands(move, units),
                "shades": np.round(times.shades, 2).tolist(),
                "stride": times.stride,
                "weights": _hundredths(times.weights),
                "reaches": [
                    {"kind": selector.kind, "values": _hundredths(values)}
                    for selector, values in zip(move.reach, times.reaches, strict=True)
                ],
            }
        )
    characters = [
        {"text": character.text, "word": character.word, "line": character.line}
        for character in (lay_out(document, title).characters if isinstance(title, Title) else ())
    ]
    return {"characters": characters, "moves": moves, "spans": spans}


def _spans(document: Any) -> dict[str, Any]:
    return {layer.id: layer.span for layer in document.layers}


def _layer(document: Scene, said: RequestValues) -> Layer:
    try:
        return document.layer(said.get("layer", ""))
    except KeyError:
        raise Http404 from None


def keyframes(document: Scene, number: int, said: RequestValues) -> dict[str, Any]:
    """The keyed values of the layers `layers` (t1,t2); with curves=1 their courses too."""
    wanted = said.get("layers", "").split(",")
    with_curves = said.get("curves") == "1"
    shown = {
        layer.id: rows(document, layer, with_curves)
        for layer in document.layers
        if layer.id in wanted
    }
    return {"layers": shown, "spans": _spans(document)}


def _hands(move: Any, units: Units) -> list[dict[str, Any]]:
    """What the hands in the cascade need of each level of a stagger: where its gap stands, the
    ranks and delays, and the rows of units that the slanted lines lead along."""
    stagger = move.stagger
    if stagger is None or stagger.times is not None or not len(units):
        return []
    return [
        {
            "path": "stagger" if level.distribution is stagger else "stagger.groups",
            "gap": level.distribution.gap or 0,
            "span": level.distribution.span,
            "ranks": np.round(level.ranks, 4).tolist(),
            "delays": np.round(level.delays, 4).tolist(),
            "rows": [row.tolist() for row in level.rows],
        }
        for level in levels_of(stagger, units)
    ]


def _hundredths(values: np.ndarray) -> str:
    """Numbers as hundredths in signed bytes, in base 64."""
    whole = np.clip(np.round(values * 100), -127, 127).astype(np.int8)
    return base64.b64encode(whole.tobytes()).decode()


def places_at(document: Scene, number: int, said: RequestValues) -> dict[str, Any]:
    """Corners of the layers, and of the characters of `layer`, in a frame; its way, and what of its
    `move` can be dragged."""
    layer, move = said.get("layer"), said.get("move")
    found = places(document, number, layer)
    title = next((each for each in document.layers if each.id == layer), None)
    if title is not None and layer in found["layers"]:
        found["way"] = handles.way(document, title)
        found["masks"] = mask_handles(document, title, number)
        found["line"] = line_handles(document, title, number)
        found["copies"] = copy_handles(document, title, number)
        found["flurry"] = flurry_handles(document, title, number)
        if isinstance(title, Title):
            found["window"] = window_handles(document, title, number)
            found["along"] = handles.along(document, title, number)
        moves = title.moves if isinstance(title, Title) else ()
        chosen = [each for each in moves if each.id == move and each.on]
        found["sweeps"] = [s for m in chosen for s in handles.sweeps(document, title, m, number)]
        found["spots"] = [s for m in chosen for s in handles.spots(m, number)]
    return found


def values_at(document: Scene, number: int, said: RequestValues) -> dict[str, Any]:
    """The keyed values of the layer `layer` in a frame, by their paths; colours as "#RRGGBB"."""
    values = {}
    for row in keyed_values(_layer(document, said)):
        value = row.track.at_times(np.array(float(number - row.start)))
        values[row.path] = hex_of(value) if is_color(row.track) else value.round(4).tolist()
    return values


NUMBERS: dict[str, Callable[[Scene, int, RequestValues], dict[str, Any]]] = {
    "motion": motion,
    "keyframes": keyframes,
    "places": places_at,
    "values": values_at,
}
