"""Moves that start at markers. Here they are found, checked and given the frame that this is."""

from collections.abc import Iterator
from typing import Any

from ..errors import Fault


def bind_starts(scene: Any) -> list[Fault]:
    """Gives moves that start at a marker its frame; a fault for each whose marker is not there. Of
    several markers of one name the first in time counts."""
    times: dict[str, float] = {}
    for marker in sorted(scene.markers, key=lambda marker: marker.at):
        times.setdefault(marker.name, marker.at)
    faults = []
    for place, move in _moves_at_markers(scene):
        if move.marker not in times:
            told = f"there is no marker “{move.marker}”: set one, or say the start as a frame"
            faults.append(Fault(f"{place}.marker", told))
        elif "start" not in move.model_fields_set:
            move.__dict__["start"] = times[move.marker]
    return faults


def _moves_at_markers(scene: Any) -> Iterator[tuple[str, Any]]:
    for index, layer in enumerate(scene.layers):
        for number, move in enumerate(getattr(layer, "moves", ())):
            if move.marker is not None:
                yield f"layers[{index}].moves[{number}]", move
