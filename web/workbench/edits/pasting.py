"""What was copied, put in: a reference to a state of a scene, and what of it."""

from collections.abc import Callable

from django.http import Http404

from balletto.intents.situation import Data, one_or_several, titles_among
from balletto.scene.edits.structure.copies import copied_keys, copied_layers, copied_scenes
from balletto.scene.errors import SceneError
from web.pictures import frames
from web.projects.access import own_scene

from .edit_requests import EditRequest


def paste(request: EditRequest, wanted: Data) -> Data:
    """What was copied: a reference to a state of a scene, and what of it."""
    copied = wanted.get("copied")
    make = PASTED.get(str(copied.get("kind"))) if isinstance(copied, dict) else None
    if make is None or not isinstance(copied.get("scene"), int):
        raise SceneError.at("copied", "nothing was copied yet: copy something first (Ctrl+C)")
    try:
        source = own_scene(request.http_request, copied["scene"])
        document = frames.document_of(source, str(copied.get("digest")))
    except Http404:
        told = "what was copied is not there any more: copy it once more"
        raise SceneError.at("copied", told) from None
    try:
        return make(request, wanted, copied, document)
    except (KeyError, TypeError, AttributeError, IndexError):
        told = "it is not told what was copied, or where it goes: copy it once more"
        raise SceneError.at("copied", told) from None


def _paste_keys(request: EditRequest, wanted: Data, copied: Data, source: Data) -> Data:
    """Keyframes, at the playhead; those of one layer go to the layer that is selected."""
    rows = copied_keys(source, copied["keys"])
    owners = {path.partition(".")[0] for path in rows}
    target = wanted.get("layer")
    if len(owners) == 1 and target:
        request.situation.layer(target)
        rows = {f"{target}.{path.partition('.')[2]}": keys for path, keys in rows.items()}
    return {"name": "paste-keys", "rows": rows, "at": wanted.get("at", request.selection.frame)}


def _paste_layers(request: EditRequest, wanted: Data, copied: Data, source: Data) -> Data:
    same = copied["scene"] == request.scene.pk
    layers = copied_layers(source, copied["layers"], same)
    return {"name": "paste-layers", "layers": layers, "scenes": copied_scenes(source, layers)}


def _copied_from(request: EditRequest, copied: Data, source: Data) -> Data:
    """The layer that a style or moves were copied from."""
    same = copied["scene"] == request.scene.pk
    return copied_layers(source, [copied["layer"]], same)[0]


def _paste_style(request: EditRequest, wanted: Data, copied: Data, source: Data) -> Data:
    original = _copied_from(request, copied, source)
    if original["kind"] != "title":
        raise SceneError.at("copied", "only titles have a style: copy that of a title")
    style = original.get("style", {})
    titles = titles_among(request.situation, wanted["layers"], "a style")
    edits = [{"name": "paste-style", "layer": layer, "style": style} for layer in titles]
    return one_or_several(edits, f"Style pasted on {len(edits)} layers")


def _paste_moves(request: EditRequest, wanted: Data, copied: Data, source: Data) -> Data:
    only = copied.get("move")
    moves = _copied_from(request, copied, source).get("moves", [])
    moves = [move for move in moves if not only or move["id"] == only]
    if not moves:
        raise SceneError.at("copied", "there are no moves to paste")
    titles = titles_among(request.situation, wanted["layers"], "moves")
    edits = [{"name": "paste-moves", "layer": layer, "moves": moves} for layer in titles]
    return one_or_several(edits, f"Moves pasted on {len(edits)} layers")


PASTED: dict[str, Callable[[EditRequest, Data, Data, Data], Data]] = {
    "keys": _paste_keys,
    "layers": _paste_layers,
    "style": _paste_style,
    "moves": _paste_moves,
}
