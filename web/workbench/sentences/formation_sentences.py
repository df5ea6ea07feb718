"""Copies of a layer on the page: their sentence, and what else they can be."""

from typing import Any

from django.utils.safestring import SafeString

from balletto.scene.formations import FORMATION_KINDS
from balletto.scene.layers import Layer
from balletto.sentences.layers.formations import say_formation
from balletto.sentences.wording.pieces import said

from .phrases import NOW, Moment, shown, shown_less, shown_tracks


def formation_sentence(layer: Layer, moment: Moment = NOW) -> SafeString | str:
    """How the copies of a layer stand; empty if it has none."""
    if layer.formation is None:
        return ""
    pieces = say_formation(f"{layer.id}.formation", layer.formation)
    return shown(said("{}.", pieces), moment)


def formation_more(layer: Layer, moment: Moment = NOW) -> list[SafeString]:
    """What is used less of its copies: what the last one has, chance, keys one by one."""
    if layer.formation is None:
        return []
    pieces = say_formation(f"{layer.id}.formation", layer.formation)
    return [*shown_less(pieces, moment), *shown_tracks(pieces)]


def formation_actions(layer: Layer) -> list[dict[str, Any]]:
    """Copies in a row, a ring or a grid; later one by one; each a layer of
    its own; or none."""
    if not layer.has_place:
        return []
    path, formation = f"{layer.id}.formation", layer.formation
    kept = {}
    if formation is not None:
        kept = {
            name: value
            for name, value in formation.model_dump(exclude_unset=True, by_alias=True).items()
            if name in ("last", "chance", "delay")
        }
    actions = [
        {
            "label": f"copies in a {model.wording.title}",
            "edit": {"name": "set-value", "path": path, "value": {"kind": kind, **kept}},
        }
        for kind, model in FORMATION_KINDS.items()
        if formation is None or formation.kind != kind
    ]
    if formation is None:
        return actions
    if formation.delay is None:
        later = {"name": "set-value", "path": f"{path}.delay", "value": {"gap": 2}}
        actions.append({"label": "one later than the other", "edit": later})
    else:
        at_once = {"name": "clear-value", "path": f"{path}.delay"}
        actions.append({"label": "all at once", "edit": at_once})
    apart = {"name": "take-apart", "layer": layer.id}
    none = {"name": "clear-value", "path": path}
    return [
        *actions,
        {"label": "take apart", "edit": apart},
        {"label": "no copies", "edit": none},
    ]
