"""The numbers that the page draws from: of the motion, of keyframes, of places in the picture."""

import base64
from typing import Any

import numpy as np
from django.http import Http404, HttpRequest, JsonResponse
from django.views.decorators.http import require_GET

from balletto.lettering.layout import lay_out
from balletto.motion.courses import keyed_values
from balletto.motion.stagger import levels_of
from balletto.motion.timing import timing
from balletto.motion.units import Units, units_of
from balletto.picture import marks
from balletto.picture.mask_marks import line_marks, mask_marks
from balletto.picture.places import places
from balletto.scene.colors import hex_of
from balletto.scene.layers import Title
from balletto.scene.tracks import is_color
from web.projects.access import own_scene

from .frames import document_at, unchanging
from .rows import rows


@require_GET
def motion(request: HttpRequest, scene_id: int, digest: str) -> JsonResponse:
    """Timing and weights of all moves of the title ?layer, over the whole scene.

    Weights are hundredths as signed bytes, row after row of the sampled frames, in base 64.
    """
    document = document_at(own_scene(request, scene_id), digest)
    try:
        title = document.layer(request.GET.get("layer", ""))
    except KeyError:
        raise Http404 from None
    if not isinstance(title, Title):
        return unchanging(JsonResponse({"characters": [], "moves": [], "spans": _spans(document)}))
    layout = lay_out(title)
    moves = []
    for move in title.moves:
        units = units_of(document, title, layout, move.unit, move.spaces)
        times = timing(move, units)
        moves.append(
            {
                "id": move.id,
                "unit": move.unit,
                "start": move.start,
                "units": layout.texts(move.unit, move.spaces),
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
        for character in layout.characters
    ]
    answer = {"characters": characters, "moves": moves, "spans": _spans(document)}
    return unchanging(JsonResponse(answer))


def _spans(document: Any) -> dict[str, Any]:
    return {layer.id: layer.span for layer in document.layers}


@require_GET
def keyframes(request: HttpRequest, scene_id: int, digest: str) -> JsonResponse:
    """The keyed values of the titles ?layers=t1,t2; with ?curves=1 their courses too."""
    document = document_at(own_scene(request, scene_id), digest)
    wanted = request.GET.get("layers", "").split(",")
    with_curves = request.GET.get("curves") == "1"
    titles = {
        layer.id: rows(document, layer, with_curves)
        for layer in document.layers
        if layer.id in wanted
    }
    return unchanging(JsonResponse({"layers": titles, "spans": _spans(document)}))


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


@require_GET
def places_at(request: HttpRequest, scene_id: int, digest: str, number: int) -> JsonResponse:
    """Corners of the titles, and of the characters of ?layer, in a frame; its way, and what of its
    ?move can be dragged."""
    document = document_at(own_scene(request, scene_id), digest)
    layer, move = request.GET.get("layer"), request.GET.get("move")
    found = places(document, number, layer)
    title = next((each for each in document.layers if each.id == layer), None)
    if title is not None and layer in found["layers"]:
        found["way"] = marks.way(document, title)
        found["masks"] = mask_marks(document, title, number)
        found["line"] = line_marks(document, title, number)
        moves = title.moves if isinstance(title, Title) else ()
        chosen = [each for each in moves if each.id == move and each.on]
        found["sweeps"] = [s for m in chosen for s in marks.sweeps(document, title, m, number)]
        found["spots"] = [s for m in chosen for s in marks.spots(m, number)]
    return unchanging(JsonResponse(found))


@require_GET
def values_at(request: HttpRequest, scene_id: int, digest: str, number: int) -> JsonResponse:
    """The keyed values of the layer ?layer in a frame, by their paths; colours as "#RRGGBB"."""
    document = document_at(own_scene(request, scene_id), digest)
    try:
        layer = document.layer(request.GET.get("layer", ""))
    except KeyError:
        raise Http404 from None
    values = {}
    for row in keyed_values(layer):
        value = row.track.at_times(np.array(float(number - row.start)))
        values[row.path] = hex_of(value) if is_color(row.track) else value.round(4).tolist()
    return unchanging(JsonResponse(values))
